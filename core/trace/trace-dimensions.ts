import { cross2, distance2, minus2, type Point2, type Point3, unit2 } from '../shape/vector';
import { type Camera, CX, CY, F, K1, NUMBERS, projection, ray, SHIFT, SX, SY, TURN } from './camera/camera';
import { focalLength, SD } from './camera/fit-camera';
import { doubtOf, placingsAbout } from './doubt';
import { type OnTable, pixelOf, tracedOnTable } from './on-table';
import { type Placing, placingBy, shownBy } from './outline';
import type { Picture } from './picture';
import {
  refused,
  type TraceAnswer,
  type TraceProgress,
  type Weigh,
  type Weighed,
  weighed,
} from './trace-plane';

/** A length that was read by caliper, and its two ends in the picture, px. */
export interface KnownLength {
  from: Point2;
  to: Point2;
  /** mm */
  length: number;
}

/** Without a sheet and without a rectangle: from one or two lengths on the upper face, in a picture taken square on. */
export interface DimensionsAsked extends OnTable {
  /** One, or two across each other. */
  lines: readonly KnownLength[];
  f35: number | null;
}

/** Uncertainty of the ends that are pressed, px; and of a caliper's reading, mm. */
const [POINTED, READ] = [0.7, 0.03];
/** A length shorter than this share of the picture tells too little. */
const LEAST = 0.08;
/** Two lengths closer in direction than this count as one direction, degrees. */
const ACROSS = 50;
/** Two that disagree by more are a mistake, or the picture is far off square. */
const MOST_APART = 0.12;
/** How square a phone is held by eye, sd, degrees in each direction. Common practice, no source. */
const SQUARE = 3;
/** The lens, as far as the picture does not show it. */
const BEND = SD.k1 / 2;
const DEGREE = Math.PI / 180;

export function traceDimensions(
  picture: Picture,
  asked: DimensionsAsked,
  progress: TraceProgress = () => {},
): TraceAnswer<Weighed> {
  progress('Looking at the lengths');
  const { lines, f35, thickness } = asked;
  const across = Math.min(picture.width, picture.height);
  if (lines.length === 0 || lines.some(l => distance2(l.from, l.to) < LEAST * across))
    return refused(
      'bad-dimensions',
      'A length that is known must reach over a good part of the picture: press on its two ends.',
    );
  const [one, two] = lines;
  if (two && angleBetween(one!, two) < ACROSS)
    return refused(
      'bad-dimensions',
      'The two lengths go the same way: take one across the other, so that both ways are told.',
    );
  const scales = lines.map(l => l.length / distance2(l.from, l.to));
  if (two && Math.abs(Math.log(scales[0]! / scales[1]!)) > MOST_APART)
    return refused(
      'bad-dimensions',
      'The two lengths contradict each other by more than an eighth: check both, or take the photo from straight above.',
    );
  const how: CameraAsked = { f: focalLength({ ...picture, f35 }), k1: 0, tilt: [0, 0] };
  const height = thickness.height;
  const placed = (h: CameraAsked, known = lines) => cameraOver(picture, known, height, h);
  const place = ({ camera, stretch }: PlacedCamera): Placing =>
    stretchedBy(placingBy(camera, thickness), stretch);
  const still = placed(how);
  const plainly = shownBy(projection(still.camera), thickness);
  const answered = tracedOnTable(
    picture,
    still.camera,
    asked,
    {
      far: Infinity,
      place: place(still),
      shown: (p, contact) => plainly(unstretched(p, still.stretch), contact),
    },
    progress,
  );
  if (!answered.ok) return answered;
  progress('Weighing doubts');
  const longer = lines.map((line, i) => {
    const share = Math.hypot((POINTED * Math.SQRT2) / distance2(line.from, line.to), READ / line.length);
    return lines.map((l, k) => (k === i ? { ...l, length: l.length * (1 + share) } : l));
  });
  const otherwise: PlacedCamera[] = [
    ...longer.map(known => placed(how, known)),
    placed({ ...how, tilt: [SQUARE * DEGREE, 0] }),
    placed({ ...how, tilt: [0, SQUARE * DEGREE] }),
    placed({ ...how, f: how.f * (1 + (f35 === null ? SD.fUnsaid : SD.f)) }),
    placed({ ...how, k1: BEND }),
  ];
  const weigh: Weigh = loops =>
    doubtOf(
      loops,
      [
        ...otherwise.map(place),
        ...placingsAbout(still.camera, thickness).map(p => stretchedBy(p, still.stretch)),
      ],
      pixelOf(still.camera),
      height,
    );
  return { ok: true, traced: weighed(answered.traced, weigh) };
}

const angleBetween = (a: KnownLength, b: KnownLength): number => {
  const [p, q] = [unit2(minus2(a.to, a.from)), unit2(minus2(b.to, b.from))];
  return Math.asin(Math.min(1, Math.abs(cross2(p, q)))) / DEGREE;
};

/** Assumptions about the camera: focal length in px, the lens's distortion, and radians off square. */
interface CameraAsked {
  f: number;
  k1: number;
  tilt: Point2;
}

/** So that the lengths come out as read: by a scale, and where two disagree by a stretch. */
interface PlacedCamera {
  camera: Camera;
  stretch: Stretch;
}

/** [a, b, d] of a symmetric stretch of the plane: x and y become a x + b y and b x + d y. */
type Stretch = readonly [number, number, number];

/** Enough for a tilted camera too: each round leaves a thousandth of the error. */
const ROUNDS = 5;

function cameraOver(
  picture: Picture,
  lines: readonly KnownLength[],
  height: number,
  { f, k1, tilt }: CameraAsked,
): PlacedCamera {
  const camera = new Float64Array(NUMBERS);
  camera[F] = f;
  camera[CX] = (picture.width - 1) / 2;
  camera[CY] = (picture.height - 1) / 2;
  camera[K1] = k1;
  camera[SX] = 1;
  camera[SY] = 1;
  const omega: Point3 = [tilt[0], tilt[1], 0];
  camera.set(omega, TURN);
  // The world's origin is in the middle of the picture: only the scale is left.
  let far = 300;
  let ends: { way: Point2; share: number }[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    camera[SHIFT + 2] = far;
    const back = ray(camera);
    ends = lines.map(({ from, to, length }) => {
      const way = minus2(back(...to, height), back(...from, height));
      return { way: unit2([way[0], -way[1]]), share: length / Math.hypot(...way) };
    });
    const mean = Math.exp(ends.reduce((s, e) => s + Math.log(e.share), 0) / ends.length);
    far = height + (far - height) * mean;
  }
  return { camera, stretch: stretchFor(ends) };
}

/** The least stretch that makes both lengths right, to first order. */
function stretchFor(ends: readonly { way: Point2; share: number }[]): Stretch {
  const [p, q] = ends;
  if (!p || !q) return [1, 0, 1];
  const c2 = (p.way[0] * q.way[0] + p.way[1] * q.way[1]) ** 2;
  const [r, s] = [p.share - 1, q.share - 1];
  const [k, l] = [(r - c2 * s) / (1 - c2 * c2), (s - c2 * r) / (1 - c2 * c2)];
  const both = (f: (w: Point2) => number) => k * f(p.way) + l * f(q.way);
  return [1 + both(w => w[0] * w[0]), both(w => w[0] * w[1]), 1 + both(w => w[1] * w[1])];
}

const stretchedBy =
  (place: Placing, [a, b, d]: Stretch): Placing =>
  (edges, contacts) =>
    place(edges, contacts).map(([x, y]): Point2 => [a * x + b * y, b * x + d * y]);

function unstretched([x, y]: Point2, [a, b, d]: Stretch): Point2 {
  const whole = a * d - b * b;
  return [(d * x - b * y) / whole, (a * y - b * x) / whole];
}
