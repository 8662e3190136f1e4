import { readTable, type Source } from './table';

/**
 * Screws, nuts, washers and the holes for them. mm. Typed from memory of the standards' tables; the tests compare nuts
 * with the tolerances of ISO 4759-1, and the rest with a second list.
 */
const memory = 'typed from memory of the table, checked against a second list';

export const ISO_273: Source = { standard: 'ISO 273:1979', obtained: memory };
export const CLEARANCE_HOLES = readTable(
  ['fine', 'medium', 'coarse'],
  `
  M1   1.1  1.2  1.3
  M1.2 1.3  1.4  1.5
  M1.4 1.5  1.6  1.8
  M1.6 1.7  1.8  2
  M1.8 2    2.1  2.2
  M2   2.2  2.4  2.6
  M2.5 2.7  2.9  3.1
  M3   3.2  3.4  3.6
  M3.5 3.7  3.9  4.2
  M4   4.3  4.5  4.8
  M4.5 4.8  5    5.3
  M5   5.3  5.5  5.8
  M6   6.4  6.6  7
  M7   7.4  7.6  8
  M8   8.4  9    10
  M10  10.5 11   12
  M12  13   13.5 14.5
  M14  15   15.5 16.5
  M16  17   17.5 18.5
  M18  19   20   21
  M20  21   22   24
  M22  23   24   26
  M24  25   26   28
  M27  28   30   32
  M30  31   33   35
  M33  34   36   38
  M36  37   39   42
  M39  40   42   45
  M42  43   45   48
  M45  46   48   52
  M48  50   52   56
  M52  54   56   62
  M56  58   62   66
  M60  62   66   70
  M64  66   70   74
  M68  70   74   78
  M72  74   78   82
  M76  78   82   86
  M80  82   86   91
  M85  87   91   96
  M90  93   96   101
  M95  98   101  107
  M100 104  107  112
  M105 109  112  117
  M110 114  117  122
  M115 119  122  127
  M120 124  127  132
  M125 129  132  137
  M130 134  137  144
  M140 144  147  155
  M150 155  158  165
  `,
);

export const ISO_4032: Source = {
  standard: 'ISO 4032:2012',
  obtained: `${memory}; least sizes follow the tolerances of ISO 4759-1`,
};
/** Hexagon nuts, style 1: across flats and height, greatest and least. */
export const HEXAGON_NUTS = readTable(
  ['acrossFlats', 'acrossFlatsMin', 'height', 'heightMin'],
  `
  M1.6 3.2 3.02  1.3  1.05
  M2   4   3.82  1.6  1.35
  M2.5 5   4.82  2    1.75
  M3   5.5 5.32  2.4  2.15
  M3.5 6   5.82  2.8  2.55
  M4   7   6.78  3.2  2.9
  M5   8   7.78  4.7  4.4
  M6   10  9.78  5.2  4.9
  M8   13  12.73 6.8  6.44
  M10  16  15.73 8.4  8.04
  M12  18  17.73 10.8 10.37
  M14  21  20.67 12.8 12.1
  M16  24  23.67 14.8 14.1
  M18  27  26.16 15.8 15.1
  M20  30  29.16 18   16.9
  M22  34  33    19.4 18.1
  M24  36  35    21.5 20.2
  M27  41  40    23.8 22.5
  M30  46  45    25.6 24.3
  M33  50  49    28.7 27.4
  M36  55  53.8  31   29.4
  M39  60  58.8  33.4 31.8
  M42  65  63.1  34   32.4
  M45  70  68.1  36   34.4
  M48  75  73.1  38   36.4
  M52  80  78.1  42   40.4
  M56  85  82.8  45   43.4
  M60  90  87.8  48   46.4
  M64  95  92.8  51   49.1
  `,
);

export const ISO_4035: Source = { standard: 'ISO 4035:2012', obtained: memory };
/** Thin hexagon nuts; across flats as ISO 4032. */
export const THIN_NUTS = readTable(
  ['height'],
  `
  M1.6 1
  M2   1.2
  M2.5 1.6
  M3   1.8
  M3.5 2
  M4   2.2
  M5   2.7
  M6   3.2
  M8   4
  M10  5
  M12  6
  M14  7
  M16  8
  M18  9
  M20  10
  M22  11
  M24  12
  M27  13.5
  M30  15
  M33  16.5
  M36  18
  `,
);

export const ISO_4017: Source = { standard: 'ISO 4014 and ISO 4017', obtained: memory };
/** Hexagon heads: across flats (greatest) and nominal head height. */
export const HEXAGON_HEADS = readTable(
  ['acrossFlats', 'height'],
  `
  M1.6 3.2 1.1
  M2   4   1.4
  M2.5 5   1.7
  M3   5.5 2
  M3.5 6   2.4
  M4   7   2.8
  M5   8   3.5
  M6   10  4
  M8   13  5.3
  M10  16  6.4
  M12  18  7.5
  M14  21  8.8
  M16  24  10
  M18  27  11.5
  M20  30  12.5
  M22  34  14
  M24  36  15
  M27  41  17
  M30  46  18.7
  M33  50  21
  M36  55  22.5
  M39  60  25
  M42  65  26
  M45  70  28
  M48  75  30
  M52  80  33
  M56  85  35
  M60  90  38
  M64  95  40
  `,
);

export const ISO_4762: Source = { standard: 'ISO 4762:2004', obtained: memory };
/** Socket head cap screws: head diameter (plain heads, greatest), head height (greatest), key. */
export const SOCKET_HEADS = readTable(
  ['head', 'height', 'socket'],
  `
  M1.6 3   1.6 1.5
  M2   3.8 2   1.5
  M2.5 4.5 2.5 2
  M3   5.5 3   2.5
  M4   7   4   3
  M5   8.5 5   4
  M6   10  6   5
  M8   13  8   6
  M10  16  10  8
  M12  18  12  10
  M14  21  14  12
  M16  24  16  14
  M20  30  20  17
  M24  36  24  19
  M30  45  30  22
  M36  54  36  27
  M42  63  42  32
  M48  72  48  36
  M56  84  56  41
  M64  96  64  46
  `,
);

export const ISO_10642: Source = { standard: 'ISO 10642:2004', obtained: memory };
/** Countersunk socket screws: head diameter to the sharp edge, the real one's least, head height, key; 90°. */
export const COUNTERSUNK_SOCKET_HEADS = readTable(
  ['head', 'headMin', 'height', 'socket'],
  `
  M3  6.72  5.54  1.86  2
  M4  8.96  7.53  2.48  2.5
  M5  11.2  9.43  3.1   3
  M6  13.44 11.34 3.72  4
  M8  17.92 15.24 4.96  5
  M10 22.4  19.22 6.2   6
  M12 26.88 23.12 7.44  8
  M14 30.8  26.52 8.4   10
  M16 33.6  29.01 8.8   10
  M20 40.32 36.05 10.16 12
  `,
);

export const ISO_7380: Source = { standard: 'ISO 7380-1:2011', obtained: memory };
/** Button heads: head diameter and height (greatest), key. */
export const BUTTON_HEADS = readTable(
  ['head', 'height', 'socket'],
  `
  M3  5.7  1.65 2
  M4  7.6  2.2  2.5
  M5  9.5  2.75 3
  M6  10.5 3.3  4
  M8  14   4.4  5
  M10 17.5 5.5  6
  M12 21   6.6  8
  M16 28   8.8  10
  `,
);

export const ISO_7045: Source = { standard: 'ISO 7045:2011', obtained: memory };
/** Pan heads with a cross recess: head diameter and height, greatest. */
export const PAN_HEADS = readTable(
  ['head', 'height'],
  `
  M1.6 3.2 1.3
  M2   4   1.6
  M2.5 5   2.1
  M3   5.6 2.4
  M3.5 7   2.6
  M4   8   3.1
  M5   9.5 3.7
  M6   12  4.6
  M8   16  6
  M10  20  7.5
  `,
);

export const ISO_7046: Source = { standard: 'ISO 7046-1:2011', obtained: memory };
/** Countersunk heads with a cross recess: diameter to the sharp edge, the real one's greatest, height; 90°. */
export const COUNTERSUNK_HEADS = readTable(
  ['head', 'headMax', 'height'],
  `
  M1.6 3.6  3    1
  M2   4.4  3.8  1.2
  M2.5 5.5  4.7  1.5
  M3   6.3  5.5  1.65
  M3.5 8.2  7.3  2.35
  M4   9.4  8.4  2.7
  M5   10.4 9.3  2.7
  M6   12.6 11.3 3.3
  M8   17.3 15.8 4.65
  M10  20   18.3 5
  `,
);

export const ISO_7089: Source = { standard: 'ISO 7089:2000', obtained: memory };
/** Plain washers, normal: hole (least), outside (greatest), thickness (nominal). */
export const WASHERS = readTable(
  ['hole', 'outside', 'thickness'],
  `
  M1.6 1.7  4   0.3
  M2   2.2  5   0.3
  M2.5 2.7  6   0.5
  M3   3.2  7   0.5
  M3.5 3.7  8   0.5
  M4   4.3  9   0.8
  M5   5.3  10  1
  M6   6.4  12  1.6
  M8   8.4  16  1.6
  M10  10.5 20  2
  M12  13   24  2.5
  M14  15   28  2.5
  M16  17   30  3
  M18  19   34  3
  M20  21   37  3
  M22  23   39  3
  M24  25   44  4
  M27  28   50  4
  M30  31   56  4
  M33  34   60  5
  M36  37   66  5
  M39  42   72  6
  M42  45   78  8
  M45  48   85  8
  M48  52   92  8
  M52  56   98  8
  M56  62   105 10
  M60  66   110 10
  M64  70   115 10
  `,
);

export const ISO_7093: Source = { standard: 'ISO 7093-1:2000', obtained: memory };
/** Plain washers, large. */
export const LARGE_WASHERS = readTable(
  ['hole', 'outside', 'thickness'],
  `
  M3   3.2  9   0.8
  M3.5 3.7  11  0.8
  M4   4.3  12  1
  M5   5.3  15  1
  M6   6.4  18  1.6
  M8   8.4  24  2
  M10  10.5 30  2.5
  M12  13   37  3
  M14  15   44  3
  M16  17   50  3
  M18  19   56  4
  M20  21   60  4
  M24  25   72  5
  M30  33   92  6
  M36  39   110 8
  `,
);

export const B18_2_2: Source = { standard: 'ASME B18.2.2', obtained: 'from memory; inches × 25.4' };
/** Inch hexagon nuts: across flats (nominal) and height (greatest), inches. */
export const INCH_NUTS = readTable(
  ['acrossFlats', 'height'],
  `
  #0     0.15625 0.050
  #2     0.1875  0.066
  #4     0.25    0.098
  #6     0.3125  0.114
  #8     0.34375 0.130
  #10    0.375   0.130
  #12    0.4375  0.161
  1/4    0.4375  0.226
  5/16   0.5     0.273
  3/8    0.5625  0.337
  7/16   0.6875  0.385
  1/2    0.75    0.448
  9/16   0.875   0.496
  5/8    0.9375  0.559
  3/4    1.125   0.665
  7/8    1.3125  0.776
  1      1.5     0.887
  1-1/8  1.6875  0.999
  1-1/4  1.875   1.094
  1-3/8  2.0625  1.206
  1-1/2  2.25    1.317
  `,
);

export const B18_22_1: Source = {
  standard: 'ASME B18.22.1 (type A)',
  obtained: 'from memory; inches × 25.4',
};
/** Inch plain washers: hole, outside, thickness (nominal), inches. N narrow, W wide. */
export const INCH_WASHERS = readTable(
  ['hole', 'outside', 'thickness'],
  `
  #6     0.156 0.375 0.049
  #8     0.188 0.438 0.049
  #10    0.219 0.500 0.049
  1/4N   0.281 0.625 0.065
  1/4W   0.312 0.734 0.065
  5/16N  0.344 0.688 0.065
  5/16W  0.375 0.875 0.083
  3/8N   0.406 0.812 0.065
  3/8W   0.438 1.000 0.083
  7/16N  0.469 0.922 0.065
  7/16W  0.500 1.250 0.083
  1/2N   0.531 1.062 0.095
  1/2W   0.562 1.375 0.109
  5/8N   0.656 1.312 0.095
  5/8W   0.688 1.750 0.134
  3/4N   0.812 1.469 0.134
  3/4W   0.812 2.000 0.148
  7/8N   0.938 1.750 0.134
  7/8W   0.938 2.250 0.165
  1N     1.062 2.000 0.134
  1W     1.062 2.500 0.165
  `,
);

export const ISO_1478: Source = { standard: 'ISO 1478:1999', obtained: 'from memory' };
/** Sheet metal (tapping) screw threads: outside (greatest) and pitch. */
export const TAPPING_SCREWS = readTable(
  ['outside', 'pitch'],
  `
  ST1.5 1.52 0.5
  ST1.9 1.9  0.6
  ST2.2 2.24 0.8
  ST2.6 2.57 0.9
  ST2.9 2.9  1.1
  ST3.3 3.3  1.3
  ST3.5 3.53 1.3
  ST3.9 3.91 1.3
  ST4.2 4.22 1.4
  ST4.8 4.8  1.6
  ST5.5 5.46 1.8
  ST6.3 6.25 1.8
  ST8   8    2.1
  ST9.5 9.65 2.1
  `,
);

export const PRACTICE: Source = {
  standard: 'common practice, no source',
  obtained: 'from memory; try it in your own plastic',
};
/** Holes for brass inserts melted into a print: hole, least depth, least boss outside. */
export const HEAT_SET_INSERTS = readTable(
  ['hole', 'depth', 'boss'],
  `
  M2   3.2 4   6
  M2.5 4   5   7
  M3   4   5.7 7.5
  M4   5.6 8   10
  M5   6.4 9.5 12
  M6   8   12.7 14
  M8   9.7 12.7 17
  `,
);
/** Wood screws: pilot in soft and in hard wood, shank hole. */
export const WOOD_SCREW_PILOTS = readTable(
  ['soft', 'hard', 'shank'],
  `
  2.5 1.2 1.5 2.8
  3   1.5 2   3.2
  3.5 2   2.5 3.8
  4   2   2.8 4.2
  4.5 2.5 3   4.8
  5   3   3.5 5.3
  6   3.5 4   6.3
  8   5   5.5 8.4
  `,
);
/** Screws that cut their own thread in a printed boss: pilot about 0.8 of the outside. */
export const PLASTIC_PILOT_RATIO = 0.8;
