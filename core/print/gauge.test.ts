import { readFileSync } from 'node:fs';
import ManifoldInit, { type ManifoldToplevel } from 'manifold-3d';
import opentype from 'opentype.js';
import { beforeAll, describe, expect, test } from 'vitest';
import { meshKernel } from '../shape/kernels/mesh-kernel';
import { boundsOf, closureOf, volumeOf } from '../shape/mesh/mesh';
import { loopNear, sectionAtZ } from '../shape/mesh/section';
import { GAUGE, type GaugeAsked, gaugeFoot, gaugeVolume } from './gauge';
import { gaugeSolid } from './gauge-solid';

const bytes = readFileSync(
  new URL('../../node_modules/dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf', import.meta.url),
);
const font = opentype.parse(new Uint8Array(bytes).buffer);
let wasm: ManifoldToplevel;
beforeAll(async () => {
  wasm = await ManifoldInit();
  wasm.setup();
});

const ALL = (['outside', 'inside'] as const).flatMap(side =>
  (['round', 'flats'] as const).flatMap(form =>
    [2.5, 8, 31.7, 90].map((size): [string, GaugeAsked] => [`${side} ${form} ${size}`, { side, form, size }]),
  ),
);

/** The width across at a height, through the middle: of what is solid there, or of the air. */
function widthAt(mesh: ReturnType<typeof gaugeSolid>, z: number, { side, form, size }: GaugeAsked): number {
  const loops = sectionAtZ(mesh, z);
  if (form === 'round') return loopNear(loops, [0, 0], size, side)!.diameter;
  const crossings = loops
    .flatMap(({ points }) =>
      points.flatMap(([ax, ay], i) => {
        const [bx, by] = points[(i + 1) % points.length]!;
        // The line along x through a little beside the middle, so that no corner lies on it.
        const y = 0.123;
        return ay < y === by < y ? [] : [ax + ((y - ay) / (by - ay)) * (bx - ax)];
      }),
    )
    .toSorted((a, b) => a - b);
  const middle = crossings.length / 2;
  return side === 'outside' ? crossings.at(-1)! - crossings[0]! : crossings[middle]! - crossings[middle - 1]!;
}

describe('a gauge of the object', () => {
  test.each(ALL)('%s: one closed solid on its foot, true to size all along', (_, asked) => {
    const mesh = gaugeSolid(wasm, font, asked);
    expect(closureOf(mesh).openEdges).toBe(0);
    const facts = meshKernel(wasm).facts(mesh);
    expect(facts.ok && facts.facts.bodies).toBe(1);
    for (const share of [0.1, 0.5, 0.9]) {
      const z = GAUGE.foot.height + share * GAUGE.height;
      expect(Math.abs(widthAt(mesh, z, asked) - asked.size)).toBeLessThan(0.006);
    }
    const { min, max } = boundsOf(mesh);
    expect(min[2]).toBeCloseTo(0, 6);
    expect(max[2]).toBeCloseTo(GAUGE.foot.height + GAUGE.height, 2);
    // Round ones are as wide as their foot, or as the tongue with their number.
    expect(max[0] - min[0]).toBeLessThan(Math.max(gaugeFoot(asked).width, 24) + 0.01);
  });

  test.each(ALL)('%s: its plastic is as its solid’s, but for tongue and figures', (_, asked) => {
    const told = gaugeVolume(asked);
    const made = volumeOf(gaugeSolid(wasm, font, asked));
    expect(made - told).toBeGreaterThan(-0.06 * made);
    expect(made - told).toBeLessThan(0.06 * made + 24 * 10 * GAUGE.foot.height);
  });

  test('its number stands on it: another size is another solid there', () => {
    const at = (size: number) => gaugeSolid(wasm, font, { side: 'outside', form: 'flats', size });
    expect(at(20).triangles.length).not.toBe(at(20.18).triangles.length);
  });
});
