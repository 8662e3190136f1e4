import { and, eq } from 'drizzle-orm';
import { ulid } from 'ulid';
import type { Conflict } from '../../contract/jobs';
import { applyChanges, type Change, invert, valueAt } from '../../core/job/changes';
import { JobDocument } from '../../core/job/document';
import { applyEdit, type Edit, editKind, wordsFor } from '../../core/job/edits';
import type { Workshop } from '../../core/job/workshop';
import { HttpError, notFound } from '../errors';
import type { Transaction } from '../store/database';
import { edits } from '../store/schema';
import { answerJob, readDocument, saveDocument, wordsSince } from './repository';

export interface Editor {
  tab: string;
  isOpen(tab: string): boolean;
}

/** The result of an edit. */
export interface Edited {
  revision: number;
  changes: Change[];
}

/** One edit: checked against the revision it was made on, applied, logged with its inverse. */
export async function editJob(
  tx: Transaction,
  id: string,
  revision: number,
  edit: Edit,
  workshop: Workshop,
  editor: Editor,
): Promise<Edited> {
  const job = await readDocument(tx, id);
  const words = wordsFor(edit, job.document);
  if (job.revision !== revision) {
    const details: Conflict = {
      current: await answerJob(tx, id, editor.tab, editor.isOpen),
      theirs: await wordsSince(tx, id, revision),
      yours: words,
    };
    throw new HttpError(
      409,
      'stale',
      'Another window changed this job meanwhile. Nothing of either side is lost.',
      details,
    );
  }
  const document = applyEdit(job.document, edit, workshop);
  const changes = editKind(edit).changes(job.document, document);
  if (changes.length === 0) return { revision: job.revision, changes };
  await saveDocument(tx, id, document, revision + 1);
  // A new edit ends the possibility of redo for this window.
  await tx
    .update(edits)
    .set({ standing: 'dropped' })
    .where(and(eq(edits.jobId, id), eq(edits.tab, editor.tab), eq(edits.standing, 'undone')));
  await logEdit(tx, id, revision + 1, editor.tab, edit.kind, words, changes, 'edit', null);
  return { revision: revision + 1, changes };
}

/** Undo or redo of one named edit, as a new revision; refused where its values have changed since. */
export async function revertEdit(
  tx: Transaction,
  id: string,
  editId: string,
  role: 'undo' | 'redo',
  editor: Editor,
): Promise<Edited> {
  const [row] = await tx
    .select()
    .from(edits)
    .where(and(eq(edits.id, editId), eq(edits.jobId, id)));
  if (!row) throw notFound('That edit');
  const expected = role === 'undo' ? 'stands' : 'undone';
  if (row.role !== 'edit' || row.standing !== expected) {
    throw new HttpError(
      409,
      'not-undoable',
      role === 'undo'
        ? 'That edit is undone already.'
        : 'That edit cannot be done again: something newer took its place.',
    );
  }
  if (row.tab !== editor.tab && editor.isOpen(row.tab)) {
    throw new HttpError(
      409,
      'other-window',
      'That edit was made in another window, which is still open: undo it there.',
    );
  }
  const job = await readDocument(tx, id);
  const forward = JSON.parse(row.changes) as Change[];
  const changes = role === 'undo' ? invert(forward) : forward;
  const applied = applyChanges(job.document, changes);
  if (!applied.ok) {
    const now = valueAt(job.document, applied.conflict.path);
    throw new HttpError(
      409,
      'overtaken',
      `“${row.words}” cannot be ${role === 'undo' ? 'undone' : 'done again'}: the same thing was changed again since, in another window.`,
      {
        path: applied.conflict.path,
        now: now ?? null,
      },
    );
  }
  const revision = job.revision + 1;
  await saveDocument(tx, id, JobDocument.parse(applied.document), revision);
  await tx
    .update(edits)
    .set({ standing: role === 'undo' ? 'undone' : 'stands', tab: editor.tab })
    .where(eq(edits.id, editId));
  await logEdit(
    tx,
    id,
    revision,
    editor.tab,
    row.kind,
    `${role === 'undo' ? 'Undone' : 'Done again'}: ${row.words}`,
    changes,
    role,
    editId,
  );
  return { revision, changes };
}

/** An edit in the log, with everything needed to undo it. */
export async function logEdit(
  tx: Transaction,
  jobId: string,
  revision: number,
  tab: string,
  kind: string,
  words: string,
  changes: Change[],
  role: 'edit' | 'undo' | 'redo' = 'edit',
  about: string | null = null,
): Promise<void> {
  await tx.insert(edits).values({
    id: ulid(),
    jobId,
    revision,
    at: new Date().toISOString(),
    tab,
    kind,
    words,
    changes: JSON.stringify(changes),
    role,
    about,
    standing: 'stands',
  });
}
