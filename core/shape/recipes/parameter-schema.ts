import { z } from 'zod';
import { PlaceError, readPlace } from '../additions/place';
import { MODEL_REFERENCE } from '../model';
import { holesOfText, LONGEST_OUTLINE, outlineOfText } from '../outline-text';
import { unitOf } from './parameters';
import type { Recipe } from './recipe';

/** The parameters as a Zod schema: bounds from the list, unknown names refused. */
export function parameterSchema(recipe: Pick<Recipe, 'parameters' | 'demo'>) {
  const shape: Record<string, z.ZodType> = {};
  for (const spec of recipe.parameters) {
    const usual = recipe.demo.parameters[spec.name];
    if (spec.kind === 'length') {
      const unit = unitOf(spec);
      const number = z
        .number({ error: `${spec.label} must be a number${unit && `, ${unit.trim()}`}.` })
        .min(spec.min, `${spec.label} must be at least ${spec.min}${unit}.`)
        .max(spec.max, `${spec.label} must be at most ${spec.max}${unit}.`);
      shape[spec.name] = (
        spec.measure === 'count' ? number.int(`${spec.label} must be a whole number.`) : number
      )
        .default(usual as number)
        .describe(`${spec.label}${unit && `, ${unit.trim()}`}`);
    } else if (spec.kind === 'choice') {
      const values = spec.options.map(o => o.value) as [string, ...string[]];
      shape[spec.name] = z.enum(values).default(String(usual)).describe(spec.label);
    } else if (spec.kind === 'words' || spec.kind === 'surface') {
      shape[spec.name] = z
        .string()
        .max(spec.kind === 'words' ? spec.most : 40)
        .default(String(usual))
        .describe(spec.label);
    } else if (spec.kind === 'model') {
      shape[spec.name] = z
        .string()
        .refine(text => text === '' || MODEL_REFERENCE.test(text), `${spec.label}: no such body.`)
        .default(String(usual))
        .describe(`${spec.label}: the name of one of the models`);
    } else if (spec.kind === 'place') {
      shape[spec.name] = z
        .string()
        .max(120)
        .superRefine((text, ctx) => {
          try {
            readPlace(text);
          } catch (error) {
            if (!(error instanceof PlaceError)) throw error;
            ctx.addIssue({ code: 'custom', message: `${spec.label}: ${error.message}` });
          }
        })
        .default(String(usual))
        .describe(`${spec.label}: top, underside, left, right, front, back; “top at 5”; “plane top at 5”`);
    } else if (spec.kind === 'outline' || spec.kind === 'holes') {
      shape[spec.name] = z
        .string()
        .max(LONGEST_OUTLINE, `${spec.label} may have at most ${LONGEST_OUTLINE} letters.`)
        .superRefine((text, ctx) => {
          try {
            if (spec.kind === 'outline') outlineOfText(text);
            else holesOfText(text);
          } catch (error) {
            ctx.addIssue({ code: 'custom', message: `${spec.label}: ${(error as Error).message}` });
          }
        })
        .default(String(usual))
        .describe(`${spec.label}, ${HOW_WRITTEN[spec.kind]}`);
    } else {
      shape[spec.name] = z.boolean().default(Boolean(usual)).describe(spec.label);
    }
  }
  return z.strictObject(shape);
}

const HOW_WRITTEN = {
  outline:
    'corners in order, mm: “0, 0; 40, 0 round 3; 40, 25 chamfer 2; 20, 30 via 32, 29; 0, 25 trim -3”; round and chamfer take the corner off, via makes the edge that arrives there an arc through that point, trim moves that edge outwards',
  holes: 'mm: “x, y, diameter; x, y, diameter deep 3”; none if empty',
};
