import { expect, test } from 'vitest';
import { box } from '../../testing/solids';
import { boundsOf } from '../shape/mesh/mesh';
import { batch, GAP, laidOut } from './bed';

const bed = { width: 200, depth: 100 };

test('how many fit is how many can be laid out', () => {
  for (const [w, d] of [
    [40, 30],
    [95, 45],
    [97.5, 47.5],
    [200, 100],
    [63, 100],
  ] as const) {
    const part = { mesh: box([w, d, 5], [-10, 7, 0]) };
    const { onOneBed } = batch(boundsOf(part.mesh), bed, 1);
    const so = (many: number) =>
      laidOut(
        Array.from({ length: many }, () => part),
        bed.width,
        bed.depth,
      );
    expect(so(onOneBed), `${w} × ${d}`).not.toBeNull();
    expect(so(onOneBed + 1), `${w} × ${d}`).toBeNull();
  }
});

test('beds of a batch; a part larger than the bed takes none', () => {
  const bounds = boundsOf(box([40, 30, 5]));
  // Four to a row of 200 (4 × 40 + 3 gaps), three rows of 30.
  expect(batch(bounds, bed, 20)).toEqual({ onOneBed: 12, beds: 2 });
  expect(GAP).toBe(5);
  expect(batch(boundsOf(box([201, 10, 5])), bed, 3)).toEqual({ onOneBed: 0, beds: 0 });
});
