import { describe, expect, test } from 'vitest';
import { stack } from './chain';
import { bendingForce, matingForce, permissibleStrain, rootStrain } from './click';
import { clearanceChange } from './heat';
import { pressFit } from './press';
import { depthDoubt, insertionDepth, isSelfHolding } from './taper';

describe('press fits, Lamé', () => {
  const steel = { modulus: 207_000, poisson: 0.292 };

  test('one material, hollow core: the handbooks’ closed form p = Eδ (Ro² − R²)(R² − Ri²) / (2R³ (Ro² − Ri²))', () => {
    // Radial interference δ = 0.02 on R = 20, Ri = 10, Ro = 35: another way to the same pressure.
    const [R, Ri, Ro, radial] = [20, 10, 35, 0.02];
    const closed =
      ((steel.modulus * radial) / (2 * R ** 3)) *
      (((Ro ** 2 - R ** 2) * (R ** 2 - Ri ** 2)) / (Ro ** 2 - Ri ** 2));
    const fit = pressFit(
      { ...steel, inner: 2 * R, outer: 2 * Ro },
      { ...steel, inner: 2 * Ri, outer: 2 * R },
      2 * R,
      2 * radial,
      40,
      0.12,
    );
    expect(fit.pressure).toBeCloseTo(closed, 6);
    // Hoop at the hub's bore, and equilibrium of half the hub: mean hoop × wall × 2 = p × bore.
    expect(fit.hubHoop).toBeCloseTo((closed * (Ro ** 2 + R ** 2)) / (Ro ** 2 - R ** 2), 6);
    expect(fit.pushOff).toBeCloseTo(0.12 * closed * Math.PI * 40 * 40, 4);
  });

  test('Timoshenko, Strength of Materials II, built-up cylinder (from memory): 4 in 6 in 8 in, 0.005 in apart, 4050 lb/in²', () => {
    // Inches and lb/in² here; the formulas work in any units. The shrinkage is of the radius, ours of the diameter.
    const tube = { modulus: 30e6, poisson: 0.3 };
    const fit = pressFit(
      { ...tube, inner: 12, outer: 16 },
      { ...tube, inner: 8, outer: 12 },
      12,
      0.01,
      1,
      0.1,
    );
    expect(fit.pressure).toBeCloseTo(4050, -1);
  });

  test('hub and core together take up the whole interference', () => {
    const hub = { inner: 20, outer: 26, modulus: 1900, poisson: 0.38 };
    const core = { inner: 0, outer: 20, modulus: 210_000, poisson: 0.3 };
    const fit = pressFit(hub, core, 20, 0.1, 10, 0.3);
    const coreStrain = (fit.pressure * (1 - core.poisson)) / core.modulus;
    expect(20 * (fit.hubStrain + coreStrain)).toBeCloseTo(0.1, 9);
    // A thin ring on a rigid core stretches by the interference.
    const thin = pressFit({ ...hub, outer: 20.4 }, core, 20, 0.1, 10, 0.3);
    expect(thin.hubStrain).toBeCloseTo(0.1 / 20, 4);
    expect(thin.hubHoop).toBeCloseTo((1900 * 0.1) / 20, 0);
  });

  test('what cannot be is refused', () => {
    const ring = { ...steel, inner: 20, outer: 20 };
    expect(() => pressFit(ring, { ...steel, inner: 0, outer: 20 }, 20, 0.1, 10, 0.1)).toThrow(/no wall/);
    expect(() =>
      pressFit({ ...ring, outer: 30 }, { ...steel, inner: 0, outer: 20 }, 20, -0.1, 10, 0.1),
    ).toThrow(/gap/);
  });
});

describe('clicks: the worked example of the Bayer guide (cantilever, from memory)', () => {
  // Polycarbonate: L 19, b 9.5, undercut 2.4, ε 2 %, Es 1815 MPa, α 30°, µ 0.6; beam thins to half.
  const beam = { length: 19, width: 9.5, thickness: 3.28, shape: 'thins-to-half' as const };
  test('h = 3.28 mm, P = 32.5 N, W = 58.5 N', () => {
    expect((1.09 * 0.02 * 19 ** 2) / 2.4).toBeCloseTo(3.28, 2);
    expect(rootStrain(beam, 2.4)).toBeCloseTo(0.02, 4);
    const force = bendingForce(beam, 0.02, 1815);
    expect(force).toBeCloseTo(32.5, 1);
    expect(matingForce(force, 30, 0.6)).toBeCloseTo(58.5, 0);
  });

  test('a straight beam: ε = 1.5 y t / L², the classic of every handbook', () => {
    const straight = { length: 15, width: 5, thickness: 1.6, shape: 'straight' as const };
    expect(rootStrain(straight, 1)).toBeCloseTo((1.5 * 1 * 1.6) / 15 ** 2, 12);
    // The force agrees with the beam's own stiffness 3EI/L³.
    const stiffness = (3 * 2000 * ((5 * 1.6 ** 3) / 12)) / 15 ** 3;
    expect(bendingForce(straight, rootStrain(straight, 1), 2000)).toBeCloseTo(stiffness, 9);
  });

  test('a steep face with friction never lets go; limits shrink with use and across layers', () => {
    expect(matingForce(10, 80, 0.5)).toBe(Infinity);
    expect(permissibleStrain(0.04, false, false)).toBeCloseTo(0.028, 9);
    expect(permissibleStrain(0.04, true, false)).toBeLessThan(permissibleStrain(0.04, false, false));
    expect(permissibleStrain(0.04, true, true)).toBeLessThan(permissibleStrain(0.04, true, false) * 0.6);
  });
});

describe('tapers', () => {
  test('a 1 in 20 Morse-like taper holds with steel’s friction, a 16° one does not', () => {
    expect(isSelfHolding(1.43, 0.15)).toBe(true);
    expect(isSelfHolding(16, 0.15)).toBe(false);
  });
  test('58.42 over 55.88 to 60.96 in 38.1: half the difference is half the depth (p)', () => {
    const halfAngle = (Math.atan((60.96 - 55.88) / 2 / 38.1) * 180) / Math.PI;
    expect(insertionDepth(60.96 - 58.42, halfAngle)).toBeCloseTo(19.05, 9);
    expect(depthDoubt(0.1, halfAngle)).toBeCloseTo(0.75, 2);
    expect(() => insertionDepth(1, 0)).toThrow(/half-angle/);
  });
});

test('heat: a plastic ring of 30 on steel grows by 30 · (60 − 12) · 40 µm/m', () => {
  expect(clearanceChange(30, 60, 12, 60)).toBeCloseTo(0.0576, 9);
  expect(clearanceChange(30, 60, 12, 20)).toBe(0);
  // A plastic plug in a steel bore closes up instead.
  expect(clearanceChange(30, 12, 60, 60)).toBeCloseTo(-0.0576, 9);
});

describe('chains', () => {
  test('three links, worked by hand', () => {
    const chain = stack([
      { name: 'box', value: 50, tolerance: 0.2, u: 0.1, sign: 1 },
      { name: 'first', value: 20, tolerance: 0.1, u: 0.03, sign: -1 },
      { name: 'second', value: 29.5, tolerance: 0.1, u: 0.04, sign: -1 },
    ]);
    expect(chain.value).toBeCloseTo(0.5, 12);
    expect(chain.worst).toBeCloseTo(0.4, 12);
    expect(chain.u).toBeCloseTo(Math.sqrt(0.01 + 0.0009 + 0.0016), 12);
    expect(chain.shares[0]).toBeCloseTo(0.8, 12);
    expect(chain.shares.reduce((a, b) => a + b)).toBeCloseTo(1, 12);
  });
  test('without doubt no share; without links none', () => {
    expect(stack([{ name: 'a', value: 1, tolerance: 0, u: 0, sign: 1 }]).shares).toEqual([0]);
    expect(() => stack([])).toThrow(/link/);
  });
});
