import { z } from 'zod';
import { Id } from '../fields';

/** Append-only rows beside the job: each can be voided with a reason; none is changed or undone. */
export const Voidable = {
  id: Id,
  at: z.iso.datetime(),
  /** Why it is voided; null while it counts. */
  voided: z.string().max(300).nullable(),
};

export interface VoidableRow {
  id: string;
  at: string;
  voided: string | null;
}

/** One kind of row. All that is known of it is here: schema, store, bundle, voiding and merging follow from it. */
export interface RowKind<Kind extends string, List extends string, Schema extends z.ZodType<VoidableRow>> {
  kind: Kind;
  /** The list of a history that holds it. */
  list: List;
  schema: Schema;
  /**
   * The row that it is about: it counts, and belongs to a part, as that row does. Null where it names its part itself.
   */
  about: ((row: z.infer<Schema>) => { list: string; id: string }) | null;
  /** Its line in the logbook. @param version the number of the version that it is about; “?” where that is gone */
  words(row: z.infer<Schema>, version: number | '?'): string;
}

export const defineRow = <Kind extends string, List extends string, Schema extends z.ZodType<VoidableRow>>(
  kind: RowKind<Kind, List, Schema>,
): RowKind<Kind, List, Schema> => kind;
