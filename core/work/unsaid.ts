import type { Part } from '../job/document';
import { type Finding, finding, ofAddition } from '../shape/findings/finding';
import type { ParameterSpec, Parameters } from '../shape/recipes/parameters';
import type { Recipe } from '../shape/recipes/recipe';

/** A choice that depends on the object, such as the hand of its thread. */
export type AskedChoice = Extract<ParameterSpec, { kind: 'choice' }>;

/** The part's choices that depend on the object, with its current settings. */
export const askedChoices = (recipe: Recipe, parameters: Parameters): AskedChoice[] =>
  recipe.parameters.filter(
    (p): p is AskedChoice => p.kind === 'choice' && p.ask === true && (p.shown?.(parameters) ?? true),
  );

/** Those that nobody has made yet: until then the usual answer is drawn, and that is stated. */
export function unsaid(recipe: Recipe, parameters: Parameters, part: Part): Finding[] {
  return askedChoices(recipe, parameters)
    .filter(spec => part.parameters[spec.name] === undefined)
    .map(spec => {
      const taken = spec.options.find(o => o.value === parameters[spec.name])!;
      const remedy = {
        label: `Say “${taken.label.split(':')[0]}”`,
        parameter: spec.name,
        text: taken.value,
      };
      const found = finding(
        'not-said',
        'warn',
        { what: spec.label, taken: taken.label },
        { parameter: spec.name, remedy },
      );
      const addition = part.additions.find(a => a.id === spec.addition);
      return addition ? ofAddition(found, addition, name => name) : found;
    });
}
