import { readTable, type Source } from '../table';
import { round, type Thread } from './thread';

/** Threads whose standards count turns on an inch. */
const INCH = 25.4;
const UNIFIED_SOURCE: Source = {
  standard: 'ASME B1.1',
  obtained: 'diameters and turns typed from memory; pitch and minor diameters by the basic profile',
};

/** Numbered sizes are 0.060 in + 0.013 in × number, ASME B1.1. */
const UNC = `
#1 64
#2 56
#3 48
#4 40
#5 40
#6 32
#8 32
#10 24
#12 24
1/4 20
5/16 18
3/8 16
7/16 14
1/2 13
9/16 12
5/8 11
3/4 10
7/8 9
1 8
1-1/8 7
1-1/4 7
1-3/8 6
1-1/2 6
1-3/4 5
2 4.5
2-1/4 4.5
2-1/2 4
2-3/4 4
3 4
3-1/4 4
3-1/2 4
3-3/4 4
4 4
`;
const UNF = `
#0 80
#1 72
#2 64
#3 56
#4 48
#5 44
#6 40
#8 36
#10 32
#12 28
1/4 28
5/16 24
3/8 24
7/16 20
1/2 20
9/16 18
5/8 18
3/4 16
7/8 14
1 12
1-1/8 12
1-1/4 12
1-3/8 12
1-1/2 12
`;
const UNEF = `
#12 32
1/4 32
5/16 32
3/8 32
7/16 28
1/2 28
9/16 24
5/8 24
11/16 24
3/4 20
13/16 20
7/8 20
15/16 20
1 20
1-1/8 18
1-1/4 18
1-3/8 18
1-1/2 18
`;

/** Inches of a size as it is written: "#8", "5/16", "1-1/4". */
export function inchesOf(size: string): number {
  if (size.startsWith('#')) return round(0.06 + 0.013 * Number(size.slice(1)), 4);
  const [whole, part] = size.includes('-')
    ? size.split('-')
    : size.includes('/')
      ? ['0', size]
      : [size, '0/1'];
  const [top, bottom] = part!.split('/').map(Number);
  return Number(whole) + top! / bottom!;
}

const TRIANGLE = Math.sqrt(3) / 2;

function unified(text: string, series: 'UNC' | 'UNF' | 'UNEF', commonness: number): Thread[] {
  return readTable(['turns'], text).map(({ key, turns }) => {
    const inches = inchesOf(key);
    const pitchInch = 1 / turns!;
    return {
      // "1/4-20 UNC", "#8-32 UNC", "1 1/8-7 UNC".
      designation: `${key.replace('-', ' ')}-${turns} ${series}`,
      family: 'unified' as const,
      standard: 'ASME B1.1',
      major: round(inches * INCH, 4),
      pitch: round(pitchInch * INCH, 4),
      turnsPerInch: turns,
      // B1.1 prints four decimals of an inch.
      pitchDiameter: round(round(inches - 0.75 * TRIANGLE * pitchInch, 4) * INCH, 3),
      minorInternal: round(round(inches - 1.25 * TRIANGLE * pitchInch, 4) * INCH, 3),
      flankAngle: 60,
      taper: false,
      // Class 2A: Td = 0.060 ∛(P²) in, allowance about a sixth of it. Recalled, used for recognising only.
      externalUnder: { least: 0, most: 0.07 * pitchInch ** (2 / 3) * INCH },
      internalOver: { least: 0, most: 0.17 * pitchInch * INCH },
      commonness,
      source: UNIFIED_SOURCE,
    };
  });
}

export const UNIFIED: readonly Thread[] = [
  ...unified(UNC, 'UNC', 0.7),
  ...unified(UNF, 'UNF', 0.5),
  ...unified(UNEF, 'UNEF', 0.05),
];

const WHITWORTH_SOURCE: Source = {
  standard: 'BS 84',
  obtained: 'from memory; depth 0.640327 P by the Whitworth form',
};
/** Depth of the Whitworth form for a pitch, BS 84 and ISO 228-1. */
export const WHITWORTH_DEPTH = 0.640327;

const BSW = `
1/8 40
3/16 24
1/4 20
5/16 18
3/8 16
7/16 14
1/2 12
9/16 12
5/8 11
3/4 10
7/8 9
1 8
`;
const BSF = `
3/16 32
1/4 26
5/16 22
3/8 20
7/16 18
1/2 16
9/16 16
5/8 14
3/4 12
7/8 11
1 10
`;
export const WHITWORTH: readonly Thread[] = (
  [
    [BSW, 'BSW'],
    [BSF, 'BSF'],
  ] as const
).flatMap(([text, series]) =>
  readTable(['turns'], text).map(({ key, turns }) => {
    const inches = inchesOf(key);
    const pitchInch = 1 / turns!;
    return {
      designation: `${key}-${turns} ${series}`,
      family: 'whitworth' as const,
      standard: 'BS 84',
      major: round(inches * INCH, 4),
      pitch: round(pitchInch * INCH, 4),
      turnsPerInch: turns,
      pitchDiameter: round((inches - WHITWORTH_DEPTH * pitchInch) * INCH, 3),
      minorInternal: round((inches - 2 * WHITWORTH_DEPTH * pitchInch) * INCH, 3),
      flankAngle: 55,
      taper: false,
      externalUnder: { least: 0, most: 0.08 * pitchInch ** (2 / 3) * INCH },
      internalOver: { least: 0, most: 0.2 * pitchInch * INCH },
      commonness: 0.1,
      source: WHITWORTH_SOURCE,
    };
  }),
);

/** British Association, BS 93: small screws of old instruments and switches. From memory. */
export const ASSOCIATION: readonly Thread[] = readTable(
  ['major', 'pitch'],
  `
  0 6.0 1.00
  1 5.3 0.90
  2 4.7 0.81
  3 4.1 0.73
  4 3.6 0.66
  5 3.2 0.59
  6 2.8 0.53
  7 2.5 0.48
  8 2.2 0.43
  10 1.7 0.35
  `,
).map(row => ({
  designation: `${row.key}BA`,
  family: 'association' as const,
  standard: 'BS 93',
  major: row.major!,
  pitch: row.pitch!,
  turnsPerInch: null,
  pitchDiameter: round(row.major! - 0.6 * row.pitch!, 3),
  minorInternal: round(row.major! - 1.2 * row.pitch!, 3),
  flankAngle: 47.5,
  taper: false,
  externalUnder: { least: 0, most: 0.15 },
  internalOver: { least: 0, most: 0.2 },
  commonness: 0.05,
  source: { standard: 'BS 93', obtained: 'from memory; depth 0.6 P by its form' },
}));
