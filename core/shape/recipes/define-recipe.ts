import type { CheckContext } from '../checks/context';
import type { Drawing } from '../drawing/drawing';
import type { Finding } from '../findings/finding';
import type { Body, Kernels, Models, PartKernel } from '../kernels/kernel';
import type { MateSpec, MateSurface } from '../mates';
import type { ParameterSpec, Parameters } from './parameters';
import type { BuiltSolid, EffortLever, GuideStep, Recipe, RoundGrip } from './recipe';

/** A parameter with its name, and its options where it is a choice, known to the compiler. */
export type Declared = ParameterSpec & { name: string };

type ValueOf<S> = S extends { kind: 'length' }
  ? number
  : S extends { kind: 'flag' }
    ? boolean
    : S extends { kind: 'choice'; options: readonly { value: infer V }[] }
      ? V
      : string;

/** The values of a list of parameters: `ValuesOf<typeof parameters>`. A name that is not in the list does not compile. */
export type ValuesOf<L extends readonly Declared[]> = {
  readonly [S in L[number] as S['name']]: ValueOf<S>;
};

/** The keys of a guide: `KeysOf<typeof guide>`. */
export type KeysOf<L extends readonly { key: string }[]> = L[number]['key'];

/** The object's sizes as far as they are known, mm, by guide key. */
export type Measured<G extends string> = Readonly<Partial<Record<G, number>>>;

/** Names of the parameters that hold a number. */
type NumbersOf<P> = { [N in keyof P]: P[N] extends number ? N : never }[keyof P] & string;

/** The place of a mate on the solid; the mate's own declaration gives the rest. */
export type SurfacePlace = Omit<MateSurface, 'mate' | 'side' | 'size'>;

/** Null where these parameters have no such mate. */
export type Places<M extends string> = Readonly<Record<M, SurfacePlace | null>>;

/** The mates that exist. */
export const placed = <M extends string>(places: Places<M>): [M, SurfacePlace][] =>
  (Object.entries(places) as [M, SurfacePlace | null][]).filter(
    (entry): entry is [M, SurfacePlace] => entry[1] !== null,
  );

/** A record from its entries: for recipes with the same fields for each end. */
export const keyed = <const K extends string, T>(entries: readonly (readonly [K, T])[]): Record<K, T> =>
  Object.fromEntries(entries) as Record<K, T>;

type MateDeclaration<P, G> = Omit<MateSpec, 'id' | 'dimension' | 'parameter' | 'flexibleWant' | 'active'> & {
  dimension: G;
  parameter: NumbersOf<P>;
  /** The same as `want` unless stated. */
  flexibleWant?: MateSpec['flexibleWant'];
  /** By default always. It may use choices only: sizes are not known when it is called. */
  active?(p: P): boolean;
};

interface RecipeDeclaration<L extends readonly Declared[], G extends string, M extends string>
  extends Pick<Recipe, 'id' | 'version' | 'family' | 'title' | 'purpose'> {
  /** In the order in which they are shown. */
  parameters: L;
  /** Parameters that are shown only with some choices. */
  shown?: { readonly [N in L[number]['name']]?: (p: ValuesOf<L>) => boolean };
  guide: readonly (GuideStep & { key: G })[];
  mates: Readonly<Record<M, MateDeclaration<ValuesOf<L>, NoInfer<G>>>>;
  refuse(p: ValuesOf<L>, models?: Models): Finding[];
  drawing(p: ValuesOf<L>): Drawing<L[number]['name'] | NoInfer<M>>;
  objectDrawing(measured: Measured<NoInfer<G>>, p: ValuesOf<L>): Drawing<NoInfer<G>>;
  solid(p: ValuesOf<L>, kernel: PartKernel, kernels: Kernels): Body;
  places(p: ValuesOf<L>, models?: Models): Places<NoInfer<M>>;
  checks?(p: ValuesOf<L>, solid: BuiltSolid, context: CheckContext, models?: Models): Finding[];
  levers?(p: ValuesOf<L>): (EffortLever & { mate: NoInfer<M>; parameter: NumbersOf<ValuesOf<L>> })[];
  grips?(p: ValuesOf<L>): (RoundGrip & { mate: NoInfer<M>; passes?: { dimension: NoInfer<G> } })[];
  demo: { name: string; sizes: Readonly<Record<NoInfer<G>, number>>; parameters: ValuesOf<L> };
}

/**
 * A recipe from its declaration. Each parameter, guide step and mate is declared once; values, drawings, surfaces and
 * demo object take their types from it, so that a misspelt name does not compile.
 */
export function defineRecipe<const L extends readonly Declared[], G extends string, M extends string>(
  declaration: RecipeDeclaration<L, G, M>,
): Recipe {
  const { parameters, shown, guide, mates, places, checks, ...rest } = declaration;
  const specs = Object.entries<MateDeclaration<ValuesOf<L>, G>>(mates).map(
    ([id, { active, ...mate }]): MateSpec => ({
      flexibleWant: mate.want,
      ...mate,
      id,
      // A choice that is not known yet counts as none.
      active: p => !active || Boolean(active(p as ValuesOf<L>)),
    }),
  );
  for (const { bounds } of guide)
    if (bounds !== undefined && !parameters.some(p => p.name === bounds))
      throw new Error(`${declaration.id} has no number “${bounds}” for a reading to bound.`);
  const mating = new Set(specs.map(mate => mate.dimension));
  return {
    ...(rest as Omit<Recipe, 'parameters' | 'guide' | 'mates' | 'surfaces' | 'checks'>),
    parameters: parameters.map(spec => {
      const when = shown?.[spec.name as L[number]['name']];
      return when ? { ...spec, shown: when as (p: Parameters) => boolean } : spec;
    }),
    // A fit depends on the dimension of a mate.
    guide: guide.map(step => ({ ...step, critical: step.critical || mating.has(step.key) })),
    mates: specs,
    surfaces: (p, models) => {
      const found = places(p as ValuesOf<L>, models);
      return specs
        .filter(mate => mate.active(p))
        .map(({ id, side, parameter }) => {
          const place = found[id as M];
          if (!place) throw new Error(`${declaration.id} says nowhere where its mate ${id} is.`);
          return { ...place, mate: id, side, size: p[parameter] as number };
        });
    },
    checks: (p, solid, context, models) => checks?.(p as ValuesOf<L>, solid, context, models) ?? [],
  };
}
