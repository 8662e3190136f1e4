import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import { measureMates } from '../shape/checks/measure';
import { SAGITTA } from '../shape/finish';
import type { Kernels } from '../shape/kernels/kernel';
import { bodiesOf, boundsOf, closureOf, volumeOf } from '../shape/mesh/mesh';
import { RECIPES, requireRecipe } from '../shape/recipes';
import { solidOf } from '../shape/solid';
import { AS_DRAWN, type Pose } from './pose';
import { sharedSlices, sliceOf } from './slice';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

function demo(recipe: string) {
  const { parameters } = requireRecipe(recipe).demo;
  const solid = solidOf({ recipe, additions: [], parameters }, kernels);
  if (!solid.ok) throw new Error(solid.findings[0]!.message);
  return solid.part;
}
const slice = (recipe: string, mate: string) =>
  sliceOf(demo(recipe), [mate], AS_DRAWN, kernels.mesh, SAGITTA.file);

describe('a slice is one closed body, much smaller than the part, and its mate is the part’s own', () => {
  test.each([
    ['round-cap', 'skirt'],
    ['section-cap', 'overWidth'],
    ['hinge-leaf', 'pin'],
    ['drive-blade', 'tip'],
    ['stepped-sleeve', 'rod'],
    ['tube-adapter', 'intoB'],
    ['cradle', 'width'],
    ['board-tray', 'tube'],
    ['wall-plate', 'slot'],
    // With more of the part around them, so that they stand, hold together or measure right.
    ['screw-handle', 'pilot'],
    ['tool-block', 'hole'],
    ['cradle', 'thickness'],
    ['rim-fork', 'mouth'],
    ['contour-foot', 'height'],
  ])('%s, %s', (recipe, mate) => {
    const part = demo(recipe);
    const found = sliceOf(part, [mate], AS_DRAWN, kernels.mesh, SAGITTA.file);
    if (!found.ok) throw new Error(found.why);
    expect(bodiesOf(found.mesh)).toHaveLength(1);
    expect(closureOf(found.mesh).openEdges).toBe(0);
    expect(volumeOf(found.mesh)).toBeLessThan(0.5 * volumeOf(part.whole));
    const surface = part.surfaces.find(s => s.mate === mate)!;
    const [own, whole] = [found.mesh, part.whole].map(m => measureMates(m, [surface])[0]!.size);
    expect(Math.abs(own! - whole!)).toBeLessThan(0.005);
  });
});

describe('no slice where it would not tell, with the reason', () => {
  test.each([
    ['bush', 'bore', 'hardly be smaller'],
    ['tube-clip', 'bore', 'hardly be smaller'],
  ])('%s, %s: %s', (recipe, mate, why) => {
    expect(slice(recipe, mate)).toMatchObject({ ok: false, why: expect.stringContaining(why) });
  });
  test('a ring on its edge stands on next to nothing', () => {
    const onEdge: Pose = { down: [0, 1, 0], turn: 0 };
    const found = sliceOf(demo('plate-adapter'), ['holeA'], onEdge, kernels.mesh, SAGITTA.file);
    expect(found).toMatchObject({ ok: false, why: expect.stringContaining('stand on next to nothing') });
  });
  test('a surface that is gone', () =>
    expect(slice('bush', 'nothing')).toMatchObject({
      ok: false,
      why: expect.stringContaining('not on the part'),
    }));
});

test('nine of ten surfaces of our recipes have a slice; what would hardly be smaller has none', () => {
  const all = RECIPES.flatMap(({ id }) => {
    const part = demo(id);
    return part.surfaces.map(({ mate }) => ({
      of: `${id} ${mate}`,
      slice: sliceOf(part, [mate], AS_DRAWN, kernels.mesh, SAGITTA.file),
    }));
  });
  const without = all.flatMap(({ of, slice }) => (slice.ok ? [] : [`${of}: ${slice.why}`]));
  expect(without).toEqual(
    ['bush bore', 'bush outside', 'tube-clip bore'].map(
      of => `${of}: A slice would hardly be smaller than the part.`,
    ),
  );
  expect(all.length).toBeGreaterThan(30);
});

test('a leaning hole is cut level with the bed: it stands on what is about it, and nothing falls over', () => {
  const found = slice('tool-block', 'hole');
  if (!found.ok) throw new Error(found.why);
  const { min, max } = boundsOf(found.mesh);
  // Flat above and below: as many triangles face straight up as down.
  expect(max[2] - min[2]).toBeLessThan(7);
  const flat = (z: number) => {
    const { positions, triangles } = found.mesh;
    let area = 0;
    for (let t = 0; t < triangles.length; t += 3) {
      const [a, b, c] = [0, 1, 2].map(i => 3 * triangles[t + i]!) as [number, number, number];
      if ([a, b, c].some(v => Math.abs(positions[v + 2]! - z) > 1e-3)) continue;
      const [x, y] = [0, 1].map(i => [
        positions[b + i]! - positions[a + i]!,
        positions[c + i]! - positions[a + i]!,
      ]);
      area += Math.abs(x![0]! * y![1]! - x![1]! * y![0]!) / 2;
    }
    return area;
  };
  expect(flat(min[2])).toBeGreaterThan(100);
  expect(flat(max[2])).toBeCloseTo(flat(min[2]), -1);
});

describe('several surfaces in one piece', () => {
  test.each([
    ['board-tray', ['tube', 'board', 'edge']],
    ['stepped-sleeve', ['sleeve', 'rod']],
    ['duct-adapter', ['overWidthB', 'overDepthB']],
  ])('%s: %j', (recipe, mates) => {
    const part = demo(recipe);
    const groups = sharedSlices(part, mates, AS_DRAWN, kernels.mesh, SAGITTA.file);
    expect(groups.map(g => g.mates)).toEqual([mates]);
    const { mesh, volume } = groups[0]!.slice;
    expect(bodiesOf(mesh)).toHaveLength(1);
    expect(closureOf(mesh).openEdges).toBe(0);
    expect(volume).toBeLessThan(0.5 * volumeOf(part.whole));
    const surfaces = mates.map(m => part.surfaces.find(s => s.mate === m)!);
    const [own, whole] = [mesh, part.whole].map(m => measureMates(m, surfaces).map(s => s.size));
    for (const [i, size] of own!.entries()) expect(Math.abs(size - whole![i]!)).toBeLessThan(0.005);
  });

  test('at both ends of a tube they have no piece in common, and one that is gone is told', () => {
    const part = demo('tube-adapter');
    expect(sharedSlices(part, ['overA', 'intoB'], AS_DRAWN, kernels.mesh, SAGITTA.file)).toEqual([]);
    const asked = (mates: string[]) => sliceOf(part, mates, AS_DRAWN, kernels.mesh, SAGITTA.file);
    expect(asked(['overA', 'intoB'])).toMatchObject({ why: expect.stringContaining('too far apart') });
    expect(asked(['overA', 'nothing'])).toMatchObject({ why: expect.stringContaining('not on the part') });
    expect(asked([])).toMatchObject({ ok: false });
  });
});

test('what it does not stand for is said: less length, and a closed end near by', () => {
  const cap = slice('round-cap', 'skirt');
  expect(cap.ok && cap.says.map(s => s.words).join()).toContain('stiffer');
  const sleeve = slice('stepped-sleeve', 'rod');
  expect(sleeve.ok && sleeve.says.map(s => s.words).join()).toContain('of the 23 mm');
});
