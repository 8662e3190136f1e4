import { distance2, type Point2 } from '../shape/vector';
import type { DrawnOver } from './find/silhouette';

/** A stroke over the picture, px. */
export interface DrawnStroke {
  object: boolean;
  at: readonly Point2[];
  wide: number;
}

/** Strokes in places of the plane. @param back from a pixel to the plane, mm */
export const strokesOn = (
  strokes: readonly DrawnStroke[],
  back: (u: number, v: number) => Point2,
): DrawnOver[] =>
  strokes.map(({ object, at, wide }) => {
    const places = at.map(([u, v]) => back(u, v));
    const [u, v] = at[0]!;
    return { object, at: places, radius: distance2(places[0]!, back(u + wide / 2, v)) };
  });
