import type { Models } from './kernels/kernel';
import type { Lying } from './level-set/room';
import { boundsOf, type TriangleMesh } from './mesh/mesh';
import { modelOf, type SideDown, stood } from './model';
import { Recent } from './recent';
import { type Point3, point3 } from './vector';

/** An object from a scan or a file as it lies in a part: the centre of its underside at the origin. Lengths mm. */
export interface LaidObject extends Lying {
  /** Its bounding box, to the right, to the back and up. */
  size: Point3;
}

export interface Lay {
  /** Its reference, see model.ts. */
  object: string;
  lies: string;
  turn: number;
}

const before = new Recent<LaidObject>(8);

/** Null where its triangles are not at hand. */
export function laidObject({ object, lies, turn }: Lay, models?: Models): LaidObject | null {
  const key = `${object} ${lies} ${turn}`;
  const known = before.get(key);
  if (known) return known;
  const bare = modelOf(models, object);
  if (!bare) return null;
  const laid = { key, ...laidMesh(bare, { lies, turn }) };
  before.put(key, laid);
  return laid;
}

export function laidMesh(
  bare: TriangleMesh,
  { lies, turn }: Omit<Lay, 'object'>,
): Pick<LaidObject, 'mesh' | 'size'> {
  const mesh = stood(bare, { lies: lies as SideDown, turn, at: [0, 0, 0] });
  const { min, max } = boundsOf(mesh);
  return { mesh, size: point3(i => max[i] - min[i]) };
}

/**
 * The width of an object from front to back, below each height: what lies higher never makes it narrower. Lengths mm.
 */
export interface WidthProfile {
  /** Distance between heights; the first one is that far above its underside. */
  step: number;
  front: Float64Array;
  back: Float64Array;
}

const STEP = 0.1;
const profiles = new Recent<WidthProfile>(8);

export function widthsOf(object: LaidObject, aside: number): WidthProfile {
  const name = `${object.key} ${aside}`;
  const profile = profiles.get(name) ?? widthProfile(object, aside);
  profiles.put(name, profile);
  return profile;
}

/** @param aside only what is no farther to the left and right of the middle */
export function widthProfile(
  { mesh, size }: Pick<LaidObject, 'mesh' | 'size'>,
  aside = Infinity,
): WidthProfile {
  const count = Math.ceil(size[2] / STEP) + 1;
  const front = new Float64Array(count).fill(Infinity);
  const back = new Float64Array(count).fill(-Infinity);
  const visit = (y: number, k: number): void => {
    if (k >= count) return;
    front[k] = Math.min(front[k]!, y);
    back[k] = Math.max(back[k]!, y);
  };
  const { positions: p, triangles } = mesh;
  for (let t = 0; t < triangles.length; t += 3) {
    const corners = [0, 1, 2].map((e): Point3 => {
      const v = 3 * triangles[t + e]!;
      return [p[v]!, p[v + 1]!, p[v + 2]!];
    });
    const kept = corners.every(q => Math.abs(q[0]) <= aside) ? corners : between(corners, aside);
    kept.forEach((a, i) => {
      const b = kept[(i + 1) % kept.length]!;
      visit(a[1], Math.ceil(a[2] / STEP - 1e-9));
      // Where the edge crosses each height.
      const [low, high] = a[2] < b[2] ? [a, b] : [b, a];
      for (let k = Math.ceil(low[2] / STEP); k * STEP < high[2]; k++)
        visit(low[1] + ((k * STEP - low[2]) / (high[2] - low[2])) * (high[1] - low[1]), k);
    });
  }
  for (let k = 1; k < count; k++) {
    front[k] = Math.min(front[k]!, front[k - 1]!);
    back[k] = Math.max(back[k]!, back[k - 1]!);
  }
  return { step: STEP, front, back };
}

/** The part of a triangle between two sides (Sutherland and Hodgman 1974). */
const between = (corners: readonly Point3[], aside: number): Point3[] =>
  [1, -1].reduce<Point3[]>(
    (left, side) =>
      left.flatMap((q, i) => {
        const next = left[(i + 1) % left.length]!;
        const [a, b] = [aside - side * q[0], aside - side * next[0]];
        const cut = point3(k => q[k] + (a / (a - b)) * (next[k] - q[k]));
        return [...(a >= 0 ? [q] : []), ...(a >= 0 !== b >= 0 ? [cut] : [])];
      }),
    [...corners],
  );
