import { describe, expect, test } from 'vitest';
import { aPrint, aTry, aVersion } from '../../testing/rows';
import type { JobDocument } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory, type History } from '../job/history';
import type { Looked } from '../job/history/look';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { handOverOf } from './hand-over';
import { failedPiece, lookAgainAt, lookFor, piecesOf } from './service';
import { Work } from './work';

const SINCE = '2026-03-01T08:00:00.000Z';
const edited = (...edits: Edit[]): JobDocument =>
  edits.reduce(
    (doc, edit) => applyEdit(doc, edit, FIRST_WORKSHOP),
    newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP),
  );
const served = (ifItBreaks: 'nuisance' | 'damage' | 'injury', ...more: Edit[]) =>
  edited(
    { kind: 'brief', brief: { ifItBreaks, hottestC: 30, outdoors: true } },
    { kind: 'in-service', since: SINCE },
    ...more,
  );

/** Version 1 sat right; then these were seen, day by day. */
function history(looks: readonly [day: string, found: Looked, piece?: number][], versions = 1): History {
  const about = (id: string, at: string) => ({ id, at, voided: null });
  const signed = [
    {
      mateId: 'tall',
      name: 'Height',
      number: 'skirtDepth',
      target: { value: 12, u: 0 },
      tolerance: { min: -1, max: 1 },
      model: 12,
      pRight: 0.8,
      ledger: [],
      prior: { mean: 0, sd: 0.1 },
    },
  ];
  const made = (number: number) =>
    aVersion({
      ...about(`v${number}`, number === 1 ? '2026-02-27T00:00:00.000Z' : '2026-12-01T00:00:00.000Z'),
      number,
      materialId: 'petg',
      signed,
    });
  return {
    ...emptyHistory(),
    versions: Array.from({ length: versions }, (_, i) => made(i + 1)),
    prints: [aPrint({ ...about('p1', '2026-02-28T00:00:00.000Z'), versionId: 'v1', pieces: 2 })],
    tries: [
      aTry({
        ...about('t1', '2026-02-28T12:00:00.000Z'),
        printId: 'p1',
        mates: { tall: { off: { value: 0.2, u: 0.1, by: 'caliper' } } },
      }),
    ],
    looks: looks.map(([day, found, piece = 1], i) => ({
      ...about(`l${i}`, `${day}T08:00:00.000Z`),
      printId: 'p1',
      piece,
      found,
      where: 'at the root',
      cause: '',
      photos: [],
      by: '',
      note: '',
    })),
  };
}
const part = (document: JobDocument, past: History) =>
  new Work(document, FIRST_WORKSHOP, past).part('part-1');
const dueOn = (document: JobDocument, past: History) => lookAgainAt(part(document, past))?.slice(0, 10);

describe('looking again at what is in service', () => {
  test.each([
    ['injury', '2026-03-02'],
    ['damage', '2026-03-04'],
    ['nuisance', '2026-03-15'],
  ] as const)('the sooner the worse it would be: %s', (breaks, day) => {
    expect(dueOn(served(breaks), history([]))).toBe(day);
  });

  test('each look puts it off to the next day that is due, and after the last of them it repeats', () => {
    expect(dueOn(served('injury'), history([['2026-03-02', 'holds']]))).toBe('2026-03-08');
    expect(dueOn(served('injury'), history([['2026-03-09', 'holds']]))).toBe('2026-04-08');
    expect(dueOn(served('injury'), history([['2026-05-20', 'holds']]))).toBe('2026-06-19');
  });

  test('on another day where the maker says so, until somebody has looked', () => {
    const later = served('injury', { kind: 'look-again', at: '2026-04-01T00:00:00.000Z' });
    expect(dueOn(later, history([]))).toBe('2026-04-01');
    expect(dueOn(later, history([['2026-04-02', 'holds']]))).toBe('2026-05-02');
    const brief = applyEdit(later, { kind: 'look-again', at: null }, FIRST_WORKSHOP);
    expect(dueOn(brief, history([]))).toBe('2026-03-02');
  });

  test('not at all while nothing is in service', () => {
    expect(dueOn(edited(), history([]))).toBeUndefined();
  });

  test('what to look for goes by how it holds and what it meets', () => {
    expect(lookFor(part(served('nuisance'), history([]))).join()).toContain('sun and frost');
  });
});

describe('a piece that failed in service', () => {
  const broke = history([
    ['2026-03-02', 'holds'],
    ['2026-03-05', 'cracked'],
  ]);

  test('is not sent back: its reason and its days lead to the next version', () => {
    const { overview } = part(served('damage'), broke);
    expect(overview.state).toBe('Failed in service');
    expect(overview.next).toMatchObject({ stage: 'keep', action: 'See why it failed', waits: true });
    expect(overview.next.reason).toBe('Version 1: it has cracked after 4 days.');
    expect(overview.lookAt).toBeNull();
    const out = part(served('damage', { kind: 'in-service', since: null }), broke).overview;
    expect(out.next.action).toBe('See why it failed');
  });

  test('with a version made since, that one is printed, and the broken one is still not called right', () => {
    const mended = history([['2026-03-05', 'cracked']], 2);
    expect(failedPiece(mended, SINCE)!.mended).toBe(true);
    const { overview } = part(served('damage'), mended);
    expect(overview.next.action).not.toBe('Put it in service');
    expect(overview.next.action).not.toBe('Note how it holds');
  });

  test('of two, one cracked is a failure; the same one found whole again is none', () => {
    const two = history([
      ['2026-03-05', 'cracked', 1],
      ['2026-03-06', 'holds', 2],
    ]);
    expect(failedPiece(two, SINCE)).not.toBeNull();
    const again = history([
      ['2026-03-05', 'came-off', 1],
      ['2026-03-06', 'holds', 1],
    ]);
    expect(failedPiece(again, SINCE)).toBeNull();
  });
});

test('the hand-over sheet says what it is, what it bears and when to look again', () => {
  const sheet = handOverOf(new Work(served('damage'), FIRST_WORKSHOP, history([])));
  expect(sheet.parts[0]).toMatchObject({
    made: expect.stringMatching(/^Version 1, .*printed on 2026-02-28, 2 pieces/),
    fits: [{ name: 'Height', drawn: '12.00', sat: 'off by 0.2' }],
  });
  expect(sheet.lookAt).toBe('2026-03-04');
  expect(sheet.limits).toContain('Made for up to 30 °C.');
});

describe('how many pieces there are', () => {
  test('those of prints that sat right, and what was found of each last', () => {
    expect(piecesOf(history([]))).toEqual({ right: 2, gone: 0 });
    const cracked = history([
      ['2026-04-01', 'cracked', 2],
      ['2026-04-02', 'holds', 1],
    ]);
    expect(piecesOf(cracked)).toEqual({ right: 2, gone: 1 });
    const again = history([
      ['2026-04-01', 'worn', 1],
      ['2026-04-03', 'holds', 1],
    ]);
    expect(piecesOf(again)).toEqual({ right: 2, gone: 0 });
  });

  test('a print that was never tried is none', () => {
    expect(piecesOf({ ...history([]), tries: [] })).toEqual({ right: 0, gone: 0 });
  });
});
