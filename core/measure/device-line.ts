/** A number with its unit, as instruments send it: “31.72”, “+0031.72 mm”, “01A+00031.72”, “1.2490in”. */
const SENT = /[+-]?\d+(?:[.,]\d+)?\s*(?:mm|in|"|°|deg)?/gi;

/**
 * The reading in a line off an instrument; null where there is none. Senders put channel letters and
 * counters before the number: the last number of the line is the reading.
 */
export function readingInLine(line: string): string | null {
  // Control characters part fields on some wires.
  const clean = [...line.slice(0, 200)]
    .map(c => (c < ' ' ? ' ' : c))
    .join('')
    .trim();
  const found = clean.match(SENT)?.at(-1)?.trim();
  if (!found) return null;
  // Leading noughts are how wires pad; one before the point stays.
  return found.replace(/^\+/, '').replace(/^(-?)0+(?=\d)/, '$1');
}
