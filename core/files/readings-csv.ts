import Papa from 'papaparse';
import type { Dimension, JobDocument, Reading } from '../job/document';
import { LARGEST_READING } from '../job/fields';
import type { Instrument } from '../job/workshop';
import { parseQuantity } from '../quantity/parse';
import { type Unit, unitFromSpelling } from '../quantity/units';

/** Readings as a table for other programs: one reading a row, lengths in mm next to the text as typed. */
const COLUMNS = [
  'dimension',
  'label',
  'reading',
  'unit',
  'value',
  'time',
  'instrument',
  'source',
  'turned',
  'struck',
] as const;
const SOURCES = {
  seat: 'seat',
  'old-part': 'old part',
  scan: 'a scan',
  photo: 'a photo',
  said: 'said',
} as const;

export function readingsToCsv(document: JobDocument, instruments: readonly Instrument[]): string {
  const rows = document.dimensions.flatMap(d =>
    d.readings.map(r => [
      d.name,
      d.label,
      r.text,
      r.unit,
      String(Number(r.value.toFixed(6))),
      r.at,
      instruments.find(i => i.id === r.instrumentId)?.name ?? '',
      SOURCES[r.source],
      r.turn === undefined ? '' : String(r.turn),
      r.struck ?? '',
    ]),
  );
  // A spreadsheet would run a text that begins with “=” as a formula: such texts get an apostrophe.
  return Papa.unparse({ fields: [...COLUMNS], data: rows }, { escapeFormulae: true, newline: '\r\n' });
}

export interface CsvOutcome {
  readings: { dimensionId: string; reading: Reading }[];
  /** A row that could not be taken in, by its number in a spreadsheet. */
  problems: { row: number; message: string }[];
}

interface Making {
  instruments: readonly Instrument[];
  /** The time for readings that state none. */
  now: string;
  newId(): string;
}

const MOST_ROWS = 2000;
const LONGEST_FILE = 1_000_000;

/**
 * Readings from a table: it needs a column for the dimension (its name or label) and one for the reading; other columns
 * are ignored. Commas, semicolons and tabs separate columns; a decimal comma is understood. Rows that cannot be
 * understood are reported and left out; the others are taken.
 */
export function readingsFromCsv(text: string, document: JobDocument, making: Making): CsvOutcome {
  const said = (row: number, message: string): CsvOutcome => ({ readings: [], problems: [{ row, message }] });
  if (text.length > LONGEST_FILE) return said(1, 'The file is over 1 MB: readings are a few lines of text.');
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    delimitersToGuess: [';', ',', '\t'],
    transformHeader: h => h.trim().toLowerCase(),
  });
  const fields = parsed.meta.fields ?? [];
  const readingField = ['reading', 'value', 'messwert'].find(f => fields.includes(f));
  const nameField = ['dimension', 'name', 'label'].find(f => fields.includes(f));
  if (!readingField || !nameField)
    return said(1, 'The first row must name the columns: “dimension” and “reading” at least.');
  if (parsed.data.length > MOST_ROWS) return said(1, `That is over ${MOST_ROWS} rows: send fewer at once.`);
  const outcome: CsvOutcome = { readings: [], problems: [] };
  parsed.data.forEach((row, i) => {
    const taken = readRow(row, nameField, readingField, document, making);
    if ('message' in taken) outcome.problems.push({ row: i + 2, message: taken.message });
    else outcome.readings.push(taken);
  });
  return outcome;
}

type Taken = { dimensionId: string; reading: Reading } | { message: string };

function readRow(
  row: Record<string, string>,
  nameField: string,
  readingField: string,
  document: JobDocument,
  { instruments, now, newId }: Making,
): Taken {
  // The apostrophe that kept a spreadsheet from running it as a formula.
  const cell = (field: string) => (row[field] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
  const named = cell(nameField);
  const dimension = document.dimensions.find(d => same(d.name, named) || same(d.label, named));
  if (!dimension)
    return { message: named ? `This job has no dimension “${named}”.` : 'It names no dimension.' };
  if (dimension.derived)
    return { message: `${dimension.label} is worked out from others: it takes no readings.` };
  const kind = dimension.kind === 'angle' ? 'angle' : 'length';
  const unit: Unit | undefined = cell('unit')
    ? unitFromSpelling(cell('unit'))
    : kind === 'angle'
      ? 'deg'
      : 'mm';
  if (!unit) return { message: `“${cell('unit')}” is not a unit: mm, cm, in or thou.` };
  const read = parseQuantity(cell(readingField), kind, unit);
  if (!read.ok) return { message: read.message };
  const { value, text, unit: typed } = read.quantity;
  if (!(value > 0 && value <= LARGEST_READING))
    return { message: `${text} is not a size: it must be above 0.` };
  const time = new Date(cell('time'));
  const turn = parseQuantity(cell('turned'), 'angle');
  return {
    dimensionId: dimension.id,
    reading: {
      id: newId(),
      value,
      text: text.slice(0, 60),
      unit: typed,
      at: cell('time') && !Number.isNaN(time.getTime()) ? time.toISOString() : now,
      instrumentId: instruments.find(x => same(x.name, cell('instrument')))?.id ?? null,
      source: sourceOf(cell('source')),
      via: 'import',
      struck: cell('struck').slice(0, 300) || null,
      ...(turn.ok && turn.quantity.value >= 0 && turn.quantity.value <= 360
        ? { turn: turn.quantity.value }
        : {}),
    },
  };
}

const same = (a: string, b: string) => a.localeCompare(b, undefined, { sensitivity: 'base' }) === 0;

const sourceOf = (words: string): Reading['source'] =>
  /old/i.test(words) ? 'old-part' : /said|label|sheet/i.test(words) ? 'said' : 'seat';

/** Dimensions that a table can fill: for the words beside the field. */
export const fillable = (dimensions: readonly Dimension[]) =>
  dimensions.filter(d => !d.derived).map(d => d.name);
