import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

/** One document row per job plus the columns that the rack searches and sorts by. */
export const jobs = sqliteTable(
  'jobs',
  {
    id: text().primaryKey(),
    number: integer().notNull(),
    title: text().notNull(),
    object: text().notNull(),
    revision: integer().notNull(),
    schemaVersion: integer('schema_version').notNull(),
    document: text().notNull(),
    createdAt: text('created_at').notNull(),
    updatedAt: text('updated_at').notNull(),
  },
  t => [uniqueIndex('jobs_number').on(t.number), index('jobs_updated').on(t.updatedAt)],
);

/** Every edit with its changes, and so its inverse. An undo or redo is a row too. */
export const edits = sqliteTable(
  'edits',
  {
    id: text().primaryKey(),
    jobId: text('job_id').notNull(),
    revision: integer().notNull(),
    at: text().notNull(),
    /** The window it came from: a tab undoes its own edits. */
    tab: text().notNull(),
    kind: text().notNull(),
    words: text().notNull(),
    changes: text().notNull(),
    /** 'edit', 'undo' or 'redo'. */
    role: text().notNull(),
    /** For an undo or redo: the edit it is about. */
    about: text(),
    /** For an edit: whether it is in force, undone, or can no longer be redone. */
    standing: text().notNull(),
  },
  t => [uniqueIndex('edits_job_revision').on(t.jobId, t.revision)],
);

/** Versions, prints and tries: append-only, only `voided` inside the document ever changes. */
export const history = sqliteTable(
  'history',
  {
    id: text().primaryKey(),
    jobId: text('job_id').notNull(),
    kind: text().notNull(),
    at: text().notNull(),
    document: text().notNull(),
  },
  t => [index('history_job').on(t.jobId, t.at)],
);

export const workshop = sqliteTable('workshop', {
  id: integer().primaryKey(),
  revision: integer().notNull(),
  document: text().notNull(),
});

/** Files by their SHA-256; the row comes after the file. */
export const blobs = sqliteTable('blobs', {
  sha256: text().primaryKey(),
  size: integer().notNull(),
  at: text().notNull(),
});

/** The practice bench's hidden objects and printers: only the bench reads them. */
export const bench = sqliteTable('bench', {
  jobId: text('job_id').primaryKey(),
  document: text().notNull(),
});

/** Built solids, by the hash of their key: a cache, rebuilt when a row or its blobs are missing. */
export const solids = sqliteTable('solids', {
  key: text().primaryKey(),
  /** What can be said of it, as JSON: see core/shape/solid.ts. */
  record: text().notNull(),
  /** Blob of its triangles. */
  mesh: text().notNull(),
  /** Blob of its STEP text, once asked for, or the reason why it cannot be made. */
  step: text(),
  stepProblem: text('step_problem'),
  at: text().notNull(),
});

/** A job's tag on the rack, derived from its document; what it was made from shows whether it is outdated. */
export const tags = sqliteTable('tags', {
  jobId: text('job_id').primaryKey(),
  /** The job’s revision and when it last changed. */
  stamp: text().notNull(),
  /** The workshop’s revision, and the Sagoma that worked it out. */
  workshop: text().notNull(),
  document: text().notNull(),
});

/** Paired phones. A phone's secret is not stored, only its hash. */
export const devices = sqliteTable('devices', {
  id: text().primaryKey(),
  name: text().notNull(),
  /** SHA-256 of what its cookie holds. */
  token: text().notNull().unique(),
  pairedAt: text('paired_at').notNull(),
  usedAt: text('used_at'),
});
