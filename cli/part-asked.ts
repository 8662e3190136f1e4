import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { z } from 'zod';
import { readStl } from '../core/files/reading-back';
import { writeStl } from '../core/files/stl';
import { kindOf } from '../core/shape/additions';
import { ADDITION_KINDS, Addition, MOST_ADDITIONS } from '../core/shape/additions/addition';
import { longName, usualOf, withAdditions } from '../core/shape/additions/with-additions';
import type { Kernels } from '../core/shape/kernels/kernel';
import { RECIPES, recipeById } from '../core/shape/recipes';
import { completed } from '../core/shape/recipes/left-out';
import { parameterSchema } from '../core/shape/recipes/parameter-schema';
import type { Recipe } from '../core/shape/recipes/recipe';
import { solidOf } from '../core/shape/solid';
import { BadInput } from './command';

/** A part by its recipe and numbers, with its additions. */
export const PartAsked = z.object({
  recipe: z.string(),
  parameters: z.record(z.string(), z.unknown()).default({}),
  /** In order; numbers by their short names, see `part additions`. */
  additions: z
    .array(
      z.strictObject({
        kind: z.enum(ADDITION_KINDS),
        id: Addition.shape.id.optional(),
        name: Addition.shape.name.optional(),
        on: z.boolean().default(true),
        parameters: z.record(z.string(), z.unknown()).default({}),
        /** Whether its surface is measured among the mates. */
        mate: z.boolean().default(false),
      }),
    )
    .max(MOST_ADDITIONS)
    .default([]),
  /** Bodies to keep clear of, or objects to follow: a name for “model”, and its STEP, STL, OBJ, PLY or 3MF file. */
  models: z.record(z.string().regex(/^[\w-]{1,40}$/), z.string()).default({}),
});

export type PartAsked = z.infer<typeof PartAsked>;
type Wished = PartAsked['additions'];

/** The list in the form that a job stores. */
function additionsOf(wished: Wished): Addition[] {
  const list = wished.map((w, order): Addition => {
    const kind = kindOf(w.kind);
    const choices = Object.fromEntries(
      kind.parameters.map(spec => [spec.name, (w.parameters[spec.name] ?? usualOf(spec)) as string]),
    );
    const parameter = w.mate ? kind.fit?.parameter(choices) : undefined;
    if (w.mate && !parameter)
      throw new BadInput(`No number of this ${w.kind} can be measured as a mate.`, `additions.${order}.mate`);
    return {
      id: w.id ?? `${kind.short}${order + 1}`,
      kind: w.kind,
      name: w.name ?? kind.title,
      order,
      on: w.on,
      ...(parameter
        ? {
            fits: {
              dimension: 'given',
              parameter,
              side: kind.fit!.side(choices),
              form: kind.fit!.form(choices),
            },
          }
        : {}),
    };
  });
  const twice = list.findIndex((a, i) => list.findIndex(b => b.id === a.id) < i);
  if (twice >= 0)
    throw new BadInput(`Two additions are called “${list[twice]!.id}”.`, `additions.${twice}.id`);
  return list;
}

/** For the part and its additions together, by their long names; a model by its reference. */
function parametersOf(
  { parameters: own }: Pick<Recipe, 'parameters'>,
  given: Record<string, unknown>,
  wished: Wished,
  additions: readonly Addition[],
  references: Readonly<Record<string, string>>,
) {
  const all = { ...given };
  for (const spec of own) {
    const value = given[spec.name];
    if (spec.kind !== 'model' || value === undefined) continue;
    if (!(String(value) in references))
      throw new BadInput(
        `There is no model “${value}”: name its file under “models”.`,
        `parameters.${spec.name}`,
      );
    all[spec.name] = references[String(value)];
  }
  wished.forEach(({ parameters, on }, i) => {
    for (const [name, value] of Object.entries(parameters)) {
      if (!kindOf(additions[i]!.kind).parameters.some(spec => spec.name === name))
        throw new BadInput(
          `A ${additions[i]!.kind} has no “${name}”: see part additions.`,
          `additions.${i}.parameters.${name}`,
        );
      if (!on) continue;
      if (name === 'model' && !(String(value) in references))
        throw new BadInput(
          `There is no model “${value}”: name its file under “models”.`,
          `additions.${i}.parameters.model`,
        );
      all[longName(additions[i]!, name)] = name === 'model' ? references[String(value)] : value;
    }
  });
  return all;
}

function fileBytes(path: string, at: string): Uint8Array {
  try {
    return readFileSync(path);
  } catch (error) {
    throw new BadInput(`${path} cannot be read: ${(error as Error).message}`, at);
  }
}

/** A body's file as binary STL, mm. @throws BadInput @param at the field that names the file */
export async function bodyFrom(path: string, at: string, tools: Kernels): Promise<Uint8Array> {
  const bytes = fileBytes(path, at);
  const { readBody } = await import('../core/files/bodies/read-body');
  const read = await readBody(bytes, tools);
  if (!read.ok) throw new BadInput(read.message, at, 'bad-model');
  return read.stl;
}

/** A scan's surface for a part to follow, thinned out; a STEP file contains no scan. */
async function followedFrom(path: string, at: string, tools: Kernels): Promise<Uint8Array> {
  const bytes = fileBytes(path, at);
  if (/\.(step|stp)$/i.test(path)) return bodyFrom(path, at, tools);
  const { readScan } = await import('../core/scan/read-scan');
  const { ScanSurface } = await import('../core/scan/scan-surface');
  const { thinned } = await import('../core/scan/thinned');
  const { ScanError } = await import('../core/scan/scan-file');
  try {
    const mesh = readScan(bytes);
    if (mesh.triangles.length === 0)
      throw new BadInput('Points alone have no surface: export triangles.', at);
    return writeStl(thinned(new ScanSurface(mesh)), 'surface');
  } catch (error) {
    if (error instanceof ScanError) throw new BadInput(error.message, at, error.code);
    throw error;
  }
}

/**
 * Reads the files of bodies into the kernels; returns their references. @param followed names of those that a part
 * follows
 */
async function readModels(
  files: Record<string, string>,
  followed: ReadonlySet<string>,
  to: Kernels,
): Promise<Record<string, string>> {
  const references: Record<string, string> = {};
  const models = new Map(to.models);
  for (const [name, path] of Object.entries(files)) {
    const read = followed.has(name) ? followedFrom : bodyFrom;
    const stl = await read(path, `models.${name}`, to);
    const sha256 = createHash('sha256').update(stl).digest('hex');
    models.set(sha256, readStl(stl));
    references[name] = sha256;
  }
  to.models = models;
  return references;
}

/** Builds it. @throws BadInput with what is wrong and where */
export async function partAsked({ recipe: id, parameters: given, additions: wished, models }: PartAsked) {
  const base = recipeById(id);
  if (!base)
    throw new BadInput(
      `There is no recipe “${id}”: take one of ${RECIPES.map(r => r.id).join(', ')}.`,
      'recipe',
    );
  const additions = additionsOf(wished);
  const recipe = withAdditions(base, additions);
  // The kernels take a third of a second to load: other commands do not wait for them.
  const { kernels } = await import('../kernels/node');
  const tools = await kernels();
  const followed = base.parameters.flatMap(s => (s.kind === 'model' ? [String(given[s.name])] : []));
  const references = await readModels(models, new Set(followed), tools);
  const checked = parameterSchema(recipe).safeParse(
    completed(recipe, parametersOf(base, given, wished, additions, references)),
  );
  if (!checked.success) {
    const issue = checked.error.issues[0]!;
    throw new BadInput(issue.message, ['parameters', ...issue.path.map(String)].join('.'));
  }
  const parameters = checked.data as Record<string, number | string | boolean>;
  const spec = { recipe: recipe.id, additions, parameters };
  const solid = solidOf(spec, tools);
  if (!solid.ok) {
    const [finding] = solid.findings;
    throw new BadInput(
      finding?.message ?? 'The part could not be built.',
      finding?.parameter && `parameters.${finding.parameter}`,
      finding?.code ?? 'cannot-build',
    );
  }
  return { recipe, parameters, spec, solid, tools };
}
