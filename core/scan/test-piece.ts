import earcut from 'earcut';
import { boxOf, flattenedPoints } from '../shape/curve';
import type { Outline } from '../shape/kernels/kernel';
import { type TriangleMesh, weld } from '../shape/mesh/mesh';
import { offsetOutline } from '../shape/offset';
import { circle } from '../shape/outline';
import type { Point2 } from '../shape/vector';

/**
 * A section of a scan as a thin print that is tried in the object, or over it: half an hour that shows whether the scan
 * is worth a day. Lengths mm.
 */
export interface TestPiece {
  /** A plate goes into the object, a frame over it. */
  form: 'plate' | 'frame';
  /** Across the whole width, female minus male. */
  clearance: number;
}

/** Ten layers: stiff enough to be laid in, soon printed. Common practice, no source. */
const THICK = 2;
/** Width of a frame's wall. Common practice, no source. */
const WALL = 4;
/** A hole near its left end marks its orientation. */
const MARK = 2.5;
/** The print has its drawn size up to this, sd, where nobody measured it. Common practice, no source. */
export const PROBABLY_AS_DRAWN = 0.15;
const SAGITTA = 0.01;

/** @throws OffsetError where the section is too ragged or too small for that offset */
export function testPiece(section: Outline, { form, clearance }: TestPiece): TriangleMesh {
  const fits = offsetOutline(section, form === 'plate' ? -clearance / 2 : clearance / 2);
  const [outer, inner] = form === 'plate' ? [fits, null] : [offsetOutline(fits, WALL), fits];
  const holes = inner ? [flattenedPoints(inner, SAGITTA)] : [];
  const mark = form === 'plate' ? markIn(flattenedPoints(fits, SAGITTA), boxOf(fits)) : null;
  if (mark) holes.push(mark);
  return slab(flattenedPoints(outer, SAGITTA), holes, THICK);
}

/** Slightly inside the left end, half-way between the edges there; none where the piece is too small for it. */
function markIn(points: readonly Point2[], [x0, , x1]: ReturnType<typeof boxOf>): Point2[] | null {
  const x = x0 + Math.max(2 * MARK, 0.12 * (x1 - x0));
  const crossed = points
    .flatMap((a, i): number[] => {
      const b = points[(i + 1) % points.length]!;
      return a[0] < x === b[0] < x ? [] : [a[1] + ((x - a[0]) / (b[0] - a[0])) * (b[1] - a[1])];
    })
    .sort((a, b) => a - b);
  const [low, high] = crossed;
  if (low === undefined || high === undefined || high - low < 3 * MARK || x1 - x0 < 8 * MARK) return null;
  return flattenedPoints(circle([x, (low + high) / 2], MARK / 2), SAGITTA);
}

/** A flat body between z = 0 and its thickness. @param holes lie in the outline, and apart from each other */
function slab(outer: readonly Point2[], holes: readonly (readonly Point2[])[], thick: number): TriangleMesh {
  const loops = [turned(outer, 1), ...holes.map(h => turned(h, -1))];
  const flat = loops.flat();
  const starts = loops.map((_, i) => loops.slice(0, i).reduce((sum, l) => sum + l.length, 0));
  const lid = earcut(flat.flat(), starts.slice(1));
  const count = flat.length;
  const triangles: number[] = [];
  for (let t = 0; t < lid.length; t += 3) {
    const [a, b, c] =
      areaOf([flat[lid[t]!]!, flat[lid[t + 1]!]!, flat[lid[t + 2]!]!]) > 0 ? [0, 1, 2] : [0, 2, 1];
    const [i, j, k] = [lid[t + a!]!, lid[t + b!]!, lid[t + c!]!];
    triangles.push(count + i, count + j, count + k, i, k, j);
  }
  loops.forEach((loop, l) => {
    for (let i = 0; i < loop.length; i++) {
      const [a, b] = [starts[l]! + i, starts[l]! + ((i + 1) % loop.length)];
      triangles.push(a, b, count + b, a, count + b, count + a);
    }
  });
  return weld(
    [...flat.flatMap(([x, y]) => [x, y, 0]), ...flat.flatMap(([x, y]) => [x, y, thick])],
    triangles,
  );
}

const areaOf = (points: readonly Point2[]): number =>
  points.reduce((sum, [x, y], i) => {
    const [u, v] = points[(i + 1) % points.length]!;
    return sum + (x * v - u * y) / 2;
  }, 0);

/** Counter-clockwise for 1, clockwise for −1. */
const turned = (points: readonly Point2[], way: 1 | -1): readonly Point2[] =>
  Math.sign(areaOf(points)) === way ? points : points.toReversed();
