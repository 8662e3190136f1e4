import type { MateSpec } from '../mates';
import type { ParameterSpec, Parameters } from '../recipes/parameters';
import type { Recipe } from '../recipes/recipe';
import { kindOf } from '.';
import { type Addition, type BoundAddition, inOrder } from './addition';

/** The name of an addition's parameter among those of the part. */
export const longName = (addition: Pick<Addition, 'id'>, short: string): string => `${addition.id}_${short}`;

/** Its mate's surface has the addition's own name. */
export const surfaceNameOf = (addition: Pick<Addition, 'id'>): string => addition.id;

/**
 * The recipe with a maker's additions: an ordinary recipe whose parameters, mates and solid include the additions that
 * are switched on.
 */
export function withAdditions(recipe: Recipe, additions: readonly Addition[]): Recipe {
  const on = inOrder(additions).filter(a => a.on);
  if (on.length === 0) return recipe;
  const bound = on.map(bindingOf);
  return {
    ...recipe,
    additions: bound,
    parameters: [...recipe.parameters, ...bound.flatMap(parametersOf)],
    mates: [...recipe.mates, ...bound.flatMap(mateOf)],
    demo: {
      ...recipe.demo,
      parameters: {
        ...recipe.demo.parameters,
        ...Object.fromEntries(
          bound.flatMap(b => b.kind.parameters.map(spec => [longName(b.addition, spec.name), usualOf(spec)])),
        ),
      },
    },
  };
}

function bindingOf(addition: Addition): BoundAddition {
  const kind = kindOf(addition.kind);
  return {
    addition,
    kind,
    own: p => Object.fromEntries(kind.parameters.map(spec => [spec.name, p[longName(addition, spec.name)]!])),
  };
}

function parametersOf({ addition, kind, own }: BoundAddition): ParameterSpec[] {
  return kind.parameters.map(spec => {
    const { shown } = spec;
    return {
      ...spec,
      name: longName(addition, spec.name),
      addition: addition.id,
      ...(shown ? { shown: (p: Parameters) => shown(own(p)) } : {}),
    };
  });
}

function mateOf({ addition, kind, own }: BoundAddition): MateSpec[] {
  const { fits } = addition;
  const { fit } = kind;
  if (!fits || !fit) return [];
  return [
    {
      id: surfaceNameOf(addition),
      name: addition.name,
      dimension: fits.dimension,
      parameter: longName(addition, fits.parameter),
      side: fits.side,
      want: fit.want ?? 'slide',
      flexibleWant: fit.want ?? 'stretch',
      form: fits.form,
      // Its choices may have changed its surface since.
      active: p => fit.parameter(own(p)) === fits.parameter && fit.side(own(p)) === fits.side,
    },
  ];
}

/** The value that the maker gave, if any. */
export function usualOf(spec: ParameterSpec): number | string | boolean {
  if (spec.kind !== 'length') return spec.default;
  const number = Number(spec.default);
  return Number.isFinite(number) ? number : spec.min;
}
