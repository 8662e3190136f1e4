import { demoBody } from './demo-bodies';
import type { MeshKernel, Models } from './kernels/kernel';
import { boundsOf, type TriangleMesh } from './mesh/mesh';
import { Recent } from './recent';
import type { Point3 } from './vector';

/**
 * Bodies from files: a neighbour, a plug, a board, from its maker's STEP or mesh file. A part refers to one by the
 * SHA-256 of its stored triangles and the mm per unit: since a reference is part of a solid's key, equal references are
 * equal bodies. Lengths mm, angles degrees.
 */
export const MODEL_REFERENCE = /^[0-9a-f]{64}(\*[0-9]+(\.[0-9]+)?)?$/;

export const modelReference = ({ sha256, factor }: { sha256: string; factor: number }): string =>
  factor === 1 ? sha256 : `${sha256}*${factor}`;

/** All references in a part's numbers and its neighbours. */
export function referencesIn(
  parameters: Readonly<Record<string, number | string | boolean>>,
  neighbours: readonly { model?: string }[] = [],
): string[] {
  const named = [...Object.values(parameters), ...neighbours.map(n => n.model ?? '')];
  return [...new Set(named.filter((v): v is string => typeof v === 'string' && MODEL_REFERENCE.test(v)))];
}

export const shaOf = (reference: string): string => reference.slice(0, 64);

/** The triangles of a reference in mm; null where they are not at hand. */
export function modelOf(models: Models | undefined, reference: string): TriangleMesh | null {
  const mesh = models?.get(shaOf(reference)) ?? demoBody(reference);
  if (!mesh) return null;
  const factor = Number(reference.slice(65) || 1);
  if (factor === 1) return mesh;
  return { positions: mesh.positions.map(x => factor * x), triangles: mesh.triangles };
}

/** Which of its sides is down, as its file is drawn. */
export const SIDES_DOWN = {
  drawn: 'as its file has it',
  over: 'turned over',
  front: 'on its front',
  back: 'on its back',
  left: 'on its left side',
  right: 'on its right side',
} as const;
export type SideDown = keyof typeof SIDES_DOWN;

const TURNS: Readonly<Record<SideDown, (p: Point3) => Point3>> = {
  drawn: p => p,
  over: ([x, y, z]) => [x, -y, -z],
  front: ([x, y, z]) => [x, -z, y],
  back: ([x, y, z]) => [x, z, -y],
  left: ([x, y, z]) => [-z, y, x],
  right: ([x, y, z]) => [z, y, -x],
};

export interface Stance {
  lies: SideDown;
  /** Seen from above, after it was laid. */
  turn: number;
  /** The place of the centre of its underside. */
  at: Point3;
}

/** Laid on one of its sides, turned, and placed with the centre of its underside at a point. */
export function stood({ positions: p, triangles }: TriangleMesh, { lies, turn, at }: Stance): TriangleMesh {
  const a = (turn * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  const laid = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 3) {
    const [x, y, z] = TURNS[lies]([p[i]!, p[i + 1]!, p[i + 2]!]);
    laid[i] = c * x - s * y;
    laid[i + 1] = s * x + c * y;
    laid[i + 2] = z;
  }
  const { min, max } = boundsOf({ positions: laid, triangles });
  const by = [at[0] - (min[0] + max[0]) / 2, at[1] - (min[1] + max[1]) / 2, at[2] - min[2]];
  return { positions: laid.map((x, i) => x + by[i % 3]!), triangles };
}

/** A model in its place, with clearance on every side: its underside is lower by that clearance. */
export function placedModel(
  models: Models | undefined,
  reference: string,
  room: number,
  { at, ...stance }: Stance,
  kernel: MeshKernel,
): TriangleMesh | null {
  const bare = modelOf(models, reference);
  const grown = withRoom(models, reference, room, kernel);
  if (!bare || !grown) return null;
  // The clearance is the same on all sides, whichever is down.
  const sunk = boundsOf(bare).min[2] - boundsOf(grown).min[2];
  return stood(grown, { ...stance, at: [at[0], at[1], at[2] - sunk] });
}

/** Growing a body takes time, and every rebuild asks again. */
const grownBefore = new Recent<TriangleMesh>(24);

/**
 * A model with clearance all round: at least `room`, and up to an eighth more. A finely triangulated body gets up to
 * twice that, and one with very many triangles its convex hull with clearance, so that it never takes more than a few
 * seconds.
 */
export function withRoom(
  models: Models | undefined,
  reference: string,
  room: number,
  kernel: MeshKernel,
): TriangleMesh | null {
  const mesh = modelOf(models, reference);
  if (!mesh || room <= 0) return mesh;
  const key = `${reference} ${room}`;
  const known = grownBefore.get(key);
  if (known) return known;
  // A scanned surface has no inside: its hull with clearance is used.
  let grown = kernel.grown(kernel.facts(mesh).ok ? mesh : kernel.hull(mesh), room);
  // Very fine surfaces may not survive the rounding of their corners: their hull does.
  if (!kernel.facts(grown).ok) grown = kernel.grown(kernel.hull(mesh), room);
  grownBefore.put(key, grown);
  return grown;
}
