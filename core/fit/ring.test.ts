import { describe, expect, test } from 'vitest';
import { pressFit } from './press';
import { fingerForce, passingStrain, type Ring, ringForce, ringPressure, slottedShare } from './ring';

const ring: Ring = { diameter: 40, wall: 0.8, height: 12, modulus: 90 };

describe('a soft ring on a hard core', () => {
  test('a thin one presses as Lamé’s thick cylinder does', () => {
    const lame = pressFit(
      { inner: 40, outer: 41.6, modulus: 90, poisson: 0.48 },
      { inner: 0, outer: 40, modulus: 1e9, poisson: 0.3 },
      40,
      0.8,
      12,
      1,
    );
    // Interference over bore is the stretch; a wall of a fiftieth of the diameter is thin within 5 %.
    expect(ringPressure(ring, 0.02) / lame.pressure).toBeCloseTo(1, 1);
    // p·π·d·h is 2π·E·ε·t·h: half the ring in equilibrium, twice over π.
    expect(ringForce(ring, 0.02)).toBeCloseTo(2 * Math.PI * 90 * 0.02 * 0.8 * 12, 9);
  });

  test('shallow slots soften as springs in series do, and little', () => {
    const slots = { count: 8, width: 2, depth: 0.5 };
    // Compliance of each sector is its length over its wall.
    const round = Math.PI * 40;
    const plain = round / 0.8;
    const slotted = (round - 16) / 0.8 + 16 / 0.4;
    expect(slottedShare(ring, slots)).toBeCloseTo(plain / slotted, 12);
    expect(slottedShare(ring, slots)).toBeGreaterThan(0.85);
    expect(slottedShare(ring, { ...slots, depth: 0 })).toBe(1);
  });

  test('slots through the wall make fingers, and soften a lot', () => {
    const { force, rootStrain } = fingerForce(ring, { count: 8, width: 2, length: 10 }, 0.02);
    // One finger by P = 3·E·I·y/L³.
    const width = (Math.PI * 40) / 8 - 2;
    const one = (3 * 90 * ((width * 0.8 ** 3) / 12) * 0.4) / 10 ** 3;
    expect(force).toBeCloseTo(8 * one, 9);
    expect(rootStrain).toBeCloseTo((1.5 * 0.4 * 0.8) / 100, 12);
    expect(force).toBeLessThan(0.1 * ringForce(ring, 0.02));
  });

  test('23.0 over a lip of 21.8 stretches it by 5.5 %', () => {
    expect(100 * passingStrain(23, 21.8)).toBeCloseTo(5.5, 1);
  });

  test('what cannot be is refused', () => {
    expect(() => slottedShare(ring, { count: 8, width: 2, depth: 1 })).toThrow(/fingers/);
    expect(() => slottedShare(ring, { count: 70, width: 2, depth: 0.5 })).toThrow(/whole way round/);
    expect(() => fingerForce(ring, { count: 70, width: 2, length: 5 }, 0.02)).toThrow(/no finger/);
    expect(() => fingerForce(ring, { count: 1, width: 2, length: 5 }, 0.02)).toThrow(/two slots/);
    expect(() => ringPressure({ ...ring, wall: 20 }, 0.1)).toThrow(/radius/);
  });
});
