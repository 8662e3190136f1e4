import { expect, test } from 'vitest';
import { readingInLine } from './device-line';

test.each([
  ['31.72', '31.72'],
  ['+0031.72 mm', '31.72 mm'],
  ['01A+00031.72', '31.72'],
  ['31,72', '31,72'],
  ['-0.02', '-0.02'],
  ['1.2490in', '1.2490in'],
  ['  0.50\u0003', '0.50'],
  ['ch1 12.5', '12.5'],
  ['low battery', null],
  ['', null],
])('“%s” reads as %s', (line, reading) => {
  expect(readingInLine(line)).toBe(reading);
});
