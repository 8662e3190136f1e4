import type { JobView } from '../../contract/jobs';
import type { FileKind } from '../../core/files/part-files';
import type { Version } from '../../core/job/history';
import type { Workshop } from '../../core/job/workshop';

/** Names of files that still explain themselves a year later. */

/** Tag, title, version and that it is compensated. */
export function fileName(job: JobView, version: Version, kind: FileKind, workshop: Workshop): string {
  const material = workshop.materials.find(m => m.id === version.materialId);
  return `${titled(job, version)}-${slug(material?.name ?? 'as-printed')}-compensated.${kind}`;
}

/** The same version with other sizes. @param words which sizes: “as designed” */
export const otherFileName = (job: JobView, version: Version, kind: FileKind, words: string): string =>
  `${titled(job, version)}-${slug(words)}.${kind}`;

/** Several alike on one bed. */
export const batchFileName = (job: JobView, version: Version, pieces: number): string =>
  `${titled(job, version)}-${pieces}-pieces.3mf`;

/** The printer that the sizes are compensated for, in the file's own metadata. */
export function sizesNote(version: Version, workshop: Workshop): string {
  const printer = workshop.printers.find(p => p.id === version.printerId);
  const material = workshop.materials.find(m => m.id === version.materialId);
  return `Sizes compensated for ${printer?.name ?? 'the printer'}, ${material?.name ?? 'its plastic'}. Lengths in mm.`;
}

const titled = (job: JobView, version: Version): string =>
  [job.number, slug(job.document.title) || 'part', ...partOf(job, version), `v${version.number}`].join('-');

/** In a job with several parts, the part of the version: each part numbers its own from 1. */
function partOf({ document }: JobView, { partId }: Version): string[] {
  const at = document.parts.findIndex(p => p.id === partId);
  if (document.parts.length < 2 || at < 0) return [];
  const own = slug(document.parts[at]!.name);
  const alike = document.parts.some((p, i) => i !== at && slug(p.name) === own);
  return [alike || own === '' ? `${own || 'part'}-${at + 1}` : own];
}

const slug = (text: string) =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .toLowerCase()
    .slice(0, 60)
    .replace(/-$/, '');
