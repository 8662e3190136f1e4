import { arcsAlong } from './biarc';
import { curvesOf, outlineOfCurves, pointAt } from './curve';
import type { Outline } from './kernels/kernel';
import { circle, rectangle } from './outline';
import type { Point2 } from './vector';
import { unit2 } from './vector';

/**
 * The cross-section of a tube, a rim or a duct that is not round. About the origin; its outline of lines and arcs runs
 * counter-clockwise and can be offset evenly (offset.ts). mm
 */

/**
 * Corners of a rounded rectangle are never sharper than this: sharp corners would stay sharp when offset, round ones do
 * not.
 */
export const SHARPEST = 0.05;
/** Smooth arcs, within this of the true ellipse, finer than any caliper reads. */
const ELLIPSE = 0.005;

export const roundedRectangle = (width: number, depth: number, corner: number): Outline =>
  rectangle(
    -width / 2,
    -depth / 2,
    width / 2,
    depth / 2,
    Math.max(SHARPEST, Math.min(corner, width / 2 - 0.01, depth / 2 - 0.01)),
  );

export const ellipse = (width: number, depth: number): Outline =>
  outlineOfCurves(
    arcsAlong(
      {
        at: t => [(width / 2) * Math.cos(2 * Math.PI * t), (depth / 2) * Math.sin(2 * Math.PI * t)],
        heading: t =>
          unit2([(-width / 2) * Math.sin(2 * Math.PI * t), (depth / 2) * Math.cos(2 * Math.PI * t)]),
      },
      ELLIPSE,
    ),
  );

/**
 * A circle with as many arcs as a rounded rectangle has edges, starting at the same place: walls go from one to the
 * other.
 */
export function circleLikeRectangle(diameter: number): Outline {
  const r = diameter / 2;
  const on = (turns: number): Point2 => [
    r * Math.cos(2 * Math.PI * turns),
    r * Math.sin(2 * Math.PI * turns),
  ];
  // A rectangle's first edge runs along its lower side, to the right: a sixteenth left and right of straight down.
  const whole = curvesOf(circle([0, 0], r))[0]!.arc!;
  const arcs = Array.from({ length: 8 }, (_, i) => {
    const at = 0.75 - 1 / 16 + i / 8;
    return { from: on(at), to: on(at + 1 / 8), arc: { ...whole, turn: 1 as const } };
  });
  return outlineOfCurves(arcs);
}

/** The same outline elsewhere. */
export const shifted = (outline: Outline, [dx, dy]: Point2): Outline => {
  const put = ([x, y]: Point2): Point2 => [x + dx, y + dy];
  return {
    start: put(outline.start),
    edges: outline.edges.map(({ to, via }) => (via ? { to: put(to), via: put(via) } : { to: put(to) })),
  };
};

/** The midpoints of its edges: how far two outlines with the same number of edges are apart, edge by edge. */
export const widestStep = (a: Outline, b: Outline): number => {
  const [p, q] = [curvesOf(a), curvesOf(b)];
  return Math.max(
    ...p.flatMap((c, i) =>
      [0, 0.5].map(share => {
        const [u, v] = [pointAt(c, share), pointAt(q[i]!, share)];
        return Math.hypot(u[0] - v[0], u[1] - v[1]);
      }),
    ),
  );
};
