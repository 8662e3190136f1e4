import { expect, test } from 'vitest';
import { readTyped, writeTyped } from './typed';

test('lines are read, and written again the same', () => {
  const { rows, problems } = readTyped('hole 20 19,72\n\noutside 12 12.04\nslot 6 5.8\nwall 2 2.1');
  expect(problems).toEqual([]);
  expect(rows.map(r => r.kind)).toEqual(['hole', 'peg', 'slot', 'rib']);
  expect(readTyped(writeTyped(rows)).rows).toEqual(rows);
});

test('a wrong line is named by its number', () => {
  const { rows, problems } = readTyped(
    'hole 20 19.7\nhole twenty 19\nknob 3 3\nhole 20\nhole 25.4 1\nhole -1 1',
  );
  expect(rows).toHaveLength(1);
  expect(problems.map(p => p.line)).toEqual([2, 3, 4, 5, 6]);
  expect(problems[3]!.message).toMatch(/^\S+ for \S+ is more than a printer’s error: a slip of the unit/);
});
