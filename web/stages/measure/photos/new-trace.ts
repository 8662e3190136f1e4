import type { Trace, TraceBy } from '../../../../core/job/traces';
import { USUAL_BROKEN, USUAL_TOLERANCE } from '../../../../core/trace/usual';

interface Wanted {
  id: string;
  /** Of the job's. */
  photo: string;
  file: File;
  /** The settings of the job's last one: one sheet serves many photos. */
  last?: TraceBy;
  known?: Partial<Pick<Trace, 'by' | 'thickness'>>;
}

/** The first settings for tracing an added photo. */
export async function newTrace({ id, photo, file, last, known = {} }: Wanted): Promise<Trace> {
  return {
    id,
    photo,
    label: file.name.replace(/\.\w{1,5}$/, '').slice(0, 100) || 'photo',
    by: known.by ?? (await byFile(file, last)),
    thickness: known.thickness ?? 0,
    broken: USUAL_BROKEN,
    tolerance: USUAL_TOLERANCE,
    strokes: [],
    tidy: [],
  };
}

/** What the file states about itself. */
async function byFile(file: File, last: TraceBy | undefined): Promise<TraceBy> {
  const { aboutPhoto } = await import('../../../../core/trace/file/about-photo');
  const { f35, dpi } = await aboutPhoto(new Uint8Array(await file.arrayBuffer()));
  // Cameras write 72 or 96 as well; scanners write their true resolution.
  if (f35 === null && dpi && Math.min(dpi.x, dpi.y) >= 140) return { kind: 'flatbed', dpi, from: 'above' };
  const sheet = last?.kind === 'sheet' ? last : { paper: 'a4' as const, middle: 'white' as const };
  return {
    kind: 'sheet',
    paper: sheet.paper,
    middle: sheet.middle,
    ...('bars' in sheet && sheet.bars ? { bars: sheet.bars } : {}),
    ...(f35 === null ? {} : { f35 }),
  };
}
