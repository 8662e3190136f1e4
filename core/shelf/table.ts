/**
 * Tables as the standards print them: one row a line, cells separated by spaces, `-` where the standard gives no value.
 * Kept as text so that a row can be compared with the printed page.
 */
export type Row<K extends string> = { readonly key: string } & { readonly [P in K]: number | null };

/**
 * @param columns names of the numbers after the first cell, which is the row's key
 * @throws RangeError where a row has too few or too many cells, or a cell is not a number
 */
export function readTable<K extends string>(columns: readonly K[], text: string): Row<K>[] {
  if (columns.some(c => c === 'key'))
    throw new RangeError('“key” names the row: give the column another name.');
  return text
    .trim()
    .split('\n')
    .map(line => {
      const [key, ...cells] = line.trim().split(/\s+/);
      if (cells.length !== columns.length) {
        throw new RangeError(
          `Got ${cells.length} numbers in the row “${line.trim()}”, need ${columns.length}.`,
        );
      }
      const row: Record<string, string | number | null> = { key: key! };
      columns.forEach((column, i) => {
        row[column] = cells[i] === '-' ? null : numberIn(cells[i]!, line);
      });
      return row as Row<K>;
    });
}

function numberIn(cell: string, line: string): number {
  const value = Number(cell);
  if (!Number.isFinite(value)) throw new RangeError(`“${cell}” in the row “${line.trim()}” is not a number.`);
  return value;
}

/** A row's number that the standard does give. */
export function given<K extends string>(row: Row<K>, column: K): number {
  const value = row[column];
  if (value === null) throw new RangeError(`The table has no ${column} for ${row.key}.`);
  return value;
}

/** The source of a table's digits. */
export interface Source {
  /** "ISO 273:1979", or "common practice". */
  standard: string;
  /** How the digits were obtained and what they were checked against. */
  obtained: string;
}

export const sourceLine = (source: Source) => `${source.standard}; ${source.obtained}`;
