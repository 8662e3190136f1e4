import { expect, test } from 'vitest';
import { printRun } from './print-run';

const runs = (mayFail: boolean) =>
  Array.from({ length: 2000 }, (_, i) => printRun('printer', `p${i}`, 2, mayFail));

test('a print takes its printer’s own pace, the same each time it is asked', () => {
  expect(printRun('a', 'p', 2, true)).toEqual(printRun('a', 'p', 2, true));
  const hours = runs(false).map(r => r.hours);
  const mean = hours.reduce((s, h) => s + h, 0) / hours.length;
  const spread = Math.sqrt(hours.reduce((s, h) => s + (h / mean - 1) ** 2, 0) / hours.length);
  expect(spread).toBeGreaterThan(0.05);
  expect(spread).toBeLessThan(0.07);
  expect(printRun('b', 'p', 2, false).hours / printRun('c', 'p', 2, false).hours).not.toBeCloseTo(1, 2);
});

test('one in eight or nine fails where it may, and costs what was laid until then', () => {
  expect(runs(false).every(r => r.failed === null && r.share === 1)).toBe(true);
  const failed = runs(true).filter(r => r.failed !== null);
  expect(failed.length / 2000).toBeGreaterThan(0.09);
  expect(failed.length / 2000).toBeLessThan(0.15);
  for (const { hours, share } of failed) {
    expect(share).toBeLessThan(1);
    expect(hours).toBeGreaterThan(0);
  }
});
