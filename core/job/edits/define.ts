import type { z } from 'zod';
import { type Change, diff } from '../changes';
import type { JobDocument } from '../document';
import type { Workshop } from '../workshop';

/** What of the workshop an edit may look at. */
export type EditWorkshop = Pick<Workshop, 'materials' | 'printers' | 'windows'>;

/** Every edit says what kind it is. */
export type EditSchema = z.ZodObject<{ kind: z.ZodLiteral<string> }>;

/** One kind of edit: a named command that changes a job, all that is known of it in one place. */
export interface EditKind<Schema extends EditSchema> {
  schema: Schema;
  /** A pure function of the document. @throws EditRefused when it names something that does not exist */
  apply(document: JobDocument, edit: z.infer<Schema>, workshop: EditWorkshop): JobDocument;
  /** In the maker's words, for the activity log and the undo button; the document is the one before it. */
  words(edit: z.infer<Schema>, document: JobDocument): string;
  /**
   * What it changed, value by value: the inverse is the same list turned round (`invert`), so that it never takes
   * another window's edit with it.
   */
  changes(before: JobDocument, after: JobDocument): Change[];
  /** Whether the document has it already; left out, whether applying it changes nothing. */
  isThere?(document: JobDocument, edit: z.infer<Schema>): boolean;
}

/** @param rest `changes` only where they are not what comparing before and after finds */
export const defineEdit = <Schema extends EditSchema>(
  schema: Schema,
  rest: Omit<EditKind<Schema>, 'schema' | 'changes'> & Partial<Pick<EditKind<Schema>, 'changes'>>,
): EditKind<Schema> => ({
  schema,
  changes: diff,
  ...rest,
});
