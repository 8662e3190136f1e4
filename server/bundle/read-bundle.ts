import { createHash } from 'node:crypto';
import { strFromU8, unzipSync } from 'fflate';
import type { z } from 'zod';
import { BUNDLE_SCHEMA_VERSION, BundledJob, BundleManifest } from '../../contract/bundle';
import { errorOfZod } from '../../contract/errors';
import type { JobView } from '../../contract/jobs';
import { readJobDocument } from '../../core/job/read-document';
import { recipeById } from '../../core/shape/recipes';

/** The checked content of a bundle. */
export type BundleRead =
  | { ok: true; jobs: JobView[]; blobs: { sha256: string; bytes: Uint8Array }[]; missing: number }
  | { ok: false; message: string };

/** Bounds on what an upload may unpack to: a zip of a few kilobytes can hold gigabytes. Bytes. */
const MOST_UNPACKED = 256e6;
const MOST_ENTRIES = 6000;
const MOST_OF = [
  { path: /^manifest\.json$/, most: 4e6 },
  { path: /^jobs\/[\w-]+\.json$/, most: 24e6 },
  { path: /^blobs\/[0-9a-f]{64}$/, most: 64e6 },
];

/** The bundle is damaged or not one; the message is for the maker. */
class BadBundle extends Error {}

type Files = Record<string, Uint8Array>;

/** A bundle, fully checked; runs in a thread, since nothing in the file is trusted. */
export function readBundle(bytes: Uint8Array): BundleRead {
  try {
    const files = unpack(bytes);
    const manifest = parse(BundleManifest, json(files, 'manifest.json'), 'manifest.json');
    if (manifest.schemaVersion > BUNDLE_SCHEMA_VERSION)
      throw new BadBundle(
        `This bundle was made by a newer Sagoma (format ${manifest.schemaVersion}, ours is ${BUNDLE_SCHEMA_VERSION}): update Sagoma.`,
      );
    const jobs = manifest.jobs.map(entry => jobOf(files, entry));
    const blobs = manifest.blobs.map(({ sha256, path }) => {
      const body = fileAt(files, path);
      if (!body || hash(body) !== sha256) throw damaged(`${path} is not what its manifest says`);
      return { sha256, bytes: body };
    });
    return { ok: true, jobs, blobs, missing: manifest.missing?.length ?? 0 };
  } catch (error) {
    if (error instanceof BadBundle) return { ok: false, message: error.message };
    throw error;
  }
}

function jobOf(files: Files, { path, sha256 }: BundleManifest['jobs'][number]): JobView {
  const body = fileAt(files, path);
  if (!body || hash(body) !== sha256) throw damaged(`${path} is not what its manifest says`);
  const raw = json(files, path);
  if (typeof raw !== 'object' || raw === null) throw damaged(`${path} holds no job`);
  const job = parse(
    BundledJob,
    { ...raw, document: upgraded((raw as { document?: unknown }).document) },
    path,
  );
  const made = [...job.document.parts, ...job.history.versions];
  const strange = made.find(m => !recipeById(m.recipe));
  if (strange)
    throw new BadBundle(
      `“${job.document.title}” is made by a recipe that this Sagoma does not have, “${strange.recipe}”: update Sagoma.`,
    );
  return job;
}

function unpack(bytes: Uint8Array): Files {
  let total = 0;
  let entries = 0;
  try {
    const files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        const rule = MOST_OF.find(r => r.path.test(name));
        total += rule ? originalSize : 0;
        entries += 1;
        if (total > MOST_UNPACKED || entries > MOST_ENTRIES || (rule && originalSize > rule.most))
          throw new BadBundle('The bundle unpacks to more than Sagoma takes.');
        return rule !== undefined;
      },
    });
    // The sizes that a zip states are not trusted either.
    for (const [name, body] of Object.entries(files))
      if (body.length > MOST_OF.find(r => r.path.test(name))!.most)
        throw new BadBundle('The bundle unpacks to more than Sagoma takes.');
    return files;
  } catch (error) {
    if (error instanceof BadBundle) throw error;
    throw new BadBundle('This is not a Sagoma bundle: it should be a zip that Sagoma exported.');
  }
}

/** Only what is really in the zip: a manifest may name `__proto__`. */
const fileAt = (files: Files, path: string): Uint8Array | undefined =>
  Object.hasOwn(files, path) ? files[path] : undefined;

function json(files: Files, path: string): unknown {
  const body = fileAt(files, path);
  if (!body) throw new BadBundle(`This is not a Sagoma bundle: ${path} is missing.`);
  try {
    return JSON.parse(strFromU8(body));
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    throw damaged(`${path} is not JSON`);
  }
}

function upgraded(document: unknown): unknown {
  try {
    return readJobDocument(document);
  } catch (error) {
    if (error instanceof RangeError) throw new BadBundle(error.message);
    return document;
  }
}

function parse<T>(schema: z.ZodType<T>, value: unknown, path: string): T {
  const result = schema.safeParse(value);
  if (!result.success) throw damaged(`${path}: ${errorOfZod(result.error).message}`, '');
  return result.data;
}

const damaged = (what: string, end = '.') => new BadBundle(`The bundle is damaged: ${what}${end}`);
const hash = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
