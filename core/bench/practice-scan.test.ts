import { describe, expect, test } from 'vitest';
import { findingsOf } from '../scan/find/findings';
import { ScanSurface } from '../scan/scan-surface';
import { closureOf, volumeOf } from '../shape/mesh/mesh';
import { RECIPES } from '../shape/recipes';
import { objectOf } from './objects';
import { practiceScan } from './practice-scan';

const world = (id: string) => ({ seed: 77, sizes: { ...RECIPES.find(r => r.id === id)!.demo.sizes } });
const MADE = RECIPES.map(r => r.id).filter(id => objectOf(id, world(id).sizes));

test('objects are closed and the right way out', () => {
  expect(MADE.length).toBeGreaterThanOrEqual(10);
  for (const id of MADE) {
    const object = objectOf(id, world(id).sizes)!;
    expect(closureOf(object), id).toEqual({ openEdges: 0, bodies: 1 });
    expect(volumeOf(object), id).toBeGreaterThan(0);
  }
  expect(objectOf('wall-plate', {})).toBeNull();
});

describe('the practice scanner', () => {
  test('brings the same scan again, another one next, and none of what it does not have', () => {
    const first = practiceScan('tube-clip', world('tube-clip'), 0)!;
    const again = practiceScan('tube-clip', world('tube-clip'), 0)!;
    expect(Buffer.compare(Buffer.from(first.positions.buffer), Buffer.from(again.positions.buffer))).toBe(0);
    const next = practiceScan('tube-clip', world('tube-clip'), 1)!;
    expect(next.positions.length).not.toBe(first.positions.length);
    expect(practiceScan('wall-plate', world('wall-plate'), 0)).toBeNull();
  });

  test('what it shows is the hidden object’s, but for its own scale', () => {
    const scan = practiceScan('tube-clip', world('tube-clip'), 0)!;
    const found = findingsOf(new ScanSurface(scan)).flatMap(f => (f.kind === 'cylinder' ? f.sizes : []));
    const outside = found.find(s => s.kind === 'outside')!;
    expect(Math.abs(outside.value / world('tube-clip').sizes.tube! - 1)).toBeLessThan(0.015);
  });
});
