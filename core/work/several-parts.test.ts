import { describe, expect, test, vi } from 'vitest';
import { readEdit } from '../../testing/read-edit';
import { proposePair } from '../fit/pair';
import type { JobDocument } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory, type History, historyOf, type Version } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { PartWork } from './part-work';
import { Work } from './work';

/** Several parts in a job, and mates between them. */
const start = () => newJob('Sleeve and bush', requireRecipe('bush'), FIRST_WORKSHOP);
const edit = (job: JobDocument, ...edits: Edit[]) =>
  edits.reduce((next, e) => applyEdit(next, e, FIRST_WORKSHOP), job);
const add = (id: string, recipe: string, share = false): Edit => ({
  kind: 'add-part',
  id,
  name: `Part ${id}`,
  recipe,
  share,
});
const resolve = (job: JobDocument, part: string, history: History = emptyHistory()) =>
  new Work(job, FIRST_WORKSHOP, history).part(part);

describe('a second part', () => {
  test('of the same recipe measures its own object, and its expressions mean its own dimensions', () => {
    const job = edit(start(), add('part-2', 'bush'), readEdit('shaft', 8), readEdit('shaft_2', 10));
    expect(job.dimensions.map(d => d.id)).toEqual(['shaft', 'seat', 'gap', 'shaft_2', 'seat_2', 'gap_2']);
    const [one, two] = [resolve(job, 'part-1'), resolve(job, 'part-2')];
    expect(one.parameters.boreDiameter).toBeCloseTo(8.55, 1);
    expect(two.parameters.boreDiameter).toBeCloseTo(10.55, 1);
    expect(two.needed.map(d => d.dimension.id)).toEqual(['shaft_2', 'seat_2', 'gap_2']);
    expect(two.ledger.mates[0]!.mate.id).toBe('part-2-bore');
  });

  test('on the same object shares what was measured', () => {
    const job = edit(start(), add('part-2', 'bush', true), readEdit('shaft', 8));
    expect(job.dimensions).toHaveLength(3);
    expect(resolve(job, 'part-2').parameters.boreDiameter).toBe(
      resolve(job, 'part-1').parameters.boreDiameter,
    );
  });

  test('goes again with its mates; what was read stays; the last part stays', () => {
    const job = edit(start(), add('part-2', 'wall-plate'), readEdit('screw', 4));
    const gone = edit(job, { kind: 'remove-part', partId: 'part-2' });
    expect(gone.parts).toHaveLength(1);
    expect(gone.mates.every(m => m.ours.part === 'part-1')).toBe(true);
    expect(gone.dimensions.some(d => d.id === 'screw')).toBe(true);
    expect(gone.dimensions.some(d => d.id === 'apart')).toBe(false);
    expect(() => edit(start(), { kind: 'remove-part', partId: 'part-1' })).toThrow('at least one part');
    expect(() => edit(start(), add('part-1', 'bush'))).toThrow('already');
    expect(() => edit(start(), add('part-3', 'no-such'))).toThrow('recipe');
  });
});

describe('a mate between two of our parts', () => {
  const joined = () =>
    edit(start(), add('part-2', 'bush'), readEdit('shaft', 8), readEdit('seat', 14), {
      kind: 'mate-with',
      mateId: 'part-2-bore',
      other: { of: 'part', part: 'part-1', surface: 'outside' },
    });

  test('stands on the other part as it will print: both sides’ compensation and doubt count', () => {
    const job = joined();
    const inner = resolve(job, 'part-1').ledger.mates.find(m => m.mate.ours.surface === 'outside')!;
    const { ledger, parameters } = resolve(job, 'part-2');
    const mate = ledger.mates.find(m => m.mate.id === 'part-2-bore')!;
    // An outside prints larger than drawn by the believed amount.
    expect(mate.reading.value).toBeCloseTo(inner.model + inner.bias.mean, 3);
    expect(mate.reading.u).toBeGreaterThan(FIRST_WORKSHOP.belief.outside.sd * 0.9);
    expect(parameters.boreDiameter).toBe(mate.model);
    // The shelf's calculation for two prints that go together gives the same female number.
    const { inside, outside, repeatability } = FIRST_WORKSHOP.belief;
    const response = (mean: number, sd: number) => ({
      offset: { mean, sd },
      scale: { mean: 1, sd: 0 },
      repeatability,
    });
    const pair = proposePair({
      size: mate.reading.value,
      want: { ...mate.window, unit: 'mm' },
      female: response(-inside.mean, inside.sd),
      male: response(outside.mean, outside.sd),
    });
    expect(Math.abs(pair.female.model - mate.model)).toBeLessThan(0.02);
  });

  test('twenty parts that each go with the two before are each worked out once', () => {
    let job = edit(start(), readEdit('shaft', 8), readEdit('seat', 14));
    const other = (part: number, surface: string) => ({ of: 'part' as const, part: `part-${part}`, surface });
    for (let k = 2; k <= 20; k++) {
      const own = `part-${k}`;
      job = edit(job, add(own, 'bush'), {
        kind: 'mate-with',
        mateId: `${own}-bore`,
        other: other(k - 1, 'outside'),
      });
      if (k > 2)
        job = edit(job, { kind: 'mate-with', mateId: `${own}-outside`, other: other(k - 2, 'bore') });
    }
    job = edit(job, readEdit('seat_2', 20));
    const made = vi.spyOn(PartWork.prototype as unknown as { makeLedger(): unknown }, 'makeLedger');
    const work = new Work(job, FIRST_WORKSHOP, emptyHistory());
    expect(work.part('part-20').ledger.mates).toHaveLength(2);
    for (const { id } of job.parts) work.part(id).overview;
    expect(made.mock.calls.length).toBeLessThanOrEqual(20);
    made.mockRestore();
  });

  test('is asked for by nobody with calipers, and follows when the other part changes', () => {
    const job = joined();
    expect(resolve(job, 'part-2').needed.map(d => d.dimension.id)).not.toContain('shaft_2');
    const bigger = edit(job, {
      kind: 'parameter',
      partId: 'part-1',
      name: 'outsideDiameter',
      expression: { text: '16', unit: 'mm' },
    });
    const [before, after] = [resolve(job, 'part-2'), resolve(bigger, 'part-2')];
    const [a, b] = [before.parameters.boreDiameter as number, after.parameters.boreDiameter as number];
    expect(b - a).toBeCloseTo(16 - (resolve(job, 'part-1').parameters.outsideDiameter as number), 1);
  });

  test('has no number while the other part has none', () => {
    const job = edit(start(), add('part-2', 'bush'), {
      kind: 'mate-with',
      mateId: 'part-2-bore',
      other: { of: 'part', part: 'part-1', surface: 'outside' },
    });
    expect(resolve(job, 'part-2').ledger.unread.map(m => m.id)).toContain('part-2-bore');
  });

  test('two holes, itself, and going round in a circle are refused in words', () => {
    const job = joined();
    const other = (part: string, surface: string): Edit => ({
      kind: 'mate-with',
      mateId: 'part-2-bore',
      other: { of: 'part', part, surface },
    });
    expect(() => edit(job, other('part-1', 'bore'))).toThrow('Both are holes');
    expect(() => edit(job, other('part-2', 'outside'))).toThrow('itself');
    expect(() => edit(job, other('part-1', 'nose'))).toThrow('no such surface');
    expect(() =>
      edit(job, {
        kind: 'mate-with',
        mateId: 'outside',
        other: { of: 'part', part: 'part-2', surface: 'bore' },
      }),
    ).toThrow('circle');
    expect(() => edit(job, { kind: 'remove-part', partId: 'part-1' })).toThrow('goes with it');
  });
});

test('each part has its own versions, prints and tries', () => {
  const version = (id: string, partId: string) => ({ id, partId }) as Version;
  const history = {
    ...emptyHistory(),
    versions: [version('a', 'part-1'), version('b', 'part-2')],
    prints: [
      { id: 'p', versionId: 'b' },
      { id: 'q', versionId: 'a' },
    ] as History['prints'],
    tries: [{ id: 't', printId: 'q' }] as History['tries'],
  };
  const own = historyOf(history, 'part-2');
  expect(own.versions.map(v => v.id)).toEqual(['b']);
  expect(own.prints.map(p => p.id)).toEqual(['p']);
  expect(own.tries).toEqual([]);
});
