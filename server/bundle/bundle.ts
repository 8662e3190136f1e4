import { createHash } from 'node:crypto';
import { strToU8, zipSync } from 'fflate';
import { ulid } from 'ulid';
import { BUNDLE_SCHEMA_VERSION, type BundleManifest } from '../../contract/bundle';
import {
  IMPORT_CHOICES,
  type ImportAnswer,
  type ImportChoice,
  type ImportChoices,
  type ImportLook,
} from '../../contract/import';
import type { JobView } from '../../contract/jobs';
import { diff } from '../../core/job/changes';
import { type History, rowsOf } from '../../core/job/history';
import { differences, lostBy, merged, sameCopy } from '../../core/job/two-copies';
import { referencesIn, shaOf } from '../../core/shape/model';
import type { Blobs } from '../blobs/blobs';
import { HttpError } from '../errors';
import { NO_WINDOW } from '../events';
import { logEdit } from '../jobs/editing';
import {
  haveOthers,
  insertJob,
  readJob,
  removeJob,
  replaceHistory,
  saveDocument,
  UnreadableJob,
} from '../jobs/repository';
import type { KernelPool } from '../solids/pool';
import type { Database, Store, Transaction } from '../store/database';

const NO_DATE = new Date(Date.UTC(2000, 0, 1, 12));

export async function exportJob(job: JobView, blobs: Blobs, version: string): Promise<Uint8Array> {
  const files: Record<string, Uint8Array> = {};
  const listed: BundleManifest['blobs'] = [];
  const missing: string[] = [];
  const named = [
    ...job.history.prints.flatMap(p => Object.values(p.files)),
    ...job.history.versions.flatMap(v => Object.values(v.files)),
    ...job.document.photos.map(p => p.sha256),
    ...job.document.models.map(m => m.sha256),
    ...job.document.scans.map(s => s.sha256),
    // A version may use a body that the job no longer has.
    ...job.history.versions.flatMap(v => referencesIn(v.parameters).map(shaOf)),
  ];
  for (const sha256 of new Set(named)) {
    const bytes = await blobs.get(sha256);
    if (!bytes) {
      missing.push(sha256);
      continue;
    }
    files[`blobs/${sha256}`] = bytes;
    listed.push({ sha256, size: bytes.length, path: `blobs/${sha256}` });
  }
  const body = strToU8(JSON.stringify(job, null, 2));
  files[`jobs/${job.id}.json`] = body;
  const manifest: BundleManifest = {
    format: 'sagoma-bundle',
    schemaVersion: BUNDLE_SCHEMA_VERSION,
    application: { name: 'Sagoma', version },
    contains: 'jobs',
    jobs: [
      {
        id: job.id,
        title: job.document.title,
        revision: job.revision,
        path: `jobs/${job.id}.json`,
        sha256: hash(body),
      },
    ],
    blobs: listed,
    ...(missing.length > 0 ? { missing } : {}),
  };
  files['manifest.json'] = strToU8(JSON.stringify(manifest, null, 2));
  return zipSync(files, { mtime: NO_DATE, level: 6 });
}

/** Imports every job of a bundle; all of it is checked before anything is written. */
export async function importBundle(
  bytes: Uint8Array,
  choices: ImportChoices,
  store: Store,
  blobs: Blobs,
  reader: KernelPool,
): Promise<ImportAnswer> {
  const bundle = await checked(bytes, reader);
  for (const blob of bundle.blobs) await blobs.put(blob.bytes);
  const answer: ImportAnswer = { jobs: [], missing: bundle.missing };
  for (const job of bundle.jobs) answer.jobs.push(await takeIn(job, choices.get(job.id), store));
  return answer;
}

/** What a bundle would import, compared with what is here; nothing is written. */
export async function lookAtBundle(bytes: Uint8Array, store: Store, reader: KernelPool): Promise<ImportLook> {
  const bundle = await checked(bytes, reader);
  const looks: ImportLook['jobs'] = [];
  for (const job of bundle.jobs) {
    const ours = await oursOf(store.db, job.id);
    const plan = ours === null || ours === 'unreadable' ? null : planFor(ours, job);
    const same = plan !== null && plan.choices.length === 0;
    looks.push({
      id: job.id,
      title: job.document.title,
      here: plan === null ? 'no' : same ? 'same' : 'otherwise',
      differences: plan?.differences.slice(0, MOST_DIFFERENCES) ?? [],
      choices: plan?.choices ?? [],
      clash: plan?.clash ?? null,
    });
  }
  return { jobs: looks };
}

/** Longer than anyone reads; two copies with so many differences are not compared line by line. */
const MOST_DIFFERENCES = 200;

async function checked(bytes: Uint8Array, reader: KernelPool) {
  const { bundle } = await reader.run('readBundle', { file: bytes });
  if (!bundle.ok) throw new HttpError(422, 'bad-bundle', bundle.message);
  return bundle;
}

async function oursOf(db: Transaction | Database, id: string): Promise<JobView | 'unreadable' | null> {
  return readJob(db, id).catch((error: unknown) => {
    if (error instanceof UnreadableJob) return 'unreadable';
    if (error instanceof HttpError && error.status === 404) return null;
    throw error;
  });
}

/**
 * What can be done with a job that is already here, the default first: update where that loses nothing of ours,
 * otherwise ours where it has all that the bundle has, otherwise both. No choice loses a reading or a print.
 */
function planFor(ours: JobView, theirs: JobView) {
  if (sameCopy(ours, theirs)) return { choices: [], differences: [], clash: null, one: null };
  const [oursLost, theirsLost] = [lostBy(ours, theirs), lostBy(theirs, ours)];
  const one = merged(ours, theirs);
  const clash = 'clash' in one ? one.clash : null;
  const possible: Record<ImportChoice, boolean> = {
    theirs: oursLost === 0,
    merge: clash === null && theirsLost > 0 && oursLost > 0,
    both: true,
    ours: true,
  };
  const first: ImportChoice =
    theirsLost === 0 && ours.revision >= theirs.revision
      ? 'ours'
      : oursLost > 0 || ours.revision > theirs.revision
        ? 'both'
        : 'theirs';
  const others = IMPORT_CHOICES.filter(c => c !== first && possible[c]);
  return {
    choices: [first, ...others],
    differences: differences(ours, theirs),
    clash,
    one: 'clash' in one ? null : one,
  };
}

type Outcome = ImportAnswer['jobs'][number];

/** Ids are kept, except for a second copy of a job that is already here. */
async function takeIn(job: JobView, choice: ImportChoice | undefined, store: Store): Promise<Outcome> {
  const said = (outcome: Outcome['outcome'], message: string, id = job.id): Outcome => ({
    id,
    title: job.document.title,
    outcome,
    message,
  });
  return store.write(async tx => {
    const ours = await oursOf(tx, job.id);
    if (ours === 'unreadable') await removeJob(tx, job.id);
    if (ours === null || ours === 'unreadable') {
      await insertJob(tx, job.document, job);
      await replaceHistory(tx, job.id, await withFreeIds(tx, job));
      return said('added', 'Added to the rack.');
    }
    const { choices, one } = planFor(ours, job);
    // The job may have changed since its maker looked at the bundle: a choice that is no longer possible is refused.
    const does = choice && choices.includes(choice) ? choice : choices[0];
    if (!does) return said('same', 'Already here, nothing to do.');
    if (does === 'ours')
      return said(
        'kept-ours',
        choice ? 'Left as it is here.' : 'The one here has all that the bundle has, and more: kept ours.',
      );
    if (does === 'both') {
      const id = ulid();
      const title = `${job.document.title.slice(0, 280)} (from a bundle)`;
      await insertJob(tx, { ...job.document, title }, { ...job, id });
      await replaceHistory(tx, id, withNewIds(job.history));
      return said('kept-both', 'Both are kept, side by side on the rack.', id);
    }
    const next = does === 'merge' && one ? one : job;
    const revision = Math.max(ours.revision, job.revision) + 1;
    await saveDocument(tx, job.id, next.document, revision);
    await replaceHistory(tx, job.id, await withFreeIds(tx, { ...job, history: next.history }));
    const changes = diff(ours.document, next.document);
    if (changes.length > 0)
      await logEdit(tx, job.id, revision, NO_WINDOW, 'import', 'Took in a bundle', changes);
    return does === 'merge'
      ? said(
          'merged',
          'The two are one now; undo takes back the readings that came, what was printed there stays.',
        )
      : said('updated', 'Brought up to what the bundle has; undo takes that back.');
  });
}

/** A history whose ids belong to another job comes from a copy: its rows get new ids. */
async function withFreeIds(tx: Transaction, { id, history }: JobView): Promise<History> {
  const ids = rowsOf(history).map(({ row }) => row.id);
  return (await haveOthers(tx, id, ids)) ? withNewIds(history) : history;
}

/** The rows of a second copy get new ids; references between them are kept. */
function withNewIds(history: History): History {
  const ids = new Map(rowsOf(history).map(({ row }) => [row.id, ulid()]));
  const text = JSON.stringify(history).replace(/"([\w-]{1,40})"/g, (whole, id: string) => {
    const fresh = ids.get(id);
    return fresh ? `"${fresh}"` : whole;
  });
  return JSON.parse(text) as History;
}

const hash = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
