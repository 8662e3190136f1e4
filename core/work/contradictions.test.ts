import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import { aPrint, aTry, aVersion } from '../../testing/rows';
import { applyEdit } from '../job/edits';
import { emptyHistory, type History } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import type { Verdict } from '../learn/verdict';
import { requireRecipe } from '../shape/recipes';
import { contradictionsIn } from './contradictions';
import { Work } from './work';

const measured = [31.7, 31.7, 31.7].reduce(
  (job, value, i) => applyEdit(job, read('rim', value, { id: `r${i}` }), FIRST_WORKSHOP),
  newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP, 'pla'),
);
const mate = () => new Work(measured, FIRST_WORKSHOP, emptyHistory()).part('part-1').ledger.mates[0]!.mate;

/** Prints of a bore of this size, each with its verdict. */
function tried(...rows: [model: number, verdict: Verdict][]): History {
  const { id: mateId, want } = mate();
  const at = (i: number) => `2026-01-0${i + 1}T00:00:00.000Z`;
  return {
    ...emptyHistory(),
    versions: rows.map(([model], i) =>
      aVersion({
        id: `v${i}`,
        at: at(i),
        number: i + 1,
        mates: [
          {
            mateId,
            surface: 'skirt',
            want,
            reading: { value: 31.7, u: 0.02 },
            model,
            pRight: 0.5,
            ledger: [],
            prior: { mean: 0.2, sd: 0.1 },
          },
        ],
      }),
    ),
    prints: rows.map((_, i) => aPrint({ id: `p${i}`, at: at(i), versionId: `v${i}`, number: i + 1 })),
    tries: rows.map(([, verdict], i) =>
      aTry({ id: `t${i}`, at: at(i), printId: `p${i}`, mates: { [mateId]: { verdict } } }),
    ),
  };
}
const found = (history: History) =>
  contradictionsIn(new Work(measured, FIRST_WORKSHOP, history).part('part-1'));

describe('verdicts that cannot both hold', () => {
  test('a wider bore that was tight, and a narrower one that was loose', () => {
    expect(found(tried([32.2, 'tight'], [32, 'loose']))).toEqual([
      expect.objectContaining({
        looser: expect.objectContaining({ version: 1, model: 32.2, verdict: 'tight', tryId: 't0' }),
        tighter: expect.objectContaining({ version: 2, model: 32, verdict: 'loose' }),
      }),
    ]);
  });
  test('not what follows from the sizes, nor what a hand or the scatter may explain', () => {
    expect(found(tried([32.2, 'loose'], [32, 'tight']))).toEqual([]);
    expect(found(tried([32.2, 'tight'], [32, 'right']))).toEqual([]);
    expect(found(tried([32.03, 'tight'], [32, 'loose']))).toEqual([]);
    expect(found(tried([32.2, 'tight'], [32.2, 'loose']))).toEqual([]);
  });
  test('of several the plainest is asked about, and none once one of the two does not count', () => {
    const history = tried([32.1, 'tight'], [32.3, 'wont-go'], [31.9, 'loose']);
    expect(found(history)[0]).toMatchObject({ looser: { version: 2 }, tighter: { version: 3 } });
    const voided = history.tries.map(t => (t.id === 't2' ? { ...t, voided: 'wrong object' } : t));
    expect(found({ ...history, tries: voided })).toEqual([]);
  });
});
