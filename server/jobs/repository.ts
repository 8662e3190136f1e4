import { and, asc, desc, eq, gt, inArray, max, ne } from 'drizzle-orm';
import { ulid } from 'ulid';
import { ZodError } from 'zod';
import { errorOfZod } from '../../contract/errors';
import type { Activity, JobAnswer, JobChange, JobView } from '../../contract/jobs';
import { JOB_SCHEMA_VERSION, type JobDocument } from '../../core/job/document';
import {
  type History,
  type HistoryKindName,
  type HistoryRow,
  historyOfRows,
  logbook,
  rowsOf,
} from '../../core/job/history';
import { readJobDocument } from '../../core/job/read-document';
import { recipeById } from '../../core/shape/recipes';
import { type Moment, stageOfPath, stageOfRow } from '../../core/work/hours';
import { HttpError, notFound } from '../errors';
import type { Database, Transaction } from '../store/database';
import { bench, edits, history, jobs, tags } from '../store/schema';

/** Reads and writes of jobs inside one transaction. */
export type Reader = Transaction | Database;

/** @throws UnreadableJob where its row, or one of its history, cannot be read */
export async function readJob(db: Reader, id: string): Promise<JobView> {
  const [row] = await db.select().from(jobs).where(eq(jobs.id, id));
  if (!row) throw notFound('That job');
  const past = await historyRows(db, id);
  return readable(row, () => {
    const document = readJobDocument(JSON.parse(row.document));
    const history = historyOfRows(past.map(r => ({ kind: r.kind, row: JSON.parse(r.document) as unknown })));
    requireRecipes([...document.parts, ...history.versions]);
    const { number, revision, createdAt, updatedAt } = row;
    return { id, number, revision, createdAt, updatedAt, document, history };
  });
}

/** A job whose row is damaged, or was written by another Sagoma: it is shown as such, and affects no other job. */
export class UnreadableJob extends HttpError {
  constructor(
    readonly title: string,
    readonly why: string,
  ) {
    super(
      422,
      'unreadable',
      `“${title}” cannot be read: ${why} Export it raw from the rack, to keep what there is, or remove it.`,
    );
  }
}

function readable<T>({ title }: { title: string }, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof SyntaxError) throw new UnreadableJob(title, 'its data is damaged.');
    if (error instanceof ZodError) throw new UnreadableJob(title, errorOfZod(error).message);
    if (error instanceof RangeError) throw new UnreadableJob(title, error.message);
    throw error;
  }
}

function requireRecipes(made: readonly { recipe: string }[]): void {
  const strange = made.find(m => !recipeById(m.recipe));
  if (strange)
    throw new RangeError(`it is made by a recipe that this Sagoma does not have, “${strange.recipe}”.`);
}

/** Everything stored of a job, unchanged, for one that cannot be read. */
export async function readRaw(db: Reader, id: string) {
  const [row] = await db.select().from(jobs).where(eq(jobs.id, id));
  if (!row) throw notFound('That job');
  const past = await db.select().from(edits).where(eq(edits.jobId, id));
  return { job: row, history: await historyRows(db, id), edits: past };
}

export async function removeJob(tx: Transaction, id: string): Promise<void> {
  for (const table of [history, edits, bench, tags]) await tx.delete(table).where(eq(table.jobId, id));
  await tx.delete(jobs).where(eq(jobs.id, id));
}

/** The document was validated when it was written; only an older one is read through its upgrades. */
export async function readDocument(
  db: Reader,
  id: string,
): Promise<{ revision: number; document: JobDocument }> {
  const [row] = await db.select().from(jobs).where(eq(jobs.id, id));
  if (!row) throw notFound('That job');
  const document = readable(row, () => {
    const stored: unknown = JSON.parse(row.document);
    return row.schemaVersion === JOB_SCHEMA_VERSION ? (stored as JobDocument) : readJobDocument(stored);
  });
  return { revision: row.revision, document };
}

const historyRows = (db: Reader, jobId: string) =>
  db.select().from(history).where(eq(history.jobId, jobId)).orderBy(asc(history.at), asc(history.id));

export async function readHistory(db: Reader, jobId: string): Promise<History> {
  const rows = await historyRows(db, jobId);
  return historyOfRows(rows.map(row => ({ kind: row.kind, row: JSON.parse(row.document) as unknown })));
}

/** What tells whether a job has changed since it was last looked at. */
export async function readJobStamps(
  db: Reader,
): Promise<{ id: string; number: number; title: string; stamp: string }[]> {
  const rows = await db
    .select({
      id: jobs.id,
      number: jobs.number,
      title: jobs.title,
      revision: jobs.revision,
      updatedAt: jobs.updatedAt,
    })
    .from(jobs)
    .orderBy(desc(jobs.updatedAt));
  return rows.map(({ revision, updatedAt, ...row }) => ({ ...row, stamp: `${revision} ${updatedAt}` }));
}

/** Jobs of which something was tried, with the same stamp; what was touched last comes first. */
export async function readTriedJobs(db: Reader): Promise<{ id: string; stamp: string }[]> {
  const tried = db
    .select({ id: history.jobId })
    .from(history)
    .where(inArray(history.kind, ['try', 'ladder-try']));
  const rows = await db
    .select({ id: jobs.id, revision: jobs.revision, updatedAt: jobs.updatedAt })
    .from(jobs)
    .where(inArray(jobs.id, tried))
    .orderBy(desc(jobs.updatedAt));
  return rows.map(({ id, revision, updatedAt }) => ({ id, stamp: `${revision} ${updatedAt}` }));
}

/** @param keep an import's own id, number wish and dates */
export async function insertJob(
  tx: Transaction,
  document: JobDocument,
  keep?: Pick<JobView, 'id' | 'revision' | 'createdAt'>,
): Promise<string> {
  const [last] = await tx.select({ number: max(jobs.number) }).from(jobs);
  const at = new Date().toISOString();
  const id = keep?.id ?? ulid();
  await tx.insert(jobs).values({
    id,
    number: (last?.number ?? 0) + 1,
    title: document.title,
    object: document.object.name,
    revision: keep?.revision ?? 1,
    schemaVersion: document.schemaVersion,
    document: JSON.stringify(document),
    createdAt: keep?.createdAt ?? at,
    updatedAt: at,
  });
  return id;
}

export async function saveDocument(
  tx: Transaction,
  id: string,
  document: JobDocument,
  revision: number,
): Promise<void> {
  await tx
    .update(jobs)
    .set({
      title: document.title,
      object: document.object.name,
      revision,
      schemaVersion: document.schemaVersion,
      document: JSON.stringify(document),
      updatedAt: new Date().toISOString(),
    })
    .where(eq(jobs.id, id));
}

export async function appendRow(tx: Transaction, jobId: string, { kind, row }: HistoryRow): Promise<void> {
  await tx.insert(history).values({ id: row.id, jobId, kind, at: row.at, document: JSON.stringify(row) });
  await touch(tx, jobId);
}

/** Moves the job up on the rack, and notifies everything derived from it. */
async function touch(tx: Transaction, jobId: string): Promise<void> {
  await tx.update(jobs).set({ updatedAt: new Date().toISOString() }).where(eq(jobs.id, jobId));
}

/** The only possible change of a history row: it is voided, with a reason. */
export async function voidHistoryRow(
  tx: Transaction,
  jobId: string,
  kind: HistoryKindName,
  id: string,
  reason: string,
): Promise<void> {
  const [found] = await tx
    .select()
    .from(history)
    .where(and(eq(history.id, id), eq(history.jobId, jobId), eq(history.kind, kind)));
  if (!found) throw notFound(`That ${kind}`);
  const document = { ...(JSON.parse(found.document) as object), voided: reason };
  await tx
    .update(history)
    .set({ document: JSON.stringify(document) })
    .where(eq(history.id, id));
  await touch(tx, jobId);
}

/** Whether another job's history has rows with these ids. */
export async function haveOthers(tx: Transaction, jobId: string, ids: string[]): Promise<boolean> {
  const found = await tx
    .select({ id: history.id })
    .from(history)
    .where(and(ne(history.jobId, jobId), inArray(history.id, ids)))
    .limit(1);
  return found.length > 0;
}

/** An import brings a newer copy of the job, with its whole history. */
export async function replaceHistory(tx: Transaction, jobId: string, next: History): Promise<void> {
  await tx.delete(history).where(eq(history.jobId, jobId));
  for (const { kind, row } of rowsOf(next)) {
    await tx.insert(history).values({ id: row.id, jobId, kind, at: row.at, document: JSON.stringify(row) });
  }
}

/** Edits and what was made, newest first. */
export async function readActivity(db: Reader, jobId: string, most: number): Promise<Activity[]> {
  const rows = await db
    .select()
    .from(edits)
    .where(eq(edits.jobId, jobId))
    .orderBy(desc(edits.revision))
    .limit(most);
  const done = rows.map(row => ({ id: row.id, at: row.at, kind: row.role, words: row.words }));
  const made = logbook(await readHistory(db, jobId)).map(({ row, kind, words }) => ({
    id: row.id,
    at: row.at,
    kind,
    words,
  }));
  return [...done, ...made].sort((a, b) => (a.at < b.at ? 1 : a.at > b.at ? -1 : 0)).slice(0, most);
}

/** When something was done, and at which stage. */
export async function readMoments(db: Reader, jobId: string): Promise<Moment[]> {
  const rows = await db
    .select({ at: edits.at, changes: edits.changes })
    .from(edits)
    .where(eq(edits.jobId, jobId));
  const edited = rows.flatMap(({ at, changes }): Moment[] => {
    const [first] = JSON.parse(changes) as { path: string[] }[];
    return first ? [{ at, stage: stageOfPath(first.path) }] : [];
  });
  const written = logbook(await readHistory(db, jobId)).map(
    ({ row, kind }): Moment => ({ at: row.at, stage: stageOfRow(kind) }),
  );
  return [...edited, ...written];
}

export async function wordsSince(db: Reader, jobId: string, revision: number): Promise<string[]> {
  const rows = await db
    .select({ words: edits.words })
    .from(edits)
    .where(and(eq(edits.jobId, jobId), gt(edits.revision, revision)))
    .orderBy(asc(edits.revision));
  return rows.map(row => row.words);
}

/** What a window could undo and redo: its own edits, and those of closed windows. */
export async function reversible(
  db: Reader,
  jobId: string,
  tab: string,
  isOpen: (tab: string) => boolean,
): Promise<Pick<JobAnswer, 'undo' | 'redo'>> {
  const rows = await db
    .select({ id: edits.id, tab: edits.tab, words: edits.words, standing: edits.standing })
    .from(edits)
    .where(and(eq(edits.jobId, jobId), eq(edits.role, 'edit')))
    .orderBy(desc(edits.revision))
    .limit(200);
  const own = rows.filter(row => row.tab === tab || !isOpen(row.tab));
  const undo = own.find(row => row.standing === 'stands');
  // The edit that was undone last is the oldest undone one: redo goes forward in time.
  const redo = own.findLast(row => row.standing === 'undone');
  const words = (row: typeof undo) => (row ? { editId: row.id, words: row.words } : null);
  return { undo: words(undo), redo: words(redo) };
}

/** The whole job, for a window that opens it. */
export const answerJob = async (
  db: Reader,
  id: string,
  tab: string,
  isOpen: (tab: string) => boolean,
): Promise<JobAnswer> => ({ ...(await readJob(db, id)), ...(await reversible(db, id, tab, isOpen)) });

/** The changes, for the window that made them. */
export async function answerChange(
  db: Reader,
  id: string,
  what: Partial<Pick<JobChange, 'changes' | 'added' | 'voided'>>,
  tab: string,
  isOpen: (tab: string) => boolean,
): Promise<JobChange> {
  const [row] = await db
    .select({ revision: jobs.revision, updatedAt: jobs.updatedAt })
    .from(jobs)
    .where(eq(jobs.id, id));
  if (!row) throw notFound('That job');
  return {
    ...row,
    changes: [],
    added: [],
    voided: null,
    ...what,
    ...(await reversible(db, id, tab, isOpen)),
  };
}
