import type { BuiltPart } from '../built-part';
import type { Finding } from '../findings/finding';
import type { Kernels } from '../kernels/kernel';
import type { Parameters } from '../recipes/parameters';
import type { Recipe } from '../recipes/recipe';
import { type LoadResult, loadResults } from '../strength/loads';
import { checkSolid } from './check-solid';
import type { CheckContext } from './context';

export interface Inspection {
  findings: Finding[];
  loads: LoadResult[];
}

/** Everything that can be read off the finished triangles, costliest first. @param found what the build had to say */
export function inspectPart(
  recipe: Recipe,
  parameters: Parameters,
  part: BuiltPart,
  context: CheckContext,
  kernels: Pick<Kernels, 'mesh' | 'models'>,
  found: readonly Finding[] = [],
): Inspection {
  const loads = loadResults(part.whole, part.surfaces, context);
  const findings = [
    ...found,
    ...checkSolid(recipe, part, context, kernels, loads),
    ...recipe.checks(parameters, part, context),
  ];
  return { findings: ranked(findings), loads };
}

/**
 * By what they would cost: what cannot be used at all, then what costs a print, then what is worth knowing; within
 * those, what hurts before what does not fit, and that before what looks odd.
 */
export function ranked(findings: readonly Finding[]): Finding[] {
  const level = { stop: 0, warn: 1, note: 2 };
  const cost = (f: Finding) => {
    const at = COSTLIEST.indexOf(f.code);
    return at < 0 ? COSTLIEST.length : at;
  };
  return [...findings].sort((a, b) => level[a.level] - level[b.level] || cost(a) - cost(b));
}

const COSTLIEST: readonly string[] = [
  'too-weak',
  'proof-test',
  'not-solid',
  'open',
  'inside-out',
  'loose-bodies',
  'bed',
  'unit-slip',
  'tiny',
  'hand',
  'slip',
  'mate-missing',
  'smaller-than-mate',
  'in-the-way',
  'path-blocked',
  'addition-gone',
  'addition-failed',
  'addition-order',
  'mate-off',
  'thin-wall',
  'sharp-root',
  'hole-near-edge',
];
