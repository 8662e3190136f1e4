import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import type { DrawDimension, Drawing, DrawPoint } from '../../core/shape/drawing/drawing';
import type { HandOver } from '../../core/work/hand-over';
import type { Sheet } from '../../core/work/sheet';

/** The measuring sheet as a PDF, A4. */
const MARGIN = 46;
const INK = '#20262B';
const SOFT = '#59626A';
const BLUE = '#1F3F66';
const RULE = '#D5CFC2';
const DRAWING_HEIGHT = 230;

const require = createRequire(import.meta.url);
const font = (weight: number) =>
  require.resolve(`@fontsource/barlow/files/barlow-latin-${weight}-normal.woff`);
type Doc = InstanceType<typeof PDFDocument>;

export const sheetPdf = (sheet: Sheet, made: Date): Promise<Uint8Array> =>
  pdf(`Measuring sheet: ${sheet.title}`, made, doc => {
    head(doc, sheet, made);
    for (const view of sheet.views) {
      if (view.part) partName(doc, view.part);
      drawDrawing(doc, view.drawing, view.values);
    }
    table(doc, sheet);
    rest(doc, sheet);
    foot(doc);
  });

/** A drawing of a part alone on a sheet, as large as it fits. @param values by dimension key, unit included */
export const drawingPdf = (
  title: string,
  drawing: Drawing,
  values: Readonly<Record<string, string>>,
  made: Date,
): Promise<Uint8Array> =>
  pdf(title, made, doc => {
    doc.font('strong').fontSize(17).fillColor(INK);
    doc.text(printable(title), MARGIN, MARGIN, { width: width(doc) });
    doc.font('plain').fontSize(10.5).fillColor(SOFT);
    doc.text(printable(`${drawing.title}. Lengths in mm; not to scale on paper.`));
    doc.moveDown(1);
    drawDrawing(doc, drawing, values);
  });

/** The sheet that goes with the part to whoever uses it. */
export const handOverPdf = (sheet: HandOver, made: Date): Promise<Uint8Array> =>
  pdf(`Hand-over: ${sheet.title}`, made, doc => {
    const put = (weight: 'plain' | 'strong', size: number, colour: string, text: string) =>
      doc
        .font(weight)
        .fontSize(size)
        .fillColor(colour)
        .text(printable(text), MARGIN, doc.y, { width: width(doc) });
    const block = (title: string, lines: readonly string[]) => {
      if (lines.length === 0) return;
      put('strong', 12.5, INK, title);
      doc.moveDown(0.2);
      for (const text of lines) put('plain', 10.5, INK, `\u2022 ${text}`);
      doc.moveDown(0.7);
    };
    doc.y = MARGIN;
    put('strong', 19, INK, sheet.title);
    const about = [sheet.object, `handed over ${made.toISOString().slice(0, 10)}`].filter(Boolean);
    put('plain', 10.5, SOFT, about.join(' \u2022 '));
    if (sheet.purpose) put('plain', 11, INK, sheet.purpose);
    doc.moveDown(0.8);
    for (const part of sheet.parts)
      block(part.name, [
        part.made,
        ...part.fits.map(f => `${f.name}: drawn ${f.drawn}, ${f.sat.replace('-', ' ')}`),
      ]);
    block('Limits', sheet.limits);
    block('Cautions', sheet.cautions);
    block(
      sheet.lookAt ? `Look at it again on ${sheet.lookAt}` : 'Look at it from time to time',
      sheet.lookFor.map(x => `for ${x}`),
    );
    put(
      'plain',
      9.5,
      SOFT,
      'A home-printed part. Where somebody could be hurt, local rules and licensed people have the last word.',
    );
  });

async function pdf(title: string, made: Date, write: (doc: Doc) => void): Promise<Uint8Array> {
  const doc = new PDFDocument({
    size: 'A4',
    margin: MARGIN,
    bufferPages: true,
    info: { Title: title, Creator: 'Sagoma', CreationDate: made },
  });
  doc.registerFont('plain', font(400));
  doc.registerFont('strong', font(600));
  const chunks: Buffer[] = [];
  doc.on('data', chunk => chunks.push(chunk as Buffer));
  const done = new Promise<void>(resolve => doc.on('end', () => resolve()));
  write(doc);
  doc.end();
  await done;
  return new Uint8Array(Buffer.concat(chunks));
}

/** The font has Latin letters: missing signs are written out, others become a question mark. */
export function printable(text: string): string {
  return text
    .replace(/⌀/g, 'dia. ')
    .replace(/π/g, 'pi')
    .replace(/√/g, 'sqrt')
    .replace(/[“”]/g, '"')
    .replace(/[’‘]/g, "'")
    .replace(/\s+/g, ' ')
    .replace(/[^\u0020-\u00FF\u2013\u2014\u2022\u2026\u20AC\u2212]/gu, '?');
}

const width = (doc: Doc) => doc.page.width - 2 * MARGIN;

function head(doc: Doc, sheet: Sheet, made: Date): void {
  doc
    .font('strong')
    .fontSize(19)
    .fillColor(INK)
    .text(printable(sheet.title), MARGIN, MARGIN, { width: width(doc) });
  const line = [sheet.object, `measured by ${made.toISOString().slice(0, 10)}`].filter(Boolean).join(' · ');
  doc
    .font('plain')
    .fontSize(10.5)
    .fillColor(SOFT)
    .text(printable(line), { width: width(doc) });
  if (sheet.note)
    doc
      .moveDown(0.3)
      .fillColor(INK)
      .text(printable(sheet.note), { width: width(doc) });
  doc.moveDown(0.6);
}

/** Above its drawing; both on one page. */
function partName(doc: Doc, name: string): void {
  if (doc.y + DRAWING_HEIGHT + 40 > doc.page.height - MARGIN) doc.addPage();
  doc
    .font('strong')
    .fontSize(12)
    .fillColor(INK)
    .text(printable(name), MARGIN, doc.y, { width: width(doc) });
}

function drawDrawing(doc: Doc, drawing: Drawing, values: Record<string, string>): void {
  const [minX, minY, maxX, maxY] = drawing.frame;
  const room = width(doc) - 150;
  const scale = Math.min(room / (maxX - minX), DRAWING_HEIGHT / (maxY - minY));
  const top = doc.y;
  const at = ([x, y]: DrawPoint): [number, number] => [
    doc.page.width / 2 + (x - (minX + maxX) / 2) * scale,
    top + DRAWING_HEIGHT / 2 - (y - (minY + maxY) / 2) * scale,
  ];
  for (const shape of drawing.shapes) {
    const [first, ...others] = shape.points;
    if (!first) continue;
    doc.moveTo(...at(first));
    for (const p of others) doc.lineTo(...at(p));
    if (shape.closed) doc.closePath();
    if (shape.ink === 'cut') doc.lineWidth(0.9).fillAndStroke('#E9DFD2', INK);
    else if (shape.ink === 'centre') doc.lineWidth(0.5).dash(6, { space: 3 }).stroke(SOFT).undash();
    else if (shape.ink === 'ghost') doc.lineWidth(0.5).dash(3, { space: 3 }).stroke(SOFT).undash();
    else doc.lineWidth(shape.ink === 'mate' ? 1.8 : 0.7).stroke(shape.ink === 'mate' ? BLUE : INK);
  }
  for (const d of drawing.dimensions) drawDimension(doc, d, at, values[d.key]);
  doc.y = top + DRAWING_HEIGHT + 16;
  doc.x = MARGIN;
}

function drawDimension(
  doc: Doc,
  d: DrawDimension,
  at: (p: DrawPoint) => [number, number],
  value?: string,
): void {
  const across = d.direction === 'across';
  const along = d.direction === 'along';
  const a = at(along ? d.from : across ? [d.from[0], d.line] : [d.line, d.from[1]]);
  const b = at(along ? d.to : across ? [d.to[0], d.line] : [d.line, d.to[1]]);
  doc.lineWidth(0.4);
  for (const [from, to] of [
    [at(d.from), a],
    [at(d.to), b],
    [a, b],
  ] as const)
    doc
      .moveTo(...from)
      .lineTo(...to)
      .stroke(SOFT);
  for (const end of [a, b]) doc.circle(...end, 1.4).fill(SOFT);
  const words = printable(`${d.diameter ? '⌀' : ''}${d.label} ${value ?? '______'}`);
  doc.font('strong').fontSize(9);
  const w = doc.widthOfString(words) + 6;
  const middle = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] as const;
  const left = across || along ? middle[0] - w / 2 : d.line < 0 ? middle[0] - w - 3 : middle[0] + 3;
  doc.rect(left, middle[1] - 6, w, 12).fill('#FFFFFF');
  doc.fillColor(value ? INK : BLUE).text(words, left + 3, middle[1] - 5, { lineBreak: false });
}

const COLUMNS = [
  { title: 'Dimension', share: 0.25 },
  { title: 'Value, 95 %', share: 0.19 },
  { title: 'Readings', share: 0.2 },
  { title: 'How', share: 0.36 },
];

function table(doc: Doc, sheet: Sheet): void {
  headRow(doc);
  for (const row of sheet.rows) {
    const blank = row.value === '' && row.readings.length === 0;
    const cells = [
      `${row.label}${row.critical ? ' (the fit depends on it)' : ''}`,
      row.value || '____________',
      blank
        ? '______  ______  ______'
        : [row.readings.map(r => (r.struck ? `(${r.text})` : r.text)).join('  '), row.with]
            .filter(Boolean)
            .join('; '),
      [row.how, row.note, row.source && row.source !== 'the seat' ? `Read: ${row.source}.` : '']
        .filter(Boolean)
        .join(' '),
    ].map(printable);
    const heights = cells.map((cell, i) => {
      doc.font(i === 1 ? 'strong' : 'plain').fontSize(9.5);
      return doc.heightOfString(cell, { width: columnWidth(doc, i) - 8 });
    });
    const height = Math.max(...heights) + 7;
    if (doc.y + height > doc.page.height - MARGIN - 20) {
      doc.addPage();
      headRow(doc);
    }
    const top = doc.y;
    cells.forEach((cell, i) => {
      doc
        .font(i === 1 ? 'strong' : 'plain')
        .fontSize(9.5)
        .fillColor(i === 3 ? SOFT : INK)
        .text(cell, columnLeft(doc, i), top + 3, { width: columnWidth(doc, i) - 8 });
    });
    doc.y = top + height;
    line(doc);
  }
}

const columnWidth = (doc: Doc, i: number) => COLUMNS[i]!.share * width(doc);
const columnLeft = (doc: Doc, i: number) =>
  MARGIN + COLUMNS.slice(0, i).reduce((sum, c) => sum + c.share * width(doc), 0);

function headRow(doc: Doc): void {
  const top = doc.y;
  COLUMNS.forEach((c, i) => {
    doc
      .font('strong')
      .fontSize(9)
      .fillColor(SOFT)
      .text(c.title, columnLeft(doc, i), top, { width: columnWidth(doc, i) - 8 });
  });
  doc.y = top + 14;
  line(doc);
}

function line(doc: Doc): void {
  doc
    .lineWidth(0.5)
    .moveTo(MARGIN, doc.y)
    .lineTo(doc.page.width - MARGIN, doc.y)
    .stroke(RULE);
  doc.x = MARGIN;
}

function rest(doc: Doc, sheet: Sheet): void {
  doc.moveDown(0.8);
  for (const t of sheet.threads) {
    doc
      .font('strong')
      .fontSize(10)
      .fillColor(INK)
      .text(printable(`${t.label}: ${t.standard}`), { width: width(doc) });
    doc
      .font('plain')
      .fillColor(SOFT)
      .text(printable(t.words), { width: width(doc) })
      .moveDown(0.4);
  }
  if (sheet.open.length > 0) {
    doc
      .font('plain')
      .fontSize(10)
      .fillColor(INK)
      .text(printable(`Not read yet: ${sheet.open.join('; ')}.`), { width: width(doc) });
  }
}

function foot(doc: Doc): void {
  const { start, count } = doc.bufferedPageRange();
  for (let i = start; i < start + count; i++) {
    doc.switchToPage(i);
    // Below the margin a line would start a new page.
    doc.page.margins.bottom = 0;
    doc
      .font('plain')
      .fontSize(8.5)
      .fillColor(SOFT)
      .text(
        `Sagoma measuring sheet. Lengths in the unit shown; a value's doubt is for 95 %. Struck-out readings stand in brackets. Page ${i - start + 1} of ${count}.`,
        MARGIN,
        doc.page.height - 34,
        { width: width(doc), lineBreak: false },
      );
  }
}
