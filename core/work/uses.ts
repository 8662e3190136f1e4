import { usersOf } from '../job/derived';
import { type Dimension, numberOfMate } from '../job/document';
import { dimensionOf } from '../job/parts';
import { namesIn } from '../quantity/expression';
import type { ParameterSpec, Parameters } from '../shape/recipes/parameters';
import type { Recipe } from '../shape/recipes/recipe';
import type { ResolvedPart } from './resolved';

/** A part and the texts that its numbers are made from. */
export type Shaped = Pick<
  ResolvedPart,
  'document' | 'part' | 'recipe' | 'parameters' | 'expressions' | 'mates' | 'signed'
>;

/**
 * What uses a dimension, by label: surfaces that must fit it, numbers on Shape that are made from it, other dimensions
 * and threads. Empty where nothing would change without it.
 */
export function usesOf(shaped: Shaped, dimension: Dimension): string[] {
  const { document, part, recipe, mates } = shaped;
  const fits = [...mates, ...shaped.signed].filter(
    m => m.other.of === 'object' && m.other.dimension === dimension.id,
  );
  // A mate's own number appears as the mate.
  const ofMates = new Set(fits.map(m => numberOfMate(m, recipe.mates)));
  const numbers = recipe.parameters.filter(
    spec => !ofMates.has(spec.name) && namesOf(spec, shaped).some(name => isCalled(name, dimension, part)),
  );
  return [...fits.map(m => m.name), ...numbers.map(spec => spec.label), ...usersOf(dimension.id, document)];
}

/** A name in an expression, with `.model` or without, that refers to this dimension. */
function isCalled(name: string, { id, name: own }: Dimension, part: Shaped['part']): boolean {
  const base = name.split('.')[0]!;
  return part.binds[base] ? dimensionOf(part, base) === id : base === own;
}

/** The names that a number, an outline or a place is made from; none while it is not in use. */
function namesOf(spec: ParameterSpec, { parameters, expressions }: Shaped): string[] {
  const written = expressions[spec.name];
  if (!written || !(spec.shown?.(parameters) ?? true)) return [];
  if (spec.kind === 'length') return namesIn(written, spec.measure ?? 'length');
  if (spec.kind === 'outline' || spec.kind === 'holes' || spec.kind === 'place')
    return [
      ...(written.text.match(/[a-z_]\w*(\.\w+)?/gi) ?? []),
      ...(spec.kind === 'outline' && spec.read ? [spec.read.width, spec.read.height] : []),
    ];
  return [];
}

type Choice = Extract<ParameterSpec, { kind: 'choice' | 'flag' }>;

/** Choices of the recipe that decide what is measured: another answer would ask for other sizes. */
export function decidingChoices(recipe: Recipe, parameters: Parameters): Choice[] {
  const asked = (p: Parameters) => recipe.guide.map(step => step.needed(p)).join();
  const now = asked(parameters);
  return recipe.parameters.filter((spec): spec is Choice => {
    if (spec.kind !== 'choice' && spec.kind !== 'flag') return false;
    if (!(spec.shown?.(parameters) ?? true)) return false;
    const answers = spec.kind === 'flag' ? [true, false] : spec.options.map(o => o.value);
    return answers.some(answer => asked({ ...parameters, [spec.name]: answer }) !== now);
  });
}
