import { z } from 'zod';
import { clearanceWindow } from '../core/fit/wants';
import { type NextMate, nextVersion } from '../core/learn/next';
import type { GroupPrior } from '../core/learn/posterior';
import { doubtOf, SIGNED_KINDS, SIGNED_PRIOR, USUAL_SENSE, unitOfKind } from '../core/learn/signed';
import { signedNext } from '../core/learn/signed-mate';
import { VERDICTS } from '../core/learn/verdict';
import { verdictScale } from '../core/learn/verdict-scale';
import { BadInput, type Command } from './command';

const Belief = z.object({ mean: z.number(), sd: z.number().min(0) });
const Window = z
  .object({ min: z.number(), max: z.number() })
  .refine(w => w.min < w.max, { message: 'The least must be below the most.', path: ['max'] });
const Id = z.string().min(1);

const FitMate = z.object({
  id: Id,
  kind: z.literal('fit').default('fit'),
  side: z.enum(['inside', 'outside']),
  reading: z.object({ value: z.number().positive(), u: z.number().min(0) }),
  want: z
    .object({ min: z.number(), max: z.number(), unit: z.enum(['mm', 'strain']).default('mm') })
    .refine(w => w.min < w.max, { message: 'The least must be below the most.', path: ['max'] }),
  soft: z.enum(['none', 'ours', 'theirs']).default('none'),
  prefer: z.enum(['none', 'loose', 'tight']).default('none'),
  number: z.string().optional(),
});
const SignedMate = z.object({
  id: Id,
  kind: z.enum(SIGNED_KINDS),
  target: z.object({ value: z.number(), u: z.number().min(0) }),
  /** About the target. */
  tolerance: Window,
  /** How far the surface moves per mm or degree of its number. */
  rate: z
    .number()
    .refine(r => Math.abs(r) > 1e-3, 'A number that moves nothing decides nothing.')
    .default(1),
  number: z.string().optional(),
});
type FitMate = z.infer<typeof FitMate>;
type SignedMate = z.infer<typeof SignedMate>;
const AnyMate = z.union([SignedMate, FitMate]);

const Input = z.object({
  mates: z.array(AnyMate).min(1).max(50),
  prior: z.object({
    inside: Belief.optional(),
    outside: Belief.optional(),
    signed: Belief.optional(),
    repeatability: z.number().min(0),
  }),
  trials: z
    .array(
      z.object({
        mates: z.record(
          z.string(),
          z
            .object({
              model: z.number(),
              verdict: z.enum(VERDICTS).optional(),
              printed: z.object({ value: z.number().positive(), u: z.number().min(0) }).optional(),
              off: z.number().optional(),
              offU: z.number().min(0).optional(),
            })
            .refine(o => o.off !== undefined || o.offU === undefined, {
              message: 'A doubt of “off” needs “off” itself.',
              path: ['offU'],
            }),
        ),
      }),
    )
    .max(200)
    .default([]),
});
type Input = z.infer<typeof Input>;

const isSigned = (mate: FitMate | SignedMate): mate is SignedMate => mate.kind !== 'fit';

/** Angles are off by degrees and lengths by mm: neither says anything about the other. */
const groupOf = (mate: FitMate | SignedMate) =>
  isSigned(mate) ? `signed/${unitOfKind(mate.kind)}` : mate.side;

function priorOf(mate: FitMate | SignedMate, prior: Input['prior']): GroupPrior {
  if (!isSigned(mate)) {
    const own = prior[mate.side];
    if (!own)
      throw new BadInput(`A mate is ${mate.side}, and the prior has no entry for it.`, `prior.${mate.side}`);
    return own;
  }
  const usual = SIGNED_PRIOR[unitOfKind(mate.kind)];
  // A scatter of prints in mm says nothing about degrees.
  const scatter = unitOfKind(mate.kind) === 'deg' ? usual.scatter : undefined;
  return prior.signed ? { ...prior.signed, scatter } : { ...usual, scatter };
}

function nextMateOf(mate: FitMate | SignedMate): NextMate {
  const { id, number } = mate;
  if (!isSigned(mate)) {
    const window = clearanceWindow(mate.want, mate.reading.value, mate.side, mate.soft);
    return {
      id,
      number,
      side: mate.side,
      group: groupOf(mate),
      reading: mate.reading,
      scale: verdictScale(window, mate.want.unit),
      prefer: mate.prefer,
    };
  }
  return signedNext({ ...mate, group: groupOf(mate), sense: USUAL_SENSE[mate.kind] });
}

function observed(seen: Input['trials'][number]['mates'][string], mate: FitMate | SignedMate, path: string) {
  const { model, verdict, printed, off, offU } = seen;
  if (isSigned(mate) && verdict) throw new BadInput(`“${mate.id}” is judged by an amount: give “off”.`, path);
  if (!isSigned(mate) && off !== undefined)
    throw new BadInput(`“${mate.id}” is judged by a verdict, not by “off”.`, path);
  if (!isSigned(mate) && !(model > 0)) throw new BadInput('A model number must be above 0.', `${path}.model`);
  const told =
    off === undefined || !isSigned(mate)
      ? undefined
      : { value: off, u: offU ?? doubtOf('eye', off, unitOfKind(mate.kind)) };
  return { model, verdict, printed, off: told };
}

export const trialNext: Command<z.infer<typeof Input>> = {
  name: 'trial next',
  about: 'What the tries so far teach, and the model numbers of the next version.',
  example: {
    mates: [
      { id: 'skirt', side: 'inside', reading: { value: 31.7, u: 0.03 }, want: { min: 0.05, max: 0.2 } },
      { id: 'lugs', kind: 'length', target: { value: 12, u: 0.05 }, tolerance: { min: -0.1, max: 0.3 } },
    ],
    prior: {
      inside: { mean: 0.22, sd: 0.14 },
      outside: { mean: 0.05, sd: 0.08 },
      signed: { mean: 0, sd: 0.1 },
      repeatability: 0.04,
    },
    trials: [
      { mates: { skirt: { model: 32.04, verdict: 'tight' }, lugs: { model: 12.1, off: 0.6, offU: 0.1 } } },
    ],
  },
  input: Input,
  run({ mates, prior, trials }) {
    const ids = new Set(mates.map(m => m.id));
    if (ids.size < mates.length) throw new BadInput('Two mates have the same id.', 'mates');
    const known = new Map(mates.map(m => [m.id, m]));
    const read = trials.map((trial, i) => ({
      mates: Object.fromEntries(
        Object.entries(trial.mates).map(([id, seen]) => {
          const path = `trials.${i}.mates.${id}`;
          const mate = known.get(id);
          if (!mate) throw new BadInput(`There is no mate “${id}”.`, path);
          return [id, observed(seen, mate, path)];
        }),
      ),
    }));
    const answer = nextVersion({
      mates: mates.map(nextMateOf),
      priors: Object.fromEntries(mates.map(m => [groupOf(m), priorOf(m, prior)])),
      repeatability: prior.repeatability,
      trials: read,
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
