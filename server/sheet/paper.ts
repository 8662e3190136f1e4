import type { JobView } from '../../contract/jobs';
import { writeDrawingDxf } from '../../core/files/drawing-dxf';
import { writeDrawingSvg } from '../../core/files/drawing-svg';
import type { Workshop } from '../../core/job/workshop';
import type { Evidence } from '../../core/learn/lessons';
import type { DrawDimension } from '../../core/shape/drawing/drawing';
import { handOverOf } from '../../core/work/hand-over';
import { Work } from '../../core/work/work';
import { drawingPdf, handOverPdf, sheetPdf } from './pdf';

export const DRAWING_TYPES = { svg: 'image/svg+xml', dxf: 'image/vnd.dxf', pdf: 'application/pdf' };
export type DrawingKind = keyof typeof DRAWING_TYPES;

export interface PaperAsked {
  job: JobView;
  workshop: Workshop;
  /** What other jobs taught. */
  lessons: readonly Evidence[];
}

/** A job's measuring sheet. For a thread: whatever the numbers are, they never block the server. */
export async function sheetFile({ job, workshop, lessons }: PaperAsked) {
  const { sheet } = Work.of(job, workshop, lessons);
  return { file: await sheetPdf(sheet, new Date(job.updatedAt)) };
}

/** The sheet that goes with the part. For a thread too. */
export async function handOverFile({ job, workshop, lessons }: PaperAsked) {
  const work = Work.of(job, workshop, lessons);
  return { file: await handOverPdf(handOverOf(work), new Date(job.updatedAt)) };
}

interface DrawingAsked extends PaperAsked {
  /** One of the job's. */
  partId: string;
  kind: DrawingKind;
}

/** A part's drawing as a file. For a thread too. */
export async function drawingFile({ job, workshop, lessons, partId, kind }: DrawingAsked) {
  const work = Work.of(job, workshop, lessons).part(partId);
  const { drawing } = work;
  const valueFor = (d: DrawDimension) => work.drawnSize(d).toFixed(2);
  const title = `${job.document.title}: ${work.part.name}`;
  if (kind === 'svg') return { file: bytesOf(writeDrawingSvg(drawing, title, valueFor)) };
  if (kind === 'dxf') return { file: bytesOf(writeDrawingDxf(drawing, valueFor)) };
  const values = Object.fromEntries(drawing.dimensions.map(d => [d.key, valueFor(d)]));
  return { file: await drawingPdf(title, drawing, values, new Date(job.updatedAt)) };
}

const bytesOf = (text: string) => new TextEncoder().encode(text);
