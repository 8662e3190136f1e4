import type { Batch, JobView } from '../../contract/jobs';
import type { Version } from '../../core/job/history';
import type { Workshop } from '../../core/job/workshop';
import { HttpError } from '../errors';
import type { Solids } from '../solids/solids';
import type { KeptSolid } from '../solids/tasks';
import { batchFileName, sizesNote } from './file-names';
import { fileOnOneBed } from './on-one-bed';
import { estimateOfVersion, notedPrints, printerOf, takesOfVersion } from './prints';
import type { Reader } from './repository';
import { notBuildable, versionName } from './versions';

/** Several copies of one version, side by side on the bed of its printer. */

async function onOneBedOf(
  solid: KeptSolid,
  version: Version,
  pieces: number,
  workshop: Workshop,
  { pool }: Solids,
  owner: string,
): Promise<number> {
  const of = { kind: 'part' as const, solid, pose: version.pose };
  const { bed } = printerOf(version, workshop);
  return (await pool.run('copies', { of, pieces, bed }, { owner })).onOneBed;
}

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
  const onOneBed = await onOneBedOf(solid, version, pieces, workshop, solids, job.id);
  const beds = { onOneBed, beds: onOneBed === 0 ? 0 : Math.ceil(pieces / onOneBed) };
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

/** @throws HttpError where that many do not fit */
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
  const onOneBed = await onOneBedOf(solid, version, pieces, workshop, solids, job.id);
  if (pieces > onOneBed)
    throw new HttpError(
      422,
      'not-buildable',
      `${pieces} do not fit on the bed of ${printer.name}: take ${onOneBed === 0 ? 'a larger printer, or split the part' : `${onOneBed} at most`}.`,
    );
  const name = versionName(job, version);
  const words = { title: `${name}, ${pieces} pieces`, note: sizesNote(version, workshop) };
  const alike = [{ name, pieces, solid, pose: version.pose }];
  const file = await fileOnOneBed(alike, printer.bed, words, solids, job.id);
  if (!file) throw notBuildable(`${pieces} do not fit on the bed of ${printer.name}: take fewer.`);
  return { name: batchFileName(job, version, pieces), bytes: file };
}
