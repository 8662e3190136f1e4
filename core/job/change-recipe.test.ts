import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import { RECIPES, requireRecipe } from '../shape/recipes';
import { Work } from '../work/work';
import { suggestedTakes } from './change-recipe';
import { fitsOf } from './document';
import { applyEdit, type Edit } from './edits';
import { emptyHistory } from './history';
import { newJob } from './new-job';
import { FIRST_WORKSHOP } from './workshop';

const edited = (job: ReturnType<typeof newJob>, ...edits: Edit[]) =>
  edits.reduce((j, e) => applyEdit(j, e, FIRST_WORKSHOP), job);
const cap = (...edits: Edit[]) => edited(newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP), ...edits);
const change = (recipe: string, takes: Record<string, string>): Edit => ({
  kind: 'change-recipe',
  partId: 'part-1',
  recipe,
  takes,
  prefix: 'r1',
});
const part = (document: ReturnType<typeof cap>) =>
  new Work(document, FIRST_WORKSHOP, emptyHistory()).part('part-1');

const suggested = (document: ReturnType<typeof cap>, recipe: string) =>
  suggestedTakes(
    document,
    document.parts[0]!,
    requireRecipe(recipe),
    id => part(document).dimensions.get(id)?.evaluation?.value,
  );

describe('the same object, another shape', () => {
  const start = () => cap(read('rim', 31.7), read('rim', 31.72), { kind: 'brief', brief: { hottestC: 50 } });

  test('a cap becomes a sleeve: its rim answers the new seat, with want and brief', () => {
    const want = {
      name: 'slide' as const,
      window: { min: 0.2, max: 0.45, unit: 'mm' as const },
      prefer: 'loose' as const,
    };
    const before = edited(start(), { kind: 'want', mateId: 'skirt', want });
    const takes = suggested(before, 'tube-clip');
    expect(Object.values(takes)).toEqual(['rim']);
    const after = edited(before, change('tube-clip', takes));
    expect(after.brief.hottestC).toBe(50);
    expect(after.dimensions.find(d => d.id === 'rim')!.readings).toHaveLength(2);
    const kept = fitsOf(after).find(m => m.id === 'skirt')!;
    expect(kept.want).toEqual(want);
    expect(part(after).ledger.mates.find(m => m.mate.id === 'skirt')!.reading.value).toBeCloseTo(31.71, 6);
    // A dimension that nobody read and no recipe asks for is dropped; when the recipe comes back it is asked for again.
    expect(after.dimensions.some(d => d.id === 'bore')).toBe(false);
    const back = edited(after, change('round-cap', { rim: 'rim' }));
    expect(part(back).ledger.mates.map(m => m.mate.id)).toEqual(['skirt']);
  });

  test('what does not suit is refused with a reason', () => {
    expect(() => edited(start(), change('round-cap', {}))).toThrow(/already/);
    expect(() => edited(start(), change('nothing', {}))).toThrow(/no recipe/);
    expect(() => edited(start(), change('bush', { seat: 'rim' }))).toThrow(/of its own kind/);
    expect(() => edited(start(), change('bush', { rim: 'rim' }))).toThrow(/does not ask/);
  });

  test('another part that goes with a surface of it is named first', () => {
    const two = edited(start(), {
      kind: 'add-part',
      id: 'part-2',
      name: 'Inner',
      recipe: 'bush',
      share: false,
    });
    const mate = fitsOf(two).find(m => m.ours.part === 'part-2' && m.side === 'outside')!;
    const joined = edited(two, {
      kind: 'mate-with',
      mateId: mate.id,
      other: { of: 'part', part: 'part-1', surface: 'skirt' },
    } as Edit);
    expect(() => edited(joined, change('bush', {}))).toThrow(/another part/);
  });

  test('from every recipe to every other: a whole job that can be worked out', () => {
    for (const from of RECIPES)
      for (const to of RECIPES) {
        if (from.id === to.id) continue;
        let job = newJob('Any', from, FIRST_WORKSHOP);
        for (const step of from.guide) {
          const size = from.demo.sizes[step.key];
          if (size !== undefined) job = edited(job, read(step.key, size));
        }
        const after = edited(job, change(to.id, suggested(job, to.id)));
        const worked = part(after);
        expect(worked.problems, `${from.id} to ${to.id}`).toEqual({});
        expect(new Set(after.mates.map(m => m.id)).size).toBe(after.mates.length);
        for (const d of job.dimensions.filter(x => x.readings.length > 0))
          expect(after.dimensions.find(x => x.id === d.id)?.readings).toEqual(d.readings);
      }
  });
});

test('a recipe that learned to ask for more asks it of older jobs too, once a choice is made', () => {
  const whole = newJob('Block', requireRecipe('tool-block'), FIRST_WORKSHOP);
  const isNew = (id: string) => id === 'tool_b' || id === 'holeB';
  const old = {
    ...whole,
    dimensions: whole.dimensions.filter(d => !isNew(d.id)),
    mates: whole.mates.filter(m => !isNew(m.id)),
  };
  const two = edited(old, {
    kind: 'parameter',
    partId: 'part-1',
    name: 'sizes',
    expression: { text: 'two', unit: 'none' },
  });
  expect(part(two).needed.map(n => n.dimension.id)).toEqual(['tool', 'tool_b']);
  const read2 = edited(two, read('tool', 12), read('tool_b', 10));
  expect(part(read2).ledger.mates.map(m => m.mate.id)).toEqual(['hole', 'holeB']);
});
