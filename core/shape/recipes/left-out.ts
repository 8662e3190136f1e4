import { evaluateExpression } from '../../quantity/expression';
import { ownUnit } from '../../quantity/units';
import { type ParameterSpec, type Parameters, usualText } from './parameters';
import type { Recipe } from './recipe';

type Given = Readonly<Record<string, unknown>>;

/**
 * The parameters with missing ones filled in: a number whose default depends on a given one follows it; all others take
 * the demo object's value. So no parameters at all give the demo object, and a larger bore gets a larger flange.
 */
export function completed(recipe: Pick<Recipe, 'parameters' | 'mates' | 'demo'>, given: Given): Given {
  const choices = { ...recipe.demo.parameters, ...given } as Parameters;
  const specs = new Map(recipe.parameters.map(spec => [spec.name, spec]));
  const known = new Map<string, { value: number; follows: boolean } | null>();

  const look = (name: string): { value: number; follows: boolean } | null => {
    if (known.has(name)) return known.get(name)!;
    known.set(name, null);
    const found = valueNamed(name);
    known.set(name, found);
    return found;
  };

  function valueNamed(name: string): { value: number; follows: boolean } | null {
    const spec = specs.get(name);
    if (spec?.kind === 'length') {
      const own = given[name];
      if (own !== undefined) return typeof own === 'number' ? { value: own, follows: true } : null;
      return usualOf(spec);
    }
    // A dimension of the object, or its model number: the mate's parameter determines both.
    const [dimension] = name.split('.');
    const mate = recipe.mates.find(m => m.dimension === dimension && typeof given[m.parameter] === 'number');
    if (mate) return { value: given[mate.parameter] as number, follows: true };
    const size = recipe.demo.sizes[dimension!];
    return size === undefined ? null : { value: size, follows: false };
  }

  function usualOf(spec: Extract<ParameterSpec, { kind: 'length' }>) {
    const demo = recipe.demo.parameters[spec.name] as number;
    let follows = false;
    const unit = ownUnit(spec.measure ?? 'length');
    const outcome = evaluateExpression(
      { text: usualText(spec, choices), unit },
      spec.measure ?? 'length',
      name => {
        const found = look(name);
        follows ||= found?.follows ?? false;
        return found?.value;
      },
    );
    if (!outcome.ok || !follows) return { value: demo, follows: false };
    const value = spec.measure === 'count' ? Math.round(outcome.value) : outcome.value;
    return { value: Math.min(spec.max, Math.max(spec.min, value)), follows: true };
  }

  const all: Record<string, unknown> = { ...given };
  for (const spec of recipe.parameters)
    if (spec.kind === 'length' && given[spec.name] === undefined) {
      const found = look(spec.name);
      if (found?.follows) all[spec.name] = Number(found.value.toFixed(4));
    }
  return all;
}
