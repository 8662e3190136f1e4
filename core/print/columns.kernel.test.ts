import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import { box, ring } from '../../testing/solids';
import type { Kernels } from '../shape/kernels/kernel';
import { boundsOf, type TriangleMesh, volumeOf } from '../shape/mesh/mesh';
import { RECIPES } from '../shape/recipes';
import { solidOf } from '../shape/solid';
import { columnsOf, type SupportRules, steepest, supportsOf, USUAL_RULES } from './columns';
import { facingsOf, hanging } from './facings';
import { posed } from './pose';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

type Profile = [number, number][];

/** A profile in (x, height), `depth` deep. */
const standing = (profile: Profile, depth = 20): TriangleMesh =>
  posed(kernels.mesh.extrude([profile], depth), { down: [0, -1, 0], turn: 0 });

/** A profile in (radius, height) turned about the upright, in `sides` flats. */
function turned(profile: Profile, sides = 120): TriangleMesh {
  const at = (i: number) => (2 * Math.PI * i) / sides;
  const positions = profile.flatMap(([r, z]) =>
    Array.from({ length: sides }, (_, i) => [r * Math.cos(at(i)), r * Math.sin(at(i)), z]).flat(),
  );
  const triangles: number[] = [];
  for (let k = 0; k < profile.length; k++)
    for (let i = 0; i < sides; i++) {
      const [a, b] = [k * sides, ((k + 1) % profile.length) * sides];
      const j = (i + 1) % sides;
      triangles.push(a + i, a + j, b + j, a + i, b + j, b + i);
    }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

const found = (mesh: TriangleMesh, rules: SupportRules = USUAL_RULES, spared?: () => boolean) =>
  supportsOf(columnsOf(mesh, 0.5), hanging(facingsOf(mesh), [0, 0, -1], steepest(rules), spared), rules);

/** Two posts 8 wide and a board 4 thick over a gap. */
const table = (gap: number): Profile => [
  [0, 0],
  [8, 0],
  [8, 12],
  [8 + gap, 12],
  [8 + gap, 0],
  [16 + gap, 0],
  [16 + gap, 16],
  [0, 16],
];

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
    const arm = found(
      standing([
        [0, 0],
        [30, 0],
        [30, 3],
        [8, 3],
        [8, 12],
        [20, 12],
        [20, 15],
        [0, 15],
      ]),
    );
    expect(arm.area).toBeGreaterThan(10 * 19);
    expect(arm.onPart).toBeCloseTo(arm.area, 6);
    expect(arm.volume / arm.area).toBeCloseTo(9, 1);
  });
  test.each([
    ['of 40° from the upright', 40, false],
    ['of exactly 45°', 45, false],
    ['of 50°', 50, true],
  ])('a cone on its narrow end, %s', (_, angle, needs) => {
    const rise = 15;
    const out = 6 + rise * Math.tan((angle * Math.PI) / 180);
    const cone = turned([
      [1e-4, 0],
      [6, 0],
      [out, rise],
      [1e-4, rise],
    ]);
    expect(found(cone).area > 0).toBe(needs);
  });
  test('a lying hole of 10 is an arch, one of 20 is not; a pointed one is', () => {
    const lying = (r: number, pointed = false) => {
      const n = 96;
      const hole = Array.from({ length: n }, (_, i): [number, number] => {
        const a = (-2 * Math.PI * i) / n;
        const [x, y] = [r * Math.cos(a), r * Math.sin(a)];
        const roof = r * Math.SQRT2 - Math.abs(x);
        return pointed && y > 0 && Math.abs(x) < r * Math.SQRT1_2 ? [x, roof] : [x, y];
      });
      const block: Profile = [
        [-20, -20],
        [20, -20],
        [20, 20],
        [-20, 20],
      ];
      return posed(kernels.mesh.extrude([block, hole], 20), { down: [0, -1, 0], turn: 0 });
    };
    expect(found(lying(5)).area).toBe(0);
    expect(found(lying(10)).area).toBeGreaterThan(100);
    expect(found(lying(10, true)).area).toBe(0);
  });
  test('a steeper printer asks for less', () => {
    const cone = turned([
      [1e-4, 0],
      [6, 0],
      [24, 15],
      [1e-4, 15],
    ]);
    expect(found(cone, { ...USUAL_RULES, overhang: 55 }).area).toBe(0);
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
