import { kindOf } from '../shape/additions';
import { type Addition, nameForNew } from '../shape/additions/addition';
import { freeName } from '../shape/additions/free-name';
import { longName, usualOf } from '../shape/additions/with-additions';
import { buildPart } from '../shape/build';
import type { BuiltPart } from '../shape/built-part';
import type { FindingCode } from '../shape/findings/register';
import type { Kernels } from '../shape/kernels/kernel';
import { recipeWith } from '../shape/recipe-with';
import type { Parameters } from '../shape/recipes/parameters';
import type { SolidSpec } from '../shape/solid-key';

/** A change of a part that would make it print better, tried on the solid before it is offered. */
export interface Attempt {
  label: string;
  /** Additions with their initial numbers, by short name. */
  additions: { addition: Omit<Addition, 'order' | 'fits'>; begins: Record<string, string> }[];
  /** Numbers of the part that change, by their long names. */
  numbers: Record<string, string>;
}

/**
 * The part with the change, for the screen; null where it cannot be built, or the change has no effect.
 * @param tolerated findings on its additions that do not count against it
 */
export function rebuilt(
  part: SolidSpec,
  { additions, numbers }: Attempt,
  kernels: Kernels,
  tolerated: readonly FindingCode[] = [],
): BuiltPart | null {
  const order = Math.max(0, ...part.additions.map(a => a.order));
  const all = [...part.additions, ...additions.map((a, i) => ({ ...a.addition, order: order + 1 + i }))];
  const begins = additions.flatMap(({ addition, begins: own }) => {
    const kind = kindOf(addition.kind);
    return kind.parameters.map(spec => {
      const text = own[spec.name] ?? kind.fresh?.[spec.name];
      const value = text === undefined ? usualOf(spec) : spec.kind === 'length' ? Number(text) : text;
      return [longName(addition, spec.name), value] as const;
    });
  });
  const changed = Object.entries(numbers).map(([name, text]) => [name, text === 'yes' ? true : Number(text)]);
  const parameters: Parameters = {
    ...part.parameters,
    ...Object.fromEntries(begins),
    ...Object.fromEntries(changed),
  };
  const outcome = buildPart(recipeWith(part.recipe, all), parameters, kernels, 'screen');
  // An addition that changes nothing, or could not be made, reports a finding: it is not a remedy.
  const failed =
    outcome.ok &&
    outcome.findings.some(
      f => !tolerated.includes(f.code) && additions.some(a => f.addition === a.addition.id),
    );
  return outcome.ok && !failed ? outcome.part : null;
}

export const rounded = (v: number) => String(Number(v.toFixed(2)));

/** How the two halves are joined, the strongest joint first: thin walls have no room for a dowel. */
export const JOINTS = {
  dowels: { words: 'with dowels', begins: { joint: 'dowels' } },
  thin: { words: 'with thin dowels', begins: { joint: 'dowels', diameter: '2', deep: '4' } },
  glue: { words: 'to be glued', begins: { joint: 'glue' } },
} as const;
export type Joint = keyof typeof JOINTS;

/** Cut in two across one of the part's own axes. @param at the place along that axis, mm */
export function splitAttempt(
  axis: 0 | 1 | 2,
  at: number,
  joint: Joint,
  { additions }: Pick<SolidSpec, 'additions'>,
): Attempt {
  const addition = {
    id: freeName(kindOf('split').short, additions),
    kind: 'split' as const,
    name: nameForNew('Split', additions),
    on: true,
  };
  const begins = { across: 'xyz'[axis]!, at: rounded(at), from: 'origin', ...JOINTS[joint].begins };
  return { label: `Split it there, ${JOINTS[joint].words}`, additions: [{ addition, begins }], numbers: {} };
}
