import { writeFileSync } from 'node:fs';
import { z } from 'zod';
import {
  FILE_KINDS,
  type FileKind,
  namedStep,
  partStep,
  partStl,
  partThreeMf,
} from '../core/files/part-files';
import { FIRST_WORKSHOP } from '../core/job/workshop';
import { AS_DRAWN } from '../core/print/pose';
import { KINDS } from '../core/shape/additions';
import { usualOf } from '../core/shape/additions/with-additions';
import type { BuiltPart } from '../core/shape/built-part';
import { NO_DEMANDS } from '../core/shape/checks/context';
import { inspectPart } from '../core/shape/checks/inspect';
import type { Kernels } from '../core/shape/kernels/kernel';
import { RECIPES } from '../core/shape/recipes';
import { parameterSchema } from '../core/shape/recipes/parameter-schema';
import { onTheBed } from '../core/shape/solid';
import type { SolidSpec } from '../core/shape/solid-key';
import { BadInput, type Command } from './command';
import { PartAsked, partAsked } from './part-asked';

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

/** @throws KernelError where no STEP can be made of it */
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

export const partBuild: Command<PartAsked> = {
  name: 'part build',
  about:
    'Builds a part, measures its mates on the triangles, and writes .stl, .3mf or .step with --out FILE.',
  example: {
    recipe: 'round-cap',
    parameters: { skirtDiameter: 32.04, skirtDepth: 13.8 },
    additions: [{ kind: 'hole', parameters: { use: 'plain', diameter: 4, place: 'underside' } }],
  },
  input: PartAsked,
  async run(asked, { out }) {
    const kind = out === undefined ? undefined : FILE_KINDS.find(k => out.toLowerCase().endsWith(`.${k}`));
    if (out !== undefined && !kind) throw new BadInput('The file must end in .stl, .3mf or .step.', 'out');
    const { recipe, parameters, spec, solid, tools } = await partAsked(asked);
    const printer = FIRST_WORKSHOP.printers[0]!;
    const material = FIRST_WORKSHOP.materials[0]!;
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
      // Callers see a span as an ordinary width.
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
