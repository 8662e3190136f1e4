import { z } from 'zod';
import { Id } from '../fields';
import { defineRow, Voidable } from './kind';
import { Print, pieceWords, SliceOf } from './print';

/** A print that was started; its outcome is a row of its own that names this one. */
export const Start = z.object({
  ...Voidable,
  versionId: Id,
  pieces: Print.shape.pieces,
  hand: Print.shape.hand,
  slice: SliceOf.default(null),
  /** Estimated hours; null where its solid could not be built. */
  expectedHours: z.number().min(0).max(10_000).nullable().default(null),
});
export type Start = z.infer<typeof Start>;

export const start = defineRow({
  kind: 'start',
  list: 'starts',
  schema: Start,
  about: row => ({ list: 'versions', id: row.versionId }),
  words: (row, version) => `Began to print ${pieceWords(row)}version ${version}`,
});
