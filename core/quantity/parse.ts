import { factorOf, ownUnit, type QuantityKind, type Unit, unitFromSpelling, unitSuits } from './units';

/** A number as somebody typed it, parsed. */
export interface Quantity {
  /** mm, degrees, a count or a ratio, by kind. */
  value: number;
  /** The unit that was typed, or otherwise the field's. */
  unit: Unit;
  /** What was typed, trimmed. */
  text: string;
}

export type ParseOutcome =
  | { ok: true; quantity: Quantity }
  | {
      ok: false;
      code: 'empty' | 'not-a-number' | 'two-separators' | 'wrong-unit' | 'not-finite';
      message: string;
    };

const NUMBER = String.raw`\d+(?:[.,]\d*)?|[.,]\d+`;
/** `1 1/4`, `31.7`, `32/2`. `1.5e3` is deliberately absent: nobody types it at a bench. */
const TYPED = new RegExp(
  String.raw`^([+-]?)\s*(?:(\d+)\s+(\d+)\s*\/\s*(\d+)|(${NUMBER})(?:\s*\/\s*(${NUMBER}))?)\s*([^\d\s.,+\-*/()]*)$`,
  'u',
);

/**
 * Reads `31.7`, `31,7`, `1 1/4 in`, `1.25"`, `0.08in`, `32/2`, `13 thou`, `-0.2`, `4 %`.
 * A comma is always a decimal comma; a second separator is refused, since `1,234.5` could be two numbers.
 * @param unit the unit a bare number takes; the kind's own when left out
 */
export function parseQuantity(typed: string, kind: QuantityKind, unit: Unit = ownUnit(kind)): ParseOutcome {
  const text = typed
    // "1½" is one and a half: without the gap it would be read as 11/2.
    .replace(/[¼-¾⅐-⅞]/gu, ' $&')
    .replace(/[″”]/gu, '"')
    .normalize('NFKC')
    .replace(/[−–]/gu, '-')
    .replace(/⁄/gu, '/')
    .trim();
  if (text === '') return { ok: false, code: 'empty', message: 'Nothing typed yet: type a number.' };
  if (/\d*[.,]\d*[.,]/u.test(text)) {
    return {
      ok: false,
      code: 'two-separators',
      message: `“${typed.trim()}” has two decimal marks: leave out the thousands mark.`,
    };
  }
  const found = TYPED.exec(text);
  if (!found) {
    return {
      ok: false,
      code: 'not-a-number',
      message: `“${shorten(typed)}” is not a number: type something like 31.7, 31,7 or 1 1/4 in.`,
    };
  }
  const [, sign, whole, top, bottom, plain, divisor, word] = found;
  const named = word ? unitFromSpelling(word) : unit;
  if (!named || !unitSuits(named, kind)) {
    return { ok: false, code: 'wrong-unit', message: wrongUnit(word ?? '', kind) };
  }
  const magnitude =
    whole !== undefined
      ? Number(whole) + Number(top) / Number(bottom)
      : number(plain!) / (divisor === undefined ? 1 : number(divisor));
  const value = (sign === '-' ? -1 : 1) * magnitude * factorOf(named);
  if (!Number.isFinite(value)) {
    return { ok: false, code: 'not-finite', message: 'That divides by zero: check the fraction.' };
  }
  return { ok: true, quantity: { value, unit: named, text: typed.trim() } };
}

const number = (text: string) => Number(text.replace(',', '.'));

export const shorten = (text: string, most = 24) => {
  const trimmed = [...text.trim()];
  return trimmed.length > most ? `${trimmed.slice(0, most - 1).join('')}…` : trimmed.join('');
};

function wrongUnit(word: string, kind: QuantityKind): string {
  const asked = {
    length: 'a length: mm, cm, in or thou',
    angle: 'an angle: degrees',
    strain: 'a stretch: %',
    count: 'a plain number',
  }[kind];
  return word ? `“${shorten(word)}” does not fit here: this is ${asked}.` : `This is ${asked}.`;
}
