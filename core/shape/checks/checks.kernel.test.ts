import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { PLAIN_CONTEXT } from '../../../testing/plain-context';
import { box, insideOut, moved, ring, scaled, together, withoutTriangle } from '../../../testing/solids';
import { buildPart } from '../build';
import type { BuiltPart } from '../built-part';
import { SAGITTA } from '../finish';
import type { Kernels } from '../kernels/kernel';
import { facing, type TriangleMesh } from '../mesh/mesh';
import type { Parameters } from '../recipes/parameters';
import { roundCap } from '../recipes/round-cap';
import { checkBed, checkClosed, checkMates, checkWalls } from './check-solid';
import type { CheckContext } from './context';
import { inspectPart } from './inspect';
import { trianglesOfMates } from './measure';
import { thinnestWalls } from './thickness';

const cap: Parameters = { ...roundCap.demo.parameters, tab: false, lip: 'skirt' };
const context: CheckContext = {
  ...PLAIN_CONTEXT,
  bed: { width: 220, depth: 220, height: 220 },
  flexible: true,
  strainLimit: 0.25,
  ledger: { skirt: { model: 32.04, reading: 31.7 }, lip: { model: 29.9, reading: 29.4 } },
  measured: { rim: 31.7, bore: 24.2 },
};
let kernels: Kernels;
let sound: TriangleMesh;
let soundPart: BuiltPart;
beforeAll(async () => {
  kernels = await startKernels();
  soundPart = built(cap);
  sound = soundPart.mesh;
});
const build = (parameters: Parameters): TriangleMesh => built(parameters).mesh;
function built(parameters: Parameters): BuiltPart {
  const outcome = buildPart(roundCap, parameters, kernels, 'file');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome.part;
}
const codes = (findings: { code: string }[]) => findings.map(f => f.code);
const mates = (mesh: TriangleMesh, change: Partial<CheckContext> = {}) =>
  codes(checkMates(roundCap, roundCap.surfaces(cap), mesh, { ...context, ...change }));

test('a sound solid stays silent', () => {
  expect(inspectPart(roundCap, cap, soundPart, context, kernels)).toEqual({ findings: [], loads: [] });
});

describe('closed', () => {
  test('a missing triangle', () => expect(codes(checkClosed(withoutTriangle(sound)))).toContain('open'));
  test('inside out', () => expect(codes(checkClosed(insideOut(sound)))).toEqual(['inside-out']));
  test('a loose body', () =>
    expect(codes(checkClosed(together(sound, box([3, 3, 3], [60, 0, 0]))))).toEqual(['loose-bodies']));
});

describe('mates measured on the triangles against the ledger', () => {
  test('a solid that grew by 1 ‰ is off', () =>
    expect(mates(scaled(sound, 1.001))).toEqual(['mate-off', 'mate-off']));
  test('twice as large is a diameter for a radius', () => {
    const double = { ...cap, skirtDiameter: 63.4, lipDiameter: 61 };
    expect(codes(checkMates(roundCap, roundCap.surfaces(double), build(double), context))).toContain('slip');
  });
  test('half as large is a radius for a diameter', () => {
    const half = { ...cap, lip: 'none', skirtDiameter: 15.85 };
    const [finding] = checkMates(roundCap, roundCap.surfaces(half), build(half), context);
    expect(finding).toMatchObject({
      code: 'slip',
      remedy: { parameter: 'skirtDiameter', text: 'rim.model' },
    });
    expect(finding!.message).toContain('radius');
  });
  test('25.4 times off is the unit', () => {
    const [finding] = checkMates(roundCap, roundCap.surfaces(cap), sound, {
      ...context,
      ledger: { skirt: { model: 1.26, reading: 31.7 / 25.4 } },
    });
    expect(finding!.message).toContain('inches');
  });
  test('a surface that is not there', () => expect(mates(box([3, 3, 30]))).toContain('mate-missing'));
  test('a mate the ledger knows nothing of is not judged', () =>
    expect(mates(scaled(sound, 1.1), { ledger: {} })).toEqual([]));
});

describe('which triangles light up', () => {
  test('the wall of a mate, not the floor whose corners lie on it', () => {
    for (const quality of ['screen', 'file'] as const) {
      const outcome = buildPart(roundCap, roundCap.demo.parameters, kernels, quality);
      if (!outcome.ok) throw new Error('not built');
      const { mesh } = outcome.part;
      const owner = trianglesOfMates(mesh, roundCap.surfaces(roundCap.demo.parameters), SAGITTA[quality]);
      let area = 0;
      owner.forEach((mate, t) => {
        if (mate >= 0) area += Math.hypot(...facing(mesh, t)) / 2;
      });
      // The bore from the end to the lead-in: a cylinder of 32.04 by 13.2.
      expect(area / (Math.PI * 32.04 * 13.2), quality).toBeCloseTo(1, 2);
    }
  });
});

describe('walls', () => {
  const wall = (thickness: number) =>
    codes(checkWalls(ring({ inner: 15, outer: 15 + thickness, height: 8, segments: 160 }), context));
  test('the thinnest wall of a ring is its wall', () => {
    expect(
      thinnestWalls(ring({ inner: 15, outer: 16.6, height: 8, segments: 160 })).upright!.thickness,
    ).toBeCloseTo(1.6, 2);
  });
  test('less than one pass stops, less than two warns, between passes is a note, whole passes are silent', () => {
    expect(checkWalls(ring({ inner: 15, outer: 15.3, height: 8, segments: 160 }), context)[0]).toMatchObject({
      code: 'thin-wall',
      level: 'stop',
    });
    expect(checkWalls(ring({ inner: 15, outer: 15.6, height: 8, segments: 160 }), context)[0]).toMatchObject({
      code: 'thin-wall',
      level: 'warn',
    });
    expect(wall(1)).toEqual(['part-pass']);
    expect(wall(1.2)).toEqual([]);
    expect(wall(1.6)).toEqual([]);
  });
  test('a thin end of a real cap is found as well as a thin skirt', () => {
    expect(
      thinnestWalls(build({ ...cap, lip: 'none', endThickness: 0.6, outerFillet: 0 })).flat!.thickness,
    ).toBeCloseTo(0.6, 2);
    expect(
      thinnestWalls(build({ ...cap, lip: 'none', wall: 0.8, leadIn: 0.2, outerFillet: 0.5 })).upright!
        .thickness,
    ).toBeCloseTo(0.8, 2);
  });
});

describe('bed', () => {
  test('too large, turned or not', () => {
    expect(codes(checkBed(box([300, 20, 20]), context))).toEqual(['bed']);
    expect(codes(checkBed(box([20, 20, 240]), context))).toEqual(['bed']);
    // Laid down it is as long as the bed's diagonal allows.
    const laid = { ...context, pose: { down: [1, 0, 0] as const, turn: 0 } };
    expect(codes(checkBed(box([20, 20, 240]), laid))).toEqual(['bed-turned']);
    expect(codes(checkBed(box([20, 20, 240]), { ...laid, pose: { ...laid.pose, turn: 45 } }))).toEqual([]);
    expect(
      codes(checkBed(box([100, 215, 20]), { ...context, bed: { width: 220, depth: 110, height: 50 } })),
    ).toEqual([]);
  });
  test('a part read in inches is tiny', () =>
    expect(codes(checkBed(scaled(sound, 1 / 25.4), context))).toContain('tiny'));
  test('above or below the bed', () => {
    expect(codes(checkBed(moved(sound, [0, 0, 0.5]), context))).toEqual(['off-the-bed']);
    expect(codes(checkBed(moved(sound, [0, 0, -0.5]), context))).toEqual(['off-the-bed']);
  });
});

describe('the lip passing the rim', () => {
  const lip = (strainLimit: number, mesh = sound) =>
    codes(roundCap.checks(cap, { mesh }, { ...context, strainLimit }));
  // 31.7 over 29.9 stretches by 6.02 %.
  test('within what the plastic bears it is silent', () => expect(lip(0.061)).toEqual([]));
  test('beyond it stops', () => expect(lip(0.059)).toEqual(['lip-strain']));
  test('it reads the triangles: a shrunken solid stretches more', () =>
    expect(lip(0.065, scaled(sound, 0.99))).toEqual(['lip-strain']));
  test('23.0 over a lip of 21.8 is 5.5 % (practice)', () => {
    const p = { ...cap, skirtDiameter: 23.2, lipDiameter: 21.8 };
    const [finding] = roundCap.checks(
      p,
      { mesh: build(p) },
      { ...context, strainLimit: 0.02, measured: { rim: 23 } },
    );
    expect(finding!.message).toContain('5.5 %');
  });
  test('a bead around the plug is squeezed by the bore', () => {
    const p = { ...cap, style: 'into', lip: 'plug', plugDepth: 14, plugDiameter: 24, beadDiameter: 25.4 };
    expect(codes(roundCap.checks(p, { mesh: build(p) }, { ...context, strainLimit: 0.03 }))).toEqual([
      'lip-strain',
    ]);
    expect(codes(roundCap.checks(p, { mesh: build(p) }, { ...context, strainLimit: 0.06 }))).toEqual([]);
  });
  test('slots turn the ring into fingers: ε = 1.5 · t · y / L² at their roots', () => {
    // Lip 5.8 to 8.2 above the end of 2: its middle stands 7 above slots whose floor is 2 above the end.
    const p = { ...cap, slots: 6, slotDepth: 11.8, slotWidth: 2 };
    const strain = (1.5 * 1.6 * ((31.7 - 29.9) / 2)) / 5 ** 2;
    const of = (strainLimit: number) =>
      codes(roundCap.checks(p, { mesh: build(p) }, { ...context, strainLimit }));
    expect(of(strain * 1.03)).toEqual([]);
    expect(of(strain * 0.97)).toEqual(['finger-strain']);
  });
});
