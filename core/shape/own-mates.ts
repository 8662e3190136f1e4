import type { SurfaceForm } from '../fit/print-bias';
import type { Side } from '../fit/wants';
import type { MateSpec } from './mates';
import type { ParameterSpec, Parameters } from './recipes/parameters';
import type { Recipe } from './recipes/recipe';

/** A surface named by the maker: no recipe foresaw that it must fit something. */
export interface OwnSurface {
  /** Its id among the part's mates. */
  surface: string;
  name: string;
  side: Side;
  /** The part's number that is its size. */
  number: string;
  form: SurfaceForm;
  /** Its cross-section is built up of layers as drawn. */
  lying: boolean;
  /** The object's dimension that it must fit. */
  dimension: string;
}

/** Numbers of a part that may carry a mate: lengths and angles, but not counts and ratios. */
export const carriesMate = (spec: ParameterSpec): spec is Extract<ParameterSpec, { kind: 'length' }> =>
  spec.kind === 'length' && spec.measure !== 'count';

/** Whether a number is an angle rather than a length. */
export const isAngleOf = (specs: readonly ParameterSpec[], number: string): boolean =>
  specs.some(s => s.name === number && s.kind === 'length' && s.measure === 'angle');

/** Whether a number is in use with the part's choices. */
export const isShown = (recipe: Pick<Recipe, 'parameters'>, number: string, choices: Parameters): boolean => {
  const spec = recipe.parameters.find(p => p.name === number);
  return spec !== undefined && (spec.shown?.(choices) ?? true);
};

/** A recipe with the maker's own mates added. */
export function withOwnMates(recipe: Recipe, own: readonly OwnSurface[]): Recipe {
  if (own.length === 0) return recipe;
  const specs = own.map(
    ({ surface, name, side, number, form, lying, dimension }): MateSpec => ({
      id: surface,
      name,
      side,
      form,
      lying,
      dimension,
      parameter: number,
      want: 'slide',
      flexibleWant: form === 'round' ? 'stretch' : 'slide',
      active: choices => isShown(recipe, number, choices),
    }),
  );
  return { ...recipe, mates: [...recipe.mates, ...specs] };
}
