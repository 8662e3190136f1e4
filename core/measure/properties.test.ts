import fc from 'fast-check';
import { expect, test } from 'vitest';
import { evaluateReadings, findOutliers } from './evaluate';

const caliper = { resolution: 0.01, maxError: 0.03 };
const readings = fc.array(
  fc.integer({ min: 1000, max: 9000 }).map(n => n / 100),
  { minLength: 1, maxLength: 12 },
);

test('the order of readings does not matter', () => {
  fc.assert(
    fc.property(readings, list => {
      const [a, b] = [evaluateReadings(list, caliper), evaluateReadings(list.toReversed(), caliper)];
      expect(b.value).toBeCloseTo(a.value, 9);
      expect(b.standardUncertainty).toBeCloseTo(a.standardUncertainty, 9);
    }),
    { seed: 1 },
  );
});

test('moving every reading by the same amount moves the value and nothing else', () => {
  fc.assert(
    fc.property(readings, fc.integer({ min: 1, max: 50 }), (list, shift) => {
      const moved = evaluateReadings(
        list.map(x => x + shift),
        caliper,
      );
      const still = evaluateReadings(list, caliper);
      expect(moved.value).toBeCloseTo(still.value + shift, 9);
      expect(moved.spread).toBeCloseTo(still.spread, 9);
      expect(moved.standardUncertainty).toBeCloseTo(still.standardUncertainty, 9);
    }),
    { seed: 2 },
  );
});

test('the doubt is never below the instrument’s own, and the value lies among the readings', () => {
  const least = Math.sqrt(0.01 ** 2 / 12 + 0.03 ** 2 / 3);
  fc.assert(
    fc.property(readings, list => {
      const e = evaluateReadings(list, caliper);
      expect(e.standardUncertainty).toBeGreaterThanOrEqual(least - 1e-12);
      expect(e.value).toBeGreaterThanOrEqual(Math.min(...list) - 1e-9);
      expect(e.value).toBeLessThanOrEqual(Math.max(...list) + 1e-9);
      expect(e.expandedUncertainty).toBeGreaterThanOrEqual(1.95 * e.standardUncertainty);
    }),
    { seed: 3 },
  );
});

test('outliers are never the majority', () => {
  fc.assert(
    fc.property(readings, list => {
      expect(findOutliers(list, 0.01).length).toBeLessThanOrEqual(list.length / 2);
    }),
    { seed: 4 },
  );
});
