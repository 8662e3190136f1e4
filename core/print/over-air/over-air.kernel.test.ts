import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { ARM, cone, lyingHole, type Profile, standing, table, turned } from '../../../testing/overhangs';
import { box } from '../../../testing/solids';
import type { Kernels } from '../../shape/kernels/kernel';
import type { MateSurface } from '../../shape/mates';
import type { TriangleMesh } from '../../shape/mesh/mesh';
import { USUAL_RULES } from '../hangs';
import { AS_DRAWN } from '../pose';
import { overAirOf } from './over-air';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

const found = (mesh: TriangleMesh, surfaces: MateSurface[] = []) =>
  overAirOf(mesh, AS_DRAWN, USUAL_RULES, 0.2, surfaces, 0.03);
const kinds = (mesh: TriangleMesh) => found(mesh).map(r => r.kind);
const upright = (...profiles: Profile[]) => standing(kernels.mesh, profiles);

/** Half a circle in (radius, height) around a centre. */
const ball = (r: number, middle: number, from = -90): Profile =>
  Array.from({ length: 61 }, (_, i): [number, number] => {
    const a = ((from + ((90 - from) * i) / 60) * Math.PI) / 180;
    return [Math.max(1e-4, r * Math.cos(a)), middle + r * Math.sin(a)];
  });

/** A frame, and a drop that hangs from its board, the tip 14 above the bed. */
function frameAndDrop(): [TriangleMesh, TriangleMesh] {
  const drop = turned(
    [
      [1e-4, 14],
      [3, 20],
      [3, 25],
      [1e-4, 25],
    ],
    60,
  );
  return [
    upright(table(12).map(([x, z]): [number, number] => [x - 14, z * 2])),
    { ...drop, positions: drop.positions.map((v, i) => (i % 3 === 1 ? v + 10 : v)) },
  ];
}

describe('known shapes, each named as whoever prints would name it', () => {
  test('a block, a cone of 40° and one of exactly 45°: nothing', () => {
    expect(kinds(box([30, 20, 10]))).toEqual([]);
    expect(kinds(cone(40))).toEqual([]);
    expect(kinds(cone(45))).toEqual([]);
  });
  test('a cone of 50° leans, by so much', () => {
    const [lean, ...more] = found(cone(50));
    expect(more).toEqual([]);
    expect(lean).toMatchObject({ kind: 'lean' });
    expect(lean!.angle).toBeCloseTo(50, 0);
  });
  test.each([4, 8])('a gap of %d is a bridge, its span within 0.3', gap => {
    const [bridge, ...more] = found(upright(table(gap)));
    expect(more).toEqual([]);
    expect(bridge!.kind).toBe('bridge');
    expect(Math.abs(bridge!.reach - gap)).toBeLessThan(0.3);
    expect(bridge!.volume).toBe(0);
  });
  test.each([12, 15, 30])('a gap of %d is a ceiling too long to span', gap => {
    const [roof, ...more] = found(upright(table(gap)));
    expect(more).toEqual([]);
    expect(roof!.kind).toBe('roof');
    expect(Math.abs(roof!.reach - gap)).toBeLessThan(0.3);
    // A millimetre at either end supports itself, and what is supported is 12 above the bed.
    expect(Math.abs(roof!.area - (gap - 2) * 20)).toBeLessThan(0.05 * roof!.area);
    expect(roof!.volume / roof!.area).toBeCloseTo(12, 1);
  });
  test('an arm of 12 reaches out 12, and its supports stand on the foot', () => {
    const [arm, ...more] = found(upright(ARM));
    expect(more).toEqual([]);
    expect(arm!.kind).toBe('overhang');
    expect(Math.abs(arm!.reach - 12)).toBeLessThan(0.3);
    expect(arm!.onPart).toBeCloseTo(arm!.area, 3);
    expect(arm!.angle).toBeCloseTo(90, 0);
  });
  test('the rim of a mushroom reaches out all round', () => {
    const mushroom = turned([
      [1e-4, 0],
      [4, 0],
      [4, 12],
      [15, 12],
      [15, 16],
      [1e-4, 16],
    ]);
    const [rim, ...more] = found(mushroom);
    expect(more).toEqual([]);
    expect(rim!.kind).toBe('overhang');
    expect(Math.abs(rim!.reach - 11)).toBeLessThan(0.4);
    expect(Math.abs(rim!.area - Math.PI * (15 ** 2 - 5 ** 2))).toBeLessThan(0.05 * rim!.area);
  });
  test('a drop that hangs begins in the air, at its tip', () => {
    const [island] = found(kernels.mesh.combine('fuse', ...frameAndDrop()));
    expect(island).toMatchObject({ kind: 'island' });
    expect(island!.begins).toBeCloseTo(14, 0);
    expect(Math.abs(island!.meets! - 24)).toBeLessThan(0.1);
  });
  test.each([2, 3])('a lying hole of radius %d holds itself or bridges', r => {
    expect(found(upright(...lyingHole(r))).every(f => f.kind === 'bridge')).toBe(true);
  });
  test('a lying hole of 10 spans its crown; one of 20 needs supports, pointed it needs none', () => {
    expect(kinds(upright(...lyingHole(5)))).toEqual(['bridge']);
    const [roof] = found(upright(...lyingHole(10)));
    expect(roof!.kind).toBe('roof');
    // Hanging from 46° on: 2 · 10 · sin 44° across.
    expect(Math.abs(roof!.reach - 20 * Math.sin((44 * Math.PI) / 180))).toBeLessThan(0.5);
    expect(kinds(upright(...lyingHole(5, 'pointed')))).toEqual([]);
    expect(kinds(upright(...lyingHole(10, 'pointed')))).toEqual([]);
  });
  test.each([
    [5, 3.5],
    [10, 7.7],
  ])('cut flat a hole of radius %d bridges %d', (r, span) => {
    const [bridge, ...more] = found(upright(...lyingHole(r, 'cut flat')));
    expect(more).toEqual([]);
    expect(bridge!.kind).toBe('bridge');
    expect(Math.abs(bridge!.reach - span)).toBeLessThan(0.4);
  });
  test('a ball on a small foot leans out below', () => {
    const [lean, ...more] = found(turned([[1e-4, 0], ...ball(20, 19)]));
    expect(more).toEqual([]);
    expect(lean!.kind).toBe('lean');
  });
  test('an edge on the bed rounded by 2 asks for nothing', () => {
    const rounded: Profile = [
      [1e-4, 0],
      ...Array.from({ length: 13 }, (_, i): [number, number] => {
        const a = ((-90 + (90 * i) / 12) * Math.PI) / 180;
        return [13 + 2 * Math.cos(a), 2 + 2 * Math.sin(a)];
      }),
      [15, 10],
      [1e-4, 10],
    ];
    expect(kinds(turned(rounded))).toEqual([]);
  });
});
