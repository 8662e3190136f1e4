import type { Batch, JobView } from '../../contract/jobs';
import type { Version } from '../../core/job/history';
import type { Workshop } from '../../core/job/workshop';
import { batch } from '../../core/print/bed';
import { HttpError } from '../errors';
import type { Solids } from '../solids/solids';
import type { KeptSolid } from '../solids/tasks';
import { batchFileName, sizesNote } from './file-names';
import { estimateOfVersion, notedPrints, printerOf, takesOfVersion } from './prints';
import type { Reader } from './repository';
import { notBuildable, versionName } from './versions';

/** Several alike of one version, beside each other on the bed of its printer. */

const extentOf = async (solid: KeptSolid, { pose }: Version, { pool }: Solids, owner: string) =>
  (await pool.run('extent', { solid, pose }, { owner })).bounds;

/** How many fit on one bed, and how many beds it takes. */
export async function batchOf(
  job: JobView,
  version: Version,
  pieces: number,
  workshop: Workshop,
  { solids, db }: { solids: Solids; db: Reader },
): Promise<Batch> {
  const solid = await solids.built(version, { owner: job.id });
  if (!solid.ok) throw notBuildable(solid.findings[0]?.message);
  const beds = batch(
    await extentOf(solid, version, solids, job.id),
    printerOf(version, workshop).bed,
    pieces,
  );
  const estimate = await estimateOfVersion(version, workshop, solids, job.id);
  if (!estimate) throw notBuildable();
  const noted = await notedPrints(db);
  // Each bed is a print of its own.
  const [full, last] = [Math.floor(pieces / (beds.onOneBed || pieces)), pieces % (beds.onOneBed || pieces)];
  const takes = [
    ...(full > 0
      ? [{ times: full, ...takesOfVersion(estimate, version, beds.onOneBed || pieces, workshop, noted) }]
      : []),
    ...(last > 0 ? [{ times: 1, ...takesOfVersion(estimate, version, last, workshop, noted) }] : []),
  ];
  const sum = (of: 'hours' | 'grams' | 'cost') => takes.reduce((all, t) => all + t.times * t[of], 0);
  return { ...beds, hours: sum('hours'), grams: sum('grams'), cost: sum('cost') };
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
  const printer = printerOf(version, workshop);
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
