import { given, type Row, type Source } from '../table';
import {
  DELTA,
  type Grade,
  HOLE_J,
  LARGEST,
  SHAFT_LOWER,
  SHAFT_LOWER_FINE,
  SHAFT_UPPER,
  SHAFT_UPPER_FINE,
  TOLERANCES,
} from './tables';

export const ISO_286: Source = {
  standard: 'ISO 286-1:2010 and ISO 286-2:2010',
  obtained:
    'typed from memory of the tables; held against the formulae of the standard within its rounding, and against a second list of common classes',
};

/** Limits of a tolerance class at a size, mm from nominal. */
export interface ClassLimits {
  kind: 'hole' | 'shaft';
  upper: number;
  lower: number;
}

/** A class that ISO 286 does not have; the message is for the person who typed it. */
export class UnknownClass extends RangeError {}

const SPELLED = /^([a-zA-Z]{1,2})(01|\d{1,2})$/;
const LETTERS = [
  'a',
  'b',
  'c',
  'cd',
  'd',
  'e',
  'ef',
  'f',
  'fg',
  'g',
  'h',
  'js',
  'j',
  'k',
  'm',
  'n',
  'p',
  'r',
  's',
  't',
  'u',
  'v',
  'x',
  'y',
  'z',
  'za',
  'zb',
  'zc',
];

/**
 * Deviations of a class such as H7 or g6, ISO 286-1:2010.
 * @param size nominal, mm, over 0 up to 500
 * @returns mm; the standard's tables give whole and half micrometres
 * @throws UnknownClass for a class or a size that is not in the standard's tables
 */
export function limitsOf(size: number, spelled: string): ClassLimits {
  if (!(size > 0 && size <= LARGEST)) {
    throw new UnknownClass(`ISO 286 is kept here for sizes over 0 up to ${LARGEST} mm, got ${size}.`);
  }
  const found = SPELLED.exec(spelled.trim());
  const letter = found?.[1];
  const kind = letter === letter?.toUpperCase() ? 'hole' : 'shaft';
  if (
    !letter ||
    !LETTERS.includes(letter.toLowerCase()) ||
    (kind === 'shaft' && letter !== letter.toLowerCase())
  ) {
    throw new UnknownClass(
      `“${spelled}” is not a tolerance class: type one such as H7 (hole) or g6 (shaft).`,
    );
  }
  const name = found[2]!;
  const number = name === '01' ? 0 : Number(name);
  const tolerances = rangeRow(TOLERANCES, size);
  const grade = `IT${name}` as Grade;
  if (!(grade in tolerances)) throw new UnknownClass(`There is no grade ${name}: grades run from 01 to 18.`);
  if (size <= 1 && number >= 14) throw new UnknownClass('Grades 14 to 18 are not for sizes up to 1 mm.');
  const it = given(tolerances, grade);
  const at = { size, number: name === '01' ? -1 : number, it, spelled };
  const [upper, lower] = kind === 'shaft' ? shaft(letter, at) : hole(letter.toLowerCase(), at);
  return { kind, upper: microns(upper), lower: microns(lower) };
}

/** Two classes at one size, such as 25 H7/g6: clearance is female minus male. */
export function fitOf(size: number, spelled: string) {
  const [first, second, ...more] = spelled.split('/');
  if (!second || more.length > 0)
    throw new UnknownClass(`“${spelled}” is not a fit: type one such as H7/g6.`);
  const [a, b] = [limitsOf(size, first!), limitsOf(size, second)];
  if (a.kind !== 'hole' || b.kind !== 'shaft') {
    throw new UnknownClass(`“${spelled}” is not a fit: the hole comes first, in capitals, as in H7/g6.`);
  }
  const min = microns(1000 * (a.lower - b.upper));
  const max = microns(1000 * (a.upper - b.lower));
  return {
    hole: a,
    shaft: b,
    clearance: { min, max },
    kind: min >= 0 ? ('clearance' as const) : max <= 0 ? ('interference' as const) : ('transition' as const),
  };
}

interface At {
  size: number;
  /** −1 for 01. */
  number: number;
  /** Micrometres. */
  it: number;
  spelled: string;
}

/** Upper and lower, micrometres. */
function shaft(letter: string, at: At): [number, number] {
  const { size, it } = at;
  if (letter === 'js') return [it / 2, -it / 2];
  if (letter === 'h') return [0, -it];
  if ('abc'.includes(letter)) {
    if (size <= 1 && letter !== 'c') throw new UnknownClass(`Class ${letter} is not for sizes up to 1 mm.`);
    const es = -cell(rangeRow(SHAFT_UPPER_FINE, size), letter as 'a', at);
    return [es, es - it];
  }
  if (['cd', 'd', 'e', 'ef', 'f', 'fg', 'g'].includes(letter)) {
    const es = -cell(rangeRow(SHAFT_UPPER, size), letter as 'd', at);
    return [es, es - it];
  }
  const ei = lowerOf(letter, at);
  return [ei + it, ei];
}

function lowerOf(letter: string, at: At): number {
  const row = rangeRow(SHAFT_LOWER, at.size);
  if (letter === 'j') {
    if (at.number < 5 || at.number > 8)
      throw new UnknownClass('Class j is for grades 5 to 8; take js instead.');
    return cell(row, at.number <= 6 ? 'j5' : (`j${at.number}` as 'j7'), at);
  }
  if (letter === 'k') return at.number >= 4 && at.number <= 7 ? cell(row, 'k', at) : 0;
  if (['m', 'n', 'p'].includes(letter)) return cell(row, letter as 'm', at);
  return cell(rangeRow(SHAFT_LOWER_FINE, at.size), letter as 'r', at);
}

/** Upper and lower, micrometres. @param letter in small letters */
function hole(letter: string, at: At): [number, number] {
  const { size, number, it } = at;
  if (letter === 'js') return [it / 2, -it / 2];
  if (letter === 'h' || LETTERS.indexOf(letter) < LETTERS.indexOf('h')) {
    // The hole mirrors the shaft of the same letter.
    const ei = letter === 'h' ? 0 : -shaft(letter, at)[0];
    return [ei + it, ei];
  }
  const es = upperOf(letter, at, size, number);
  return [es, es - it];
}

function upperOf(letter: string, at: At, size: number, number: number): number {
  if (letter === 'j') {
    if (number < 6 || number > 8) throw new UnknownClass('Class J is for grades 6 to 8; take JS instead.');
    return cell(rangeRow(HOLE_J, size), String(number) as '6', at);
  }
  const delta = number >= 3 && number <= 8 ? given(rangeRow(DELTA, size), String(number) as '3') : 0;
  if (letter === 'k') {
    if (number > 8 && size > 3) throw new UnknownClass('Class K above grade 8 is only for sizes up to 3 mm.');
    return -cell(rangeRow(SHAFT_LOWER, size), 'k', at) + delta;
  }
  if (letter === 'm') {
    // The one exception in the table: M6 over 250 up to 315 mm.
    if (number === 6 && size > 250 && size <= 315) return -9;
    return -cell(rangeRow(SHAFT_LOWER, size), 'm', at) + delta;
  }
  if (letter === 'n') {
    if (number > 8) {
      if (size <= 1) throw new UnknownClass('Class N above grade 8 is not for sizes up to 1 mm.');
      return size <= 3 ? -4 : 0;
    }
    return -cell(rangeRow(SHAFT_LOWER, size), 'n', at) + delta;
  }
  // P to ZC: the shaft's deviation mirrored, plus delta up to grade 7.
  return -lowerOf(letter, at) + (number <= 7 ? delta : 0);
}

/** The row whose range holds the size: each row's key is its range's upper end. */
function rangeRow<K extends string>(rows: readonly Row<K>[], size: number): Row<K> {
  return rows.find(row => size <= Number(row.key))!;
}

function cell<K extends string>(row: Row<K>, column: K, at: At): number {
  const value = row[column];
  if (value === null) {
    throw new UnknownClass(
      `ISO 286 has no class ${at.spelled} at ${at.size} mm: take a neighbouring letter.`,
    );
  }
  return value;
}

/** Micrometres to mm without binary rounding noise, and never −0. */
const microns = (value: number) => Number((value / 1000).toFixed(5)) + 0;
