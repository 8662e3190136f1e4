import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { ZodError } from 'zod';
import { anyEdit } from '../../testing/any-edit';
import { requireRecipe } from '../shape/recipes';
import { Work } from '../work/work';
import { applyChanges, diff, invert } from './changes';
import { type JobDocument as Job, JobDocument } from './document';
import { applyEdit, Edit, wordsFor } from './edits';
import { EditRefused } from './edits/tools';
import { emptyHistory } from './history';
import { newJob } from './new-job';
import { FIRST_WORKSHOP } from './workshop';

const recipe = requireRecipe('round-cap');

const tried = (job: Job, edit: Edit): Job | null => {
  try {
    return applyEdit(job, edit, FIRST_WORKSHOP);
  } catch (error) {
    if (error instanceof EditRefused || error instanceof ZodError) return null;
    throw error;
  }
};

describe('whatever is done to a job', () => {
  test('every edit that is taken can be undone and done again exactly, and leaves a sound document', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { maxLength: 14 }), list => {
        let job = newJob('Cap', recipe, FIRST_WORKSHOP);
        const log: { before: Job; changes: ReturnType<typeof diff> }[] = [];
        for (const edit of list) {
          expect(Edit.safeParse(edit).success).toBe(true);
          const next = tried(job, edit);
          if (!next) continue;
          expect(JobDocument.parse(next)).toEqual(next);
          // As the server stores it: through JSON.
          log.push({ before: job, changes: JSON.parse(JSON.stringify(diff(job, next))) });
          job = next;
        }
        for (const { before, changes } of log.toReversed()) {
          const undone = applyChanges(job, invert(changes));
          expect(undone.ok).toBe(true);
          if (!undone.ok) return;
          expect(undone.document).toEqual(before);
          const redone = applyChanges(undone.document, changes);
          expect(redone.ok && redone.document).toEqual(job);
          job = undone.document as Job;
        }
      }),
      { seed: 31, numRuns: 200 },
    );
  });

  test('an edit undone out of turn either leaves all later edits standing or is refused', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { minLength: 2, maxLength: 8 }), list => {
        const start = newJob('Cap', recipe, FIRST_WORKSHOP);
        const [first, ...rest] = list as [Edit, ...Edit[]];
        const once = tried(start, first);
        if (!once) return;
        const changes = diff(start, once);
        const end = rest.reduce<Job>((job, edit) => tried(job, edit) ?? job, once);
        const undone = applyChanges(end, invert(changes));
        if (!undone.ok) return;
        // Every difference that is left was made by the first edit.
        const touched = new Set(changes.map(c => c.path.join('/')));
        for (const change of diff(end, undone.document)) {
          expect([...touched].some(path => change.path.join('/').startsWith(path))).toBe(true);
        }
      }),
      { seed: 32, numRuns: 300 },
    );
  });

  test('every edit has words, and every job can be worked out', { timeout: 60_000 }, () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { maxLength: 10 }), list => {
        let job = newJob('Cap', recipe, FIRST_WORKSHOP);
        for (const edit of list) {
          expect(wordsFor(edit, job).length).toBeGreaterThan(5);
          job = tried(job, edit) ?? job;
        }
        const {
          parameters,
          ledger,
          recipe: own,
        } = new Work(job, FIRST_WORKSHOP, emptyHistory()).part(job.parts[0]!.id);
        for (const spec of own.parameters) {
          const value = parameters[spec.name];
          if (spec.kind === 'length') expect(Number.isFinite(value)).toBe(true);
          else expect(value).toBeDefined();
        }
        for (const mate of [...ledger.mates, ...ledger.signed]) {
          expect(mate.steps.reduce((sum, s) => sum + s.amount, 0)).toBeCloseTo(mate.model, 9);
          expect(mate.pRight).toBeGreaterThanOrEqual(0);
          expect(mate.pRight).toBeLessThanOrEqual(1);
        }
      }),
      { seed: 33, numRuns: 60 },
    );
  });
});
