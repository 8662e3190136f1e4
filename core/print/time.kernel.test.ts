import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import { box } from '../../testing/solids';
import { exactPlastic, exactSeconds, toolpathsOf } from '../../testing/toolpaths';
import type { Kernels } from '../shape/kernels/kernel';
import { requireRecipe } from '../shape/recipes';
import { onTheBed, solidOf } from '../shape/solid';
import { cornerSpeed, loopSeconds, moveSeconds } from './motion';
import { type Machine, type PrintSettings, settingsFor, USUAL_MACHINE } from './settings';
import { coolingSeconds, estimateOf, secondsAt } from './time';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

describe('moving', () => {
  const moves = { acceleration: 1000, deviation: 0.05 };
  test('a long move is a trapezoid, a short one a triangle', () => {
    // 100 mm/s after 5 mm and 0.1 s; the same again to stop.
    expect(moveSeconds(30, 100, moves)).toBeCloseTo(0.1 + 0.2 + 0.1, 9);
    expect(moveSeconds(2.5, 100, moves)).toBeCloseTo(2 * Math.sqrt(2.5 / 1000), 9);
  });
  test('straight on it need not slow down, round a right angle it must', () => {
    expect(cornerSpeed(1, moves)).toBe(Infinity);
    expect(cornerSpeed(0, moves)).toBeCloseTo(Math.sqrt((50 * Math.SQRT1_2) / (1 - Math.SQRT1_2)), 9);
    expect(cornerSpeed(-1, moves)).toBe(0);
  });
  test('round a square it takes four sides between corners', () => {
    const v = cornerSpeed(0, moves);
    const side = 40;
    // Up from the corner's speed, along at 50, down again.
    const ramp = (50 ** 2 - v ** 2) / 2000;
    const each = (2 * (50 - v)) / 1000 + (side - 2 * ramp) / 50;
    const square: [number, number][] = [
      [0, 0],
      [side, 0],
      [side, side],
      [0, side],
    ];
    expect(loopSeconds(square, 50, moves)).toBeCloseTo(4 * each, 9);
  });
});

const settings = (layer: number, walls: number, infill: number): PrintSettings => ({
  layer,
  firstLayer: 0.2,
  lineWidth: 0.42,
  walls,
  top: Math.ceil(0.8 / layer),
  bottom: Math.ceil(0.8 / layer),
  infill,
});
const SLOW: Machine = {
  ...USUAL_MACHINE,
  acceleration: 1000,
  deviation: 0.05,
  outer: 30,
  inner: 45,
  infill: 60,
  skin: 40,
};
const FAST: Machine = {
  ...USUAL_MACHINE,
  acceleration: 8000,
  deviation: 0.013,
  outer: 160,
  inner: 220,
  infill: 270,
  skin: 200,
  travel: 400,
};

describe('against real toolpaths, planned exactly', () => {
  test('of some recipes’ demo parts, on a slow, a usual and a fast printer', async () => {
    const [times, plastic]: number[][] = [[], []];
    for (const id of ['round-cap', 'hinge-leaf', 'stepped-sleeve', 'cradle', 'rim-fork', 'wall-plate']) {
      const recipe = requireRecipe(id);
      const solid = solidOf({ recipe: id, additions: [], parameters: recipe.demo.parameters }, kernels);
      if (!solid.ok) throw new Error(solid.findings[0]!.message);
      const { mesh } = onTheBed(solid.part);
      for (const s of [settings(0.2, 3, 0.2), settings(0.24, 5, 0.4)]) {
        const paths = await toolpathsOf(mesh, s);
        plastic!.push(
          Math.abs(
            estimateOf(mesh, s, USUAL_MACHINE, kernels.mesh).plastic / exactPlastic(paths, s.lineWidth) - 1,
          ),
        );
        for (const m of [SLOW, USUAL_MACHINE, FAST])
          times!.push(Math.abs(secondsAt(estimateOf(mesh, s, m, kernels.mesh)) / exactSeconds(paths, m) - 1));
      }
    }
    const at = (list: number[], share: number) =>
      list.sort((a, b) => a - b)[Math.floor(share * (list.length - 1))]!;
    expect(at(times!, 0.5)).toBeLessThan(0.05);
    expect(at(times!, 0.9)).toBeLessThan(0.12);
    expect(at(plastic!, 0.5)).toBeLessThan(0.03);
    expect(at(plastic!, 0.9)).toBeLessThan(0.09);
  });
});

describe('what a print takes', () => {
  const block = box([40, 30, 20]);
  const usual = settingsFor('usual', 0.42);
  test('all solid, its plastic is its volume', () => {
    const { plastic } = estimateOf(block, { ...usual, infill: 1 }, USUAL_MACHINE, kernels.mesh);
    expect(plastic / 24_000).toBeCloseTo(1, 1);
  });
  test('layers are counted with the first one’s own height', () => {
    const estimate = estimateOf(
      block,
      { ...usual, layer: 0.2, firstLayer: 0.3 },
      USUAL_MACHINE,
      kernels.mesh,
    );
    expect(estimate.layers).toBe(1 + Math.ceil((20 - 0.3) / 0.2));
    expect(estimate.times.reduce((sum, t) => sum + t.count, 0)).toBe(estimate.layers);
  });
  test('a fine print takes longer than a draft; a slender one mostly waits to cool', () => {
    const of = (mesh: typeof block, quality: 'draft' | 'fine') =>
      estimateOf(mesh, settingsFor(quality, 0.42), USUAL_MACHINE, kernels.mesh);
    expect(secondsAt(of(block, 'fine'))).toBeGreaterThan(1.4 * secondsAt(of(block, 'draft')));
    const pin = of(box([5, 5, 30]), 'fine');
    expect(coolingSeconds(pin)).toBeGreaterThan(0.3 * secondsAt(pin));
  });
});
