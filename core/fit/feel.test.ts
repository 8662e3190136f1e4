import fc from 'fast-check';
import { expect, test } from 'vitest';
import { FINEST_STEP, jawSetting, nextFeel, startFeel, windowFelt } from './feel';
import { windowForSize } from './wants';

const snug = { min: 0.05, max: 0.2 };

test('jaws over a spigot are opened by the clearance, in a bore closed by it', () => {
  expect(jawSetting('inside', 31.7, 0.125)).toBeCloseTo(31.825, 9);
  expect(jawSetting('outside', 24.2, 0.125)).toBeCloseTo(24.075, 9);
});

test('any wanted clearance within reach is found in a few answers', () => {
  fc.assert(
    fc.property(fc.double({ min: -0.4, max: 0.9, noNaN: true }), wanted => {
      let search = startFeel(snug);
      for (let n = 0; n < 30; n++) {
        // A hand that can feel half a step of the jaws.
        if (Math.abs(search.clearance - wanted) <= FINEST_STEP) break;
        const next = nextFeel(search, search.clearance < wanted ? 'tighter' : 'looser', snug);
        if (!next) break;
        search = next;
        expect(n).toBeLessThan(20);
      }
      expect(Math.abs(search.clearance - wanted)).toBeLessThanOrEqual(2 * FINEST_STEP);
    }),
    { seed: 5, numRuns: 200 },
  );
});

test('the want moves and keeps its width', () => {
  expect(windowFelt(0.3, snug)).toEqual({ min: 0.225, max: 0.375, unit: 'mm' });
});

test('usual windows widen with size: a slab of 77.5 slides in 78 (p); small things, own windows and stretches stay', () => {
  const slide = { name: 'slide' as const, window: { min: 0.2, max: 0.45, unit: 'mm' as const } };
  const wide = windowForSize(slide, 77.5);
  expect(wide.min).toBeGreaterThan(0.2);
  expect(wide.max).toBeGreaterThan(0.5);
  expect(wide.min).toBeLessThan(0.5);
  expect(windowForSize(slide, 31.7)).toEqual(slide.window);
  expect(windowForSize({ ...slide, name: 'own' }, 200)).toEqual(slide.window);
  const stretch = { name: 'stretch' as const, window: { min: 0.015, max: 0.04, unit: 'strain' as const } };
  expect(windowForSize(stretch, 200)).toEqual(stretch.window);
});
