import { buildPart } from './build';
import type { Finding } from './findings/finding';
import type { Kernels } from './kernels/kernel';
import { type TriangleMesh, volumeOf } from './mesh/mesh';
import type { ParameterSpec, Parameters } from './recipes/parameters';
import { type Recipe, wholeOf } from './recipes/recipe';

/** What a part has that an earlier one lacks, and the reverse. Volumes mm³. */
export interface PartChange {
  grown: { mesh: TriangleMesh; volume: number } | null;
  shrunk: { mesh: TriangleMesh; volume: number } | null;
}

export type CompareOutcome = { ok: true; change: PartChange } | { ok: false; findings: Finding[] };

/** Slivers from cutting a curve into different flats are not a change, mm³. */
const NOTHING = 0.01;

export function compareParts(
  now: { recipe: Recipe; parameters: Parameters },
  before: { recipe: Recipe; parameters: Parameters },
  kernels: Kernels,
): CompareOutcome {
  const a = buildPart(now.recipe, now.parameters, kernels, 'screen');
  if (!a.ok) return a;
  const b = buildPart(before.recipe, wholeOf(before.recipe, before.parameters), kernels, 'screen');
  if (!b.ok) return b;
  const beyond = (of: TriangleMesh, other: TriangleMesh) => {
    const mesh = kernels.mesh.beyond(of, other);
    const volume = mesh ? volumeOf(mesh) : 0;
    return mesh && volume > NOTHING ? { mesh, volume } : null;
  };
  return {
    ok: true,
    change: { grown: beyond(a.part.mesh, b.part.mesh), shrunk: beyond(b.part.mesh, a.part.mesh) },
  };
}

export interface NumberChange {
  spec: ParameterSpec;
  before: number | string | boolean;
  now: number | string | boolean;
}

/** Numbers and choices that differ and are used by either; a thousandth of a millimetre does not count. */
export function changedNumbers(recipe: Recipe, now: Parameters, kept: Parameters): NumberChange[] {
  const before = wholeOf(recipe, kept);
  return recipe.parameters.flatMap(spec => {
    const [a, b] = [now[spec.name], before[spec.name]];
    if (a === undefined || b === undefined) return [];
    const same = typeof a === 'number' && typeof b === 'number' ? Math.abs(a - b) < 5e-4 : a === b;
    const used = spec.shown === undefined || spec.shown(now) || spec.shown(before);
    return same || !used ? [] : [{ spec, before: b, now: a }];
  });
}
