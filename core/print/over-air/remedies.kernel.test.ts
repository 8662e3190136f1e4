import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { buildPart } from '../../shape/build';
import type { BuiltPart } from '../../shape/built-part';
import type { Kernels } from '../../shape/kernels/kernel';
import { recipeWith } from '../../shape/recipe-with';
import { requireRecipe } from '../../shape/recipes';
import type { SolidSpec } from '../../shape/solid-key';
import type { Point3 } from '../../shape/vector';
import { USUAL_RULES } from '../hangs';
import { hangsOn } from './over-air';
import { type Remedy, remediesFor } from './remedies';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

const demo = (id: string, more: Partial<SolidSpec> = {}): SolidSpec => ({
  recipe: id,
  additions: [],
  ...more,
  parameters: { ...requireRecipe(id).demo.parameters, ...more.parameters },
});
function built(spec: SolidSpec): BuiltPart {
  const outcome = buildPart(recipeWith(spec.recipe, spec.additions), spec.parameters, kernels, 'screen');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome.part;
}
/** What asks for support in the pose, the largest first, with what would remedy it. */
function mended(spec: SolidSpec, down: Point3 = [0, 0, -1]): { area: number; remedy: Remedy | null }[] {
  const part = built(spec);
  const asked = { now: { down, turn: 0 }, rules: USUAL_RULES, layer: 0.2 };
  const remedies = remediesFor(spec, part, asked, kernels);
  return hangsOn(part, asked).flatMap(({ kind, area }, i) =>
    kind === 'bridge' ? [] : [{ area, remedy: remedies[i] ?? null }],
  );
}

describe('what would do without supports', () => {
  test('the stop ledge in a tube adapter: a chamfer under it, all round, and nothing is left', () => {
    const [ledge, ...more] = mended(demo('tube-adapter'));
    expect(more).toEqual([]);
    expect(ledge!.area).toBeGreaterThan(30);
    expect(ledge!.remedy).toMatchObject({ left: 0, numbers: {} });
    expect(ledge!.remedy!.additions).toHaveLength(1);
    expect(ledge!.remedy!.additions[0]!.begins).toMatchObject({ how: 'chamfer', which: 'point' });
  });
  test('the roof of a socket: a chamfer that leaves only what spans freely', () => {
    const [roof] = mended(demo('socket-knob'));
    expect(roof!.remedy!.additions[0]!.begins.how).toBe('chamfer');
    expect(roof!.remedy!.left).toBeLessThan(0.3 * roof!.area);
  });
  test('a wider hexagon: a chamfer along each of its sides', () => {
    const [roof] = mended(demo('socket-knob', { parameters: { socketFlats: 15 } }));
    expect(roof!.remedy!.left).toBeLessThan(2);
  });
  test('a large hole that lies: its top pointed, not the surface that must fit filled', () => {
    const hole = {
      id: 'hole1',
      kind: 'hole' as const,
      name: 'Through',
      order: 1,
      on: true,
    };
    const spec = demo('profile-part', {
      additions: [hole],
      parameters: {
        thickness: 40,
        widthSize: 40,
        outline: '0, 0; 40, 0; 40, 40; 0, 40',
        holes: '5, 5, 4',
        hole1_place: 'right',
        hole1_use: 'plain',
        hole1_diameter: 22,
        hole1_by: 'entry',
        hole1_ends: 'through',
      },
    });
    const found = mended(withUsual(spec));
    expect(found.length).toBeGreaterThan(0);
    expect(found[0]!.remedy).toMatchObject({ numbers: { hole1_teardrop: 'yes' }, additions: [] });
  });
  test('a long flat underside: cut in two there, each piece laid on its cut', () => {
    const [under] = mended(demo('screw-handle'), [0, -1, 0]);
    expect(under!.remedy!.additions[0]!.addition.kind).toBe('split');
    expect(under!.remedy!.left).toBeLessThan(0.3 * under!.area);
  });
  test('a slot whose width must fit is neither filled nor cut', () => {
    const [ceiling] = mended(demo('cradle'), [0, 0, 1]);
    expect(ceiling!.area).toBeGreaterThan(1000);
    expect(ceiling!.remedy).toBeNull();
  });
  test('each is told as soon as it is found', () => {
    const spec = demo('tube-adapter');
    const asked = { now: { down: [0, 0, -1] as const, turn: 0 }, rules: USUAL_RULES, layer: 0.2 };
    const told: Record<number, Remedy> = {};
    const all = remediesFor(spec, built(spec), asked, kernels, (place, remedy) => {
      told[place] = remedy;
    });
    expect(Object.keys(told)).toHaveLength(1);
    expect(told).toEqual(all);
  });
});

/** With the usual numbers of its additions. */
function withUsual(spec: SolidSpec): SolidSpec {
  const { demo: whole } = recipeWith(spec.recipe, spec.additions);
  return { ...spec, parameters: { ...whole.parameters, ...spec.parameters } };
}
