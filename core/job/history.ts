import { z } from 'zod';
import { VERDICTS } from '../learn/verdict';
import { Additions } from '../shape/additions/addition';
import { Id, ParameterText, Pose, Want } from './document';

/** Append-only rows beside the job: each can be voided with a reason, none is changed or undone. */
const Voidable = { id: Id, at: z.iso.datetime(), voided: z.string().max(300).nullable() };

const LedgerStep = z.object({
  step: z.enum(['reading', 'allowance', 'compensation', 'lesson']),
  amount: z.number(),
  u: z.number(),
});

/** One mate's chain as it stood when the version was made. */
export const VersionMate = z.object({
  mateId: Id,
  surface: z.string(),
  want: Want,
  reading: z.object({ value: z.number(), u: z.number() }),
  model: z.number(),
  pRight: z.number(),
  ledger: z.array(LedgerStep),
  /** What was believed of the printer before this job's own tries. */
  prior: z.object({ mean: z.number(), sd: z.number() }),
});

/** An immutable set of model numbers. */
export const Version = z.object({
  ...Voidable,
  partId: Id,
  number: z.number().int().min(1),
  recipe: z.string(),
  recipeVersion: z.number().int(),
  kernels: z.string(),
  printerId: Id.nullable(),
  materialId: Id.nullable(),
  pose: Pose,
  expressions: z.record(z.string(), ParameterText),
  parameters: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])),
  additions: Additions,
  mates: z.array(VersionMate),
  pAllRight: z.number(),
  reasons: z.array(z.string()),
  /** Findings accepted with a reason. */
  accepted: z.array(z.object({ code: z.string(), message: z.string(), reason: z.string().max(300) })),
  /** From the finished triangles: mm³. */
  volume: z.number().positive(),
});

/** One piece made from a version. */
export const Print = z.object({
  ...Voidable,
  versionId: Id,
  number: z.number().int().min(1),
  hours: z.number().min(0, 'Hours cannot be negative.').max(2000).nullable(),
  grams: z.number().min(0, 'Grams cannot be negative.').max(100_000).nullable(),
  cost: z.number().min(0).max(1e6).nullable(),
  note: z.string().max(2000),
  /** Made on the practice bench. */
  practice: z.boolean(),
  /** Hashes of the files as they were when printed, by file name. */
  files: z.record(z.string(), z.string()),
});

const VERDICT = z.enum(VERDICTS);
const Effort = z.enum(['too-easy', 'good', 'too-hard']);

export const TryMate = z.object({
  verdict: VERDICT.optional(),
  /** For position, length, angle and flush: signed, mm or degrees. */
  off: z.number().min(-500).max(500).optional(),
  /** For stretch and click. */
  effort: z.object({ on: Effort.optional(), off: Effort.optional(), home: Effort.optional() }).optional(),
  /** The print's own size, measured. */
  printed: z.object({ value: z.number().positive(), u: z.number().min(0) }).optional(),
});

/** Putting a print on: a verdict for each mate that was judged. */
export const Try = z.object({
  ...Voidable,
  printId: Id,
  mates: z.record(Id, TryMate),
  note: z.string().max(2000),
});

/** A row of rings in steps of one mate's size, printed at once. */
export const Ladder = z.object({
  ...Voidable,
  mateId: Id,
  partId: Id,
  printerId: Id.nullable(),
  materialId: Id.nullable(),
  want: Want,
  /** What was drawn, rung by rung. */
  sizes: z.array(z.number().positive().max(5000)).min(2).max(12),
});

/** How the rungs felt on the object; null for one that was not tried. */
export const LadderTry = z.object({
  ...Voidable,
  ladderId: Id,
  verdicts: z.array(VERDICT.nullable()).min(1).max(12),
});

export const History = z.object({
  versions: z.array(Version),
  prints: z.array(Print),
  tries: z.array(Try),
  ladders: z.array(Ladder).default([]),
  ladderTries: z.array(LadderTry).default([]),
});

export type Version = z.infer<typeof Version>;
export type Print = z.infer<typeof Print>;
export type Try = z.infer<typeof Try>;
export type TryMate = z.infer<typeof TryMate>;
export type Ladder = z.infer<typeof Ladder>;
export type LadderTry = z.infer<typeof LadderTry>;
export type History = z.infer<typeof History>;

export const EMPTY_HISTORY: History = {
  versions: [],
  prints: [],
  tries: [],
  ladders: [],
  ladderTries: [],
};

/** Of a job with several parts, what belongs to one of them. */
export function historyOf(history: History, partId: string): History {
  const versions = history.versions.filter(v => v.partId === partId);
  const prints = history.prints.filter(p => versions.some(v => v.id === p.versionId));
  const ladders = history.ladders.filter(l => l.partId === partId);
  return {
    versions,
    prints,
    tries: history.tries.filter(t => prints.some(p => p.id === t.printId)),
    ladders,
    ladderTries: history.ladderTries.filter(t => ladders.some(l => l.id === t.ladderId)),
  };
}

/** What still counts. */
export function standing(history: History): History {
  const versions = history.versions.filter(v => v.voided === null);
  const prints = history.prints.filter(p => p.voided === null && versions.some(v => v.id === p.versionId));
  const tries = history.tries.filter(t => t.voided === null && prints.some(p => p.id === t.printId));
  const ladders = history.ladders.filter(l => l.voided === null);
  const ladderTries = history.ladderTries.filter(
    t => t.voided === null && ladders.some(l => l.id === t.ladderId),
  );
  return { versions, prints, tries, ladders, ladderTries };
}
