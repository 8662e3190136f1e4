import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import { ARM, cone, lyingHole, type Profile, standing as standingOf, table } from '../../testing/overhangs';
import { box, ring } from '../../testing/solids';
import type { Kernels } from '../shape/kernels/kernel';
import { boundsOf, type TriangleMesh, volumeOf } from '../shape/mesh/mesh';
import { RECIPES } from '../shape/recipes';
import { solidOf } from '../shape/solid';
import { columnsOf } from './columns';
import { facingsOf, hanging } from './facings';
import { type SupportRules, steepest, supportsOf, USUAL_RULES } from './hangs';
import { posed } from './pose';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

const standing = (...profiles: Profile[]) => standingOf(kernels.mesh, profiles);

const found = (mesh: TriangleMesh, rules: SupportRules = USUAL_RULES, spared?: () => boolean) =>
  supportsOf(columnsOf(mesh, 0.5), hanging(facingsOf(mesh), [0, 0, -1], steepest(rules), spared), rules);

describe('what needs support', () => {
  test('nothing on a block, and all its underside is on the bed', () => {
    const { area, foot, bridge } = found(box([30, 20, 10]));
    expect(area).toBe(0);
    expect(bridge).toBe(0);
    expect(foot).toBeCloseTo(600, -1);
  });
  test('a gap of 8 is bridged, one of 15 is not', () => {
    const short = found(standing(table(8)));
    expect(short.area).toBe(0);
    expect(short.bridge).toBeCloseTo(8, 0);
    const long = found(standing(table(15)));
    // A millimetre at either side holds itself.
    expect(long.area).toBeGreaterThan(13 * 19);
    expect(long.area).toBeLessThan(15 * 20.5);
    expect(long.volume / long.area).toBeCloseTo(12, 1);
    expect(long.onPart).toBe(0);
  });
  test('an arm of 12 is, and marks the foot that it stands over', () => {
    const arm = found(standing(ARM));
    expect(arm.area).toBeGreaterThan(10 * 19);
    expect(arm.onPart).toBeCloseTo(arm.area, 6);
    expect(arm.volume / arm.area).toBeCloseTo(9, 1);
  });
  test.each([
    ['of 40° from the upright', 40, false],
    ['of exactly 45°', 45, false],
    ['of 50°', 50, true],
  ])('a cone on its narrow end, %s', (_, angle, needs) => {
    expect(found(cone(angle)).area > 0).toBe(needs);
  });
  test('a lying hole of 10 is an arch, one of 20 is not; a pointed one is', () => {
    expect(found(standing(...lyingHole(5))).area).toBe(0);
    expect(found(standing(...lyingHole(10))).area).toBeGreaterThan(100);
    expect(found(standing(...lyingHole(10, 'pointed'))).area).toBe(0);
  });
  test('a steeper printer asks for less', () => {
    expect(found(cone(50), { ...USUAL_RULES, overhang: 55 }).area).toBe(0);
  });
  test('a thread’s flanks are never asked about', () => {
    expect(found(standing(table(15)), USUAL_RULES, () => true).area).toBe(0);
  });
});

test('columns hold the volume of a ring, and no cell meets an odd number of surfaces', () => {
  const mesh = ring({ inner: 10, outer: 20, height: 12, segments: 180 });
  const c = columnsOf(mesh, 0.4);
  let volume = 0;
  for (let n = 0; n < c.height.length; n += 2) volume += c.height[n + 1]! - c.height[n]!;
  expect((volume * c.cell ** 2) / volumeOf(mesh)).toBeCloseTo(1, 2);
  expect(c.odd).toBe(0);
});

test.each(RECIPES.map(r => r.id))(
  '%s: no cell of it meets an odd number of surfaces, however it lies',
  id => {
    const recipe = RECIPES.find(r => r.id === id)!;
    const solid = solidOf({ recipe: id, additions: [], parameters: recipe.demo.parameters }, kernels);
    if (!solid.ok) throw new Error(solid.findings[0]!.message);
    for (const down of [
      [0, 0, -1],
      [0, 0, 1],
      [0, -1, 0],
      [0.6, 0, -0.8],
    ] as const) {
      const mesh = posed(solid.part.mesh, { down, turn: 0 });
      expect(boundsOf(mesh).min[2]).toBeCloseTo(0, 9);
      expect(columnsOf(mesh).odd).toBe(0);
    }
  },
);
