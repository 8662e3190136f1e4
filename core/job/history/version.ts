import { z } from 'zod';
import { Pose } from '../../print/pose';
import { Quality } from '../../print/settings';
import { Additions } from '../../shape/additions/addition';
import { OwnNumber, Want } from '../document';
import { Id, ParameterText } from '../fields';
import { defineRow, Voidable } from './kind';

const LedgerStep = z.object({
  step: z.enum(['reading', 'allowance', 'compensation', 'lesson', 'own']),
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
  /** The belief about the printer before this job's own tries. */
  prior: z.object({ mean: z.number(), sd: z.number() }),
  /** The surface as it was then, for a mate named by the maker. */
  own: OwnNumber.extend({ name: z.string(), side: z.enum(['inside', 'outside']), dimension: Id }).optional(),
});

/** The chain of a mate that is judged by an amount, as it stood when the version was made. mm or degrees. */
export const VersionSigned = z.object({
  mateId: Id,
  name: z.string(),
  number: z.string(),
  target: z.object({ value: z.number(), u: z.number() }),
  tolerance: z.object({ min: z.number(), max: z.number() }),
  model: z.number(),
  pRight: z.number(),
  ledger: z.array(LedgerStep),
  prior: z.object({ mean: z.number(), sd: z.number() }),
});

/** A version: an immutable set of model numbers. */
export const Version = z.object({
  ...Voidable,
  partId: Id,
  number: z.number().int().min(1),
  /** The version that it was made from; null for the first, and for versions made before this was recorded. */
  follows: Id.nullable().default(null),
  recipe: z.string(),
  recipeVersion: z.number().int(),
  kernels: z.string(),
  printerId: Id.nullable(),
  materialId: Id.nullable(),
  pose: Pose,
  quality: Quality.default('usual'),
  expressions: z.record(z.string(), ParameterText),
  parameters: z.record(z.string(), z.union([z.number(), z.string(), z.boolean()])),
  additions: Additions,
  mates: z.array(VersionMate),
  signed: z.array(VersionSigned).default([]),
  pAllRight: z.number(),
  reasons: z.array(z.string()),
  /** Findings accepted with a reason. */
  accepted: z.array(
    z.object({
      code: z.string(),
      message: z.string(),
      reason: z.string().max(300),
      /** The finding's own fields; left out in older versions. */
      fields: z.record(z.string(), z.union([z.string(), z.number(), z.boolean()])).optional(),
      parameter: z.string().optional(),
      addition: z.string().optional(),
      load: z.string().optional(),
      neighbour: z.string().optional(),
    }),
  ),
  /** From the finished triangles: mm³. */
  volume: z.number().positive(),
  /** Hashes of its files, by file name; empty in a version made before files were stored with it. */
  files: z.record(z.string(), z.string()).default({}),
  /** Files that could not be made from it, and why, by kind. */
  without: z.record(z.string(), z.string()).default({}),
});
export type Version = z.infer<typeof Version>;

export const version = defineRow({
  kind: 'version',
  list: 'versions',
  schema: Version,
  about: null,
  words: row => `Made version ${row.number}`,
});
