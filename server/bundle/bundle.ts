import { createHash } from 'node:crypto';
import { strToU8, zipSync } from 'fflate';
import { BUNDLE_SCHEMA_VERSION, type BundleManifest } from '../../contract/bundle';
import type { ImportAnswer } from '../../contract/import';
import type { JobView } from '../../contract/jobs';
import { rowsOf } from '../../core/job/history';
import { referencesIn, shaOf } from '../../core/shape/model';
import type { Blobs } from '../blobs/blobs';
import { HttpError } from '../errors';
import { insertJob, readJob, replaceHistory, saveDocument } from '../jobs/repository';
import type { KernelPool } from '../solids/pool';
import type { Store } from '../store/database';

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

/** Ids are kept; where we have the job already the higher revision wins, and the other is said. */
async function takeIn(job: JobView, store: Store): Promise<ImportAnswer['jobs'][number]> {
  const said = (outcome: ImportAnswer['jobs'][number]['outcome'], message: string) => ({
    id: job.id,
    title: job.document.title,
    outcome,
    message,
  });
  return store.write(async tx => {
    const ours = await readJob(tx, job.id).catch(() => null);
    if (!ours) {
      await insertJob(tx, job.document, job);
      await replaceHistory(tx, job.id, job.history);
      return said('added', 'Added to the rack.');
    }
    const rows = (view: JobView) => rowsOf(view.history).length;
    if (
      ours.revision === job.revision &&
      JSON.stringify(ours.document) === JSON.stringify(job.document) &&
      rows(ours) === rows(job)
    ) {
      return said('same', 'Already here, nothing to do.');
    }
    if (ours.revision > job.revision || (ours.revision === job.revision && rows(ours) >= rows(job))) {
      return said(
        'kept-ours',
        `The one here is newer (revision ${ours.revision}, the bundle has ${job.revision}): kept ours.`,
      );
    }
    await saveDocument(tx, job.id, job.document, job.revision);
    await replaceHistory(tx, job.id, job.history);
    return said('updated', `Brought up to revision ${job.revision}.`);
  });
}

const hash = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
