import { describe, expect, test } from 'vitest';
import { seeded } from '../bench/random';
import { paceOf, timeOf } from './pace';
import { type Estimate, secondsAt } from './time';

/** A part of `layers` layers, each moving and cooling for these times, s. */
const part = (layers: number, motion: number, cooling: number): Estimate => ({
  layers,
  times: [{ count: layers, motion, cooling }],
  plastic: 1000,
  start: 240,
});

describe('a printer’s pace', () => {
  test('before any print is noted it may be a good deal off', () => {
    const large = part(100, 60, 5);
    const { seconds, low, high } = timeOf(large, paceOf([]));
    expect(seconds).toBeCloseTo(secondsAt(large), -3);
    expect(high / seconds).toBeGreaterThan(1.8);
    expect(low / seconds).toBeLessThan(0.6);
  });
  test('one noted print tells it, and another part is then foretold', () => {
    const [one, other] = [part(100, 60, 5), part(300, 35, 8)];
    const pace = paceOf([{ expected: one, took: secondsAt(one, 0.4) }]);
    const { seconds, low, high } = timeOf(other, pace);
    const truly = secondsAt(other, 0.4);
    expect(Math.abs(seconds / truly - 1)).toBeLessThan(0.08);
    expect(low).toBeLessThan(truly);
    expect(high).toBeGreaterThan(truly);
  });
  test('a small part that only waits to cool teaches nothing of it', () => {
    const small = part(60, 1, 8);
    const before = timeOf(part(100, 60, 5), paceOf([]));
    const after = timeOf(part(100, 60, 5), paceOf([{ expected: small, took: secondsAt(small) }]));
    expect(after.high / after.low).toBeGreaterThan(0.75 * (before.high / before.low));
  });
  test('one slip of the pen among five does not carry it away', () => {
    const noted = Array.from({ length: 5 }, (_, i) => {
      const expected = part(80 + 20 * i, 40, 5);
      return { expected, took: secondsAt(expected, 1.3) * (i === 2 ? 10 : 1) };
    });
    const truly = secondsAt(part(100, 60, 5), 1.3);
    expect(Math.abs(timeOf(part(100, 60, 5), paceOf(noted)).seconds / truly - 1)).toBeLessThan(0.05);
  });
});

test('its nine-in-ten band holds about nine in ten, over printers, parts and careless notes', () => {
  const random = seeded(7);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  let [held, all] = [0, 0];
  const errors: number[] = [];
  for (let world = 0; world < 400; world++) {
    const pace = Math.exp(0.5 * normal());
    const took = (p: Estimate) => secondsAt(p, pace) * Math.exp(0.06 * normal());
    const some = () => part(20 + Math.floor(300 * random()), 3 + 60 * random(), 8);
    const noted = Array.from({ length: 2 }, some).map(expected => ({ expected, took: took(expected) }));
    const next = some();
    const { low, high, seconds } = timeOf(next, paceOf(noted));
    const truly = took(next);
    errors.push(Math.abs(seconds / truly - 1));
    if (truly >= low && truly <= high) held++;
    all++;
  }
  errors.sort((a, b) => a - b);
  expect(held / all).toBeGreaterThan(0.85);
  expect(held / all).toBeLessThan(0.97);
  expect(errors[200]!).toBeLessThan(0.08);
  expect(errors[320]!).toBeLessThan(0.15);
});
