import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import { passingForces } from '../fit/grip';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { Work } from './work';

const set = (name: string, text: string, unit: 'mm' | 'none' = 'mm'): Edit => ({
  kind: 'parameter',
  partId: 'part-1',
  name,
  expression: { text, unit },
});
const grips = (material: string, ...edits: Edit[]) => {
  const start = newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP, material);
  const document = edits.reduce((job, edit) => applyEdit(job, edit, FIRST_WORKSHOP), start);
  return new Work(document, FIRST_WORKSHOP, emptyHistory()).part('part-1').grips;
};
const READ = [read('rim', 31.7), read('bore', 24.2), read('groove', 30.6), read('rim_height', 14)];
const BOTH = [set('style', 'both'), set('lip', 'skirt')];

describe('several grips on one part', () => {
  test('skirt, plug and lip of a flexible cap add up', () => {
    const found = grips('tpu', ...READ, ...BOTH)!;
    expect(found.grips.map(g => g.mate.id).sort()).toEqual(['lip', 'plug', 'skirt']);
    for (const way of ['on', 'off'] as const)
      expect(found[way].high).toBeCloseTo(
        found.grips.reduce((sum, g) => sum + g[way].high, 0),
        9,
      );
    const alone = found.grips.find(g => g.mate.id === 'skirt')!;
    expect(found.on.low).toBeGreaterThan(alone.on.low);
    // A retaining slope that is steeper than the lead-in takes more force to leave than to enter.
    const lip = found.grips.find(g => g.mate.id === 'lip')!;
    expect(lip.off.low).toBeGreaterThan(lip.on.low);
  });

  test('the skirt’s share by hand: a thin ring, p = E·ε·t/r', () => {
    const skirt = grips('tpu', ...READ, ...BOTH)!.grips.find(g => g.mate.id === 'skirt')!;
    // The middle of the shelf's range for TPU 95A, √(40·150) MPa, and friction √(0.2·0.6): the length that carries it.
    const middle = Math.sqrt(skirt.on.low * skirt.on.high);
    const pressure = (Math.sqrt(40 * 150) * skirt.strain * 1.6) / 15.85;
    const length = middle / (Math.sqrt(0.2 * 0.6) * Math.PI * 31.7 * pressure);
    expect(length).toBeGreaterThan(5);
    expect(length).toBeLessThan(14);
  });

  test('one grip alone is no sum; a soft object and a solid plug are named', () => {
    expect(grips('tpu', ...READ)).toBeNull();
    const soft: Edit = {
      kind: 'want',
      mateId: 'plug',
      want: { name: 'stretch', window: { min: 0.015, max: 0.04, unit: 'strain' }, prefer: 'none' },
      soft: 'theirs',
    };
    expect(grips('tpu', ...READ, ...BOTH, soft)!.left.map(l => l.mate.id)).toEqual(['plug']);
    const solid = grips(
      'tpu',
      ...READ,
      read('inner_groove', 25),
      set('style', 'both'),
      set('lip', 'plug'),
      set('plugWall', '0'),
    )!;
    expect(solid.left.some(l => l.mate.id === 'bead')).toBe(true);
  });

  test('slots soften: fingers take less than a whole wall', () => {
    const slotted = grips('tpu', ...READ, ...BOTH, set('slots', '6', 'none'), set('slotDepth', '10'))!;
    const whole = grips('tpu', ...READ, ...BOTH)!;
    const lip = (found: typeof whole) => found.grips.find(g => g.mate.id === 'lip')!.on.high;
    expect(lip(slotted)).toBeLessThan(lip(whole) / 3);
  });
});

test('a ridge that friction holds cannot be pulled off', () => {
  const steep = { wall: 1.6, width: 2, leads: 30, holds: 80 };
  expect(passingForces(steep, 31.7, 0.03, { low: 20, high: 30 }).off.high).toBe(Infinity);
});
