import { describe, expect, test } from 'vitest';
import { box, moved, ring, together } from '../../../testing/solids';
import { AS_DRAWN } from '../../print/pose';
import { loadOn, loadResults, strengthAt, weakestSection } from './loads';

/** Against beam formulas: Roark's Formulas for Stress and Strain. A bar of 60 × 8 × 5 along x, held at its left end. */
const STRONG = { along: 40, across: 20 };
const bar = box([60, 8, 5]);
const UP = [0, 0, 1] as const;
const near = (actual: number, expected: number, share: number) =>
  expect(Math.abs(actual / expected - 1), `${actual} for ${expected}`).toBeLessThan(share);

describe('a cantilever', () => {
  const tip = { at: [60, 4, 2.5], held: [0, 4, 2.5], turn: [0, 0, 0] } as const;

  test('pushed down at its tip it gives way at its root: 6 F L / (b h²)', () => {
    const found = weakestSection(bar, { ...tip, force: [0, 0, -10] }, UP, STRONG)!;
    // The last slice stands half a step from the end.
    const arm = 60 - 60 / 56;
    near(found.stress, (6 * 10 * arm) / (8 * 25), 1e-3);
    expect(found.at[0]).toBeLessThan(2);
    expect(found.betweenLayers).toBe(false);
    near(found.area, 40, 1e-9);
    near(found.use, found.stress / 40, 0.01);
  });

  test('sideways it is 8 deep, not 5', () => {
    const found = weakestSection(bar, { ...tip, force: [0, 10, 0] }, UP, STRONG)!;
    near(found.stress, (6 * 10 * (60 - 60 / 56)) / (5 * 64), 1e-3);
  });

  test('pulled along it is F / A; stood up, its layers open', () => {
    near(weakestSection(bar, { ...tip, force: [100, 0, 0] }, UP, STRONG)!.stress, 100 / 40, 1e-6);
    const upright = weakestSection(bar, { ...tip, force: [100, 0, 0] }, [1, 0, 0], STRONG)!;
    expect(upright.betweenLayers).toBe(true);
    near(upright.use, 100 / 40 / 20, 1e-6);
  });

  test('turned: T / (0.231 a b²) for 8 : 5', () => {
    const found = weakestSection(bar, { ...tip, force: [0, 0, 0], turn: [1000, 0, 0] }, UP, STRONG)!;
    expect(found.turning).toBe(true);
    near(found.shear, 1000 / (0.234 * 8 * 25), 0.12);
  });

  test('a second bar beside it does not help', () => {
    const two = together(bar, moved(bar, [0, 30, 0]));
    const one = weakestSection(bar, { ...tip, force: [0, 0, -10] }, UP, STRONG)!;
    const both = weakestSection(two, { ...tip, force: [0, 0, -10] }, UP, STRONG)!;
    near(both.stress, one.stress, 1e-6);
  });
});

test('between the layers’ ways it bears what Tsai–Hill says', () => {
  // Worked out by hand for X 40, Y 20, S 12 MPa; the model is that of Azzi & Tsai (1965).
  const at = (degrees: number) => strengthAt(Math.sin((degrees * Math.PI) / 180), STRONG);
  for (const [degrees, bears] of [
    [0, 40],
    [15, 32.4],
    [20, 29.2],
    [30, 24.3],
    [45, 20.6],
    [60, 19.5],
    [90, 20],
  ] as const)
    expect(at(degrees)).toBeCloseTo(bears, 1);
});

test('a bar printed leaning bears what its layers’ slant leaves of it', () => {
  const tip = { at: [60, 4, 2.5], held: [0, 4, 2.5], force: [100, 0, 0], turn: [0, 0, 0] } as const;
  const leaning = [Math.sin(Math.PI / 5), 0, Math.cos(Math.PI / 5)] as const;
  const found = weakestSection(bar, tip, leaning, STRONG)!;
  near(found.use, 100 / 40 / strengthAt(Math.sin(Math.PI / 5), STRONG), 1e-6);
});

test('a tube under a turn: 16 T D / (π (D⁴ − d⁴))', () => {
  const tube = ring({ inner: 7, outer: 10, height: 40, segments: 180 });
  const found = weakestSection(
    tube,
    { at: [0, 0, 40], held: [0, 0, 0], force: [0, 0, 0], turn: [0, 0, 2000] },
    UP,
    STRONG,
  )!;
  near(found.shear, (16 * 2000 * 20) / (Math.PI * (20 ** 4 - 14 ** 4)), 0.15);
  expect(found.betweenLayers).toBe(true);
});

test('an asked load is found on the solid, and one that names what is gone says so', () => {
  const asked = { kind: 'force', amount: 10, towards: 'underside', at: 'right', held: 'left' } as const;
  const load = loadOn(bar, [], asked);
  expect(load).toMatchObject({ at: [60, 4, 2.5], held: [0, 4, 2.5], force: [0, 0, -10] });
  const context = {
    strength: { name: 'PETG', ...STRONG },
    otherStrengths: [{ name: 'PC', along: 55, across: 28 }],
    pose: AS_DRAWN,
    margin: { times: 2, why: '' },
  };
  const loads = [
    { id: 'a', words: 'a push', ...asked, amount: 80 },
    { id: 'b', words: 'gone', ...asked, at: 'mate bore' },
    { id: 'c', words: 'at its own root', ...asked, at: 'left' },
  ];
  const [a, b, c] = loadResults(bar, [], { ...context, loads });
  expect(a!.weakest!.use).toBeGreaterThan(0.5);
  expect(a!.remedies[0]!.words).toContain('thicker');
  expect(a!.remedies.some(r => r.words.includes('PC'))).toBe(true);
  expect(b!.problem).toContain('not on the part as it is now');
  expect(c!.problem).toContain('where the part is held');
  expect(loadResults(bar, [], { ...context, strength: null, loads })[0]!.problem).toContain('not known');
});
