import fc from 'fast-check';
import { beforeAll, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../../kernels/node';
import { buildPart } from '../../build';
import type { Kernels } from '../../kernels/kernel';
import { closureOf } from '../../mesh/mesh';
import type { Parameters } from '../parameters';
import { roundCap } from '.';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

const size = (min: number, max: number) => fc.integer({ min: min * 20, max: max * 20 }).map(n => n / 20);
/** Caps that makers would ask for, and some that nobody would. */
const caps: fc.Arbitrary<Parameters> = fc
  .record({
    style: fc.constantFrom('over', 'into', 'both'),
    rim: size(8, 90),
    bore: size(4, 80),
    skirtDepth: size(3, 40),
    plugDepth: size(3, 30),
    wall: size(0.8, 4),
    plugWall: fc.oneof(fc.constant(0), size(0.8, 3)),
    endThickness: size(0.8, 5),
    flange: size(0, 12),
    lip: fc.constantFrom('none', 'skirt', 'plug'),
    stands: size(0.05, 1.5),
    lipFrom: size(0.5, 12),
    lipWidth: size(0.4, 4),
    leadIn: size(0, 1.5),
    outerFillet: size(0, 4),
    tab: fc.boolean(),
    tabLength: size(3, 30),
    tabWidth: size(3, 25),
  })
  .map(({ rim, bore, flange, stands, ...rest }) => ({
    ...rest,
    skirtDiameter: rim,
    plugDiameter: Math.min(bore, rim),
    endDiameter: Math.min(bore, rim) + flange,
    lipDiameter: rim - 2 * stands,
    beadDiameter: Math.min(bore, rim) + 2 * stands,
  }));

test('any cap is either refused in words or one closed body whose mates measure as drawn', {
  timeout: 300_000,
}, () => {
  let built = 0;
  fc.assert(
    fc.property(caps, p => {
      const refused = roundCap.refuse(p);
      const outcome = buildPart(roundCap, p, kernels, 'screen');
      if (refused.length > 0) {
        expect(outcome.ok).toBe(false);
        for (const finding of refused) expect(finding.message).toMatch(/[a-z].*[.?]$/);
        return;
      }
      expect(outcome.ok, JSON.stringify(outcome.ok || outcome.findings)).toBe(true);
      if (!outcome.ok) return;
      built += 1;
      expect(closureOf(outcome.part.mesh)).toEqual({ openEdges: 0, bodies: 1 });
      for (const mate of outcome.part.mates) {
        const spec = roundCap.mates.find(m => m.id === mate.id)!;
        // The screen's flats are at most 0.03 inside the true surface, on either side.
        expect(
          Math.abs(mate.size - (p[spec.parameter] as number)),
          `${mate.id} ${JSON.stringify(p)}`,
        ).toBeLessThan(0.07);
      }
    }),
    { seed: 17, numRuns: 150 },
  );
  expect(built).toBeGreaterThan(30);
});

test('a few of them in the file’s own quality', { timeout: 300_000 }, () => {
  let built = 0;
  for (const p of fc.sample(caps, { seed: 5, numRuns: 60 })) {
    if (roundCap.refuse(p).length > 0 || built >= 12) continue;
    const outcome = buildPart(roundCap, p, kernels, 'file');
    expect(outcome.ok, JSON.stringify([p, outcome.ok || outcome.findings])).toBe(true);
    if (!outcome.ok) continue;
    built += 1;
    expect(outcome.part.watertight).toBe(true);
    for (const mate of outcome.part.mates) {
      const spec = roundCap.mates.find(m => m.id === mate.id)!;
      expect(Math.abs(mate.size - (p[spec.parameter] as number)), mate.id).toBeLessThan(0.01);
    }
  }
  expect(built).toBeGreaterThan(5);
});
