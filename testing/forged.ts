import { createHash } from 'node:crypto';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';

/** A job's bundle with one word replaced by another everywhere in the job, with corrected hashes. */
export function forged(bundle: Uint8Array, jobId: string, word: string, other: string): Uint8Array {
  const files = unzipSync(bundle);
  const path = `jobs/${jobId}.json`;
  const changed = strToU8(strFromU8(files[path]!).replaceAll(word, other));
  const manifest = JSON.parse(strFromU8(files['manifest.json']!));
  const [job] = manifest.jobs;
  job.id = job.id.replaceAll(word, other);
  job.sha256 = createHash('sha256').update(changed).digest('hex');
  return zipSync({ ...files, [path]: changed, 'manifest.json': strToU8(JSON.stringify(manifest)) });
}
