import { z } from 'zod';
import { clearanceWindow } from '../core/fit/wants';
import { nextVersion } from '../core/learn/next';
import { VERDICTS } from '../core/learn/verdict';
import { verdictScale } from '../core/learn/verdict-scale';
import { BadInput, type Command } from './command';

const Belief = z.object({ mean: z.number(), sd: z.number().min(0) });
const Input = z.object({
  mates: z
    .array(
      z.object({
        id: z.string().min(1),
        side: z.enum(['inside', 'outside']),
        reading: z.object({ value: z.number().positive(), u: z.number().min(0) }),
        want: z
          .object({ min: z.number(), max: z.number(), unit: z.enum(['mm', 'strain']).default('mm') })
          .refine(w => w.min < w.max, { message: 'The least must be below the most.', path: ['max'] }),
        soft: z.enum(['none', 'ours', 'theirs']).default('none'),
        prefer: z.enum(['none', 'loose', 'tight']).default('none'),
      }),
    )
    .min(1)
    .max(50),
  prior: z.object({
    inside: Belief.optional(),
    outside: Belief.optional(),
    repeatability: z.number().min(0),
  }),
  trials: z
    .array(
      z.object({
        mates: z.record(
          z.string(),
          z.object({
            model: z.number().positive(),
            verdict: z.enum(VERDICTS).optional(),
            printed: z.object({ value: z.number().positive(), u: z.number().min(0) }).optional(),
          }),
        ),
      }),
    )
    .max(200)
    .default([]),
});

export const trialNext: Command<z.infer<typeof Input>> = {
  name: 'trial next',
  about: 'What the tries so far teach, and the model numbers of the next version.',
  example: {
    mates: [
      { id: 'skirt', side: 'inside', reading: { value: 31.7, u: 0.03 }, want: { min: 0.05, max: 0.2 } },
    ],
    prior: { inside: { mean: 0.22, sd: 0.14 }, outside: { mean: 0.05, sd: 0.08 }, repeatability: 0.04 },
    trials: [{ mates: { skirt: { model: 32.04, verdict: 'tight' } } }],
  },
  input: Input,
  run({ mates, prior, trials }) {
    const ids = new Set(mates.map(m => m.id));
    if (ids.size < mates.length) throw new BadInput('Two mates have the same id.', 'mates');
    trials.forEach((trial, i) => {
      const stray = Object.keys(trial.mates).find(id => !ids.has(id));
      if (stray !== undefined)
        throw new BadInput(`There is no mate “${stray}”.`, `trials.${i}.mates.${stray}`);
    });
    const priors: Record<string, { mean: number; sd: number }> = {};
    for (const side of ['inside', 'outside'] as const) {
      const own = prior[side];
      if (own) priors[side] = own;
      else if (mates.some(m => m.side === side))
        throw new BadInput(`A mate is ${side}, and the prior says nothing of it.`, `prior.${side}`);
    }
    const answer = nextVersion({
      mates: mates.map(m => ({
        id: m.id,
        side: m.side,
        group: m.side,
        reading: m.reading,
        scale: verdictScale(clearanceWindow(m.want, m.reading.value, m.side, m.soft), m.want.unit),
        prefer: m.prefer,
      })),
      priors,
      repeatability: prior.repeatability,
      trials,
    });
    return {
      mates: Object.fromEntries(
        Object.entries(answer.mates).map(([id, { model, pRight, bias }]) => [id, { model, pRight, bias }]),
      ),
      pAllRight: answer.pAllRight,
      reasons: answer.reasons,
    };
  },
};
