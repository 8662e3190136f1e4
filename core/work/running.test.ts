import { describe, expect, test } from 'vitest';
import { aPrint, aVersion } from '../../testing/rows';
import { emptyHistory, type History, type Start } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { endedBy, hoursBetween, runningPrints } from './running';
import { onPrinter, toPrint } from './to-print';
import { Work } from './work';

const at = (hour: number) => `2026-03-01T${String(hour).padStart(2, '0')}:00:00.000Z`;
const start = (id: string, hour: number, more: Partial<Start> = {}): Start => ({
  id,
  at: at(hour),
  voided: null,
  versionId: 'v1',
  pieces: 1,
  hand: 'drawn',
  slice: null,
  expectedHours: 2,
  ...more,
});
const history = (of: Partial<History>): History => ({
  ...emptyHistory(),
  versions: [aVersion({ id: 'v1', at: at(8) })],
  ...of,
});
const print = (of: Partial<Parameters<typeof aPrint>[0]> = {}) =>
  aPrint({ id: 'p1', at: at(12), versionId: 'v1', ...of });

describe('what is on a printer', () => {
  test('is there until a print ends it, one that failed or does not count any more too', () => {
    const two = [start('b', 10), start('a', 9)];
    const running = runningPrints(history({ starts: two }));
    expect(running.map(r => r.start.id)).toEqual(['a', 'b']);
    expect(running[0]!.ready).toBe(at(11));
    const left = (of: Parameters<typeof print>[0]) =>
      runningPrints(history({ starts: two, prints: [print(of)] })).map(r => r.start.id);
    expect(left({ start: 'a' })).toEqual(['b']);
    expect(left({ start: 'a', failed: 'ran-out' })).toEqual(['b']);
    expect(left({ start: 'a', voided: 'mistaken' })).toEqual(['b']);
    expect(left({})).toEqual(['a', 'b']);
  });
  test('is gone where it was not printed after all, or nobody knows when it will be ready', () => {
    expect(runningPrints(history({ starts: [start('a', 9, { voided: 'not printed after all' })] }))).toEqual(
      [],
    );
    expect(runningPrints(history({ starts: [start('a', 9, { expectedHours: null })] }))[0]!.ready).toBeNull();
  });
  test('a print ends the oldest of its version, its hand and its slice', () => {
    const starts = [
      start('new', 11),
      start('old', 9),
      start('other', 8, { hand: 'other' }),
      start('slice', 7, { slice: ['m', 'k'] }),
    ];
    const ends = (of: Partial<Start> = {}) =>
      endedBy(history({ starts }), { versionId: 'v1', hand: 'drawn', slice: null, ...of })?.id;
    expect(ends()).toBe('old');
    expect(ends({ hand: 'other' })).toBe('other');
    expect(ends({ slice: ['k', 'm'] })).toBe('slice');
    expect(ends({ slice: ['k'] })).toBeUndefined();
    expect(ends({ versionId: 'v2' })).toBeUndefined();
  });
  test('its hours are known with the time when it finished', () => {
    expect(hoursBetween(start('a', 9), '2026-03-01T10:30:00.000Z')).toBe(1.5);
    expect(hoursBetween(start('a', 9), null)).toBeNull();
    expect(hoursBetween(null, at(10))).toBeNull();
    // It cannot have finished before it began.
    expect(hoursBetween(start('a', 9), at(8))).toBeNull();
  });
});

test('it waits for a printer no more, and the job says that it is the printer’s turn', () => {
  const job = newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP);
  const of = (more: Partial<History>) => new Work(job, FIRST_WORKSHOP, history(more)).part('part-1');
  expect(toPrint(of({}))).toMatchObject({ pieces: 1 });
  const running = of({ starts: [start('a', 9)] });
  expect(toPrint(running)).toBeNull();
  expect(running.overview.state).toBe('Version 1 is on the printer');
  expect(onPrinter(running.history, job)).toEqual([
    {
      partId: 'part-1',
      startId: 'a',
      words: 'version 1',
      printerId: 'printer',
      pieces: 1,
      since: at(9),
      ready: at(11),
    },
  ]);
  // A slice on the printer leaves the whole part waiting.
  expect(toPrint(of({ starts: [start('a', 9, { slice: ['skirt'] })] }))).not.toBeNull();
});
