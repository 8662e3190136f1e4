import { expect, test } from 'vitest';
import { coveringArray, pairsIn } from './pairs';

test('every value meets every value of every other factor, in far fewer rows than all combinations', () => {
  const factors = {
    a: ['1', '2', '3'],
    b: ['x', 'y'],
    c: ['p', 'q', 'r', 's'],
    d: ['on', 'off'],
    e: ['on', 'off'],
  };
  const rows = coveringArray(factors);
  const met = new Set(rows.flatMap(row => pairsIn(factors, row)));
  // 3·2 + 3·4 + 3·2 + 3·2 + 2·4 + 2·2 + 2·2 + 4·2 + 4·2 + 2·2
  expect(met.size).toBe(66);
  expect(rows.length).toBeLessThan(20);
  expect(coveringArray(factors)).toEqual(rows);
});

test('one factor alone has no pairs, and none needs no row', () => {
  expect(coveringArray({ a: ['1', '2'] })).toEqual([]);
  expect(coveringArray({})).toEqual([]);
});
