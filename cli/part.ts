import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { z } from 'zod';
import {
  FILE_KINDS,
  type FileKind,
  namedStep,
  partStep,
  partStl,
  partThreeMf,
} from '../core/files/part-files';
import { readStl } from '../core/files/reading-back';
import { FIRST_WORKSHOP } from '../core/job/workshop';
import { AS_DRAWN } from '../core/print/pose';
import { KINDS, kindOf } from '../core/shape/additions';
import { ADDITION_KINDS, Addition, MOST_ADDITIONS } from '../core/shape/additions/addition';
import { longName, usualOf, withAdditions } from '../core/shape/additions/with-additions';
import type { BuiltPart } from '../core/shape/built-part';
import { NO_DEMANDS } from '../core/shape/checks/context';
import { inspectPart } from '../core/shape/checks/inspect';
import type { Kernels } from '../core/shape/kernels/kernel';
import { RECIPES, recipeById } from '../core/shape/recipes';
import { completed } from '../core/shape/recipes/left-out';
import { parameterSchema } from '../core/shape/recipes/parameter-schema';
import { onTheBed, solidOf } from '../core/shape/solid';
import type { SolidSpec } from '../core/shape/solid-key';
import { BadInput, type Command } from './command';

export const partList: Command<unknown> = {
  name: 'part list',
  about: 'The recipes, their parameters as JSON Schema, and their mates.',
  example: null,
  input: null,
  run: () => ({
    recipes: RECIPES.map(recipe => ({
      id: recipe.id,
      family: recipe.family,
      title: recipe.title,
      purpose: recipe.purpose,
      parameters: z.toJSONSchema(parameterSchema(recipe), { io: 'input' }),
      mates: recipe.mates.map(({ id, name, side, parameter, want }) => ({ id, name, side, parameter, want })),
    })),
  }),
};

const Input = z.object({
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
  /** Bodies to keep clear of: a name for “model”, and its STEP, STL, OBJ or 3MF file. */
  models: z.record(z.string().regex(/^[\w-]{1,40}$/), z.string()).default({}),
});

type Wished = z.infer<typeof Input>['additions'];

/** The list as a job would hold it. */
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

/** Of the part and its additions together, by their long names; a model by its reference. */
function parametersOf(
  given: Record<string, unknown>,
  wished: Wished,
  additions: readonly Addition[],
  references: Readonly<Record<string, string>>,
) {
  const all = { ...given };
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

/** Reads the files of bodies into the kernels; what each is known by. */
async function readModels(files: Record<string, string>, to: Kernels): Promise<Record<string, string>> {
  const references: Record<string, string> = {};
  const models = new Map(to.models);
  for (const [name, path] of Object.entries(files)) {
    let bytes: Uint8Array;
    try {
      bytes = readFileSync(path);
    } catch (error) {
      throw new BadInput(`${path} cannot be read: ${(error as Error).message}`, `models.${name}`);
    }
    const { readBody } = await import('../core/files/bodies/read-body');
    const read = await readBody(bytes, to);
    if (!read.ok) throw new BadInput(read.message, `models.${name}`, 'bad-model');
    const sha256 = createHash('sha256').update(read.stl).digest('hex');
    models.set(sha256, readStl(read.stl));
    references[name] = sha256;
  }
  to.models = models;
  return references;
}

export const partAdditions: Command<unknown> = {
  name: 'part additions',
  about: 'What can be put on any part or taken off it, with its numbers as JSON Schema.',
  example: null,
  input: null,
  run: () => ({
    additions: KINDS.map(kind => ({
      kind: kind.kind,
      title: kind.title,
      purpose: kind.purpose,
      parameters: z.toJSONSchema(
        parameterSchema({
          parameters: kind.parameters,
          demo: {
            name: '',
            sizes: {},
            parameters: Object.fromEntries(kind.parameters.map(spec => [spec.name, usualOf(spec)])),
          },
        }),
        { io: 'input' },
      ),
    })),
  }),
};

/** @throws KernelError where STEP cannot be had of it */
async function fileOf(
  kind: FileKind,
  spec: SolidSpec,
  part: BuiltPart,
  name: string,
  tools: Kernels,
): Promise<Uint8Array> {
  if (kind === 'step') return namedStep(await partStep(spec, tools), name);
  return kind === 'stl'
    ? partStl(part, name, AS_DRAWN)
    : partThreeMf(part, { name, note: 'Sizes as given. Lengths in mm.' }, AS_DRAWN);
}

export const partBuild: Command<z.infer<typeof Input>> = {
  name: 'part build',
  about:
    'Builds a part, measures its mates on the triangles, and writes .stl, .3mf or .step with --out FILE.',
  example: {
    recipe: 'round-cap',
    parameters: { skirtDiameter: 32.04, skirtDepth: 13.8 },
    additions: [{ kind: 'hole', parameters: { use: 'plain', diameter: 4, place: 'underside' } }],
  },
  input: Input,
  async run({ recipe: id, parameters: given, additions: wished, models }, { out }) {
    const base = recipeById(id);
    if (!base)
      throw new BadInput(
        `There is no recipe “${id}”: take one of ${RECIPES.map(r => r.id).join(', ')}.`,
        'recipe',
      );
    const kind = out === undefined ? undefined : FILE_KINDS.find(k => out.toLowerCase().endsWith(`.${k}`));
    if (out !== undefined && !kind) throw new BadInput('The file must end in .stl, .3mf or .step.', 'out');
    const additions = additionsOf(wished);
    const recipe = withAdditions(base, additions);
    // The kernels take a third of a second to load: no other command waits for them.
    const { kernels } = await import('../kernels/node');
    const references = await readModels(models, await kernels());
    const checked = parameterSchema(recipe).safeParse(
      completed(recipe, parametersOf(given, wished, additions, references)),
    );
    if (!checked.success) {
      const issue = checked.error.issues[0]!;
      throw new BadInput(issue.message, ['parameters', ...issue.path.map(String)].join('.'));
    }
    const parameters = checked.data as Record<string, number | string | boolean>;
    const printer = FIRST_WORKSHOP.printers[0]!;
    const material = FIRST_WORKSHOP.materials[0]!;
    const spec = { recipe: recipe.id, additions, parameters };
    const tools = await kernels();
    const solid = solidOf(spec, tools);
    if (!solid.ok) {
      const [finding] = solid.findings;
      throw new BadInput(
        finding?.message ?? 'The part could not be built.',
        finding?.parameter && `parameters.${finding.parameter}`,
        finding?.code ?? 'cannot-build',
      );
    }
    const context = {
      lineWidth: printer.lineWidth,
      bed: printer.bed,
      flexible: material.flexible,
      density: material.density,
      strainLimit: material.strainLimit,
      ledger: {},
      measured: {},
      ...NO_DEMANDS,
    };
    const { findings } = inspectPart(recipe, parameters, solid.part, context, tools, solid.findings);
    const { volume, area, bounds, watertight, mates, mesh } = onTheBed(solid.part);
    if (out !== undefined && kind) {
      try {
        writeFileSync(out, await fileOf(kind, spec, solid.part, recipe.title, tools));
      } catch (error) {
        throw new BadInput(`${out} cannot be written: ${(error as Error).message}`, 'out', 'cannot-write');
      }
    }
    return {
      volume,
      area,
      bounds,
      watertight,
      triangles: mesh.triangles.length / 3,
      // A span is a width like any other to those who ask here.
      mates: mates.map(m => ({ ...m, kind: m.kind === 'span' ? 'flats' : m.kind })),
      findings: findings.map(({ level, message, code, addition }) => ({
        level,
        message,
        code,
        ...(addition ? { addition } : {}),
      })),
    };
  },
};
