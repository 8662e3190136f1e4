import { AS_DRAWN } from '../print/pose';
import { softSideOf } from '../shape/mates';
import { recipeById } from '../shape/recipes';
import type { Recipe } from '../shape/recipes/recipe';
import {
  type Dimension,
  type FitMate,
  JOB_SCHEMA_VERSION,
  type JobDocument,
  type Part,
  PLAIN_PART,
} from './document';
import { defaultWant } from './edits/tools';
import { dimensionOf } from './parts';
import type { Material, Workshop } from './workshop';

/** A job for one part of a recipe: its guide's dimensions without readings, and its mates with their usual wants. */
export function newJob(title: string, recipe: Recipe, workshop: Workshop, materialId?: string): JobDocument {
  const material = workshop.materials.find(m => m.id === materialId) ?? workshop.materials[0]!;
  const part = partOf('part-1', recipe.title, recipe, material, workshop.printers[0]!.id);
  return {
    schemaVersion: JOB_SCHEMA_VERSION,
    title,
    object: { name: '', note: '', leaves: false, goneAt: null, toRead: [] },
    brief: {
      purpose: '',
      ifItBreaks: null,
      mustHold: [],
      loads: [],
      hottestC: null,
      outdoors: false,
      obstacles: [],
      cautionsRead: [],
      priceToBuy: null,
    },
    parts: [part],
    dimensions: recipe.guide.map(step => unread(step, step.key)),
    photos: [],
    models: [],
    scans: [],
    threads: [],
    mates: matesOf(part, recipe, material, workshop),
    service: { since: null, notes: [] },
  };
}

const partOf = (
  id: string,
  name: string,
  recipe: Recipe,
  material: Pick<Material, 'id'>,
  printerId: string | null,
): Part => ({
  id,
  name,
  recipe: recipe.id,
  printerId,
  materialId: material.id,
  pose: AS_DRAWN,
  parameters: {},
  ...PLAIN_PART,
});

/** A guide step’s dimension before anything is read. */
export const unread = (step: Recipe['guide'][number], name: string): Dimension => ({
  id: name,
  name,
  label: step.label,
  kind: step.kind,
  critical: step.critical,
  guide: step.key,
  note: '',
  readings: [],
});

/** A part’s mates with their usual wants. */
export const matesOf = (
  part: Part,
  recipe: Recipe,
  material: Pick<Material, 'flexible'>,
  workshop: Pick<Workshop, 'windows'>,
  prefix = '',
): FitMate[] =>
  recipe.mates.map(spec => ({
    id: `${prefix}${spec.id}`,
    name: spec.name,
    kind: 'fit',
    ours: { of: 'part', part: part.id, surface: spec.id },
    other: { of: 'object', dimension: dimensionOf(part, spec.dimension) },
    side: spec.side,
    soft: softSideOf(spec, material.flexible),
    want: defaultWant(material.flexible ? spec.flexibleWant : spec.want, workshop),
  }));

/** A guide step's name that no dimension uses yet. */
export const freeName = (key: string, taken: ReadonlySet<string>): string =>
  Array.from({ length: 100 }, (_, i) => `${key.slice(0, 36)}_${i + 2}`).find(name => !taken.has(name))!;

/**
 * The job with one more part, printed like the part before it. Its dimensions are new, or, with `share`, those of the
 * job with the same name: two halves of one thing.
 * @throws RangeError when the recipe is unknown
 */
export function withNewPart(
  document: JobDocument,
  { id, name, recipe: recipeId, share }: { id: string; name: string; recipe: string; share: boolean },
  workshop: Pick<Workshop, 'materials' | 'windows'>,
): JobDocument {
  const recipe = recipeById(recipeId);
  if (!recipe) throw new RangeError(`There is no recipe “${recipeId}”.`);
  const before = document.parts.at(-1)!;
  const material = workshop.materials.find(m => m.id === before.materialId) ?? workshop.materials[0]!;
  const taken = new Set(document.dimensions.flatMap(d => [d.id, d.name]));
  const binds: Record<string, string> = {};
  const dimensions: Dimension[] = [];
  for (const step of recipe.guide) {
    if (!taken.has(step.key)) {
      dimensions.push(unread(step, step.key));
      continue;
    }
    if (share && document.dimensions.some(d => d.id === step.key && d.guide === step.key)) continue;
    const own = freeName(step.key, taken);
    binds[step.key] = own;
    dimensions.push({ ...unread(step, own), label: `${step.label}, ${name}`.slice(0, 120) });
  }
  const part = { ...partOf(id, name, recipe, material, before.printerId), binds };
  return {
    ...document,
    parts: [...document.parts, part],
    dimensions: [...document.dimensions, ...dimensions],
    mates: [...document.mates, ...matesOf(part, recipe, material, workshop, `${id}-`)],
  };
}

/**
 * The job with what the part's recipe has come to ask for since the part was made: sizes that are not there yet, and
 * surfaces that have no mate yet.
 */
export function withLearned(
  document: JobDocument,
  part: Part,
  workshop: Pick<Workshop, 'materials' | 'windows'>,
): JobDocument {
  const recipe = recipeById(part.recipe);
  if (!recipe) return document;
  const has = (id: string) => document.dimensions.some(d => d.id === id);
  const steps = recipe.guide.filter(step => !has(dimensionOf(part, step.key)));
  const said = (surface: string) =>
    document.mates.some(m => m.ours.part === part.id && m.ours.surface === surface);
  const specs = recipe.mates.filter(spec => !said(spec.id));
  if (steps.length === 0 && specs.length === 0) return document;
  const material = workshop.materials.find(m => m.id === part.materialId) ?? workshop.materials[0]!;
  const ids = new Set(document.mates.map(m => m.id));
  const mates = matesOf(part, { ...recipe, mates: specs }, material, workshop).map(mate => ({
    ...mate,
    id: ids.has(mate.id) ? `${part.id}-${mate.id}` : mate.id,
  }));
  return {
    ...document,
    dimensions: [...document.dimensions, ...steps.map(step => unread(step, dimensionOf(part, step.key)))],
    mates: [...document.mates, ...mates],
  };
}
