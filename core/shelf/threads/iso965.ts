import { given, type Row, readTable, type Source } from '../table';

/**
 * Tolerances of ISO metric screw threads, ISO 965-1:2013. Micrometres inside, mm outside. The standard's figures are
 * preferred numbers (R 40) rather than results of its formulae: grade 6 is stored as printed, and the other grades are
 * a fixed number of R 40 steps away, as in the printed tables (the tests compare them with printed grades).
 */
export const ISO_965: Source = {
  standard: 'ISO 965-1:2013',
  obtained:
    'grade 6 typed from memory, other grades by the standard’s preferred-number steps; held against a second list of printed grades',
};

/** R 40 preferred numbers as the standard rounds them, one decade. */
const R40 = [
  1, 1.06, 1.12, 1.18, 1.25, 1.32, 1.4, 1.5, 1.6, 1.7, 1.8, 1.9, 2, 2.12, 2.24, 2.36, 2.5, 2.65, 2.8, 3, 3.15,
  3.35, 3.55, 3.75, 4, 4.25, 4.5, 4.75, 5, 5.3, 5.6, 6, 6.3, 6.7, 7.1, 7.5, 8, 8.5, 9, 9.5,
];

/** A preferred number, some steps up or down its series; whole micrometres, as printed. */
function stepped(value: number, steps: number): number {
  const decade = Math.floor(Math.log10(value) + 1e-9);
  const mantissa = value / 10 ** decade;
  const at = R40.reduce(
    (best, v, i) => (Math.abs(v - mantissa) < Math.abs(R40[best]! - mantissa) ? i : best),
    0,
  );
  const to = at + steps + 40 * decade;
  const scaled = R40[((to % 40) + 40) % 40]! * 10 ** Math.floor(to / 40);
  return Math.round(scaled);
}

/** Steps from grade 6 of the same quantity. */
const GRADE_STEPS: Record<number, number> = { 3: -12, 4: -8, 5: -4, 6: 0, 7: 4, 8: 8, 9: 12 };

/** Fundamental deviations by pitch: es of e, f, g (minus) and EI of G (plus) alike. */
const DEVIATIONS = readTable(
  ['e', 'f', 'g'],
  `
  0.2  -   -   17
  0.25 -   -   18
  0.3  -   -   18
  0.35 -   34  19
  0.4  -   34  19
  0.45 -   35  20
  0.5  50  36  20
  0.6  53  36  21
  0.7  56  38  22
  0.75 56  38  22
  0.8  60  38  24
  1    60  40  26
  1.25 63  42  28
  1.5  67  45  32
  1.75 71  48  34
  2    71  52  38
  2.5  80  58  42
  3    85  63  48
  3.5  90  70  53
  4    95  75  60
  4.5  100 80  63
  5    106 85  71
  5.5  112 90  75
  6    118 95  80
  8    140 118 100
  `,
);

/** By pitch: grade 6 of the external outside (Td) and of the internal hole (TD1). */
const CREST = readTable(
  ['Td', 'TD1'],
  `
  0.2  56  -
  0.25 67  -
  0.3  75  85
  0.35 85  100
  0.4  95  112
  0.45 100 125
  0.5  106 140
  0.6  125 160
  0.7  140 180
  0.75 140 190
  0.8  150 200
  1    180 236
  1.25 212 265
  1.5  236 300
  1.75 265 335
  2    280 375
  2.5  335 450
  3    375 500
  3.5  425 560
  4    475 600
  4.5  500 670
  5    530 710
  5.5  560 750
  6    600 800
  8    710 1000
  `,
);

/** Grade 6 of the external pitch diameter, by the diameter's range (upper end) and the pitch. */
const PITCH_DIAMETER: Record<string, Record<string, number>> = {
  1.4: { 0.2: 48, 0.25: 53, 0.3: 56 },
  2.8: { 0.2: 50, 0.25: 56, 0.35: 63, 0.4: 67, 0.45: 71 },
  5.6: { 0.35: 67, 0.5: 75, 0.6: 85, 0.7: 90, 0.75: 90, 0.8: 95 },
  11.2: { 0.75: 100, 1: 112, 1.25: 118, 1.5: 132 },
  22.4: { 1: 118, 1.25: 132, 1.5: 140, 1.75: 150, 2: 160, 2.5: 170 },
  45: { 1: 125, 1.5: 150, 2: 170, 3: 200, 3.5: 212, 4: 224, 4.5: 236 },
  90: { 1.5: 160, 2: 180, 3: 212, 4: 236, 5: 250, 5.5: 265, 6: 280 },
  180: { 2: 190, 3: 224, 4: 250, 6: 300, 8: 335 },
};
/** The internal pitch diameter is five steps coarser than the external of the same grade. */
const INTERNAL_STEPS = 5;

const rowOf = <K extends string>(rows: readonly Row<K>[], pitch: number) =>
  rows.find(r => Number(r.key) === pitch);

/** Deviation es of e, f, g (negative) or EI of G (positive); 0 for h and H. mm; undefined where not given. */
export function deviation(position: 'e' | 'f' | 'g' | 'h' | 'G' | 'H', pitch: number): number | undefined {
  if (position === 'h' || position === 'H') return 0;
  const value = rowOf(DEVIATIONS, pitch)?.[position === 'G' ? 'g' : position];
  if (value === null || value === undefined) return undefined;
  return ((position === 'G' ? 1 : -1) * value) / 1000;
}

type What = 'Td' | 'TD1' | 'Td2' | 'TD2';
/** The grades that each quantity has, and the ones left out. */
const GRADES: Record<What, readonly number[]> = {
  Td: [4, 6, 8],
  TD1: [4, 5, 6, 7, 8],
  Td2: [3, 4, 5, 6, 7, 8, 9],
  TD2: [4, 5, 6, 7, 8],
};

/** A tolerance of ISO 965-1, mm; undefined where the standard gives none. */
export function threadTolerance(
  what: What,
  grade: number,
  diameter: number,
  pitch: number,
): number | undefined {
  if (!GRADES[what].includes(grade)) return undefined;
  const steps = GRADE_STEPS[grade]!;
  if (what === 'Td' || what === 'TD1') {
    const row = rowOf(CREST, pitch);
    const six = row?.[what];
    if (!six || (what === 'Td' && grade === 8 && pitch < 0.8)) return undefined;
    return stepped(six, steps) / 1000;
  }
  const range = Object.keys(PITCH_DIAMETER)
    .map(Number)
    .sort((a, b) => a - b)
    .find(end => diameter <= end);
  const six = diameter < 1 || range === undefined ? undefined : PITCH_DIAMETER[range]![pitch];
  return six === undefined ? undefined : stepped(six, steps + (what === 'TD2' ? INTERNAL_STEPS : 0)) / 1000;
}

export interface ThreadLimits {
  major: { min: number; max: number } | null;
  pitchDiameter: { min: number; max: number } | null;
  minor: { min: number; max: number } | null;
}

/** Limits of the usual classes, 6g outside (6h up to 1.4 mm) and 6H inside, mm; null where ISO 965 gives none. */
export function usualLimits(basic: {
  major: number;
  pitch: number;
  pitchDiameter: number;
  minorInternal: number;
}): {
  external: ThreadLimits & { class: string };
  internal: ThreadLimits & { class: string };
} {
  const { major, pitch } = basic;
  const outside = major <= 1.4 ? 'h' : 'g';
  const es = deviation(outside, pitch);
  const span = (top: number, tolerance: number | undefined, sign: 1 | -1) =>
    tolerance === undefined || es === undefined
      ? null
      : { min: three(sign < 0 ? top - tolerance : top), max: three(sign < 0 ? top : top + tolerance) };
  return {
    external: {
      class: `6${outside}`,
      major: span(major + (es ?? 0), threadTolerance('Td', 6, major, pitch), -1),
      pitchDiameter: span(basic.pitchDiameter + (es ?? 0), threadTolerance('Td2', 6, major, pitch), -1),
      minor: null,
    },
    internal: {
      class: '6H',
      major: null,
      pitchDiameter: span(basic.pitchDiameter, threadTolerance('TD2', 6, major, pitch), 1),
      minor: span(basic.minorInternal, threadTolerance('TD1', 6, major, pitch), 1),
    },
  };
}

const three = (value: number) => Number(value.toFixed(3));

/** The largest tolerance that any class allows an external thread's outside; for recognising, not for making. */
export function crestRoom(pitch: number): { under: number; over: number } {
  const near = CREST.reduce((best, r) =>
    Math.abs(Number(r.key) - pitch) < Math.abs(Number(best.key) - pitch) ? r : best,
  );
  const g = given(DEVIATIONS.find(r => r.key === near.key)!, 'g');
  return { under: (g + given(near, 'Td')) / 1000, over: (near.TD1 ?? 85) / 1000 };
}
