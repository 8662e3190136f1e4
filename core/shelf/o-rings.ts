import type { Source } from './table';

export const AS568: Source = {
  standard: 'AS568 (ISO 3601-1 has the same inch sizes in mm)',
  obtained:
    'inside diameters typed from memory in inches, × 25.4 and rounded to 0.01 as ISO 3601-1; held against their steps',
};

/** Inside diameters in inches, in order of the dash number; the cord is the same within a series. */
const SERIES: { first: number; cord: number; cordMm: number; inside: string }[] = [
  {
    first: 1,
    cord: 0.07,
    cordMm: 1.78,
    inside: `0.029 0.042 0.056 0.070 0.101 0.114 0.145 0.176 0.208 0.239 0.301 0.364 0.426 0.489 0.551 0.614 0.676
    0.739 0.801 0.864 0.926 0.989 1.051 1.114 1.176 1.239 1.301 1.364 1.489 1.614 1.739 1.864 1.989 2.114 2.239 2.364
    2.489 2.614 2.739 2.864 2.989 3.239 3.489 3.739 3.989 4.239 4.489 4.739 4.989 5.239`,
  },
  {
    first: 102,
    cord: 0.103,
    cordMm: 2.62,
    inside: `0.049 0.081 0.112 0.143 0.174 0.206 0.237 0.299 0.362 0.424 0.487 0.549 0.612 0.674 0.737 0.799 0.862 0.924
    0.987 1.049 1.112 1.174 1.237 1.299 1.362 1.424 1.487 1.549 1.612 1.674 1.737 1.799 1.862 1.925 1.987 2.050 2.112
    2.175 2.237 2.300 2.362 2.425 2.487 2.550 2.612 2.675 2.737 2.800 2.862 2.987 3.237 3.487 3.737 3.987 4.237 4.487
    4.737 4.987 5.237 5.487 5.737 5.987 6.237 6.487 6.737 6.987 7.237 7.487 7.737 7.987 8.237 8.487 8.737 8.987 9.237
    9.487 9.737`,
  },
  {
    first: 201,
    cord: 0.139,
    cordMm: 3.53,
    inside: `0.171 0.234 0.296 0.359 0.421 0.484 0.546 0.609 0.671 0.734 0.796 0.859 0.921 0.984 1.046 1.109 1.171 1.234
    1.296 1.359 1.421 1.484 1.609 1.734 1.859 1.984 2.109 2.234 2.359 2.484 2.609 2.734 2.859 2.984 3.109 3.234 3.359
    3.484 3.609 3.734 3.859 3.984 4.109 4.234 4.359 4.484 4.609 4.734 4.859 4.984 5.109 5.234 5.359 5.484 5.609 5.734
    5.859 5.984 6.234 6.484 6.734 6.984 7.234 7.484 7.734 7.984 8.234 8.484 8.734 8.984 9.234 9.484 9.734 9.984 10.484
    10.984 11.484 11.984 12.984 13.984 14.984 15.955 16.955 17.955`,
  },
  {
    first: 309,
    cord: 0.21,
    cordMm: 5.33,
    inside: `0.412 0.475 0.537 0.600 0.662 0.725 0.787 0.850 0.912 0.975 1.037 1.100 1.162 1.225 1.287 1.350 1.475 1.600
    1.725 1.850 1.975 2.100 2.225 2.350 2.475 2.600 2.725 2.850 2.975 3.100 3.225 3.350 3.475 3.600 3.725 3.850 3.975
    4.100 4.225 4.350 4.475 4.600 4.725 4.850 4.975 5.100 5.225 5.350 5.475 5.600 5.725 5.850 5.975 6.225 6.475 6.725
    6.975 7.225 7.475 7.725 7.975 8.225 8.475 8.725 8.975 9.225 9.475 9.725 9.975 10.475 10.975 11.475 11.975 12.975
    13.975 14.975 15.955 16.955 17.955 18.955 19.955 20.955 21.955 22.940 23.940 24.940 25.940`,
  },
  {
    first: 425,
    cord: 0.275,
    cordMm: 6.99,
    inside: `4.475 4.600 4.725 4.850 4.975 5.100 5.225 5.350 5.475 5.600 5.725 5.850 5.975 6.225 6.475 6.725 6.975 7.225
    7.475 7.725 7.975 8.475 8.975 9.475 9.975 10.475 10.975 11.475 11.975 12.475 12.975 13.475 13.975 14.475 14.975
    15.475 15.955 16.455 16.955 17.455 17.955 18.455 18.955 19.455 19.955 20.955 21.955 22.940 23.940 24.940 25.940`,
  },
];

export interface ORing {
  /** "-014". */
  dash: string;
  inside: number;
  cord: number;
  insideInch: number;
}

export const O_RINGS: readonly ORing[] = SERIES.flatMap(({ first, cordMm, inside }) =>
  inside
    .trim()
    .split(/\s+/)
    .map((inch, i) => ({
      dash: `-${String(first + i).padStart(3, '0')}`,
      inside: Number((Number(inch) * 25.4 + 1e-9).toFixed(2)),
      insideInch: Number(inch),
      cord: cordMm,
    })),
);

/** Class B, ISO 3601-1, from memory: tolerance of a ring's inside and cord, ± mm. */
export const ringTolerance = (inside: number) => 0.11 + 0.009 * inside ** 0.95;
const CORD_TOLERANCE: Record<number, number> = { 1.78: 0.08, 2.62: 0.09, 3.53: 0.1, 5.33: 0.13, 6.99: 0.15 };
export const cordTolerance = (cord: number) => CORD_TOLERANCE[cord] ?? 0.1;

export type SealUse = 'static' | 'face' | 'moving';

/** How far the groove squeezes the cord, and how full it may be. Common practice, no source. */
const SQUEEZE: Record<SealUse, { least: number; most: number }> = {
  static: { least: 0.15, most: 0.25 },
  face: { least: 0.2, most: 0.3 },
  moving: { least: 0.1, most: 0.16 },
};
const FILL = 0.75;

export interface Gland {
  /** From the groove's floor to the facing wall. */
  depth: { min: number; max: number };
  /** Along the axis (across the face). */
  width: number;
  squeeze: { least: number; most: number };
  /** Share of the groove the cord fills. */
  fill: number;
}

/**
 * The groove for a cord. A printed groove is rough: for a reliable seal it should be sanded, lacquered or printed
 * upright.
 * @throws RangeError for a cord outside 0.5 to 20 mm
 */
export function glandFor(cord: number, use: SealUse): Gland {
  if (!(cord >= 0.5 && cord <= 20)) throw new RangeError(`A cord is 0.5 to 20 mm thick, got ${cord}.`);
  const squeeze = SQUEEZE[use];
  const depth = { min: cord * (1 - squeeze.most), max: cord * (1 - squeeze.least) };
  const middle = (depth.min + depth.max) / 2;
  const width = (Math.PI * cord ** 2) / 4 / (FILL * middle);
  return { depth, width, squeeze, fill: FILL };
}
