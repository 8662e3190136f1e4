import { AS_DRAWN } from '../print/pose';
import { surfaceNameOf } from '../shape/additions/with-additions';
import { recipeById, requireRecipe } from '../shape/recipes';
import type { GuideStep, Recipe } from '../shape/recipes/recipe';
import { type Dimension, type FitMate, type JobDocument, ownNumberOf, type Part } from './document';
import { EditRefused, requirePart } from './edits/tools';
import { freeName, matesOf, unread } from './new-job';
import { dimensionOf, isOfUse } from './parts';
import type { Workshop } from './workshop';

/** Which dimension of the job answers which guide step of the new recipe; a step that is left out is measured again. */
export type Takes = Readonly<Record<string, string>>;

/** A reading of one kind can stand in for another where the caliper was held the same way. */
const ALONG = new Set<Dimension['kind']>(['depth', 'step', 'length']);
const alike = (a: Dimension['kind'], b: Dimension['kind']): boolean =>
  a === b || (ALONG.has(a) && ALONG.has(b));

/** The job's dimensions that have a value and could answer a step of another recipe. */
export const candidatesFor = (step: GuideStep, document: JobDocument): Dimension[] =>
  document.dimensions.filter(d => alike(d.kind, step.kind) && (d.derived || d.readings.length > 0));

/**
 * The same step by its name; otherwise what the old part's mates went on, in order, of the same kind and close to the
 * size of the step's example.
 * @param sizeOf a dimension, mm; undefined where its size is not known
 */
export function suggestedTakes(
  document: JobDocument,
  part: Part,
  recipe: Recipe,
  sizeOf: (dimension: string) => number | undefined,
): Record<string, string> {
  const takes: Record<string, string> = {};
  const free = (d: Dimension) => !Object.values(takes).includes(d.id);
  const old = requireRecipe(part.recipe);
  const mating = (r: Recipe) => new Set(r.mates.map(m => m.dimension));
  for (const step of recipe.guide) {
    const found = candidatesFor(step, document).find(d => d.id === dimensionOf(part, step.key));
    if (found?.guide === step.key) takes[step.key] = found.id;
  }
  const seats = old.guide.filter(g => mating(old).has(g.key)).map(g => dimensionOf(part, g.key));
  for (const step of recipe.guide.filter(g => mating(recipe).has(g.key) && !takes[g.key])) {
    const found = candidatesFor(step, document).find(
      d => d.kind === step.kind && seats.includes(d.id) && free(d) && isFor(recipe, step, sizeOf(d.id)),
    );
    if (found) takes[step.key] = found.id;
  }
  return takes;
}

/**
 * A screw is not a pipe: a size that differs from the recipe's example by more than this factor is hardly the one
 * meant.
 */
const FAR = 3;

const isFor = (recipe: Recipe, step: GuideStep, size: number | undefined): boolean => {
  const example = recipe.demo.sizes[step.key];
  return size !== undefined && example !== undefined && size < FAR * example && size > example / FAR;
};

/**
 * Keeps the object and changes the shape: the part is made by another recipe. Every reading stays. A mate that goes on
 * the same size of the object from the same side keeps its want and what tries taught. Additions, loads and neighbours
 * stay too.
 * @param prefix for the ids of new mates; no id of this job has had it before
 * @throws EditRefused where a step takes a dimension that does not suit it, or another part mates with a surface that
 * would be gone
 */
export function withRecipe(
  document: JobDocument,
  { partId, recipe: id, takes, prefix }: { partId: string; recipe: string; takes: Takes; prefix: string },
  workshop: Pick<Workshop, 'materials' | 'windows'>,
): JobDocument {
  const before = requirePart(document, partId);
  const recipe = recipeById(id);
  if (!recipe) throw new EditRefused(`There is no recipe “${id}”: choose one from the list.`);
  if (before.recipe === id) throw new EditRefused('The part is made by this recipe already.');
  if (Object.keys(takes).some(key => !recipe.guide.some(step => step.key === key)))
    throw new EditRefused('The new shape does not ask for that size.');
  const old = requireRecipe(before.recipe);
  const others = document.parts.filter(p => p.id !== partId);
  const binds: Record<string, string> = {};
  let { dimensions } = document;
  const taken = new Set(dimensions.flatMap(d => [d.id, d.name]));
  for (const step of recipe.guide) {
    const from = takes[step.key];
    if (from === undefined) {
      const own = taken.has(step.key) ? freeName(step.key, taken) : step.key;
      if (own !== step.key) binds[step.key] = own;
      taken.add(own);
      dimensions = [...dimensions, unread(step, own)];
      continue;
    }
    const found = candidatesFor(step, document).find(d => d.id === from);
    if (!found) throw new EditRefused(`${step.label} needs a size of its own kind that was read.`);
    if (Object.values(takes).filter(t => t === from).length > 1)
      throw new EditRefused(`${found.label} can stand for one size of the new part only.`);
    if (from !== step.key) binds[step.key] = from;
    // Dimensions that only this part uses take the new recipe's names.
    if (!usedByOthers(from, others))
      dimensions = dimensions.map(d =>
        d.id === from
          ? { ...d, guide: step.key, label: step.label, kind: step.kind, critical: step.critical }
          : d,
      );
  }
  const part: Part = {
    ...before,
    name: before.name === old.title ? recipe.title : before.name,
    recipe: id,
    pose: AS_DRAWN,
    parameters: keptParameters(before, old, recipe),
    binds,
  };
  const added = new Set(before.additions.map(surfaceNameOf));
  const own = document.mates.filter(m => m.ours.part === partId && !added.has(m.ours.surface));
  const numbers = new Set(recipe.parameters.map(p => p.name));
  const proposed = own.filter((m): m is FitMate => m.kind === 'fit' && !m.own);
  const kept = own.filter(m => numbers.has(ownNumberOf(m) ?? ''));
  const material = workshop.materials.find(m => m.id === part.materialId) ?? workshop.materials[0]!;
  const mates = matesOf(part, recipe, material, workshop, `${prefix}-`).map((mate): FitMate => {
    const same = proposed.find(
      m => m.other.of === 'object' && m.side === mate.side && sameSeat(m, mate) && takesSeat(m, takes),
    );
    return same ? { ...same, name: mate.name, ours: mate.ours } : mate;
  });
  const user = document.mates.find(
    m => m.other.of === 'part' && m.other.part === partId && !added.has(m.other.surface),
  );
  if (user)
    throw new EditRefused(
      `“${user.name}” of another part goes with it: make that fit the object again first.`,
    );
  const changed = {
    ...document,
    parts: document.parts.map(p => (p.id === partId ? part : p)),
    dimensions,
    mates: [...document.mates.filter(m => !own.includes(m) || kept.includes(m)), ...mates],
  };
  return { ...changed, dimensions: changed.dimensions.filter(d => isOfUse(d, changed)) };
}

const sameSeat = (a: FitMate, b: FitMate): boolean =>
  a.other.of === 'object' && b.other.of === 'object' && a.other.dimension === b.other.dimension;

const takesSeat = ({ other }: FitMate, takes: Takes): boolean =>
  other.of === 'object' && Object.values(takes).includes(other.dimension);

const usedByOthers = (dimension: string, others: readonly Part[]): boolean =>
  others.some(p => requireRecipe(p.recipe).guide.some(g => dimensionOf(p, g.key) === dimension));

/** Numbers that mean the same in both recipes, such as a wall; a mate's number comes from the ledger. */
function keptParameters({ parameters }: Part, old: Recipe, recipe: Recipe): Part['parameters'] {
  const isNumber = (r: Recipe, name: string) =>
    r.parameters.some(p => p.name === name && p.kind === 'length') &&
    !r.mates.some(m => m.parameter === name);
  const addition = (name: string) => !old.parameters.some(p => p.name === name);
  return Object.fromEntries(
    Object.entries(parameters).filter(
      ([name]) => addition(name) || (isNumber(old, name) && isNumber(recipe, name)),
    ),
  );
}
