import { readTable, type Source } from '../table';
import { crestRoom } from './iso965';
import { round, type Thread } from './thread';

/** ISO 261:1998, general plan: coarse pitch, or - where there is none, and the fine pitches. */
export const ISO_261: Source = {
  standard: 'ISO 261:1998; basic sizes ISO 724:1993',
  obtained:
    'pitches typed from memory; pitch and minor diameters by the exact basic profile of ISO 68-1, printed to 0.001 as in ISO 724',
};

/** Diameter, coarse pitch, fine pitches. Sizes of ISO 262 (screws, bolts and nuts) carry an asterisk. */
const PLAN = `
1*    0.25  0.2
1.1   0.25  0.2
1.2*  0.25  0.2
1.4*  0.3   0.2
1.6*  0.35  0.2
1.8*  0.35  0.2
2*    0.4   0.25
2.2   0.45  0.25
2.5*  0.45  0.35
3*    0.5   0.35
3.5*  0.6   0.35
4*    0.7   0.5
4.5   0.75  0.5
5*    0.8   0.5
5.5   -     0.5
6*    1     0.75
7*    1     0.75
8*    1.25  1* 0.75
9     1.25  1 0.75
10*   1.5   1.25* 1* 0.75
11    1.5   1 0.75
12*   1.75  1.5* 1.25* 1
14*   2     1.5* 1.25 1
15    -     1.5 1
16*   2     1.5* 1
17    -     1.5 1
18*   2.5   2* 1.5* 1
20*   2.5   2* 1.5* 1
22*   2.5   2* 1.5* 1
24*   3     2* 1.5 1
25    -     2 1.5 1
26    -     1.5
27*   3     2* 1.5 1
28    -     2 1.5 1
30*   3.5   3 2* 1.5 1
32    -     2 1.5
33*   3.5   3 2* 1.5
35    -     1.5
36*   4     3* 2 1.5
38    -     1.5
39*   4     3* 2 1.5
40    -     3 2 1.5
42*   4.5   4 3* 2 1.5
45*   4.5   4 3* 2 1.5
48*   5     4 3* 2 1.5
50    -     3 2 1.5
52*   5     4* 3 2 1.5
55    -     4 3 2 1.5
56*   5.5   4* 3 2 1.5
58    -     4 3 2 1.5
60*   5.5   4* 3 2 1.5
62    -     4 3 2 1.5
64*   6     4* 3 2 1.5
65    -     4 3 2 1.5
68    6     4 3 2 1.5
70    -     6 4 3 2 1.5
72    -     6 4 3 2 1.5
75    -     4 3 2 1.5
76    -     6 4 3 2 1.5
78    -     2
80    -     6 4 3 2 1.5
82    -     2
85    -     6 4 3 2
90    -     6 4 3 2
95    -     6 4 3 2
100   -     6 4 3 2
105   -     6 4 3 2
110   -     6 4 3 2
115   -     6 4 3 2
120   -     6 4 3 2
125   -     8 6 4 3 2
130   -     8 6 4 3 2
135   -     6 4 3 2
140   -     8 6 4 3 2
145   -     6 4 3 2
150   -     8 6 4 3 2
`;

/** Height of the fundamental triangle, ISO 68-1: H = (√3 / 2) P. */
const TRIANGLE = Math.sqrt(3) / 2;

/** Basic sizes of ISO 724 for any 60° thread: d2 = d − 2·(3/8)·H, D1 = d − 2·(5/8)·H. */
export const basicMetric = (major: number, pitch: number) => ({
  pitchDiameter: round(major - 0.75 * TRIANGLE * pitch, 3),
  minorInternal: round(major - 1.25 * TRIANGLE * pitch, 3),
});

function metric(major: number, pitch: number, coarse: boolean, selected: boolean): Thread {
  const room = crestRoom(pitch);
  return {
    designation: coarse ? `M${major}` : `M${major}x${pitch}`,
    family: coarse ? 'metric-coarse' : 'metric-fine',
    standard: 'ISO 261',
    major,
    pitch,
    turnsPerInch: null,
    ...basicMetric(major, pitch),
    flankAngle: 60,
    taper: false,
    externalUnder: { least: 0, most: room.under },
    internalOver: { least: 0, most: room.over },
    commonness: (coarse ? 1 : 0.4) * (selected ? 1 : 0.3),
    source: ISO_261,
  };
}

export const METRIC: readonly Thread[] = PLAN.trim()
  .split('\n')
  .flatMap(line => {
    const [size, ...pitches] = line.trim().split(/\s+/);
    const major = Number.parseFloat(size!);
    return pitches.flatMap((text, i) =>
      text === '-'
        ? []
        : [metric(major, Number.parseFloat(text), i === 0, (i === 0 ? size! : text).endsWith('*'))],
    );
  });

/** ISO trapezoidal threads, first choice of ISO 2904:2020, 8 to 60 mm: diameter and its usual pitch. */
const TRAPEZOIDAL_SOURCE: Source = {
  standard: 'ISO 2904',
  obtained: 'sizes and usual pitches from memory; d2 = d − P/2, D1 = d − P by the profile of ISO 2901',
};
export const TRAPEZOIDAL: readonly Thread[] = readTable(
  ['pitch'],
  `
  8  1.5
  10 2
  12 3
  14 3
  16 4
  18 4
  20 4
  22 5
  24 5
  26 5
  28 5
  30 6
  32 6
  36 6
  40 7
  44 7
  48 8
  52 8
  60 9
  `,
).map(row => {
  const major = Number(row.key);
  const pitch = row.pitch!;
  return {
    designation: `Tr${major}x${pitch}`,
    family: 'trapezoidal' as const,
    standard: 'ISO 2904',
    major,
    pitch,
    turnsPerInch: null,
    pitchDiameter: major - pitch / 2,
    minorInternal: major - pitch,
    flankAngle: 30,
    taper: false,
    externalUnder: { least: 0, most: 0.12 * pitch },
    internalOver: { least: 0, most: 0.16 * pitch },
    commonness: 0.2,
    source: TRAPEZOIDAL_SOURCE,
  };
});
