import type { Point2 } from '../shape/vector';
import { doubtOf } from './doubt';
import type { EdgePoint } from './find/edge-points';
import { type Placing, upwards } from './outline';
import type { Picture } from './picture';
import { type DrawnStroke, strokesOn } from './strokes';
import {
  refused,
  type TraceAnswer,
  type TraceProgress,
  tracePlane,
  type Weigh,
  type Weighed,
  weighed,
} from './trace-plane';

export interface FlatbedAsked {
  /** Pixels per inch in each direction, from the file. */
  dpi: { x: number; y: number };
  /** True size over the size in the file, across and along the picture, each from one caliper reading; null unread. */
  known: { x: number; y: number } | null;
  inside: Point2 | null;
  tolerance: number;
  /** A scanner sees the face that lies on the glass; seen from above, the object is the mirror image. */
  from: 'above' | 'glass';
  strokes?: readonly DrawnStroke[];
}

const INCH = 25.4;
/** The lid's edge is left out, mm. */
const INSET = 1;
/** sd of a scanner's scale in each direction: unread, and read by caliper. Tried on simulated scanners. */
const [UNREAD, READ] = [0.003, 0.0005];
/** sd of its skew, radians; two readings say nothing about that. */
const SKEW = 0.001;

export function traceFlatbed(
  picture: Picture,
  { dpi, known, inside, tolerance, from, strokes = [] }: FlatbedAsked,
  progress: TraceProgress = () => {},
): TraceAnswer<Weighed> {
  const [kx, ky] = [known?.x ?? 1, known?.y ?? 1];
  // Millimetres per pixel.
  const [mx, my] = [(INCH / dpi.x) * kx, (INCH / dpi.y) * ky];
  const [wide, tall] = [(picture.width - 1) * mx, (picture.height - 1) * my];
  if (Math.min(wide, tall) < 6 * INSET)
    return refused(
      'too-small',
      `At this resolution the picture is ${wide.toFixed(1)} × ${tall.toFixed(1)} mm: check the pixels per inch.`,
    );
  const hand = from === 'above' ? -1 : 1;
  const turned = ([x, y]: Point2): Point2 => upwards([hand * x, y]);
  const placing =
    (sx = 1, sy = 1, skew = 0): Placing =>
    edges =>
      edges.map(({ at: [x, y] }) => turned([sx * x + skew * y, sy * y]));
  const answered = tracePlane(
    picture,
    {
      seen: (x, y) => [x / mx, y / my],
      box: [INSET, INSET, wide - INSET, tall - INSET],
      middle: 'white',
      // It lies on the glass: nothing stands up towards the lamp.
      contacts: (points: readonly (EdgePoint | null)[]) => points.map(p => p && 'foot'),
      place: placing(),
      height: 0,
      turned,
      // Turned twice it is as before: one of the two directions is mirrored, or both.
      shown: place => {
        const [x, y] = turned(place);
        return [x / mx, y / my];
      },
    },
    {
      inside: inside && [inside[0] * mx, inside[1] * my],
      tolerance,
      drawn: strokesOn(strokes, (u, v) => [u * mx, v * my]),
    },
    progress,
  );
  if (!answered.ok) return answered;
  progress('Weighing doubts');
  const sd = known ? READ : UNREAD;
  const weigh: Weigh = loops =>
    doubtOf(loops, [placing(1 + sd), placing(1, 1 + sd), placing(1, 1, SKEW)], (mx + my) / 2, 0);
  return { ok: true, traced: weighed(answered.traced, weigh) };
}
