import { createHash } from 'node:crypto';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { z } from 'zod';
import { BUNDLE_SCHEMA_VERSION, BundledJob, BundleManifest } from '../../contract/bundle';
import { errorOfZod } from '../../contract/errors';
import type { ImportAnswer } from '../../contract/import';
import type { JobView } from '../../contract/jobs';
import { readJobDocument } from '../../core/job/document';
import { rowsOf } from '../../core/job/history';
import { referencesIn, shaOf } from '../../core/shape/model';
import type { Blobs } from '../blobs/blobs';
import { HttpError } from '../errors';
import { insertJob, readJob, replaceHistory, saveDocument } from '../jobs/repository';
import type { Store } from '../store/database';

/** Bounds on what an upload may unpack to: a zip of some kilobytes can hold gigabytes. */
const MOST_UNPACKED = 256e6;
const MOST_ENTRIES = 6000;
const NO_DATE = new Date(Date.UTC(2000, 0, 1, 12));

export async function exportJob(job: JobView, blobs: Blobs, version: string): Promise<Uint8Array> {
  const files: Record<string, Uint8Array> = {};
  const listed: BundleManifest['blobs'] = [];
  const named = [
    ...job.history.prints.flatMap(p => Object.values(p.files)),
    ...job.document.photos.map(p => p.sha256),
    ...job.document.models.map(m => m.sha256),
    // A version may stand on a body that the job has let go of.
    ...job.history.versions.flatMap(v => referencesIn(v.parameters).map(shaOf)),
  ];
  for (const sha256 of new Set(named)) {
    const bytes = await blobs.get(sha256);
    if (!bytes) continue;
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
  };
  files['manifest.json'] = strToU8(JSON.stringify(manifest, null, 2));
  return zipSync(files, { mtime: NO_DATE, level: 6 });
}

/** Takes in every job of a bundle; all of it is checked before anything is written. */
export async function importBundle(bytes: Uint8Array, store: Store, blobs: Blobs): Promise<ImportAnswer> {
  const files = unpack(bytes);
  const manifest = parse(BundleManifest, json(files, 'manifest.json'), 'manifest.json');
  if (manifest.schemaVersion > BUNDLE_SCHEMA_VERSION) {
    throw bad(
      `This bundle was made by a newer Sagoma (format ${manifest.schemaVersion}, ours is ${BUNDLE_SCHEMA_VERSION}): update Sagoma.`,
    );
  }
  const incoming = manifest.jobs.map(entry => {
    const body = files[entry.path];
    if (!body || hash(body) !== entry.sha256)
      throw bad(`The bundle is damaged: ${entry.path} is not what its manifest says.`);
    const raw = json(files, entry.path) as { document?: unknown };
    return parse(BundledJob, { ...raw, document: upgraded(raw.document) }, entry.path);
  });
  for (const { sha256, path } of manifest.blobs) {
    const body = files[path];
    if (!body || hash(body) !== sha256)
      throw bad(`The bundle is damaged: ${path} is not what its manifest says.`);
  }
  for (const { path } of manifest.blobs) await blobs.put(files[path]!);
  const answer: ImportAnswer = { jobs: [] };
  for (const job of incoming) answer.jobs.push(await takeIn(job, store));
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

function unpack(bytes: Uint8Array): Record<string, Uint8Array> {
  let total = 0;
  let entries = 0;
  try {
    return unzipSync(bytes, {
      filter: file => {
        total += file.originalSize;
        entries += 1;
        if (total > MOST_UNPACKED || entries > MOST_ENTRIES)
          throw bad('The bundle unpacks to more than Sagoma takes.');
        return /^(manifest\.json|jobs\/[\w-]+\.json|blobs\/[0-9a-f]{64})$/.test(file.name);
      },
    });
  } catch (error) {
    if (error instanceof HttpError) throw error;
    throw bad('This is not a Sagoma bundle: it should be a zip that Sagoma exported.');
  }
}

function json(files: Record<string, Uint8Array>, path: string): unknown {
  const body = files[path];
  if (!body) throw bad(`This is not a Sagoma bundle: ${path} is missing.`);
  try {
    return JSON.parse(strFromU8(body));
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    throw bad(`The bundle is damaged: ${path} is not JSON.`);
  }
}

function upgraded(document: unknown): unknown {
  try {
    return readJobDocument(document);
  } catch (error) {
    if (error instanceof RangeError) throw bad(error.message);
    return document;
  }
}

function parse<T>(schema: z.ZodType<T>, value: unknown, path: string): T {
  const result = schema.safeParse(value);
  if (!result.success) throw bad(`The bundle is damaged: ${path}: ${errorOfZod(result.error).message}`);
  return result.data;
}

const bad = (message: string) => new HttpError(422, 'bad-bundle', message);
const hash = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
