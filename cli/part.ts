import { writeFileSync } from 'node:fs';
import { z } from 'zod';
import { FIRST_WORKSHOP } from '../core/job/workshop';
import { RECIPES, recipeById } from '../core/shape/recipes';
import { parameterSchema } from '../core/shape/recipes/recipe';
import { build } from '../server/solids/task';
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

const Input = z.object({ recipe: z.string(), parameters: z.record(z.string(), z.unknown()).default({}) });
const KINDS = ['stl', '3mf', 'step'] as const;

export const partBuild: Command<z.infer<typeof Input>> = {
  name: 'part build',
  about:
    'Builds a part, measures its mates on the triangles, and writes .stl, .3mf or .step with --out FILE.',
  example: { recipe: 'round-cap', parameters: { skirtDiameter: 32.04, skirtDepth: 13.8 } },
  input: Input,
  async run({ recipe: id, parameters: given }, { out }) {
    const recipe = recipeById(id);
    if (!recipe)
      throw new BadInput(
        `There is no recipe “${id}”: take one of ${RECIPES.map(r => r.id).join(', ')}.`,
        'recipe',
      );
    const kind = out === undefined ? undefined : KINDS.find(k => out.toLowerCase().endsWith(`.${k}`));
    if (out !== undefined && !kind) throw new BadInput('The file must end in .stl, .3mf or .step.', 'out');
    const checked = parameterSchema(recipe).safeParse(given);
    if (!checked.success) {
      const issue = checked.error.issues[0]!;
      throw new BadInput(issue.message, ['parameters', ...issue.path.map(String)].join('.'));
    }
    const parameters = checked.data as Record<string, number | string | boolean>;
    // The kernels take a third of a second to load: no other command waits for them.
    const { kernels } = await import('../server/solids/kernels');
    const printer = FIRST_WORKSHOP.printers[0]!;
    const material = FIRST_WORKSHOP.materials[0]!;
    const answer = await build(
      {
        recipe: recipe.id,
        parameters,
        name: recipe.title,
        note: 'Sizes as given. Lengths in mm.',
        files: kind ? [kind] : [],
        context: {
          lineWidth: printer.lineWidth,
          bed: printer.bed,
          flexible: material.flexible,
          density: material.density,
          strainLimit: material.strainLimit,
          ledger: {},
          measured: {},
        },
      },
      await kernels(),
    );
    if (!answer.ok) {
      const [finding] = answer.findings;
      throw new BadInput(
        finding?.message ?? 'The part could not be built.',
        finding?.parameter && `parameters.${finding.parameter}`,
        finding?.code ?? 'cannot-build',
      );
    }
    if (out !== undefined && kind) {
      try {
        writeFileSync(out, answer.files[kind]!);
      } catch (error) {
        throw new BadInput(`${out} cannot be written: ${(error as Error).message}`, 'out', 'cannot-write');
      }
    }
    return {
      ...answer.part,
      // A span is a width like any other to those who ask here.
      mates: answer.part.mates.map(m => ({ ...m, kind: m.kind === 'span' ? 'flats' : m.kind })),
      findings: answer.findings.map(({ level, message, code }) => ({ level, message, code })),
    };
  },
};
