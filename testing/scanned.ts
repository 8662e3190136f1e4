import { gauss, seeded } from '../core/bench/random';
import { type TriangleMesh, weld } from '../core/shape/mesh/mesh';

/**
 * Surfaces as a handheld scanner returns them: corners every half millimetre, scattered, warped, partly seen. Lengths
 * mm.
 */

export interface Seen {
  /** Scatter along the normal, sd. */
  noise?: number;
  /** Height of a smooth warp. */
  warp?: number;
  /** How far round it was seen, degrees. */
  arc?: number;
  /** Seen from inside. */
  inside?: boolean;
  seed?: number;
}

const SPACING = 0.5;

/** A grid bent onto a surface. @param at its point and unit normal for two shares of 0 to 1 */
function grid(
  across: number,
  along: number,
  at: (u: number, v: number) => { p: number[]; n: number[] },
  { noise = 0.05, warp = 0.05, inside = false, seed = 1 }: Seen,
): TriangleMesh {
  const random = seeded(seed);
  const [nu, nv] = [Math.max(4, Math.round(across / SPACING)), Math.max(4, Math.round(along / SPACING))];
  const phase = [random(), random(), random()].map(x => 2 * Math.PI * x);
  const positions: number[] = [];
  for (let j = 0; j <= nv; j++)
    for (let i = 0; i <= nu; i++) {
      const [u, v] = [i / nu, j / nv];
      const { p, n } = at(u, v);
      const bent =
        warp *
        0.6 *
        (Math.sin(2 * Math.PI * u + phase[0]!) +
          0.5 * Math.sin(4 * Math.PI * u + Math.PI * v + phase[1]!) +
          0.5 * Math.sin(Math.PI * v + phase[2]!));
      const off = gauss(random, bent, noise);
      positions.push(p[0]! + off * n[0]!, p[1]! + off * n[1]!, p[2]! + off * n[2]!);
    }
  const triangles: number[] = [];
  for (let j = 0; j < nv; j++)
    for (let i = 0; i < nu; i++) {
      const a = j * (nu + 1) + i;
      const [b, c, d] = [a + 1, a + nu + 1, a + nu + 2];
      triangles.push(...(inside ? [a, d, b, a, c, d] : [a, b, d, a, d, c]));
    }
  return weld(positions, triangles);
}

const turn = (degrees: number, u: number) => ((u - 0.5) * degrees * Math.PI) / 180;

export const scannedCone = (large: number, small: number, height: number, seen: Seen = {}): TriangleMesh => {
  const arc = seen.arc ?? 262;
  const lean = Math.atan((large - small) / 2 / height);
  return grid(
    ((large + small) / 4) * ((arc * Math.PI) / 180),
    height,
    (u, v) => {
      const a = turn(arc, u);
      const r = large / 2 + v * (small / 2 - large / 2);
      const [c, s] = [Math.cos(a), Math.sin(a)];
      return {
        p: [r * c, r * s, v * height],
        n: [Math.cos(lean) * c, Math.cos(lean) * s, Math.sin(lean)],
      };
    },
    seen,
  );
};
export const scannedCylinder = (diameter: number, height: number, seen: Seen = {}): TriangleMesh =>
  scannedCone(diameter, diameter, height, seen);

export const scannedSphere = (radius: number, seen: Seen = {}): TriangleMesh =>
  grid(
    radius * Math.PI,
    radius * 1.6,
    (u, v) => {
      const a = turn(seen.arc ?? 262, u);
      const b = (v - 0.5) * 1.6;
      const n = [Math.cos(b) * Math.cos(a), Math.cos(b) * Math.sin(a), Math.sin(b)];
      return { p: n.map(x => radius * x), n };
    },
    seen,
  );

export const scannedPlane = (width: number, depth: number, seen: Seen = {}): TriangleMesh =>
  grid(width, depth, (u, v) => ({ p: [u * width, v * depth, 0], n: [0, 0, 1] }), seen);
