import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import { box } from '../../testing/solids';
import { isScrewed } from '../fit/wants';
import { buildPart } from '../shape/build';
import type { BuiltPart } from '../shape/built-part';
import { SAGITTA } from '../shape/finish';
import type { Kernels } from '../shape/kernels/kernel';
import { RECIPES, requireRecipe } from '../shape/recipes';
import { USUAL_RULES } from './hangs';
import { type PlanAsked, type PlanMate, planPoses } from './plan';
import { AS_DRAWN, isSameDirection } from './pose';
import { reasonsFor } from './reasons';
import { settingsFor, USUAL_MACHINE } from './settings';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

type Fineness = keyof typeof SAGITTA;

function demo(id: string, fineness: Fineness): BuiltPart {
  const recipe = requireRecipe(id);
  const built = buildPart(recipe, recipe.demo.parameters, kernels, fineness);
  if (!built.ok) throw new Error(built.findings[0]!.message);
  return built.part;
}

function asked(id: string, part: BuiltPart, fineness: Fineness, more: Partial<PlanAsked> = {}): PlanAsked {
  const { mates } = requireRecipe(id);
  return {
    mesh: part.whole,
    hull: kernels.mesh.hull(part.whole),
    mates: part.surfaces.map((surface): PlanMate => {
      const spec = mates.find(m => m.id === surface.mate)!;
      const forgiving = isScrewed(spec.want);
      return { surface, name: spec.name, form: spec.form ?? 'round', pRight: null, forgiving };
    }),
    bed: { width: 220, depth: 220, height: 220 },
    rules: USUAL_RULES,
    settings: settingsFor('usual', 0.42),
    machine: USUAL_MACHINE,
    loads: [],
    strength: null,
    margin: 2,
    now: AS_DRAWN,
    sagitta: SAGITTA[fineness],
    ...more,
  };
}

const best = (id: string, fineness: Fineness, more: Partial<PlanAsked> = {}) =>
  planPoses(asked(id, demo(id, fineness), fineness, more))[0]!;

/** Where another pose than the drawn one is clearly better, found by hand: what then stands on the bed. */
const BETTER: Readonly<Record<string, readonly (readonly [number, number, number])[]>> = {
  // The socket's roof hangs over air.
  'socket-knob': [[0, 0, 1]],
  // The pin's bore stands upright on either edge.
  'hinge-leaf': [
    [0, 1, 0],
    [0, -1, 0],
  ],
  // The stop's ledge hangs inside as drawn.
  'tube-adapter': [[0, 0, 1]],
  // Both slots upright, layers along the lips.
  cradle: [[0, -1, 0]],
  // Lying on a side, the curve that it follows is drawn by the nozzle, not built up of steps.
  'contour-foot': [
    [0, 1, 0],
    [0, -1, 0],
    [1, 0, 0],
    [-1, 0, 0],
  ],
  // Arms and bore in one plane of layers.
  'tube-clip': [
    [0, 1, 0],
    [0, -1, 0],
  ],
};

describe.each(RECIPES.map(r => r.id))('%s', id => {
  test('lies as an experienced maker would lay it, and the same on screen and file triangles', () => {
    const [screen, file] = (['screen', 'file'] as const).map(f => best(id, f));
    expect(isSameDirection(screen!.pose.down, file!.pose.down)).toBe(true);
    const ways = BETTER[id] ?? [AS_DRAWN.down];
    expect(
      ways.some(w => isSameDirection(w, file!.pose.down)),
      file!.pose.down.join(),
    ).toBe(true);
    expect(file!.fits).toBe(true);
  });
});

describe('what decides', () => {
  test('a part stays as it lies where no other way is clearly better', () => {
    const now = { down: [0, 0, 1] as const, turn: 20 };
    expect(best('plate-adapter', 'screen', { now }).pose).toEqual(now);
  });
  test('a thread is never asked for supports, and the reasons are said', () => {
    const plan = best('threaded-cover', 'screen');
    expect(plan.supports.area).toBe(0);
    expect(reasonsFor(plan)[0]).toBe('no supports');
  });
  test('supports that stand on a mate are said, and cost more than those that do not', () => {
    const plans = planPoses(asked('tube-clip', demo('tube-clip', 'screen'), 'screen'));
    const upsideDown = plans.find(p => isSameDirection(p.pose.down, [0, 0, 1]))!;
    expect(upsideDown.costs.cleaning).toBeGreaterThan(5);
    expect(upsideDown.cost).toBeGreaterThan(plans[0]!.cost);
  });
  test('a load lays the layers along it', () => {
    // A bar that stands upright, pulled sideways at its top: laid down, its layers run along it.
    const mesh = box([12, 12, 60]);
    const load = { at: [6, 6, 60], held: [6, 6, 0], force: [60, 0, 0], turn: [0, 0, 0] } as const;
    const of = (loads: PlanAsked['loads']) =>
      planPoses({
        ...asked('bush', demo('bush', 'screen'), 'screen'),
        mesh,
        hull: mesh,
        mates: [],
        loads,
        strength: { along: 40, across: 20 },
        margin: 4,
      });
    const loaded = of([load]);
    expect(Math.abs(loaded[0]!.pose.down[2])).toBeLessThan(0.5);
    const upright = loaded.find(p => isSameDirection(p.pose.down, AS_DRAWN.down))!;
    expect(upright.costs.weak).toBeGreaterThan(60);
    expect(upright.weakest!.use / loaded[0]!.weakest!.use).toBeCloseTo(2, 1);
    expect(reasonsFor(upright).join()).toContain('between layers');
  });
  test('a bore whose mouth is in the first layer is told, one with a chamfer there is not', () => {
    const recipe = requireRecipe('bush');
    const as = (leadIn: number) => {
      const built = buildPart(recipe, { ...recipe.demo.parameters, leadIn }, kernels, 'screen');
      if (!built.ok) throw new Error(built.findings[0]!.message);
      const plans = planPoses(asked('bush', built.part, 'screen'));
      return plans.find(p => isSameDirection(p.pose.down, AS_DRAWN.down))!;
    };
    expect(as(0.4).mates.some(m => m.onBed)).toBe(false);
    const sharp = as(0);
    expect(sharp.mates.every(m => m.onBed)).toBe(true);
    expect(sharp.costs.again).toBeGreaterThan(as(0.4).costs.again);
    expect(reasonsFor(sharp).join()).toContain('first layer bulges');
  });
  test('the seam lies on a bore that stands upright, and is told; not on one that lies', () => {
    const plans = planPoses(asked('bush', demo('bush', 'screen'), 'screen'));
    const seamOf = (down: readonly [number, number, number]) =>
      reasonsFor(plans.find(p => isSameDirection(p.pose.down, down))!).filter(r => r.includes('seam'));
    expect(seamOf([0, 0, -1])).toHaveLength(1);
    expect(seamOf([0, 0, -1])[0]).toMatch(/^“.+” upright: .* once the ridge of the seam is off$/);
    const lying = plans.find(p => Math.abs(p.pose.down[2]) < 0.1);
    if (lying) expect(reasonsFor(lying).join()).not.toContain('seam');
  });
  test('one too long for the bed says by how much, and one that fits askew is turned', () => {
    const bar = (length: number) => {
      const mesh = box([length, 20, 8]);
      const none = { ...asked('bush', demo('bush', 'screen'), 'screen'), mesh, hull: mesh, mates: [] };
      return planPoses({ ...none, bed: { width: 210, depth: 210, height: 210 } })[0]!;
    };
    expect(bar(270)).toMatchObject({ fits: true });
    expect(bar(270).pose.turn % 90).not.toBe(0);
    expect(bar(320)).toMatchObject({ fits: false });
    expect(reasonsFor(bar(320))[0]).toContain('too large for the bed');
  });
});
