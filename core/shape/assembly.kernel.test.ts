import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import { assembled } from './assembly';
import { buildPart } from './build';
import type { Kernels } from './kernels/kernel';
import { boundsOf, volumeOf } from './mesh/mesh';
import { requireRecipe } from './recipes';
import type { Parameters } from './recipes/parameters';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const built = (id: string, recipe: string, change: Parameters = {}) => {
  const r = requireRecipe(recipe);
  const outcome = buildPart(r, { ...r.demo.parameters, ...change }, kernels, 'screen');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return { id, part: outcome.part };
};

describe('parts together', () => {
  test('a bush goes into a bush: axes and middles meet, and nothing is shared', () => {
    const outer = built('a', 'bush', { boreDiameter: 14.4, outsideDiameter: 20 });
    const inner = built('b', 'bush');
    const names = outer.part.surfaces.map(s => `${s.mate}:${s.side}`);
    const bore = outer.part.surfaces.find(s => s.side === 'inside')!;
    const seat = inner.part.surfaces.find(s => s.side === 'outside')!;
    expect(names.length).toBeGreaterThan(1);
    const { parts, shared } = assembled(
      [outer, inner],
      [{ part: 'b', surface: seat.mate, other: 'a', otherSurface: bore.mate }],
      kernels.mesh,
    );
    const [a, b] = parts.map(p => boundsOf(p.mesh));
    expect((b!.min[0] + b!.max[0]) / 2).toBeCloseTo((a!.min[0] + a!.max[0]) / 2, 2);
    expect(volumeOf(parts[1]!.mesh)).toBeCloseTo(inner.part.volume, 3);
    expect(shared.every(s => s.volume < inner.part.volume)).toBe(true);
  });

  test('what nothing joins stands beside, and shares nothing', () => {
    const { parts, shared } = assembled([built('a', 'bush'), built('b', 'wall-plate')], [], kernels.mesh);
    expect(boundsOf(parts[1]!.mesh).min[0]).toBeGreaterThan(boundsOf(parts[0]!.mesh).max[0] + 9);
    expect(shared).toEqual([]);
    expect(parts[1]!.off).toEqual([0, 0, 0]);
  });
});
