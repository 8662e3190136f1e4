import { z } from 'zod';
import { Id } from '../fields';
import { defineRow, Voidable } from './kind';

/** A maker's note on a version after it was made: the version itself never changes. The latest note counts. */
export const Remark = z.object({
  ...Voidable,
  versionId: Id,
  /** Empty where an earlier note is taken back. */
  text: z.string().trim().max(600, 'At most 600 characters.'),
});
export type Remark = z.infer<typeof Remark>;

export const remark = defineRow({
  kind: 'remark',
  list: 'remarks',
  schema: Remark,
  about: row => ({ list: 'versions', id: row.versionId }),
  words: (row, version) =>
    row.text ? `Noted of version ${version}: ${row.text}` : `Took back what was noted of version ${version}`,
});
