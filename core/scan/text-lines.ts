/** Lines and words of a text file that may be hundreds of megabytes: read in place, with nothing stored. */

const [NEWLINE, RETURN, SPACE, TAB, COMMA, SEMICOLON] = [10, 13, 32, 9, 44, 59];

export class TextLines {
  private at: number;
  /** Of the line that was read last, from 1. */
  line = 0;

  constructor(
    private readonly bytes: Uint8Array,
    from = 0,
  ) {
    this.at = from;
  }

  /** Where the next line begins, bytes. */
  get offset(): number {
    return this.at;
  }

  /** The next line as text; null at the end. */
  next(): string | null {
    if (this.at >= this.bytes.length) return null;
    let end = this.bytes.indexOf(NEWLINE, this.at);
    if (end < 0) end = this.bytes.length;
    const stop = end > this.at && this.bytes[end - 1] === RETURN ? end - 1 : end;
    const text = latin(this.bytes, this.at, stop);
    this.at = end + 1;
    this.line++;
    return text;
  }

  /** Numbers of the next line that has any, written into `into`; how many there are, −1 at the end. */
  numbers(into: Float64Array): number {
    while (this.at < this.bytes.length) {
      let end = this.bytes.indexOf(NEWLINE, this.at);
      if (end < 0) end = this.bytes.length;
      const count = numbersIn(this.bytes, this.at, end, into);
      this.at = end + 1;
      this.line++;
      if (count !== 0) return count;
    }
    return -1;
  }
}

const latin = (bytes: Uint8Array, from: number, to: number): string => {
  let text = '';
  for (let i = from; i < to; i++) text += String.fromCharCode(bytes[i]!);
  return text;
};

const isGap = (b: number) =>
  b === SPACE || b === TAB || b === RETURN || b === COMMA || b === SEMICOLON || b === NEWLINE;

/** As many numbers as `into` can take; a word that is not a number ends them as NaN. */
export function numbersIn(bytes: Uint8Array, from: number, to: number, into: Float64Array): number {
  let count = 0;
  let i = from;
  while (i < to) {
    while (i < to && isGap(bytes[i]!)) i++;
    if (i >= to) break;
    const start = i;
    while (i < to && !isGap(bytes[i]!)) i++;
    // A comment runs to the end of its line.
    if (bytes[start] === 35) break;
    if (count < into.length) into[count] = numberIn(bytes, start, i);
    count++;
  }
  return count;
}

/** Plain decimals are read without making a string of each: a scan has millions. */
function numberIn(bytes: Uint8Array, from: number, to: number): number {
  let i = from;
  const negative = bytes[i] === 45;
  if (negative || bytes[i] === 43) i++;
  let [digits, value, after] = [0, 0, -1];
  for (; i < to; i++) {
    const b = bytes[i]!;
    if (b >= 48 && b <= 57) {
      value = 10 * value + (b - 48);
      digits++;
      if (after >= 0) after++;
    } else if (b === 46 && after < 0) after = 0;
    // An exponent, “nan”, or no number at all: rare enough for the slow way.
    else return Number(latin(bytes, from, to));
  }
  if (digits === 0 || digits > 15) return Number(latin(bytes, from, to));
  const size = after > 0 ? value / 10 ** after : value;
  return negative ? -size : size;
}
