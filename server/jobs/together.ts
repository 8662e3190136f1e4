import type { JobView } from '../../contract/jobs';
import { counting } from '../../core/job/history';
import type { Workshop } from '../../core/job/workshop';
import { HttpError } from '../errors';
import type { Solids } from '../solids/solids';
import { fileOnOneBed } from './on-one-bed';
import { notBuildable } from './versions';

/** The newest version of every part in one file, side by side on the bed of their printer. */
export async function togetherFile(
  job: JobView,
  workshop: Workshop,
  solids: Solids,
): Promise<{ name: string; bytes: Uint8Array }> {
  const { versions } = counting(job.history);
  const bodies = [];
  const words: string[] = [];
  for (const part of job.document.parts) {
    const version = versions.filter(v => v.partId === part.id).at(-1);
    if (!version)
      throw new HttpError(422, 'no-version', `“${part.name}” has no version yet: make one on Print first.`);
    const solid = await solids.built(version, { owner: job.id });
    if (!solid.ok) throw notBuildable(solid.findings[0]?.message);
    const name = `${part.name} v${version.number}`;
    bodies.push({ name, pieces: 1, solid, pose: version.pose });
    words.push(name);
  }
  const printers = new Set(job.document.parts.map(p => p.printerId));
  const printer = workshop.printers.find(p => printers.has(p.id)) ?? workshop.printers[0]!;
  if (printers.size > 1)
    throw new HttpError(
      422,
      'several-printers',
      'The parts are for different printers: take their files one by one, or choose one printer for all on Print.',
    );
  const note = `${words.join(', ')}. Each as its version says, sizes compensated. Lengths in mm.`;
  const title = `${job.document.title}, all parts`;
  const file = await fileOnOneBed(bodies, printer.bed, { title, note }, solids, job.id);
  if (!file)
    throw new HttpError(
      422,
      'not-buildable',
      `The ${bodies.length} parts do not fit beside each other on the bed of ${printer.name}: take them one by one.`,
    );
  return {
    name: `${job.number}-all-parts.3mf`,
    bytes: file,
  };
}
