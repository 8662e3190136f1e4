import { describe, expect, test } from 'vitest';
import { applyEdit } from '../job/edits';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { readingsFromCsv, readingsToCsv } from './readings-csv';

const start = newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP);
let n = 0;
const making = {
  instruments: FIRST_WORKSHOP.instruments,
  now: '2026-02-02T00:00:00.000Z',
  newId: () => `id-${n++}`,
};
const take = (text: string) => readingsFromCsv(text, start, making);

describe('readings in', () => {
  test('out and in again is the same, but for how they came', () => {
    const { readings } = take(
      'dimension,reading,unit,time,instrument,source,turned,struck\nrim,31.7,mm,2026-01-01T08:00:00.000Z,Calipers,old part,120,=slipped\nbore,1 1/4,in,,,,,\n',
    );
    const job = readings.reduce((j, r) => applyEdit(j, { kind: 'add-reading', ...r }, FIRST_WORKSHOP), start);
    const csv = readingsToCsv(job, FIRST_WORKSHOP.instruments);
    expect(csv).toContain("'=slipped");
    const again = readingsFromCsv(csv, start, making);
    expect(again.problems).toEqual([]);
    const bare = (list: typeof readings) =>
      list.map(({ dimensionId, reading: { id: _, ...r } }) => ({ dimensionId, ...r }));
    expect(bare(again.readings)).toEqual(bare(readings));
    expect(readings[1]!.reading).toMatchObject({
      value: 31.75,
      unit: 'in',
      at: making.now,
      source: 'seat',
      instrumentId: null,
    });
  });

  test('semicolons, decimal commas, labels for names, a byte order mark', () => {
    const { readings, problems } = take(
      '\uFEFFLabel;Messwert\r\nRim, outside;31,72\r\n"Bore, inside";24,2\r\n',
    );
    expect(problems).toEqual([]);
    expect(readings.map(r => [r.dimensionId, r.reading.value])).toEqual([
      ['rim', 31.72],
      ['bore', 24.2],
    ]);
  });

  test('rows that cannot be understood are named by their number, the others are taken', () => {
    const { readings, problems } = take(
      'dimension,reading,unit\nrim,31.7,mm\nknob,5,mm\nrim,abc,mm\nrim,-2,mm\nrim,5,furlong\n,3,mm',
    );
    expect(readings).toHaveLength(1);
    expect(problems.map(p => p.row)).toEqual([3, 4, 5, 6, 7]);
    expect(problems[0]!.message).toContain('knob');
  });

  test('what is no table is refused with words', () => {
    expect(take('hello').problems[0]!.message).toContain('first row');
    expect(take('').problems[0]!.message).toContain('first row');
    expect(take(`dimension,reading\n${'rim,1\n'.repeat(2001)}`).problems[0]!.message).toContain('2000');
    expect(take('x'.repeat(1_000_001)).problems[0]!.message).toContain('1 MB');
  });
});
