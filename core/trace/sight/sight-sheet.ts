import { distance2, type Point2 } from '../../shape/vector';
import { type Camera, printedAt, projection } from '../camera/camera';
import { type CameraFit, type CameraPrior, fitCamera, type Sighting } from '../camera/fit-camera';
import { homographyOf, through } from '../camera/homography';
import { greyOf, type Picture, reduced } from '../picture';
import { newDetector } from '../sheet/dictionary';
import { MARKER, type Paper, SHEETS, SQUARE } from '../sheet/layout';
import { cornerNear } from './corners';

/** The sheet in a picture: its markers, its corners, and the camera that fits them. */
export interface Sighted extends CameraFit {
  paper: Paper;
  markers: number;
  /** Corners that were found; `used` of them agree. */
  found: number;
  /** Pixels per millimetre in the middle of the sheet. */
  scale: number;
}

export type SightAnswer = { ok: true; sighted: Sighted } | { ok: false; code: string; message: string };

/**
 * Pictures are searched for markers at about this length, px: smaller markers do not show, larger pictures take long.
 */
const LOOKED = 1600;
/** The fewest markers, and corners, for measuring. */
const [LEAST_MARKERS, LEAST_CORNERS] = [12, 24];
/** The window a corner is found in, as a share of a square, and in px. */
const [WINDOW, MOST_WINDOW, LEAST_WINDOW] = [0.13, 10, 3];
/** And the fewest corners on each of the four sides: otherwise the camera is a guess. */
const LEAST_ON_SIDE = 4;
/** Share of the markers that must be placed as on the sheet. */
const AGREEING = 0.85;
const NO_SHEET = {
  ok: false,
  code: 'no-sheet',
  message:
    'The reference sheet does not show: its squares must be in the picture, sharp, and on all sides of the object. Print it, lay the object in its middle, and take the whole sheet.',
} as const;

/** @param paper which sheet was printed */
export function sightSheet(
  picture: Picture,
  paper: Paper,
  prior: Omit<CameraPrior, 'width' | 'height'>,
): SightAnswer {
  const { width, height } = picture;
  const layout = SHEETS[paper];
  const markers = markersIn(picture).filter(m => m.id < layout.markers.length);
  if (markers.length < LEAST_MARKERS) return NO_SHEET;
  const places = new Map(layout.markers.map(m => [m.id, m.at]));
  const half = MARKER / 2;
  const rough: Sighting[] = markers.flatMap(({ id, corners }) => {
    const [x, y] = places.get(id)!;
    return corners.map((seen, k) => ({
      printed: [x + (k === 0 || k === 3 ? -half : half), y + (k < 2 ? -half : half)] as Point2,
      seen,
    }));
  });
  const asked = { ...prior, width, height };
  // A misread marker is in the wrong place: the position that most of them agree on is the sheet.
  const agreed = agreeing(rough);
  if (agreed.length < AGREEING * rough.length)
    return {
      ok: false,
      code: 'other-sheet',
      message: `The squares do not lie as on the ${paper === 'a4' ? 'A4' : 'Letter'} sheet: say which one was printed, and show only one.`,
    };
  const start = fitCamera(agreed, asked);
  if (!start) return NO_SHEET;
  const grey = greyOf(picture);
  let fit = start;
  let sightings: Sighting[] = [];
  // Twice: starting from the markers, a corner's window may be a pixel or two off.
  for (let round = 0; round < 2; round++) {
    const project = projection(fit.camera);
    sightings = layout.corners.flatMap(printed => {
      const at = project(...printedAt(fit.camera, printed), 0);
      const window = windowAt(fit.camera, printed);
      if (!(window >= LEAST_WINDOW)) return [];
      const seen = cornerNear(grey, width, at, Math.round(window));
      return seen ? [{ printed, seen }] : [];
    });
    const next = sightings.length >= LEAST_CORNERS ? fitCamera(sightings, asked) : null;
    if (!next) return NO_SHEET;
    fit = next;
  }
  if (!layout.sides.every(side => sightings.filter(s => side(s.printed)).length >= LEAST_ON_SIDE))
    return {
      ok: false,
      code: 'sheet-cut',
      message:
        'A side of the sheet’s squares does not show: take the whole sheet, with nothing lying on the squares.',
    };
  const middle = projection(fit.camera);
  return {
    ok: true,
    sighted: {
      ...fit,
      paper,
      markers: markers.length,
      found: sightings.length,
      scale: distance2(middle(-5, 0, 0), middle(5, 0, 0)) / 10,
    },
  };
}

/** Half of the window for a corner, px: well within its four squares, and off their markers. */
function windowAt(camera: Camera, [x, y]: Point2): number {
  const project = projection(camera);
  const spread = [
    distance2(project(x - SQUARE / 2, y, 0), project(x + SQUARE / 2, y, 0)),
    distance2(project(x, y - SQUARE / 2, 0), project(x, y + SQUARE / 2, 0)),
  ];
  return Math.min(MOST_WINDOW, WINDOW * Math.min(...spread));
}

function markersIn(picture: Picture): { id: number; corners: Point2[] }[] {
  const by = Math.max(1, Math.round(Math.max(picture.width, picture.height) / LOOKED));
  const small = by > 1 ? reduced(picture, by) : picture;
  const { width, height, data } = small;
  const found = newDetector().detect({ width, height, data: Uint8ClampedArray.from(data) });
  const seen = new Map<number, Point2[] | null>();
  for (const { id, corners } of found) {
    // The middle of a block of pixels.
    const full = corners.map(({ x, y }): Point2 => [x * by + (by - 1) / 2, y * by + (by - 1) / 2]);
    // A marker that appears twice is doubtful both times.
    seen.set(id, seen.has(id) ? null : full);
  }
  return [...seen].flatMap(([id, corners]) => (corners ? [{ id, corners }] : []));
}

/** Markers that agree on a plane: tried from threes of markers, as RANSAC does (Fischler and Bolles 1981). */
function agreeing(sightings: readonly Sighting[]): Sighting[] {
  const markers = Array.from({ length: sightings.length / 4 }, (_, i) => sightings.slice(4 * i, 4 * i + 4));
  const size = Math.max(...sightings.map(s => s.seen[0]), ...sightings.map(s => s.seen[1]));
  let best: Sighting[] = [];
  const step = Math.max(1, Math.floor(markers.length / 3));
  for (let i = 0; i < Math.min(markers.length, 40); i++) {
    const three = [0, 1, 2].flatMap(k => markers[(i + k * step) % markers.length]!);
    const h = homographyOf(three.map(s => [s.printed, s.seen]));
    // A lens bends lines by about a percent.
    const kept = sightings.filter(s => distance2(through(h, s.printed), s.seen) < 0.012 * size);
    if (kept.length > best.length) best = kept;
    if (best.length > 0.95 * sightings.length) break;
  }
  return best;
}
