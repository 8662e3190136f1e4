import { readFileSync } from 'node:fs';
import ManifoldInit, { type ManifoldToplevel } from 'manifold-3d';
import opentype from 'opentype.js';
import { beforeAll, describe, expect, test } from 'vitest';
import { gauss, seeded } from '../bench/random';
import { meshKernel } from '../shape/kernels/mesh-kernel';
import { boundsOf, closureOf, volumeOf } from '../shape/mesh/mesh';
import { loopNear, sectionAtZ } from '../shape/mesh/section';
import { chancesWithGauge, GAUGE, type GaugeAsked, gaugeFoot, gaugeVolume } from './gauge';
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

/** The width at a height, through the middle: of the solid there, or of the air. */
function widthAt(mesh: ReturnType<typeof gaugeSolid>, z: number, { side, form, size }: GaugeAsked): number {
  const loops = sectionAtZ(mesh, z);
  if (form === 'round') return loopNear(loops, [0, 0], size, side)!.diameter;
  const crossings = loops
    .flatMap(({ points }) =>
      points.flatMap(([ax, ay], i) => {
        const [bx, by] = points[(i + 1) % points.length]!;
        // The line along x slightly beside the middle, so that no corner lies on it.
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
    // A round gauge is as wide as its foot, or as the tongue with its number.
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

describe('what a gauge parts', () => {
  const ledger = (of: { clearance?: number; printer: number; u: number }) => ({
    window: { min: 0, max: 0.2 },
    clearance: of.clearance ?? 0.1,
    sd: Math.hypot(of.printer, of.u),
    scatter: 0.02,
    reading: { value: 30, u: of.u, source: 'seat' as const },
  });
  test('what is the printer’s falls to the gauge, what is the reading’s to the object', () => {
    const printer = chancesWithGauge(ledger({ printer: 0.1, u: 0.001 }));
    // One sd to each side of the middle: 0.683.
    expect(printer.onGauge).toBeCloseTo(0.6827, 3);
    expect(printer.onObject).toBeGreaterThan(0.99);
    const reading = chancesWithGauge(ledger({ printer: 0.02, u: 0.1 }));
    expect(reading.onGauge).toBeGreaterThan(0.999);
    expect(reading.onObject).toBeCloseTo(0.68, 1);
  });
  test('both together are about the chance without a gauge, counted by drawing', () => {
    const of = ledger({ printer: 0.08, u: 0.06, clearance: 0.13 });
    const { onGauge, onObject } = chancesWithGauge(of);
    const random = seeded(7);
    let [there, both] = [0, 0];
    for (let i = 0; i < 40_000; i++) {
      const at = of.clearance + gauss(random, 0, 0.08);
      if (at < 0 || at > 0.2) continue;
      there++;
      const on = at + gauss(random, 0, 0.06);
      if (on >= 0 && on <= 0.2) both++;
    }
    expect(Math.abs(onGauge - there / 40_000)).toBeLessThan(0.01);
    expect(Math.abs(onObject - both / there)).toBeLessThan(0.01);
  });
  test('a print that is sure to miss the window is moved into its middle first', () => {
    const { onGauge, onObject } = chancesWithGauge(ledger({ printer: 0.03, u: 0.05, clearance: 3 }));
    expect(onGauge).toBe(0);
    expect(onObject).toBeCloseTo(0.954, 2);
  });
});
