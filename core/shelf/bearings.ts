import { given, readTable, type Source } from './table';

export const ISO_15: Source = {
  standard: 'ISO 15:2017 (boundary dimensions); designations are common practice',
  obtained: 'typed from memory; widths and outsides held against the dimension series',
};

/** Deep groove ball bearings: bore, outside, width. -Z where the shielded one is wider than the open one. */
export const BEARINGS = readTable(
  ['bore', 'outside', 'width'],
  `
  681   1  3  1
  691   1  4  1.6
  682   2  5  1.5
  692   2  6  2.3
  683   3  7  2
  683ZZ 3  7  3
  693   3  8  3
  603   3  9  3
  623   3  10 4
  684   4  9  2.5
  684ZZ 4  9  4
  694   4  11 4
  604   4  12 4
  624   4  13 5
  634   4  16 5
  685   5  11 3
  685ZZ 5  11 5
  695   5  13 4
  605   5  14 5
  625   5  16 5
  635   5  19 6
  686   6  13 3.5
  686ZZ 6  13 5
  696   6  15 5
  606   6  17 6
  626   6  19 6
  687   7  14 3.5
  687ZZ 7  14 5
  697   7  17 5
  607   7  19 6
  627   7  22 7
  688   8  16 4
  688ZZ 8  16 5
  698   8  19 6
  608   8  22 7
  628   8  24 8
  689   9  17 4
  689ZZ 9  17 5
  699   9  20 6
  609   9  24 7
  629   9  26 8
  MR63ZZ  3 6  2.5
  MR74ZZ  4 7  2.5
  MR84ZZ  4 8  3
  MR85ZZ  5 8  2.5
  MR95ZZ  5 9  3
  MR105ZZ 5 10 4
  MR106ZZ 6 10 3
  MR117ZZ 7 11 3
  MR126ZZ 6 12 4
  MR128ZZ 8 12 3.5
  MR137ZZ 7 13 4
  MR148ZZ 8 14 4
  61800 10 19 5
  61801 12 21 5
  61802 15 24 5
  61803 17 26 5
  61804 20 32 7
  61805 25 37 7
  61806 30 42 7
  61807 35 47 7
  61808 40 52 7
  61809 45 58 7
  61810 50 65 7
  61811 55 72 9
  61812 60 78 10
  61900 10 22 6
  61901 12 24 6
  61902 15 28 7
  61903 17 30 7
  61904 20 37 9
  61905 25 42 9
  61906 30 47 9
  61907 35 55 10
  61908 40 62 12
  61909 45 68 12
  61910 50 72 12
  61911 55 80 13
  61912 60 85 13
  6000  10 26 8
  6001  12 28 8
  6002  15 32 9
  6003  17 35 10
  6004  20 42 12
  6005  25 47 12
  6006  30 55 13
  6007  35 62 14
  6008  40 68 15
  6009  45 75 16
  6010  50 80 16
  6011  55 90 18
  6012  60 95 18
  6013  65 100 18
  6014  70 110 20
  6015  75 115 20
  6016  80 125 22
  6017  85 130 22
  6018  90 140 24
  6019  95 145 24
  6020  100 150 24
  6200  10 30 9
  6201  12 32 10
  6202  15 35 11
  6203  17 40 12
  6204  20 47 14
  6205  25 52 15
  6206  30 62 16
  6207  35 72 17
  6208  40 80 18
  6209  45 85 19
  6210  50 90 20
  6211  55 100 21
  6212  60 110 22
  6213  65 120 23
  6214  70 125 24
  6215  75 130 25
  6216  80 140 26
  6217  85 150 28
  6218  90 160 30
  6219  95 170 32
  6220  100 180 34
  6300  10 35 11
  6301  12 37 12
  6302  15 42 13
  6303  17 47 14
  6304  20 52 15
  6305  25 62 17
  6306  30 72 19
  6307  35 80 21
  6308  40 90 23
  6309  45 100 25
  6310  50 110 27
  6311  55 120 29
  6312  60 130 31
  6313  65 140 33
  6314  70 150 35
  6315  75 160 37
  16002 15 32 8
  16003 17 35 8
  16004 20 42 8
  16005 25 47 8
  16006 30 55 9
  `,
).map(row => ({
  designation: row.key,
  bore: given(row, 'bore'),
  outside: given(row, 'outside'),
  width: given(row, 'width'),
}));

/** Inch bearings, inches. From memory. */
export const INCH_BEARINGS = readTable(
  ['bore', 'outside', 'width'],
  `
  R2  0.125  0.375 0.15625
  R3  0.1875 0.5   0.15625
  R4  0.25   0.625 0.196
  R6  0.375  0.875 0.21875
  R8  0.5    1.125 0.25
  R10 0.625  1.375 0.28125
  R12 0.75   1.625 0.3125
  `,
).map(row => ({
  designation: row.key,
  bore: given(row, 'bore') * 25.4,
  outside: given(row, 'outside') * 25.4,
  width: given(row, 'width') * 25.4,
}));

/**
 * A bearing by its stamped number: seals, shields and clearance classes are ignored ("608-2RS", "6204 ZZ C3"), and the
 * old 6800 and 6900 numbers are 61800 and 61900.
 */
export function bearingNamed(stamped: string) {
  const all = [...BEARINGS, ...INCH_BEARINGS];
  const name = stamped
    .trim()
    .toUpperCase()
    .replace(/[\s-]+/g, '');
  const exact = all.find(b => b.designation === name);
  if (exact) return exact;
  const shielded = /ZZ|2Z/.test(name);
  const bare = name
    .replace(/(2?RS[HLR1]*|D?DU|LLU|ZZ?|2Z|C[2-5])+$/g, '')
    .replace(/^68(\d\d)$/, '618$1')
    .replace(/^69(\d\d)$/, '619$1');
  return (
    (shielded ? all.find(b => b.designation === `${bare}ZZ`) : undefined) ??
    all.find(b => b.designation === bare) ??
    all.find(b => b.designation === `${bare}ZZ`)
  );
}
