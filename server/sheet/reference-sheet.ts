import PDFDocument from 'pdfkit';
import { CELLS, lightCells } from '../../core/trace/sheet/dictionary';
import { BAR, MARKER, type Middle, type Paper, SHEETS, SQUARE } from '../../core/trace/sheet/layout';

/** PDF points per millimetre. */
const POINT = 72 / 25.4;
/** Width of the lines of the bars, mm: a caliper's edge finds their ends. */
const [BAR_WIDE, TICK] = [0.3, 3];

/**
 * The reference sheet for photos as a PDF, to be printed at its own size. Equal sheets have equal bytes.
 */
export function referenceSheet(paper: Paper, middle: Middle): Promise<Uint8Array> {
  const layout = SHEETS[paper];
  const [w, h] = layout.paper;
  const doc = new PDFDocument({
    size: [w * POINT, h * POINT],
    margin: 0,
    info: { Title: `Sagoma reference sheet, ${paper === 'a4' ? 'A4' : 'Letter'}`, CreationDate: new Date(0) },
  });
  // By default printers fit to the page: this asks them for the true size.
  const { _root: root } = doc as typeof doc & { _root: { data: Record<string, unknown> } };
  root.data.ViewerPreferences = doc.ref({ PrintScaling: 'None' });
  const chunks: Buffer[] = [];
  doc.on('data', (chunk: Buffer) => chunks.push(chunk));
  const done = new Promise<Uint8Array>((resolve, reject) => {
    doc.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    doc.on('error', reject);
  });
  const rect = (x: number, y: number, wide: number, tall: number, ink: 'black' | 'white') =>
    doc.rect((x + w / 2) * POINT, (y + h / 2) * POINT, wide * POINT, tall * POINT).fill(ink);
  const square = ([x, y]: readonly [number, number], side: number, ink: 'black' | 'white') =>
    rect(x - side / 2, y - side / 2, side, side, ink);
  if (middle === 'dark') {
    const [bx, by] = layout.blank;
    rect(-bx, -by, 2 * bx, 2 * by, 'black');
  }
  for (const at of layout.dark) square(at, SQUARE, 'black');
  const cell = MARKER / (CELLS + 2);
  for (const { id, at } of layout.markers) {
    square(at, MARKER, 'black');
    lightCells(id).forEach((light, k) => {
      if (!light) return;
      const [i, j] = [k % CELLS, Math.floor(k / CELLS)];
      rect(at[0] - MARKER / 2 + (i + 1) * cell, at[1] - MARKER / 2 + (j + 1) * cell, cell, cell, 'white');
    });
  }
  const { across, along } = layout.bars;
  rect(across[0][0], across[0][1] - BAR_WIDE / 2, BAR, BAR_WIDE, 'black');
  rect(along[0][0] - BAR_WIDE / 2, along[0][1], BAR_WIDE, BAR, 'black');
  // Ticks are inside the bar's ends: from outer edge to outer edge it has its stated length.
  for (const [end, inward] of [
    [across[0], 0],
    [across[1], -BAR_WIDE],
  ] as const)
    rect(end[0] + inward, end[1] - TICK / 2, BAR_WIDE, TICK, 'black');
  for (const [end, inward] of [
    [along[0], 0],
    [along[1], -BAR_WIDE],
  ] as const)
    rect(end[0] - TICK / 2, end[1] + inward, TICK, BAR_WIDE, 'black');
  doc.font('Helvetica').fontSize(7.5).fillColor('black');
  const words = `Print at 100 %. Read both bars by caliper, over their ticks: each should be ${BAR} mm. Type what you read; lay the object in the middle.`;
  doc.text(words, (w / 2 - 90) * POINT, (h / 2 + across[0][1] + 2.6) * POINT, {
    width: 180 * POINT,
    align: 'center',
    lineBreak: false,
  });
  doc.end();
  return done;
}
