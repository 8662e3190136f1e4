import { describe, expect, test } from 'vitest';
import { readEdit } from '../../testing/read-edit';
import { requireRecipe } from '../shape/recipes';
import { applyEdit, type Edit } from './edits';
import { emptyHistory, type History } from './history';
import { newJob } from './new-job';
import { type Copy, differences, lostBy, merged, sameCopy } from './two-copies';
import { FIRST_WORKSHOP } from './workshop';

const document = newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP);
const start: Copy = { document, history: emptyHistory() };
const rim = document.dimensions[0]!.id;

function edited(copy: Copy, ...edits: Edit[]): Copy {
  return {
    ...copy,
    document: edits.reduce((doc, edit) => applyEdit(doc, edit, FIRST_WORKSHOP), copy.document),
  };
}
const said = (what: string, a: Copy, b: Copy) => differences(a, b).find(d => d.what.startsWith(what));

/** Versions carry much that merging ignores. */
const made = (id: string, number: number, at: string): History['versions'][number] =>
  ({ id, number, at, partId: document.parts[0]!.id, voided: null }) as History['versions'][number];
const withVersions = (...versions: History['versions']): Copy => ({
  ...start,
  history: { ...emptyHistory(), versions },
});

describe('two copies of one job', () => {
  const here = edited(start, readEdit(rim, 31.7, { id: 'a' }), { kind: 'rename', title: 'Cap, ours' });
  const there = edited(start, readEdit(rim, 31.9, { id: 'b' }), { kind: 'rename', title: 'Cap, theirs' });

  test('show what they do not share, side by side, and nothing else', () => {
    expect(differences(here, here)).toEqual([]);
    expect(said('Title', here, there)).toEqual({ what: 'Title', here: 'Cap, ours', there: 'Cap, theirs' });
    expect(said('Readings', here, there)).toMatchObject({ here: '31.7', there: '31.9' });
    expect(differences(here, there)).toHaveLength(2);
  });

  test('become one: every reading of both, and our word where both say something', () => {
    const one = merged(here, there) as Copy;
    expect(one.document.dimensions[0]!.readings.map(r => r.id)).toEqual(['a', 'b']);
    expect(one.document.title).toBe('Cap, ours');
    expect([lostBy(here, one), lostBy(there, one)]).toEqual([0, 0]);
    expect(sameCopy(one, merged(one, there) as Copy)).toBe(true);
  });

  test('what was made in either stands in the logbook of both, in the order of time', () => {
    const first = made('v1', 1, '2026-01-01T10:00:00.000Z');
    const ours = withVersions(first, made('v3', 3, '2026-01-03T10:00:00.000Z'));
    const theirs = withVersions(
      { ...first, voided: 'wrong seat' },
      made('v2', 2, '2026-01-02T10:00:00.000Z'),
    );
    const { history } = merged(ours, theirs) as Copy;
    expect(history.versions.map(v => [v.number, v.voided])).toEqual([
      [1, 'wrong seat'],
      [2, null],
      [3, null],
    ]);
    expect(said('Logbook, 2026-01-02', ours, theirs)).toMatchObject({ here: '–', there: 'Made version 2' });
  });

  test('cannot be one where two versions of a part would bear one number', () => {
    const ours = withVersions(made('v1', 1, '2026-01-01T10:00:00.000Z'));
    const theirs = withVersions(made('w1', 1, '2026-01-02T10:00:00.000Z'));
    expect(merged(ours, theirs)).toEqual({ clash: 'a version 1 was made here, and another one there' });
  });

  test('cannot be one where a name would mean two dimensions', () => {
    const own = (id: string): Copy => ({
      ...start,
      document: {
        ...document,
        dimensions: [
          ...document.dimensions,
          { ...document.dimensions[0]!, id, name: 'lug_gap', guide: null, readings: [] },
        ],
      },
    });
    expect(merged(own('x'), own('y'))).toMatchObject({ clash: expect.stringContaining('lug_gap') });
  });
});
