import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import type { JobDocument, Photo } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { EditRefused } from '../job/edits/tools';
import { newJob } from '../job/new-job';
import type { Trace } from '../job/traces';
import { FIRST_WORKSHOP } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { imagedSize } from './dimension';
import { evaluateDimensions } from './dimensions';
import { traceCheck } from './scan-trust';
import { standingOf } from './show';

const PHOTO: Photo = {
  id: 'p1',
  sha256: 'a'.repeat(64),
  type: 'image/jpeg',
  width: 3000,
  height: 2000,
  label: 'face',
};
const TRACE: Trace = {
  id: 'c1',
  photo: 'p1',
  label: 'face',
  by: { kind: 'sheet', paper: 'a4', middle: 'white', bars: { across: 139.6, along: 139.8 }, f35: 26 },
  thickness: 2,
  broken: 0.1,
  tolerance: 0.1,
  strokes: [],
  tidy: [],
};
const edit = (job: JobDocument, ...edits: Edit[]) =>
  edits.reduce((j, e) => applyEdit(j, e, FIRST_WORKSHOP), job);
const start = edit(
  newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP),
  { kind: 'add-photo', photo: PHOTO },
  { kind: 'add-trace', trace: TRACE },
);
const traced = (id: string, value: number, u = 0.03) =>
  read(id, value, {
    source: 'photo',
    instrumentId: null,
    u,
    traced: { trace: 'c1', of: 'Disc 1: diameter' },
  });
const rimOf = (job: JobDocument) => evaluateDimensions(job, FIRST_WORKSHOP).get('rim')!;

describe('a reading off a photo', () => {
  test('stands in the ledger with its own doubt, which has that of the sheet in it', () => {
    const state = rimOf(edit(start, traced('rim', 31.72)));
    expect(state.source).toBe('photo');
    expect(standingOf(state)).toBe('off a photo');
    expect(state.evaluation!.value).toBe(31.72);
    expect(state.evaluation!.standardUncertainty).toBeCloseTo(0.03, 6);
  });

  test('of one that is not gone by counts no more, until it is gone by again', () => {
    const refuse = (refused: string | null): Edit => ({ kind: 'trace', traceId: 'c1', change: { refused } });
    const none = edit(start, traced('rim', 31.72), refuse('taken askew'));
    expect(none.traces![0]!.refused).toBe('taken askew');
    expect(rimOf(none).evaluation).toBeNull();
    // Readings taken in other ways still count, and a label's value outranks none at all.
    const read31 = edit(none, read('rim', 31.7));
    expect(rimOf(read31)).toMatchObject({ source: 'seat', evaluation: { value: 31.7 } });
    const again = edit(none, refuse(null));
    expect(again.traces![0]).not.toHaveProperty('refused');
    expect(rimOf(again).evaluation!.value).toBe(31.72);
  });

  test('steps back where calipers read the same, and their disagreement is told', () => {
    const both = edit(start, traced('rim', 31.9), ...[31.7, 31.71, 31.69].map(v => read('rim', v)));
    expect(rimOf(both).source).toBe('seat');
    const check = traceCheck(both.traces![0]!, both, FIRST_WORKSHOP);
    expect(check.verdict).toBe('off');
    expect(check.words).toContain('large by 0.63 %');
    expect(check.factor).toBeCloseTo(31.7 / 31.9, 4);
  });

  test('is corrected once its size is settled; an angle is not', () => {
    const settled = edit(start, traced('rim', 31.9), {
      kind: 'trace',
      traceId: 'c1',
      change: { trust: { factor: 0.994, u: 0.0004 } },
    });
    expect(rimOf(settled).evaluation!.value).toBeCloseTo(31.9 * 0.994, 9);
    const angle = {
      value: 90.1,
      u: 0.1,
      unit: 'deg',
      source: 'photo',
      traced: { trace: 'c1', of: 'x' },
    } as const;
    expect(imagedSize(angle, settled.traces!)).toEqual({ value: 90.1, u: 0.1 });
  });

  test('read by another sheet, its size is checked anew', () => {
    const again = edit(
      start,
      { kind: 'trace', traceId: 'c1', change: { trust: { factor: 0.994, u: 0.0004 } } },
      {
        kind: 'trace',
        traceId: 'c1',
        change: { by: { ...TRACE.by, kind: 'sheet', paper: 'letter', middle: 'white' } },
      },
    );
    expect(again.traces![0]!.trust).toBeUndefined();
    expect(again.traces![0]!.by).toMatchObject({ paper: 'letter' });
  });
});

test('what a reading or a trace hangs on is not taken away under it', () => {
  const job = edit(start, traced('rim', 31.72));
  expect(() => edit(job, { kind: 'remove-trace', traceId: 'c1' })).toThrow(EditRefused);
  expect(() => edit(job, { kind: 'remove-photo', photoId: 'p1' })).toThrow(/remove the trace first/);
  expect(() => edit(start, { kind: 'add-trace', trace: { ...TRACE, id: 'c2', photo: 'p9' } })).toThrow(
    /not in this job/,
  );
  expect(edit(start, { kind: 'remove-trace', traceId: 'c1' }).traces).toEqual([]);
});
