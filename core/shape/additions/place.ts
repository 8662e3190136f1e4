import { boundsOf, facing, type TriangleMesh } from '../mesh/mesh';
import { rayTreeOf } from '../mesh/rays';
import type { Frame, Point3 } from '../vector';
import { cross, dot, point3 } from '../vector';
import { AdditionGone } from './addition';

/**
 * The place of an addition, in words: “top”, “left”, “top at 5”, “plane top at 5”, “0.5, 0, 0.87 at 12”. A face is
 * named by its direction and its distance along that direction, so that it is found again when sizes change.
 */
export interface Place {
  /** The direction that it faces, unit length. */
  up: Point3;
  /** Its distance along that direction, mm; null for the outermost face. */
  at: number | null;
  /** A plane needs no face there. */
  plane: boolean;
  /**
   * The earlier addition whose face it shares, as that face was then: what that addition put there is not a new top.
   */
  like?: string;
}

export const DIRECTIONS: Readonly<Record<string, Point3>> = {
  top: [0, 0, 1],
  underside: [0, 0, -1],
  right: [1, 0, 0],
  left: [-1, 0, 0],
  back: [0, 1, 0],
  front: [0, -1, 0],
};

/** A face this near to its named place is still the same, mm. */
const SAME_FACE = 0.6;
/** Smaller faces do not count, mm². */
const SMALLEST_FACE = 0.8;

/** The text is not a place; the message is for the maker. */
export class PlaceError extends Error {
  override name = 'PlaceError';
}

const HOW =
  'Write where it sits: top, underside, left, right, front or back; “top at 5” for a face further in; “plane top at 5” where there is none; or the way it looks, “1, 0, 1”.';

/** Whether it is a plane, its direction, its distance, and the addition whose face it shares. */
export const PLACE = /^\s*(plane\s+)?(.*?)(?:\s+at\s+(.+?))?(?:\s+like\s+([a-z]+\d+))?\s*$/i;

/** @param value evaluates a number in it @throws PlaceError */
export function readPlace(text: string, value: (written: string) => number = Number): Place {
  const [, plane, where = '', at, like] = PLACE.exec(text) ?? ([] as (string | undefined)[]);
  const named = DIRECTIONS[where.toLowerCase()];
  const numbers = where.split(',').map(s => s.trim());
  const read = (written: string): number => {
    const number = value(written);
    if (!Number.isFinite(number)) throw new PlaceError(`“${written}” is not a number. ${HOW}`);
    return number;
  };
  let up = named;
  if (!up) {
    if (numbers.length !== 3 || numbers.some(s => s === '')) throw new PlaceError(HOW);
    const way = numbers.map(read) as [number, number, number];
    const long = Math.hypot(...way);
    if (long < 1e-6)
      throw new PlaceError('A face has to look some way: one of the three numbers must not be 0.');
    up = [way[0] / long, way[1] / long, way[2] / long];
  }
  if (plane && at === undefined) throw new PlaceError('Say where the plane lies: “plane top at 5”.');
  return {
    up,
    at: at === undefined ? null : read(at),
    plane: plane !== undefined,
    ...(like === undefined ? {} : { like }),
  };
}

/** The same text with its numbers worked out. */
export const resolvedPlace = (text: string, value: (written: string) => number): string =>
  placeText(readPlace(text, value));

/** The same face for the other side of the part: left and right are swapped. */
export const mirroredPlace = ({ up, at, plane }: Omit<Place, 'like'>): Place => ({
  up: [-up[0] || 0, up[1], up[2]],
  // Along x it is a coordinate, which changes sign; otherwise a distance along its direction, which stays.
  at: at !== null && Math.abs(up[0]) > 0.9999 ? -at || 0 : at,
  plane,
});

/** In the form that can be read again. */
export function placeText({ up, at, plane, like }: Place): string {
  const word = Object.keys(DIRECTIONS).find(k => DIRECTIONS[k]!.every((x, i) => Math.abs(x - up[i]!) < 1e-9));
  const way = word ?? up.map(x => Number(x.toFixed(6))).join(', ');
  return `${plane ? 'plane ' : ''}${way}${at === null ? '' : ` at ${Number(at.toFixed(4))}`}${like ? ` like ${like}` : ''}`;
}

/** For the middle of a sentence. */
export function placeInWords({ up, at, plane, like }: Place): string {
  const word = Object.keys(DIRECTIONS).find(k => DIRECTIONS[k]!.every((x, i) => x === up[i]));
  const way = word ? `the ${word}` : `the face looking along ${up.map(x => Number(x.toFixed(2))).join(', ')}`;
  return `${plane ? 'a plane of ' : ''}${way}${at === null ? '' : ` at ${Number(at.toFixed(2))} mm`}${like ? `, the one that ${like} is on` : ''}`;
}

/** A flat of the finished part. */
export interface Flat {
  up: Point3;
  /** Distance from the origin along `up`. */
  offset: number;
  area: number;
  /** Its centre, on the face. */
  middle: Point3;
  /** Its width and height in its frame's directions. */
  size: [number, number];
}

/** The position of a flat along its direction, in the words of a place. */
export const placedAt = ({ up, offset }: Pick<Flat, 'up' | 'offset'>): number => offset * sense(up);

/** “left at −12” means x = −12: along an axis of the part, “at” is its coordinate. */
const sense = (up: Point3): number => (alongAxis(up) && up.some(u => u < -0.5) ? -1 : 1);
const alongAxis = (up: Point3) => up.filter(u => Math.abs(u) > 1e-9).length === 1;

/** Flats that face one direction, the outermost first. */
export function flatsFacing(mesh: TriangleMesh, up: Point3): Flat[] {
  const { x, y } = frameDirections(up);
  const { positions: p, triangles } = mesh;
  const found = new Map<number, { area: number; box: [number, number, number, number]; sum: number }>();
  for (let t = 0; t < triangles.length / 3; t++) {
    const n = facing(mesh, t);
    const twice = Math.hypot(...n);
    if (dot(n, up) < 0.9999 * twice || twice < 1e-9) continue;
    const corners = [0, 1, 2].map(c => {
      const v = 3 * triangles[3 * t + c]!;
      return [p[v]!, p[v + 1]!, p[v + 2]!] as Point3;
    });
    const offset = dot(corners[0]!, up);
    const key = Math.round(offset / 0.01);
    const near = [key, key - 1, key + 1].find(k => found.has(k)) ?? key;
    const flat = found.get(near) ?? { area: 0, box: [Infinity, Infinity, -Infinity, -Infinity], sum: 0 };
    for (const c of corners) {
      const [a, b] = [dot(c, x), dot(c, y)];
      flat.box = [
        Math.min(flat.box[0], a),
        Math.min(flat.box[1], b),
        Math.max(flat.box[2], a),
        Math.max(flat.box[3], b),
      ];
    }
    flat.area += twice / 2;
    flat.sum += (offset * twice) / 2;
    found.set(near, flat);
  }
  return [...found.values()]
    .filter(f => f.area >= SMALLEST_FACE)
    .map(({ area, box, sum }): Flat => {
      const offset = sum / area;
      const [a, b] = [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2];
      const middle = point3(i => a * x[i] + b * y[i] + offset * up[i]);
      return { up, offset, area, middle, size: [box[2] - box[0], box[3] - box[1]] };
    })
    .sort((a, b) => b.offset - a.offset);
}

/** A face's own directions: across, and up along it; seen from outside, x points right. */
export function frameDirections(up: Point3): { x: Point3; y: Point3 } {
  const flat = Math.hypot(up[0], up[1]);
  // Horizontal faces keep the bed's x; upright faces have the bed's z as their second direction.
  const x: Point3 = flat < 1e-6 ? [1, 0, 0] : [-up[1] / flat || 0, up[0] / flat || 0, 0];
  const y: Point3 = [up[1] * x[2] - up[2] * x[1], up[2] * x[0] - up[0] * x[2], up[0] * x[1] - up[1] * x[0]];
  return { x, y };
}

export interface Seat {
  frame: Frame;
  /** Whether it is on a flat face of the part; otherwise it is a plane that touches or cuts the part. */
  flat: Flat | null;
}

/**
 * The frame in which an addition is drawn: its origin in the middle of the face.
 * @param from 'part': the part's origin, projected onto the face; 'middle': a chamfer or rounding along an edge of the
 * face counts as part of the face
 * @throws AdditionGone where there is no such face
 */
export function seatOf(
  mesh: TriangleMesh,
  place: Place,
  from: 'face' | 'middle' | 'part',
  parameter = 'place',
): Seat {
  const { up, at, plane } = place;
  const { x } = frameDirections(up);
  const { min, max } = boundsOf(mesh);
  const flats = flatsFacing(mesh, up);
  const asked = at === null ? null : at * sense(up);
  const corner = point3(i => (up[i] > 0 ? max[i] : min[i]));
  // For a slanting direction the box's corner may lie beyond the part: then the part's own farthest point counts.
  const outermost = alongAxis(up) ? dot(corner, up) : farthest(mesh, up);
  const on = (offset: number): Frame => {
    const middle = point3(i => (min[i] + max[i]) / 2);
    const centre: Point3 = from === 'part' ? [0, 0, 0] : middle;
    const rise = offset - dot(centre, up);
    return { at: point3(i => centre[i] + rise * up[i]), x, up };
  };
  if (plane) return { frame: on(asked!), flat: null };
  const flat =
    asked === null
      ? flats.find(f => Math.abs(f.offset - outermost) < 0.05)
      : [...flats].sort((a, b) => Math.abs(a.offset - asked) - Math.abs(b.offset - asked))[0];
  if (asked === null && !flat) return { frame: on(outermost), flat: null };
  if (!flat || (asked !== null && Math.abs(flat.offset - asked) > SAME_FACE)) {
    const others = flats.slice(0, 4).map(f => Number((f.offset * sense(up)).toFixed(2)));
    const words = others.length > 0 ? ` There are faces at ${others.join(', ')} mm.` : '';
    const nearest = flat && Number((flat.offset * sense(up)).toFixed(2));
    throw new AdditionGone(
      `It sits on ${placeInWords(place)}, and the part has no such face any more.${words}`,
      parameter,
      nearest === undefined
        ? undefined
        : {
            label: `Put it on the face at ${nearest} mm`,
            text: resolvedPlace(`${directionText(up)} at ${nearest}`, Number),
          },
    );
  }
  if (from === 'part') return { frame: on(flat.offset), flat };
  const middle = from === 'middle' ? middleWithEdges(mesh, flat) : flat.middle;
  return { frame: { at: middle, x, up }, flat };
}

/** Wider than this, a bevel is not a chamfered edge, mm. Common practice, no source. */
const TAKEN_OFF = 3;

/** The middle of a flat including the chamfers on its edges. */
function middleWithEdges(mesh: TriangleMesh, { up, middle, size }: Flat): Point3 {
  const { x, y } = frameDirections(up);
  const tree = rayTreeOf(mesh);
  const inward = point3(i => -up[i]);
  /** The width of the chamfer on one side. */
  const edge = (along: Point3, half: number, sign: 1 | -1): number => {
    let wide = 0;
    for (let out = TAKEN_OFF / 20; out <= TAKEN_OFF; out += TAKEN_OFF / 20) {
      const from = point3(i => middle[i] + sign * (half + out) * along[i] + 0.01 * up[i]);
      const hit = tree.firstHit(from, inward);
      if (!hit || hit.distance > out + 0.2) break;
      const n = facing(mesh, hit.triangle);
      const tilt = dot(n, up) / Math.hypot(...n);
      // Level again: a step, not an edge.
      if (tilt > 0.98 || tilt < 0.2) return 0;
      wide = out;
    }
    return wide;
  };
  const shift = (along: Point3, width: number) =>
    (edge(along, width / 2, 1) - edge(along, width / 2, -1)) / 2;
  const [right, back] = [shift(x, size[0]), shift(y, size[1])];
  return point3(i => middle[i] + right * x[i] + back * y[i]);
}

const directionText = (up: Point3) => up.join(', ');

function farthest(mesh: TriangleMesh, up: Point3): number {
  let most = -Infinity;
  const { positions: p } = mesh;
  for (let i = 0; i < p.length; i += 3)
    most = Math.max(most, p[i]! * up[0] + p[i + 1]! * up[1] + p[i + 2]! * up[2]);
  return most;
}

/** Elsewhere on the same face: moved, turned about its normal, then tilted backwards. Degrees. */
export function onSeat(
  { at, x, up }: Frame,
  [right, back]: readonly [number, number],
  turn: number,
  lean = 0,
): Frame {
  const y = cross(up, x);
  const a = (turn * Math.PI) / 180;
  const b = (lean * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  const along = point3(i => c * x[i] + s * y[i]);
  const behind = cross(up, along);
  return {
    at: point3(i => at[i] + right * x[i] + back * y[i]),
    x: along,
    up: point3(i => Math.cos(b) * up[i] + Math.sin(b) * behind[i]),
  };
}
