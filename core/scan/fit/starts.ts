import { eigs } from 'mathjs';
import { solved } from '../../quantity/linear';
import { basisOf, dot, lengthOfVector, type Point3, point3, scaled } from '../../shape/vector';
import type { Primitive, SmoothKind } from './primitive';
import { middleOf } from './refine';

/** Starting values for least squares: a surface of a kind through points, from their normals. */
export function startFor(
  kind: SmoothKind,
  points: readonly Point3[],
  normals: readonly Point3[],
): Primitive | null {
  const at = middleOf(points);
  if (kind === 'plane') {
    const mean = middleOf(normals);
    const long = lengthOfVector(mean);
    return long > 0.1 ? { kind, normal: scaled(mean, 1 / long), at } : null;
  }
  if (kind === 'sphere') {
    const found = algebraic(points.map(p => [p[0], p[1], p[2]]));
    return found && { kind, centre: found.centre as [number, number, number], radius: found.radius };
  }
  // A cylinder's normals are in the plane across its axis; a cone's in a parallel one.
  const middle = kind === 'cone' ? middleOf(normals) : ([0, 0, 0] as const);
  const axis = leastDirection(normals.map(n => point3(i => n[i] - middle[i])));
  if (!axis) return null;
  const { x, y } = basisOf(axis);
  const circle = algebraic(points.map(p => [dot(p, x), dot(p, y)]));
  if (!circle) return null;
  const along = dot(at, axis);
  const [u, v] = circle.centre as [number, number];
  const centre = point3(i => u * x[i] + v * y[i] + along * axis[i]);
  if (kind === 'cylinder') return { kind, axis, at: centre, radius: circle.radius };
  const rises = normals.reduce((sum, n) => sum + dot(n, axis), 0) / normals.length;
  // Seen from outside its normals lean against the direction in which it grows; from inside along it.
  const outwards =
    points.reduce(
      (sum, p, i) =>
        sum +
        dot(
          point3(k => p[k] - centre[k]),
          normals[i]!,
        ),
      0,
    ) > 0;
  const sine = Math.max(-0.99, Math.min(0.99, outwards ? -rises : rises));
  return { kind, axis, at: centre, radius: circle.radius, halfAngle: (Math.asin(sine) * 180) / Math.PI };
}

/** The direction in which vectors spread least. */
function leastDirection(vectors: readonly Point3[]): Point3 | null {
  const m = [0, 1, 2].map(i =>
    [0, 1, 2].map(j => vectors.reduce((sum, v) => sum + v[i as 0]! * v[j as 0]!, 0)),
  );
  const { eigenvectors } = eigs(m) as {
    eigenvectors: { value: number; vector: number[] }[];
  };
  const [least] = [...eigenvectors].sort((a, b) => a.value - b.value);
  if (!least) return null;
  const [a, b, c] = least.vector as [number, number, number];
  const long = Math.hypot(a, b, c);
  return long > 0 ? [a / long, b / long, c / long] : null;
}

/** Circle or sphere through points by linear least squares (Kåsa 1976). */
function algebraic(points: readonly number[][]): { centre: number[]; radius: number } | null {
  const n = points[0]!.length;
  const middle = Array.from({ length: n }, (_, i) => points.reduce((s, p) => s + p[i]!, 0) / points.length);
  const a = Array.from({ length: n + 1 }, () => new Array<number>(n + 1).fill(0));
  const b = new Array<number>(n + 1).fill(0);
  for (const p of points) {
    const row = [...p.map((x, i) => x - middle[i]!), 1];
    const z = row.slice(0, n).reduce((s, x) => s + x * x, 0);
    for (let i = 0; i <= n; i++) {
      b[i]! += row[i]! * z;
      for (let j = 0; j <= n; j++) a[i]![j]! += row[i]! * row[j]!;
    }
  }
  const found = solved(a, b);
  if (!found) return null;
  const centre = found.slice(0, n).map(x => x / 2);
  const r2 = found[n]! + centre.reduce((sum, x) => sum + x * x, 0);
  return r2 > 0 ? { centre: centre.map((x, i) => x + middle[i]!), radius: Math.sqrt(r2) } : null;
}
