import { describe, expect, test } from 'vitest';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { readCorners } from '../shape/outline-text';
import { requireRecipe } from '../shape/recipes';
import { movablesOf } from './movable';
import { nudgesOf } from './nudges';
import { Work } from './work';

/** A profile of this outline. */
function profile(text: string): Work {
  const edit: Edit = {
    kind: 'parameter',
    partId: 'part-1',
    name: 'outline',
    expression: { text, unit: 'mm' },
  };
  const job = newJob('Plate', requireRecipe('profile-part'), FIRST_WORKSHOP);
  return new Work(applyEdit(job, edit, FIRST_WORKSHOP), FIRST_WORKSHOP, emptyHistory());
}
const edges = (text: string) =>
  movablesOf(profile(text).part('part-1')).filter(m => m.parameter === 'outline');

describe('edges of an outline that was written in numbers', () => {
  test('each can be moved outwards, by its trim, the longest first', () => {
    const found = edges('0, 0; 40, 0; 40, 25 trim 0.3; 0, 25');
    expect(found.map(m => m.name)).toEqual(['outline/2', 'outline/4', 'outline/1', 'outline/3']);
    const right = found.find(m => m.name === 'outline/3')!;
    expect(right).toMatchObject({ now: 0.3, carriesMate: false, isAngle: false });
    expect(right.label).toMatch(/, edge into corner 3$/);
    expect(right.set(1.25)).toEqual({
      name: 'outline',
      expression: { text: '0, 0; 40, 0; 40, 25 trim 1.25; 0, 25', unit: 'mm' },
    });
    // Back where it was written, it needs no word.
    expect(right.set(0).expression.text).toBe('0, 0; 40, 0; 40, 25; 0, 25');
  });
  test('those between corners that are made from sizes move by the sizes', () => {
    expect(edges('0, 0; seat_width, 0; seat_width, 25; 0, 25').map(m => m.name)).toEqual(['outline/1']);
    expect(edges('0, 0; 40, 0; 40, 25 trim seat_width - 40; 0, 25').map(m => m.name)).not.toContain(
      'outline/3',
    );
  });
  test('of a traced one only the longest forty are tried; of what is no outline none', () => {
    const round = Array.from({ length: 90 }, (_, i) => {
      const a = (2 * Math.PI * i) / 90;
      return `${(30 * Math.cos(a)).toFixed(2)}, ${(30 * Math.sin(a)).toFixed(2)}`;
    });
    expect(edges(round.join('; '))).toHaveLength(40);
    expect(edges('0, 0; 40')).toEqual([]);
  });
  test('a nudge moves one edge and nothing else of the writing', () => {
    const work = profile('0, 0; 40, 0 round 3; 40, 25; 0, 25');
    const [nudge] = nudgesOf(work, 'part-1', 'outline/2');
    expect(nudge!.by).toBe(0.4);
    const trims = readCorners(String(nudge!.parameters.outline)).map(c => c.trim);
    expect(trims).toEqual([undefined, '0.4', undefined, undefined]);
  });
});

test('numbers are among them with their bounds, by name; what is gone is none', () => {
  const all = movablesOf(profile('0, 0; 40, 0; 40, 25; 0, 25').part('part-1'));
  const thickness = all.find(m => m.name === 'thickness')!;
  expect(thickness).toMatchObject({ parameter: 'thickness', carriesMate: true, isAngle: false });
  expect(thickness.set(6.5).expression).toEqual({ text: '6.5', unit: 'mm' });
  expect(thickness.set(60).expression.text).toBe('60');
  expect(all.map(m => m.name)).not.toContain('outline/5');
});
