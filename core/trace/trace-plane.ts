import { polygonCentroid } from 'd3-polygon';
import type { Point2 } from '../shape/vector';
import type { Contact } from './contact';
import type { Doubt } from './doubt';
import { EdgeFinder, type EdgePoint } from './find/edge-points';
import { flattened, type Seen } from './find/flattened';
import { shadowWithin } from './find/shadow';
import { sheetLight } from './find/sheet-light';
import { type DrawnOver, darkness, silhouetteOf, type Thing } from './find/silhouette';
import { circleOf, loopOf, type Placing, type TracedLoop, type Turning } from './outline';
import type { Picture } from './picture';
import type { Middle } from './sheet/layout';

/** A plane with an object on it, as a picture shows it. Lengths mm, x to the right and y down. */
export interface Plane {
  seen: Seen;
  /** The area examined: minimum x and y, then maximum. */
  box: readonly [number, number, number, number];
  /** Whether the bare plane is lighter or darker than the object. */
  middle: Middle;
  contacts(points: readonly (EdgePoint | null)[]): (Contact | null)[];
  place: Placing;
  /** y down to y up, as `place` does. */
  turned: Turning;
  /** Where a place of the outline appears, px. */
  shown: Shown;
  /** How far the object stands up from it. */
  height: number;
}

export interface PlaneAsked {
  /** A place on the object, where there are several things. */
  inside: Point2 | null;
  /** How far edges may scatter about a line. */
  tolerance: number;
  drawn?: readonly DrawnOver[];
  /** What is certainly not meant, unless it is pointed at. */
  isNot?(thing: Thing): boolean;
}

export type Shown = (place: Point2, contact: Contact) => Point2;

/** The visible object: from above, y up. */
export interface TracedPlane {
  shown: Shown;
  place: Placing;
  /** The outer line first. */
  loops: readonly TracedLoop[];
  /** Blur, px. */
  sigma: number;
  /**
   * Holes whose edge is not visible: centres, and apparent sizes, 0 where not even that shows. To be read by caliper.
   */
  unseen: { at: Point2; diameter: number }[];
  /** Whether lines and arcs describe what was seen. */
  clean: boolean;
  /** Share of its outer line where a hard shadow was taken for a part of it. */
  inShadow: number;
}

/** Its sizes with their uncertainty, also with corrected lines and arcs. */
export type Weigh = (loops: readonly TracedLoop[]) => Doubt;
export interface Weighed extends TracedPlane {
  doubt: Doubt;
  weigh: Weigh;
}

export const weighed = (traced: TracedPlane, weigh: Weigh): Weighed => ({
  ...traced,
  doubt: weigh(traced.loops),
  weigh,
});

export type Refusal = { ok: false; code: string; message: string };
export type TraceAnswer<T> = { ok: true; traced: T } | Refusal;
export type TraceProgress = (step: string) => void;

export const refused = (code: string, message: string): Refusal => ({ ok: false, code, message });

/** Sampling of the plane, mm. */
const FLAT = 0.25;
/** A thing nearly as large as the largest: then it is unclear which is meant. */
const AS_LARGE = 0.5;
/** A hole deeper than this share of its width hides its edge. */
const TOO_DEEP = 1;
/** Blur, px, beyond which edges are guesses. */
const MOST_BLUR = 2.2;
/** The share of the outer line that may come from a hard shadow: on simulated photos in soft light 0.19 at most. */
const MOST_SHADOW = 0.25;
/** The share of a line that its pieces must cover with little scatter, mm, to be clean; and how many there may be. */
const [CLEAN_SHARE, CLEAN_RMS, MOST_PIECES, CLEAN_SEEN] = [0.93, 0.05, 16, 0.8];

export function tracePlane(
  picture: Picture,
  plane: Plane,
  { inside, tolerance, drawn, isNot }: PlaneAsked,
  progress: TraceProgress,
): TraceAnswer<TracedPlane> {
  progress('Looking for the object');
  const flat = flattened(picture, plane.seen, plane.box, FLAT);
  const sheet = sheetLight(flat, plane.middle);
  if (!sheet)
    return refused(
      'no-bare-sheet',
      'Too little of the ground is bare and even: its light cannot be told from the object. Lay one object in the middle, and light it from all sides.',
    );
  const shape = silhouetteOf(flat, darkness(flat, sheet, plane.middle), inside, drawn, isNot);
  if (!shape)
    return inside
      ? refused('nothing-there', 'There is no object at that place of the picture: name a pixel on it.')
      : refused(
          'no-object',
          'No object shows. Lay it in the blank middle; a white or shiny one on the sheet with the dark middle.',
        );
  if (shape.cut)
    return refused(
      'cut-off',
      'The object, or its shadow, reaches beyond the blank middle: move it, or take a smaller piece of it.',
    );
  if (!inside && shape.beside > AS_LARGE * shape.area)
    return refused(
      'several-objects',
      'Several things lie there: say which is meant by a pixel on it, or lay one there alone.',
    );
  progress('Finding its edges');
  const finder = new EdgeFinder(picture, plane.seen, sheet, shape.tone, middleOf(shape.outer));
  const outer = finder.refined(shape.outer, 'within', null);
  if (outer.sigma > MOST_BLUR)
    return refused(
      'blurred',
      'The picture is blurred: hold the phone still, tap on the object to focus, and use more light.',
    );
  progress('Laying lines and arcs');
  const loop = (hole: boolean, points: typeof outer.points) =>
    loopOf(hole, points, plane.contacts(points), plane.place, plane.turned, tolerance);
  const outline = loop(false, outer.points);
  if (!outline)
    return refused(
      'no-edge',
      'The object shows no clear edge: give it more contrast to the ground, and light from all sides. A white or shiny one goes on the dark middle.',
    );
  // A flat thing throws no shadow, and on a dark sheet none is visible.
  const inShadow =
    plane.height > 0 && plane.middle === 'white'
      ? shadowWithin(outer.points, plane.contacts(outer.points), flat, sheet, shape.tone)
      : 0;
  if (inShadow > MOST_SHADOW && !drawn?.length)
    return refused(
      'shadow',
      'A hard shadow lies along the object and looks like a part of it: light it from all sides, by the window or with two lamps, without flash. Or draw over the shadow what is not the object.',
    );
  const loops = [outline];
  const unseen: TracedPlane['unseen'] = [];
  for (const hole of shape.holes) {
    const found = loop(true, finder.refined(hole, 'round', outer.sigma).points);
    const width = (found && circleOf(found.curves)?.diameter) ?? widthOf(hole);
    if (found && plane.height <= TOO_DEEP * width) loops.push(found);
    else unseen.push({ at: plane.turned(middleOf(hole)), diameter: width });
  }
  for (const at of shape.unclear) unseen.push({ at: plane.turned(at), diameter: 0 });
  return {
    ok: true,
    traced: {
      shown: plane.shown,
      place: plane.place,
      loops,
      sigma: outer.sigma,
      unseen,
      clean: isCleanAll(loops),
      inShadow,
    },
  };
}

/** Whether lines and arcs describe what was seen. */
export const isCleanAll = (loops: readonly TracedLoop[]): boolean => loops.every(isClean);

function isClean({ parted: { points, pieces }, rms, seen }: TracedLoop): boolean {
  if (seen < CLEAN_SEEN) return false;
  if (pieces === 'circle') return rms[0]! < CLEAN_RMS;
  const sure = pieces.reduce((s, p, i) => s + (rms[i]! < CLEAN_RMS ? p.to - p.from : 0), 0);
  return pieces.length <= MOST_PIECES && sure > CLEAN_SHARE * (points.length - 1);
}

const middleOf = (ring: readonly Point2[]): Point2 =>
  polygonCentroid(ring.map(([x, y]): [number, number] => [x, y]));

/** Least extent of the two ways. */
function widthOf(ring: readonly Point2[]): number {
  const extent = (k: 0 | 1) => Math.max(...ring.map(p => p[k])) - Math.min(...ring.map(p => p[k]));
  return Math.min(extent(0), extent(1));
}
