import { expect, test } from 'vitest';
import { solved } from './linear';

const twice = [
  [1, 2],
  [2, 4],
];

test('equations with one answer, with many, and with none', () => {
  const one = [
    [2, 0],
    [1, 4],
  ];
  expect(solved(one, [6, 11])).toEqual([3, 2]);
  const [x, y] = solved(twice, [3, 6])!;
  expect(x! + 2 * y!).toBeCloseTo(3, 12);
  expect(solved(twice, [3, 7])).toBeNull();
});
