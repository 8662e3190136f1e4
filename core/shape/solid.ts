import { buildPart } from './build';
import type { BuiltPart } from './built-part';
import { checkShape } from './checks/check-solid';
import type { Finding } from './findings/finding';
import type { Kernels } from './kernels/kernel';
import { joined, type TriangleMesh } from './mesh/mesh';
import { recipeWith } from './recipe-with';
import { wholeOf } from './recipes/recipe';
import type { SolidSpec } from './solid-key';
import type { Point3 } from './vector';

/** A finished solid: its triangles, and the findings that need no context. */
export interface Solid {
  part: BuiltPart;
  findings: Finding[];
}

/** The solid in the file's own fineness. */
export function solidOf(
  spec: SolidSpec,
  kernels: Kernels,
): ({ ok: true } & Solid) | { ok: false; findings: Finding[] } {
  const recipe = recipeWith(spec.recipe, spec.additions);
  const outcome = buildPart(recipe, wholeOf(recipe, spec.parameters), kernels, 'file');
  if (!outcome.ok) return outcome;
  return { ok: true, part: outcome.part, findings: [...outcome.findings, ...checkShape(outcome.part)] };
}

/** What is stored of a solid besides its triangles: plain data, for the part as drawn. */
export interface SolidRecord extends Omit<BuiltPart, 'mesh' | 'pieces' | 'whole'> {
  findings: Finding[];
  /** Names of the pieces of a part that was split. */
  pieces: string[];
}

export function recordOf({ part, findings }: Solid): SolidRecord {
  const { mesh: _, whole: __, pieces, ...facts } = part;
  return { ...facts, findings, pieces: pieces.map(p => p.name) };
}

/** The triangles that belong to a record: the part in its drawn place, then each piece as it is placed on the bed. */
export const meshesOf = ({ whole, pieces }: BuiltPart): TriangleMesh[] => [whole, ...pieces.map(p => p.mesh)];

/** A stored solid, put together again. @throws RangeError when record and triangles do not belong together */
export function solidOfRecord(
  { findings, pieces: names, ...facts }: SolidRecord,
  meshes: readonly TriangleMesh[],
): Solid {
  const [whole, ...laid] = meshes;
  if (!whole || laid.length !== names.length)
    throw new RangeError(`Got ${meshes.length} bodies, need ${1 + names.length}: build the solid again.`);
  const pieces = laid.map((mesh, i) => ({ name: names[i]!, mesh }));
  return { findings, part: { ...facts, whole, pieces, mesh: pieces.length > 0 ? joined(laid) : whole } };
}

/** An addition may reach below the recipe's underside: findings and files then use the part lifted onto the bed. */
export function onTheBed(part: BuiltPart): BuiltPart {
  const { min, max } = part.bounds;
  if (part.pieces.length > 0 || Math.abs(min[2]) < 1e-3) return part;
  const lifted = ([x, y, z]: Point3): [number, number, number] => [x, y, z - min[2]];
  return {
    ...part,
    mesh: {
      positions: part.mesh.positions.map((v, i) => (i % 3 === 2 ? v - min[2] : v)),
      triangles: part.mesh.triangles,
    },
    bounds: { min: lifted(min), max: lifted(max) },
    mates: part.mates.map(m => ({ ...m, at: lifted(m.at) })),
  };
}
