import { readFileSync } from 'node:fs';
import ManifoldInit, { type ManifoldToplevel } from 'manifold-3d';
import opentype from 'opentype.js';
import { beforeAll, describe, expect, test } from 'vitest';
import { meshKernel } from '../shape/kernels/mesh-kernel';
import { boundsOf, closureOf } from '../shape/mesh/mesh';
import { loopNear, sectionAtZ } from '../shape/mesh/section';
import { chanceAfterLadder, ladderMinutes, ladderSizes, RUNG, RUNGS, rungRing } from './ladder';
import { ladderSolids, rungSolid } from './ladder-solid';

const bytes = readFileSync(
  new URL('../../node_modules/dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf', import.meta.url),
);
const font = opentype.parse(new Uint8Array(bytes).buffer);
let wasm: ManifoldToplevel;
beforeAll(async () => {
  wasm = await ManifoldInit();
  wasm.setup();
});

describe('the sizes of a ladder', () => {
  const about = (sd: number, width: number) => ladderSizes({ model: 32, sd, window: { min: 0, max: width } });
  test('lie about the ledger’s number, even steps, to the hundredth', () => {
    const sizes = about(0.15, 0.15);
    expect(sizes).toHaveLength(RUNGS);
    expect(sizes[2]).toBe(32);
    expect(sizes[1]! - sizes[0]!).toBeCloseTo(0.12, 9);
  });
  test('reach farther when more is in doubt, within what hands tell apart', () => {
    const reach = (sizes: number[]) => sizes.at(-1)! - sizes[0]!;
    expect(reach(about(0.3, 0.15))).toBeGreaterThan(reach(about(0.15, 0.15)));
    expect(reach(about(0.001, 0.01))).toBeCloseTo(0.16, 9);
    expect(reach(about(9, 0.2))).toBeCloseTo(1.2, 9);
  });
  test('a ladder makes the next print surer than an uncalibrated first one', () => {
    const sizes = about(0.15, 0.15);
    expect(chanceAfterLadder({ window: { min: 0.05, max: 0.2 }, scatter: 0.04 }, sizes)).toBeGreaterThan(
      0.75,
    );
    expect(ladderMinutes('inside', sizes, 0.4, 0.2)).toBeGreaterThan(
      ladderMinutes('inside', sizes, 0.6, 0.3),
    );
  });
});

describe('its solids', () => {
  test.each(['inside', 'outside'] as const)('%s: closed, one body, and each measures its number', side => {
    const sizes = [11.9, 12, 12.1];
    const rungs = ladderSolids(wasm, font, side, sizes);
    let last = -Infinity;
    rungs.forEach((mesh, i) => {
      expect(closureOf(mesh).openEdges).toBe(0);
      const facts = meshKernel(wasm).facts(mesh);
      expect(facts.ok && facts.facts.bodies).toBe(1);
      const { min, max } = boundsOf(mesh);
      expect(min[0]).toBeGreaterThan(last);
      last = max[0];
      expect(max[2]).toBe(RUNG.height);
      const centre = (min[0] + max[0]) / 2;
      const size = sizes[i]!;
      const found = loopNear(sectionAtZ(mesh, 3.3), [centre, 0], size, side)!;
      expect(Math.abs(found.diameter - size)).toBeLessThan(0.006);
    });
  });
  test('a pin too thin for a bore is a plain disc', () => {
    expect(rungRing('outside', 3)).toEqual({ inner: 0, outer: 3 });
    expect(closureOf(rungSolid(wasm, font, 'outside', 3, 1)).openEdges).toBe(0);
  });
});
