import type { Source } from './table';

export const ISO_2306: Source = {
  standard: 'ISO 2306:1972',
  obtained: 'from memory of the table; metric ones held against d − P within a standard drill’s step',
};

/** Twist drills before tapping, mm, by designation. */
const LIST = `
M1 0.75, M1.1 0.85, M1.2 0.95, M1.4 1.1, M1.6 1.25, M1.8 1.45, M2 1.6, M2.2 1.75, M2.5 2.05, M3 2.5, M3.5 2.9,
M4 3.3, M4.5 3.7, M5 4.2, M6 5, M7 6, M8 6.8, M9 7.8, M10 8.5, M11 9.5, M12 10.2, M14 12, M16 14, M18 15.5,
M20 17.5, M22 19.5, M24 21, M27 24, M30 26.5, M33 29.5, M36 32, M39 35, M42 37.5, M45 40.5, M48 43, M52 47,
M2.5x0.35 2.15, M3x0.35 2.65, M3.5x0.35 3.15, M4x0.5 3.5, M5x0.5 4.5, M6x0.75 5.2, M8x0.75 7.2, M8x1 7,
M10x0.75 9.2, M10x1 9, M10x1.25 8.8, M12x1 11, M12x1.25 10.8, M12x1.5 10.5, M14x1 13, M14x1.25 12.8,
M14x1.5 12.5, M16x1 15, M16x1.5 14.5, M18x1 17, M18x1.5 16.5, M18x2 16, M20x1 19, M20x1.5 18.5, M20x2 18,
M22x1 21, M22x1.5 20.5, M22x2 20, M24x1 23, M24x1.5 22.5, M24x2 22, M27x2 25, M30x2 28,
#1-64 UNC 1.55, #2-56 UNC 1.85, #3-48 UNC 2.1, #4-40 UNC 2.35, #5-40 UNC 2.65, #6-32 UNC 2.85, #8-32 UNC 3.5,
#10-24 UNC 3.9, #12-24 UNC 4.5, 1/4-20 UNC 5.1, 5/16-18 UNC 6.6, 3/8-16 UNC 8, 7/16-14 UNC 9.4, 1/2-13 UNC 10.8,
9/16-12 UNC 12.2, 5/8-11 UNC 13.5, 3/4-10 UNC 16.5, 7/8-9 UNC 19.5, 1-8 UNC 22.25,
#4-48 UNF 2.4, #6-40 UNF 2.95, #8-36 UNF 3.5, #10-32 UNF 4.1, #12-28 UNF 4.6, 1/4-28 UNF 5.5, 5/16-24 UNF 6.9,
3/8-24 UNF 8.5, 7/16-20 UNF 9.9, 1/2-20 UNF 11.5, 9/16-18 UNF 12.9, 5/8-18 UNF 14.5, 3/4-16 UNF 17.5,
7/8-14 UNF 20.4, 1-12 UNF 23.25,
G 1/8 8.8, G 1/4 11.8, G 3/8 15.25, G 1/2 19, G 5/8 21, G 3/4 24.5, G 7/8 28.25, G 1 30.75, G 1 1/4 39.5,
G 1 1/2 45, G 2 57
`;

export const TAP_DRILLS: readonly { designation: string; drill: number }[] = LIST.split(',').map(entry => {
  const words = entry.trim().split(/\s+/);
  return { designation: words.slice(0, -1).join(' '), drill: Number(words.at(-1)) };
});
