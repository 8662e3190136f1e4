/** A number with its unit, as instruments send it: “31.72”, “+0031.72 mm”, “01A+00031.72”, “1.2490in”. */
const SENT = /[+-]?\d+(?:[.,]\d+)?\s*(?:mm|in|"|°|deg)?/gi;

/**
 * The reading in a line from an instrument; null where there is none. Some instruments put channel letters and counters
 * before the number, so the last number of the line is the reading.
 */
export function readingInLine(line: string): string | null {
  // Some devices separate fields by control characters.
  const clean = [...line.slice(0, 200)]
    .map(c => (c < ' ' ? ' ' : c))
    .join('')
    .trim();
  const found = clean.match(SENT)?.at(-1)?.trim();
  if (!found) return null;
  // Leading zeros are padding; one before the decimal point stays.
  return found.replace(/^\+/, '').replace(/^(-?)0+(?=\d)/, '$1');
}
