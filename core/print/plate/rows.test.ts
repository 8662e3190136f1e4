import { expect, test } from 'vitest';
import { box } from '../../../testing/solids';
import { laidOut, rowsOf } from './rows';

const bed = { width: 200, depth: 100 };

test('in rows from the left front corner, or not at all where one lies over the edge', () => {
  const part = { mesh: box([40, 30, 5], [-10, 7, 0]) };
  const so = (many: number) =>
    laidOut(
      Array.from({ length: many }, () => part),
      bed.width,
      bed.depth,
    );
  // Four to a row of 200 (4 × 40 + 3 gaps), three rows of 30.
  expect(so(12)).not.toBeNull();
  expect(so(13)).toBeNull();
});

test('blocks two ways hold more than one', () => {
  // Four turned a quarter; or two of them, and three the other way beside them.
  expect(rowsOf([60, 40], { width: 105, depth: 130 }, 5)).toHaveLength(5);
  expect(rowsOf([201, 10], bed)).toEqual([]);
  expect(rowsOf([10, 150], bed)).not.toEqual([]);
});

test('they never overlap nor leave the bed', () => {
  for (const [w, d] of [
    [40, 30],
    [95, 45],
    [97.5, 47.5],
    [200, 100],
    [63, 100],
    [7, 91],
    [33.3, 12.1],
  ] as const) {
    const rects = rowsOf([w, d], bed, 5).map(({ x, y, quarter }) => ({
      x,
      y,
      w: quarter ? d : w,
      d: quarter ? w : d,
    }));
    for (const r of rects) {
      expect(r.x + r.w).toBeLessThanOrEqual(bed.width + 1e-6);
      expect(r.y + r.d).toBeLessThanOrEqual(bed.depth + 1e-6);
    }
    for (const [i, a] of rects.entries())
      for (const b of rects.slice(i + 1)) {
        const apart = Math.max(b.x - a.x - a.w, a.x - b.x - b.w, b.y - a.y - a.d, a.y - b.y - b.d);
        expect(apart).toBeGreaterThan(5 - 1e-6);
      }
  }
});
