import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../server/solids/kernels';
import { buildPart } from '../build';
import type { Kernels } from '../kernels/kernel';
import { requireRecipe } from '.';
import type { Parameters } from './recipe';

/** Volumes against closed formulas, and what turns one parameter into another part. */
let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const build = (id: string, change: Parameters) => {
  const recipe = requireRecipe(id);
  const outcome = buildPart(recipe, { ...recipe.demo.parameters, ...change }, kernels, 'file');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome.part;
};
const disc = (diameter: number, height: number) => (Math.PI / 4) * diameter ** 2 * height;
const near = (actual: number, expected: number) =>
  expect(Math.abs(actual / expected - 1)).toBeLessThan(0.0015);

describe('bush', () => {
  test('a plain ring, with a flange, and cut at an angle', () => {
    const ring = disc(13.95, 11.8) - disc(8.45, 11.8);
    near(build('bush', { leadIn: 0 }).volume, ring);
    near(build('bush', { leadIn: 0, flange: true }).volume, ring + disc(17.95, 1.6) - disc(13.95, 1.6));
    // A plane through the axis at the same height takes as much off one side as it adds on the other.
    near(build('bush', { leadIn: 0, endAngle: 20 }).volume, ring);
    const { bounds } = build('bush', { leadIn: 0, endAngle: 20 });
    expect(bounds.max[2]).toBeCloseTo(11.8 + Math.tan(Math.PI / 9) * 6.975, 2);
  });
});

test('stepped sleeve: collar and sleeve less the rod', () => {
  near(build('stepped-sleeve', { leadIn: 0 }).volume, disc(25.85, 3) + disc(19.85, 24) - disc(12.5, 24));
});

test('socket knob: a disc less a hexagon, whose corners are derived from its flats', () => {
  const hexagon = (Math.sqrt(3) / 2) * 13.3 ** 2;
  near(build('socket-knob', { grip: 'round', leadIn: 0 }).volume, disc(50, 14) - 9.5 * hexagon);
  near(
    build('socket-knob', { grip: 'round', leadIn: 0, socket: 'square', through: true }).volume,
    disc(50, 14) - 14 * 13.3 ** 2,
  );
});

test('plate between bolt patterns: a plate less eight holes', () => {
  const { volume, bounds } = build('plate-adapter', { corners: 0 });
  expect(bounds.max[0] - bounds.min[0]).toBeCloseTo(64 + 6.6 + 10, 3);
  const plate = (64 + 16.6) * (44 + 16.6) * 5;
  near(volume, plate - 4 * disc(4.6, 5) - 4 * disc(6.6, 5));
});

test('tube adapter: two tubes and the cone between them', () => {
  const same = {
    kindA: 'into',
    intoA: 30,
    kindB: 'into',
    intoB: 30,
    lengthA: 10,
    lengthB: 10,
    middle: 10,
    leadIn: 0,
    wall: 2,
  };
  near(build('tube-adapter', same).volume, disc(30, 30) - disc(26, 30));
});

test('handle, clip, tray and leaf: a prism’s volume is its section times its length', () => {
  for (const [id, name, change] of [
    ['screw-handle', 'depth', { pilot: 0.8, pilotDepth: 4 }],
    ['tube-clip', 'length', { screwHole: 0 }],
    ['hinge-leaf', 'length', { holes: 0 }],
    ['board-tray', 'length', { endWall: 0, pull: 0 }],
    ['rim-fork', 'height', { screwHole: 0 }],
  ] as const) {
    const short = build(id, { ...change, [name]: 40 }).volume;
    const long = build(id, { ...change, [name]: 80 }).volume;
    // The handle's two pilot holes are all that does not grow.
    expect(long / short, id).toBeCloseTo(2, 2);
  }
});
