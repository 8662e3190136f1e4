import type { JobView } from '../../contract/jobs';
import { writeDrawingDxf } from '../../core/files/drawing-dxf';
import { writeDrawingSvg } from '../../core/files/drawing-svg';
import type { Workshop } from '../../core/job/workshop';
import type { DrawDimension } from '../../core/shape/drawing/drawing';
import { handOverOf } from '../../core/work/hand-over';
import { Work } from '../../core/work/work';
import { drawingPdf, handOverPdf, sheetPdf } from './pdf';

export const DRAWING_TYPES = { svg: 'image/svg+xml', dxf: 'image/vnd.dxf', pdf: 'application/pdf' };
export type DrawingKind = keyof typeof DRAWING_TYPES;

/** A job's measuring sheet. For a thread: whatever the numbers are, they never hold the server. */
export async function sheetFile({ job, workshop }: { job: JobView; workshop: Workshop }) {
  const { sheet } = new Work(job.document, workshop, job.history);
  return { file: await sheetPdf(sheet, new Date(job.updatedAt)) };
}

/** The sheet that goes with the part. For a thread too. */
export async function handOverFile({ job, workshop }: { job: JobView; workshop: Workshop }) {
  const work = new Work(job.document, workshop, job.history);
  return { file: await handOverPdf(handOverOf(work), new Date(job.updatedAt)) };
}

interface DrawingAsked {
  job: JobView;
  workshop: Workshop;
  /** One of the job's. */
  partId: string;
  kind: DrawingKind;
}

/** A part's drawing as a file. For a thread too. */
export async function drawingFile({ job, workshop, partId, kind }: DrawingAsked) {
  const work = new Work(job.document, workshop, job.history).part(partId);
  const { drawing } = work;
  const valueFor = (d: DrawDimension) => work.drawnSize(d).toFixed(2);
  const title = `${job.document.title}: ${work.part.name}`;
  if (kind === 'svg') return { file: bytesOf(writeDrawingSvg(drawing, title, valueFor)) };
  if (kind === 'dxf') return { file: bytesOf(writeDrawingDxf(drawing, valueFor)) };
  const values = Object.fromEntries(drawing.dimensions.map(d => [d.key, valueFor(d)]));
  return { file: await drawingPdf(title, drawing, values, new Date(job.updatedAt)) };
}

const bytesOf = (text: string) => new TextEncoder().encode(text);
