import { createHash } from 'node:crypto';
import { strToU8, zipSync } from 'fflate';
import { ulid } from 'ulid';
import { BUNDLE_SCHEMA_VERSION, type BundleManifest } from '../../contract/bundle';
import type { ImportAnswer } from '../../contract/import';
import type { JobView } from '../../contract/jobs';
import { diff, same } from '../../core/job/changes';
import { type History, rowsOf } from '../../core/job/history';
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
import type { Store, Transaction } from '../store/database';

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
    // A version may stand on a body that the job has let go of.
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

/** Takes in every job of a bundle; all of it is checked before anything is written. */
export async function importBundle(
  bytes: Uint8Array,
  store: Store,
  blobs: Blobs,
  reader: KernelPool,
): Promise<ImportAnswer> {
  const { bundle } = await reader.run('readBundle', { file: bytes });
  if (!bundle.ok) throw new HttpError(422, 'bad-bundle', bundle.message);
  for (const blob of bundle.blobs) await blobs.put(blob.bytes);
  const answer: ImportAnswer = { jobs: [], missing: bundle.missing };
  for (const job of bundle.jobs) answer.jobs.push(await takeIn(job, store));
  return answer;
}

type Outcome = ImportAnswer['jobs'][number];

/**
 * Ids are kept. A job that we have already is brought up only where nothing of ours is lost by that: every reading, and
 * everything that happened, is there in the bundle too. Else both are kept, side by side on the rack.
 */
async function takeIn(job: JobView, store: Store): Promise<Outcome> {
  const said = (outcome: Outcome['outcome'], message: string, id = job.id): Outcome => ({
    id,
    title: job.document.title,
    outcome,
    message,
  });
  return store.write(async tx => {
    const ours = await readJob(tx, job.id).catch((error: unknown) => {
      if (error instanceof UnreadableJob) return 'unreadable' as const;
      if (error instanceof HttpError && error.status === 404) return null;
      throw error;
    });
    if (ours === 'unreadable') await removeJob(tx, job.id);
    if (ours === null || ours === 'unreadable') {
      await insertJob(tx, job.document, job);
      await replaceHistory(tx, job.id, await withFreeIds(tx, job));
      return said('added', 'Added to the rack.');
    }
    const [here, there] = [keptOf(ours), keptOf(job)];
    const lost = missingIn(here, there);
    if (same(ours.document, job.document) && lost.length === 0 && missingIn(there, here).length === 0)
      return said('same', 'Already here, nothing to do.');
    if (missingIn(there, here).length === 0 && ours.revision >= job.revision)
      return said('kept-ours', 'The one here has all that the bundle has, and more: kept ours.');
    if (lost.length > 0 || ours.revision > job.revision) {
      const id = ulid();
      const title = `${job.document.title.slice(0, 280)} (from a bundle)`;
      await insertJob(tx, { ...job.document, title }, { ...job, id });
      await replaceHistory(tx, id, withNewIds(job.history));
      return said(
        'kept-both',
        `Both are kept: the one here has ${lost.length === 0 ? 'been worked on since' : `${lost.length} readings or prints that the bundle does not have`}.`,
        id,
      );
    }
    const revision = Math.max(ours.revision, job.revision) + 1;
    await saveDocument(tx, job.id, job.document, revision);
    await replaceHistory(tx, job.id, await withFreeIds(tx, job));
    const changes = diff(ours.document, job.document);
    if (changes.length > 0)
      await logEdit(tx, job.id, revision, NO_WINDOW, 'import', 'Took in a bundle', changes);
    return said('updated', 'Brought up to what the bundle has; undo takes that back.');
  });
}

/** What nobody makes twice gladly, by its id, with what it says: readings, versions, prints, tries. */
function keptOf({ document, history }: JobView): Map<string, string> {
  const readings = document.dimensions.flatMap(d =>
    d.readings.map(r => [`${d.id} ${r.id}`, JSON.stringify(r)] as const),
  );
  const rows = rowsOf(history).map(({ kind, row }) => [`${kind} ${row.id}`, row.voided ?? ''] as const);
  return new Map([...readings, ...rows]);
}

const missingIn = (a: ReadonlyMap<string, string>, b: ReadonlyMap<string, string>): string[] =>
  [...a].filter(([id, what]) => b.get(id) !== what).map(([id]) => id);

/** A history whose ids another job has already is one of a copy: its rows get ids of their own. */
async function withFreeIds(tx: Transaction, { id, history }: JobView): Promise<History> {
  const ids = rowsOf(history).map(({ row }) => row.id);
  return (await haveOthers(tx, id, ids)) ? withNewIds(history) : history;
}

/** The rows of a second copy are rows of their own; what is about another row stays about its copy. */
function withNewIds(history: History): History {
  const ids = new Map(rowsOf(history).map(({ row }) => [row.id, ulid()]));
  const text = JSON.stringify(history).replace(/"([\w-]{1,40})"/g, (whole, id: string) => {
    const fresh = ids.get(id);
    return fresh ? `"${fresh}"` : whole;
  });
  return JSON.parse(text) as History;
}

const hash = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
