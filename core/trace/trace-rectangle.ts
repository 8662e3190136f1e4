import { polygonContains } from 'd3-polygon';
import { cross2, minus2, type Point2 } from '../shape/vector';
import { tiltOf } from './camera/camera';
import { fitCamera } from './camera/fit-camera';
import { doubtOf, placingsOf } from './doubt';
import { type OnTable, pixelOf, tracedOnTable } from './on-table';
import type { Picture } from './picture';
import { BAR } from './sheet/layout';
import {
  refused,
  type TraceAnswer,
  type TraceProgress,
  type Weigh,
  type Weighed,
  weighed,
} from './trace-plane';

/** Without a sheet: a rectangle of known size in the object's plane, a card or a frame. */
export interface RectangleAsked extends OnTable {
  /** Its corners in the picture, px, in order around it. */
  corners: readonly [Point2, Point2, Point2, Point2];
  /** From the first corner to the second, mm, and from the second to the third. */
  width: number;
  height: number;
  f35: number | null;
}

export interface TracedRectangle extends Weighed {
  tilt: number;
}

/** Uncertainty of the corners that are pressed, px. */
const POINTED = 0.7;
/** The plane is examined this far around the rectangle, in its own lengths. */
const ROUND = 2.5;

export function traceRectangle(
  picture: Picture,
  asked: RectangleAsked,
  progress: TraceProgress = () => {},
): TraceAnswer<TracedRectangle> {
  progress('Looking at the rectangle');
  const { corners, width, height } = asked;
  const [a, b, c, d] = corners;
  const turns = corners.map((p, i) =>
    cross2(minus2(corners[(i + 1) % 4]!, p), minus2(corners[(i + 2) % 4]!, corners[(i + 1) % 4]!)),
  );
  if (!turns.every(t => t > 1) && !turns.every(t => t < -1))
    return refused(
      'bad-rectangle',
      'The four corners must be named one after the other round the rectangle, and be those of one.',
    );
  // In the opposite order, the rectangle is laid upside down: the plane is seen from the same side.
  const hand = turns[0]! > 0 ? 1 : -1;
  const [hx, hy] = [width / 2, (hand * height) / 2];
  const sightings = [
    { printed: [-hx, -hy] as Point2, seen: a },
    { printed: [hx, -hy] as Point2, seen: b },
    { printed: [hx, hy] as Point2, seen: c },
    { printed: [-hx, hy] as Point2, seen: d },
  ];
  // The rectangle gives the scale: nothing stretched it.
  const fit = fitCamera(
    sightings,
    { width: picture.width, height: picture.height, f35: asked.f35, bars: { across: BAR, along: BAR } },
    POINTED,
  );
  if (!fit)
    return refused(
      'bad-rectangle',
      'No camera sees a rectangle of this size like that: check its sizes and corners.',
    );
  const { camera } = fit;
  const answered = tracedOnTable(
    picture,
    camera,
    asked,
    {
      far: ROUND * Math.max(width, height),
      // The rectangle itself.
      isNot: ({ ring }) =>
        polygonContains(
          ring.map(([x, y]): [number, number] => [x, y]),
          [0, 0],
        ),
    },
    progress,
  );
  if (!answered.ok) return answered;
  progress('Weighing doubts');
  const weigh: Weigh = loops =>
    doubtOf(loops, placingsOf(fit, asked.thickness), pixelOf(camera), asked.thickness.height);
  return {
    ok: true,
    traced: { ...weighed(answered.traced, weigh), tilt: tiltOf(camera) },
  };
}
