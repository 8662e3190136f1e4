import type { Batch, JobView } from '../../contract/jobs';
import type { Version } from '../../core/job/history';
import type { Workshop } from '../../core/job/workshop';
import { batch } from '../../core/print/bed';
import { HttpError } from '../errors';
import type { Solids } from '../solids/solids';
import type { KeptSolid } from '../solids/tasks';
import { batchFileName, sizesNote } from './file-names';
import { notBuildable, versionName } from './versions';

/** Several alike of one version, beside each other on the bed of its printer. */

const bedOf = (version: Version, { printers }: Workshop) =>
  printers.find(p => p.id === version.printerId) ?? printers[0]!;

const extentOf = async (solid: KeptSolid, { pose }: Version, { pool }: Solids, owner: string) =>
  (await pool.run('extent', { solid, pose }, { owner })).bounds;

/** How many fit on one bed, and how many beds it takes. */
export async function batchOf(
  job: JobView,
  version: Version,
  pieces: number,
  workshop: Workshop,
  solids: Solids,
): Promise<Batch> {
  const solid = await solids.built(version, { owner: job.id });
  if (!solid.ok) throw notBuildable(solid.findings[0]?.message);
  return batch(await extentOf(solid, version, solids, job.id), bedOf(version, workshop).bed, pieces);
}

/** @throws HttpError where so many do not fit */
export async function batchFile(
  job: JobView,
  version: Version,
  pieces: number,
  workshop: Workshop,
  solids: Solids,
): Promise<{ name: string; bytes: Uint8Array }> {
  const solid = await solids.built(version, { owner: job.id });
  if (!solid.ok) throw notBuildable(solid.findings[0]?.message);
  const printer = bedOf(version, workshop);
  const { onOneBed } = batch(await extentOf(solid, version, solids, job.id), printer.bed, pieces);
  if (pieces > onOneBed)
    throw new HttpError(
      422,
      'not-buildable',
      `${pieces} do not fit on the bed of ${printer.name}: take ${onOneBed === 0 ? 'a larger printer, or split the part' : `${onOneBed} at most`}.`,
    );
  const name = versionName(job, version);
  const bodies = Array.from({ length: pieces }, (_, i) => ({
    solid,
    name: `${name}, ${i + 1}`,
    pose: version.pose,
  }));
  const asked = {
    bodies,
    bed: printer.bed,
    title: `${name}, ${pieces} pieces`,
    note: sizesNote(version, workshop),
  };
  const { file } = await solids.pool.run('bed', asked, { owner: job.id });
  if (!file) throw notBuildable(`${pieces} do not fit on the bed of ${printer.name}: take fewer.`);
  return { name: batchFileName(job, version, pieces), bytes: file };
}
