import type { Part } from '../job/document';
import type { Version } from '../job/history';
import type { Parameters } from '../shape/recipes/parameters';
import type { Recipe } from '../shape/recipes/recipe';

/** Choices and flags come first: they decide which mates and parameters there are, and depend on nothing else. */
export function choicesOf(recipe: Recipe, part: Pick<Part, 'parameters'>): Parameters {
  const choices: Record<string, string | boolean> = {};
  for (const spec of recipe.parameters) {
    const text = part.parameters[spec.name]?.text;
    if (spec.kind === 'choice') {
      choices[spec.name] = spec.options.find(o => o.value === text)?.value ?? spec.default;
    } else if (spec.kind === 'flag') {
      choices[spec.name] = text === undefined ? spec.default : text === 'yes';
    }
  }
  return choices;
}

/** A part as it is now, or as a version froze it: what decides how its surfaces are oriented. */
export type Made = Pick<Part, 'pose' | 'parameters'> | Pick<Version, 'pose' | 'parameters'>;

/** A version stores all its numbers; a part stores its choices and the numbers that were written out. */
export function knownOf(recipe: Recipe, { parameters }: Made): Parameters {
  const written = Object.entries(parameters).filter(([, given]) => typeof given === 'object');
  if (written.length === 0 && Object.keys(parameters).length > 0) return parameters as Parameters;
  const part = parameters as Part['parameters'];
  const numbers = recipe.parameters.flatMap(spec => {
    const text = part[spec.name]?.text;
    if (text === undefined) return [];
    return spec.kind === 'length' && Number.isFinite(Number(text)) ? [[spec.name, Number(text)]] : [];
  });
  return { ...choicesOf(recipe, { parameters: part }), ...Object.fromEntries(numbers) };
}
