import { expect, test } from 'vitest';
import type { Moment } from './hours';
import { monthNames, monthsOf, printsUntilRight } from './months';

const print = (at: string, more: object = {}) => ({
  at,
  pieces: 1,
  failed: false,
  hours: 2,
  grams: 20,
  cost: 0.5,
  ...more,
});

test('months follow each other over the turn of a year, those without anything too', () => {
  const months = monthsOf({ prints: [], work: [], inService: [] }, monthNames('2026-02-14T10:00:00.000Z', 4));
  expect(months.map(m => m.month)).toEqual(['2025-11', '2025-12', '2026-01', '2026-02']);
  expect(months.every(m => m.pieces + m.failed + m.ownHours === 0)).toBe(true);
});

test('pieces, failed prints with what they cost, hours of both, and what was put in service', () => {
  const months = monthsOf(
    {
      prints: [
        print('2026-01-03T09:00:00.000Z', { pieces: 3 }),
        print('2026-01-31T23:59:59.000Z', { failed: true, grams: null }),
        print('2026-02-01T00:00:00.000Z'),
        // Before the months that are shown.
        print('2025-12-31T23:59:59.000Z'),
      ],
      work: [
        [
          // Two minutes for the first act, ten between the two; a night's pause does not count.
          { at: '2026-01-03T08:00:00.000Z', stage: 'measure' },
          { at: '2026-01-03T08:10:00.000Z', stage: 'fit' },
          { at: '2026-02-02T08:00:00.000Z', stage: 'keep' },
        ],
        [{ at: '2026-01-05T08:00:00.000Z', stage: 'brief' }],
      ].map(moments => ({ moments: moments as Moment[], typedHours: null })),
      inService: [
        { since: '2026-02-03T00:00:00.000Z', price: 12.5 },
        { since: '2026-02-04T00:00:00.000Z', price: null },
      ],
    },
    monthNames('2026-02-20T00:00:00.000Z', 2),
  );
  expect(months[0]).toMatchObject({ pieces: 3, failed: 1, printHours: 4, grams: 20, cost: 1, jobs: 0 });
  expect(months[0]!.ownHours).toBeCloseTo((2 + 10 + 2) / 60, 9);
  expect(months[1]).toMatchObject({ pieces: 1, failed: 0, jobs: 2, bought: 12.5 });
  expect(months[1]!.ownHours).toBeCloseTo(2 / 60, 9);
});

test('hours that were typed count instead, spread over the months as the work was', () => {
  const moments: Moment[] = [
    { at: '2025-12-30T08:00:00.000Z', stage: 'measure' },
    { at: '2026-01-05T08:00:00.000Z', stage: 'fit' },
    { at: '2026-02-05T08:00:00.000Z', stage: 'keep' },
    { at: '2026-02-05T08:04:00.000Z', stage: 'keep' },
  ];
  const names = monthNames('2026-02-20T00:00:00.000Z', 2);
  // Two minutes in each of the first two months and six in the last: of 5 hours, 3 fall in February and 1 before the
  // months that are shown.
  const months = monthsOf({ prints: [], work: [{ moments, typedHours: 5 }], inService: [] }, names);
  expect(months.map(m => Number(m.ownHours.toFixed(6)))).toEqual([1, 3]);
});

test('prints until it sat right, of jobs that came so far', () => {
  expect(
    printsUntilRight([['right'], ['tight', 'right'], ['loose', null, 'right', 'right'], ['tight'], []]),
  ).toEqual([1, 1, 1]);
  expect(printsUntilRight([])).toEqual([]);
});
