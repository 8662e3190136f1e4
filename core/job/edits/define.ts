import type { z } from 'zod';
import { type Change, diff } from '../changes';
import type { JobDocument } from '../document';
import type { Workshop } from '../workshop';

/** The part of the workshop that an edit may look at. */
export type EditWorkshop = Pick<Workshop, 'materials' | 'printers' | 'windows'>;

/** Every edit states its kind. */
export type EditSchema = z.ZodObject<{ kind: z.ZodLiteral<string> }>;

/** One kind of edit: a named command that changes a job. All that is known of it is in this one object. */
export interface EditKind<Schema extends EditSchema> {
  schema: Schema;
  /** A pure function of the document. @throws EditRefused when it names something that does not exist */
  apply(document: JobDocument, edit: z.infer<Schema>, workshop: EditWorkshop): JobDocument;
  /** In the maker's words, for the activity log and the undo button. The document is the one before the edit. */
  words(edit: z.infer<Schema>, document: JobDocument): string;
  /**
   * What it changed, value by value. The inverse is the same list in reverse (`invert`), so that undo never takes
   * another window's edit with it.
   */
  changes(before: JobDocument, after: JobDocument): Change[];
  /** Whether the document already has it; by default, whether applying the edit changes nothing. */
  isThere?(document: JobDocument, edit: z.infer<Schema>): boolean;
}

/** @param rest `changes` only where comparing before and after would not find them */
export const defineEdit = <Schema extends EditSchema>(
  schema: Schema,
  rest: Omit<EditKind<Schema>, 'schema' | 'changes'> & Partial<Pick<EditKind<Schema>, 'changes'>>,
): EditKind<Schema> => ({
  schema,
  changes: diff,
  ...rest,
});
