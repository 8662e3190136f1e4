import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { DERIVE_KINDS, derive, deriveKind } from './derive';

const q = (value: number, u = 0) => ({ value, u });
const run = (id: string, quantities: Record<string, { value: number; u: number }>, counts = {}) =>
  derive(deriveKind(id)!, quantities, counts);

describe('worked by hand', () => {
  test('centre distance: the mean of nearest and farthest edges', () => {
    expect(run('centre-distance', { inside: q(28.4, 0.02), outside: q(44.1, 0.02) })).toMatchObject({
      value: 36.25,
    });
    // u² = (0.02² + 0.02²) / 4
    expect(run('centre-distance', { inside: q(28.4, 0.02), outside: q(44.1, 0.02) }).u).toBeCloseTo(
      0.02 / Math.SQRT2,
      9,
    );
  });
  test('radius from chord and height: a 3-4-5 arc', () => {
    // A chord of 8 with a height of 2 belongs to a radius of 5.
    const { value, u } = run('radius-from-chord', { chord: q(8, 0.03), height: q(2, 0.02) });
    expect(value).toBeCloseTo(5, 12);
    // ∂/∂c = c/4h = 1, ∂/∂h = 1/2 − c²/8h² = −1.5.
    expect(u).toBeCloseTo(Math.hypot(0.03, 1.5 * 0.02), 8);
  });
  test('circle through three points, 3-4-5', () => {
    const { value } = run('circle-through-three', {
      x1: q(3),
      y1: q(4),
      x2: q(-5),
      y2: q(0),
      x3: q(4),
      y3: q(-3),
    });
    expect(value).toBeCloseTo(10, 12);
  });
  test('hexagon corners are flats × 2/√3', () => {
    expect(run('across-corners', { flats: q(13) }, { sides: 6 }).value).toBeCloseTo(15.011107, 6);
    expect(run('across-corners', { flats: q(10) }, { sides: 4 }).value).toBeCloseTo(14.142136, 6);
    expect(run('flats-from-corners', { corners: q(15.011107) }, { sides: 6 }).value).toBeCloseTo(13, 6);
  });
  test('taper 55.88 to 60.96 over 38.1 is 3.814°, and a 58.42 bore stops at mid-length (p)', () => {
    const ends = { large: q(60.96), small: q(55.88), length: q(38.1) };
    expect(run('taper', ends).value).toBeCloseTo(3.814, 3);
    expect(run('taper-stop', { ...ends, bore: q(58.42) }).value).toBeCloseTo(19.05, 9);
  });
  test('pitch: 26 over 2 turns is 13 (p)', () => {
    expect(run('pitch', { span: q(26, 0.04) }, { turns: 2 })).toMatchObject({ value: 13 });
    expect(run('pitch', { span: q(26, 0.04) }, { turns: 2 }).u).toBeCloseTo(0.02, 9);
  });
  test('a tape of 0.4 round a 100 cylinder', () => {
    expect(run('diameter-from-tape', { around: q(Math.PI * 100.4), tape: q(0.4) }).value).toBeCloseTo(100, 9);
  });
  test('inside jaws with a land of 0.5 read 2.958 in a bore of 3', () => {
    expect(run('small-bore', { reading: q(Math.sqrt(9 - 0.25)), land: q(0.5) }).value).toBeCloseTo(3, 9);
    expect(Math.sqrt(9 - 0.25)).toBeCloseTo(2.958, 3);
  });
  test('wall, step, angle, gap, bolt circle and the size between', () => {
    expect(run('wall', { outside: q(26), inside: q(22) }).value).toBe(2);
    expect(run('depth-step', { deep: q(31.2), shallow: q(12) }).value).toBeCloseTo(19.2, 9);
    expect(run('angle-from-offsets', { near: q(2), far: q(12), between: q(10) }).value).toBeCloseTo(45, 9);
    expect(run('centre-distance-from-gap', { inside: q(20), first: q(6), second: q(8) }).value).toBe(27);
    // Six holes: the chord is the radius.
    expect(run('bolt-circle', { chord: q(50) }, { holes: 6 }).value).toBeCloseTo(100, 9);
    expect(run('in-between-size', { below: q(26), above: q(30) }).value).toBe(28);
    expect(run('radius', { diameter: q(31.7) }).value).toBe(15.85);
  });
  test('the formula is shown with one’s own numbers', () => {
    expect(run('centre-distance', { inside: q(28.4), outside: q(44.1) }).worked).toBe(
      '(28.4 + 44.1) / 2 = 36.25 mm',
    );
    expect(run('taper', { large: q(60.96), small: q(55.88), length: q(38.1) }).worked).toContain('= 3.814°');
  });
});

/** Inputs that every kind accepts: the larger thing larger, the smaller smaller. */
const SOUND: Record<string, Record<string, [number, number]>> = {
  radius: { diameter: [1, 200] },
  'diameter-from-tape': { around: [50, 900], tape: [0.1, 0.6] },
  'centre-distance': { inside: [5, 50], outside: [60, 200] },
  'centre-distance-from-gap': { inside: [5, 50], first: [1, 30], second: [1, 30] },
  'radius-from-chord': { chord: [5, 100], height: [0.5, 30] },
  'circle-through-three': { x1: [0, 10], y1: [0, 10], x2: [40, 60], y2: [0, 10], x3: [20, 30], y3: [40, 60] },
  'across-corners': { flats: [2, 80] },
  'flats-from-corners': { corners: [2, 80] },
  taper: { large: [40, 60], small: [5, 35], length: [5, 100] },
  'taper-stop': { large: [50, 60], small: [5, 20], length: [5, 100], bore: [25, 45] },
  pitch: { span: [2, 100] },
  wall: { outside: [40, 60], inside: [5, 35] },
  'depth-step': { deep: [20, 50], shallow: [1, 15] },
  'angle-from-offsets': { near: [0, 20], far: [0, 20], between: [5, 80] },
  'bolt-circle': { chord: [5, 80] },
  'in-between-size': { below: [10, 20], above: [21, 40] },
  'small-bore': { reading: [1, 10], land: [0.2, 1] },
};

test.each(DERIVE_KINDS.map(k => [k.id, k] as const))(
  '%s: doubt never shrinks when an input’s grows, and agrees with a simulation',
  (id, kind) => {
    const bounds = SOUND[id]!;
    expect(Object.keys(bounds).sort()).toEqual(kind.slots.map(s => s.key).sort());
    const inputs = fc.record(
      Object.fromEntries(
        Object.entries(bounds).map(([key, [min, max]]) => [
          key,
          fc.record({
            value: fc.double({ min, max, noNaN: true }),
            u: fc.double({ min: 0.001, max: 0.05, noNaN: true }),
          }),
        ]),
      ),
    );
    fc.assert(
      fc.property(
        inputs,
        fc.constantFrom(...Object.keys(bounds)),
        fc.double({ min: 0, max: 0.2, noNaN: true }),
        (quantities, key, more) => {
          const before = derive(kind, quantities);
          const grown = { ...quantities, [key]: { ...quantities[key]!, u: quantities[key]!.u + more } };
          expect(derive(kind, grown).u).toBeGreaterThanOrEqual(before.u - 1e-12);
          expect(before.u).toBeGreaterThan(0);
        },
      ),
      { seed: 7, numRuns: 60 },
    );
    // A thousand simulated readings spread as the formula says (JCGM 101's way of checking JCGM 100's).
    const middle = Object.fromEntries(
      Object.entries(bounds).map(([key, [min, max]]) => [key, { value: 0.4 * min + 0.6 * max, u: 0.004 }]),
    );
    let seed = 11;
    const random = () => {
      seed = (seed * 48271) % 2147483647;
      return seed / 2147483647;
    };
    const normal = () => Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random());
    const counts = Object.fromEntries(kind.counts.map(c => [c.key, c.default]));
    const values = Array.from({ length: 1000 }, () =>
      kind.compute({
        ...counts,
        ...Object.fromEntries(Object.entries(middle).map(([k, v]) => [k, v.value + v.u * normal()])),
      }),
    );
    const mean = values.reduce((a, b) => a + b) / values.length;
    const sd = Math.sqrt(values.reduce((a, b) => a + (b - mean) ** 2, 0) / (values.length - 1));
    expect(sd / derive(kind, middle).u).toBeGreaterThan(0.9);
    expect(sd / derive(kind, middle).u).toBeLessThan(1.1);
  },
);

test.each([
  ['radius-from-chord', { chord: q(10), height: q(0) }, {}, /above 0/],
  ['circle-through-three', { x1: q(0), y1: q(0), x2: q(1), y2: q(1), x3: q(2), y3: q(2) }, {}, /in a line/],
  ['across-corners', { flats: q(10) }, { sides: 5 }, /even/],
  ['across-corners', { flats: q(10) }, { sides: 6.5 }, /whole number/],
  ['wall', { outside: q(20), inside: q(22) }, {}, /changed places/],
  ['taper-stop', { large: q(60), small: q(55), length: q(30), bore: q(70) }, {}, /never stops/],
  ['pitch', { span: q(26) }, { turns: 0 }, /turns/],
  ['pitch', {}, {}, /missing/],
  ['pitch', { span: q(26, -1) }, {}, /0 or more/],
])('%s is refused with words', (id, quantities, counts, words) => {
  expect(() => run(id, quantities as never, counts)).toThrow(words);
});
