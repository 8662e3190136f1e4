import type { JobView } from '../../contract/jobs';
import type { FileKind } from '../../core/files/part-files';
import type { Version } from '../../core/job/history';
import type { Workshop } from '../../core/job/workshop';
import { otherHandOf } from '../../core/work/other-hand';
import { asDesigned, forPrinter } from '../../core/work/other-printer';
import { notFound } from '../errors';
import { otherFileName, sizesNote } from './file-names';
import { bytesOf, type Makers, partFiles, versionName } from './versions';

/** The printer that a file's sizes are compensated for, when it is not that of its version. */
export type OtherSizes =
  | { for: 'designed' }
  /** For its own printer, with left and right swapped. */
  | { for: 'other-hand' }
  /**
   * A printer of this workshop with one of its plastics: from what is known about them, without this version's tries.
   */
  | { for: 'profile'; printerId: string; materialId: string };

/** The same version's file for somebody else's printer. */
export async function otherFile(
  job: JobView,
  version: Version,
  kind: FileKind,
  sizes: OtherSizes,
  workshop: Workshop,
  makers: Makers,
): Promise<{ name: string; bytes: Uint8Array }> {
  if (sizes.for === 'other-hand') return otherHandFile(job, version, kind, workshop, makers);
  const whose = sizes.for === 'designed' ? null : printerNamed(sizes, workshop);
  const words = whose ? `for ${whose}` : 'as designed';
  const spec = {
    recipe: version.recipe,
    additions: version.additions,
    parameters: sizes.for === 'designed' ? asDesigned(version) : forPrinter(version, sizes, workshop),
  };
  const note = whose
    ? `Sizes compensated for ${whose}. Lengths in mm.`
    : 'Sizes as designed, compensated for no printer. Lengths in mm.';
  const name = `${versionName(job, version)}, ${words}`;
  const made = await partFiles(spec, [kind], { name, note, pose: version.pose }, makers, { owner: job.id });
  return { name: otherFileName(job, version, kind, words), bytes: bytesOf(made[kind]) };
}

async function otherHandFile(
  job: JobView,
  version: Version,
  kind: FileKind,
  workshop: Workshop,
  makers: Makers,
): Promise<{ name: string; bytes: Uint8Array }> {
  const { pose, ...spec } = otherHandOf(version);
  const about = {
    name: `${versionName(job, version)}, other hand`,
    note: sizesNote(version, workshop),
    pose,
  };
  const made = await partFiles(spec, [kind], about, makers, { owner: job.id });
  return { name: otherFileName(job, version, kind, 'other hand'), bytes: bytesOf(made[kind]) };
}

function printerNamed(
  { printerId, materialId }: Extract<OtherSizes, { for: 'profile' }>,
  workshop: Workshop,
): string {
  const printer = workshop.printers.find(p => p.id === printerId);
  const material = workshop.materials.find(m => m.id === materialId);
  if (!printer) throw notFound('That printer');
  if (!material) throw notFound('That plastic');
  return `${printer.name}, ${material.name}`;
}
