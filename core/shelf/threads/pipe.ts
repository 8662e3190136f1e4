import { given, readTable, type Source } from '../table';
import { round, type Thread } from './thread';

const INCH = 25.4;
export const ISO_228: Source = {
  standard: 'ISO 228-1:2000',
  obtained:
    'typed from memory of the table; held against the Whitworth form (depth 0.640327 P) to the printed digit',
};
export const ISO_7: Source = {
  standard: 'ISO 7-1:1994',
  obtained: 'basic sizes as ISO 228-1; gauge lengths typed from memory',
};
export const B1_20_1: Source = {
  standard: 'ASME B1.20.1',
  obtained:
    'typed from memory of the table; held against E0 = D − (0.05 D + 1.1) P and E1 = E0 + L1/16 to the printed digit',
};
const HOSE_SOURCE: Source = { standard: 'ASME B1.20.7', obtained: 'from memory' };

/** Columns: turns an inch, pitch, major, pitch and minor diameters, tolerances of the outside and of the hole. */
const G = readTable(
  ['turns', 'pitch', 'major', 'pitchDiameter', 'minor', 'under', 'over'],
  `
  1/16  28 0.907 7.723   7.142   6.561   0.214 0.282
  1/8   28 0.907 9.728   9.147   8.566   0.214 0.282
  1/4   19 1.337 13.157  12.301  11.445  0.250 0.445
  3/8   19 1.337 16.662  15.806  14.950  0.250 0.445
  1/2   14 1.814 20.955  19.793  18.631  0.284 0.541
  5/8   14 1.814 22.911  21.749  20.587  0.284 0.541
  3/4   14 1.814 26.441  25.279  24.117  0.284 0.541
  7/8   14 1.814 30.201  29.039  27.877  0.284 0.541
  1     11 2.309 33.249  31.770  30.291  0.360 0.640
  1-1/8 11 2.309 37.897  36.418  34.939  0.360 0.640
  1-1/4 11 2.309 41.910  40.431  38.952  0.360 0.640
  1-1/2 11 2.309 47.803  46.324  44.845  0.360 0.640
  1-3/4 11 2.309 53.746  52.267  50.788  0.360 0.640
  2     11 2.309 59.614  58.135  56.656  0.360 0.640
  2-1/4 11 2.309 65.710  64.231  62.752  0.434 0.640
  2-1/2 11 2.309 75.184  73.705  72.226  0.434 0.640
  2-3/4 11 2.309 81.534  80.055  78.576  0.434 0.640
  3     11 2.309 87.884  86.405  84.926  0.434 0.640
  3-1/2 11 2.309 100.330 98.851  97.372  0.434 0.640
  4     11 2.309 113.030 111.551 110.072 0.434 0.640
  4-1/2 11 2.309 125.730 124.251 122.772 0.434 0.640
  5     11 2.309 138.430 136.951 135.472 0.434 0.640
  5-1/2 11 2.309 151.130 149.651 148.172 0.434 0.640
  6     11 2.309 163.830 162.351 160.872 0.434 0.640
  `,
);

export const PARALLEL_PIPE: readonly Thread[] = G.map(row => ({
  designation: `G ${row.key.replace('-', ' ')}`,
  family: 'pipe-parallel' as const,
  standard: 'ISO 228-1',
  major: given(row, 'major'),
  pitch: given(row, 'pitch'),
  turnsPerInch: given(row, 'turns'),
  pitchDiameter: given(row, 'pitchDiameter'),
  minorInternal: given(row, 'minor'),
  flankAngle: 55,
  taper: false,
  externalUnder: { least: 0, most: given(row, 'under') },
  internalOver: { least: 0, most: given(row, 'over') },
  commonness: 0.9,
  source: ISO_228,
}));

/** Gauge length of the external taper thread: from its small end to where it has the basic size. */
const R_GAUGE = readTable(
  ['length'],
  `
  1/16  4.0
  1/8   4.0
  1/4   6.0
  3/8   6.4
  1/2   8.2
  3/4   9.5
  1     10.4
  1-1/4 12.7
  1-1/2 12.7
  2     15.9
  2-1/2 17.5
  3     20.6
  4     25.4
  5     28.6
  6     28.6
  `,
);
const TAPER = 1 / 16;

/** R outside, Rc inside, ISO 7-1: at the gauge plane they have the sizes of G. */
const R: readonly Thread[] = R_GAUGE.map(({ key, length }) => {
  const parallel = PARALLEL_PIPE.find(t => t.designation === `G ${key.replace('-', ' ')}`)!;
  return {
    ...parallel,
    designation: `R ${key.replace('-', ' ')}`,
    family: 'pipe-taper' as const,
    standard: 'ISO 7-1',
    taper: true,
    // Measured anywhere from its small end to the end of the useful thread.
    externalUnder: { least: -0.5 * TAPER * length!, most: TAPER * length! },
    internalOver: { least: -TAPER * length!, most: 0.1 * length! * TAPER },
    commonness: 0.7,
    source: ISO_7,
  };
});

/** Pipe outside D, turns, E0 and E1 (pitch diameters at the small end and at the hand-tight plane), L1; inches. */
export const NPT_TABLE = readTable(
  ['D', 'turns', 'E0', 'E1', 'L1'],
  `
  1/16  0.3125 27   0.27118 0.28118 0.160
  1/8   0.405  27   0.36351 0.37360 0.1615
  1/4   0.540  18   0.47739 0.49163 0.2278
  3/8   0.675  18   0.61201 0.62701 0.240
  1/2   0.840  14   0.75843 0.77843 0.320
  3/4   1.050  14   0.96768 0.98887 0.339
  1     1.315  11.5 1.21363 1.23863 0.400
  1-1/4 1.660  11.5 1.55713 1.58338 0.420
  1-1/2 1.900  11.5 1.79609 1.82234 0.420
  2     2.375  11.5 2.26902 2.29627 0.436
  2-1/2 2.875  8    2.71953 2.76216 0.682
  3     3.500  8    3.34062 3.38850 0.766
  3-1/2 4.000  8    3.83750 3.88881 0.821
  4     4.500  8    4.33438 4.38712 0.844
  5     5.563  8    5.39073 5.44929 0.937
  6     6.625  8    6.44609 6.50597 0.958
  `,
);

const NPT: readonly Thread[] = NPT_TABLE.map(row => {
  const pitch = INCH / given(row, 'turns');
  const major = given(row, 'D') * INCH;
  const atSmallEnd = given(row, 'E0') * INCH + 0.8 * pitch;
  const handTight = given(row, 'E1') * INCH;
  const minor = handTight - 0.8 * pitch;
  return {
    designation: `${row.key.replace('-', ' ')} NPT`,
    family: 'pipe-taper' as const,
    standard: 'ASME B1.20.1',
    major: round(major, 3),
    pitch: round(pitch, 4),
    turnsPerInch: given(row, 'turns'),
    pitchDiameter: round(handTight, 3),
    minorInternal: round(minor, 3),
    flankAngle: 60,
    taper: true,
    externalUnder: { least: 0, most: major - atSmallEnd },
    internalOver: { least: -TAPER * given(row, 'L1') * INCH, most: 0.2 },
    commonness: 0.6,
    source: B1_20_1,
  };
});

export const TAPER_PIPE: readonly Thread[] = [...R, ...NPT];

/** Garden hose thread, ASME B1.20.7: outside 1.0625 in, pitch diameter 1.0060 in, hole at least 0.9595 in. */
export const HOSE: readonly Thread[] = [
  {
    designation: '3/4-11.5 NH',
    family: 'hose',
    standard: 'ASME B1.20.7',
    major: round(1.0625 * INCH, 3),
    pitch: round(INCH / 11.5, 4),
    turnsPerInch: 11.5,
    pitchDiameter: round(1.006 * INCH, 3),
    minorInternal: round(0.9595 * INCH, 3),
    flankAngle: 60,
    taper: false,
    externalUnder: { least: 0, most: 0.017 * INCH },
    internalOver: { least: 0, most: 0.017 * INCH },
    commonness: 0.6,
    source: HOSE_SOURCE,
  },
];
