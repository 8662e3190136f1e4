import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import { derivedProblem } from '../job/derived';
import { type Derived, type Dimension, JOB_SCHEMA_VERSION, type JobDocument } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { newJob } from '../job/new-job';
import { readJobDocument } from '../job/read-document';
import { dimensionsForThread } from '../job/threads';
import { FIRST_WORKSHOP, type Workshop } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { evaluateDimensions } from './dimensions';
import { describeThread, likelyThread, threadState } from './threads';

const shop: Workshop = {
  ...FIRST_WORKSHOP,
  instruments: [
    { id: 'calipers', name: 'Calipers', kind: 'calipers', resolution: 0.01, maxError: 0.03, jawLand: 0.5 },
    {
      id: 'steady',
      name: 'Steady',
      kind: 'micrometer',
      resolution: 0.001,
      maxError: 0.004,
      repeatability: 0.005,
    },
  ],
};
const start = () => newJob('Cap', requireRecipe('round-cap'), shop);
const edit = (job: JobDocument, ...edits: Edit[]) => edits.reduce((j, e) => applyEdit(j, e, shop), job);
const own = (name: string, more: Partial<Dimension> = {}): Edit => ({
  kind: 'add-dimension',
  dimension: {
    id: name,
    name,
    label: name,
    kind: 'length',
    critical: false,
    guide: null,
    note: '',
    readings: [],
    ...more,
  },
});
const stateOf = (job: JobDocument, id: string) => evaluateDimensions(job, shop).get(id)!;
const expression = (text: string): Derived => ({ by: 'expression', expression: { text, unit: 'mm' } });
const formula = (kind: string, inputs: Record<string, string | number>, counts = {}): Derived => ({
  by: 'formula',
  kind,
  inputs: Object.fromEntries(
    Object.entries(inputs).map(([k, v]) => [
      k,
      typeof v === 'string' ? { of: 'dimension' as const, id: v } : { of: 'number' as const, value: v, u: 0 },
    ]),
  ),
  counts,
});

describe('readings with their instruments', () => {
  test('a zero that is off is taken off, as it was when the reading was made', () => {
    const job = edit(start(), read('rim', 31.72, { zero: 0.02 }), read('rim', 31.7, { zero: 0 }));
    expect(stateOf(job, 'rim').evaluation!.value).toBeCloseTo(31.7, 9);
  });

  test('inside jaws in a small bore: the shortfall is said, and corrected where asked for', () => {
    // Flats of 0.5 in a bore of 3 read 2.958 (computations, section 1).
    const job = edit(start(), read('bore', 2.958));
    expect(stateOf(job, 'bore').jawShortfall).toBeCloseTo(0.042, 3);
    const corrected = edit(job, { kind: 'describe-dimension', dimensionId: 'bore', correctJaws: true });
    expect(stateOf(corrected, 'bore').evaluation!.value).toBeCloseTo(3, 3);
    expect(stateOf(corrected, 'bore').jawShortfall).toBeNull();
    // An outside has no such error, and in a large bore it is too small to mention.
    expect(stateOf(edit(start(), read('rim', 2.958)), 'rim').jawShortfall).toBeNull();
    expect(stateOf(edit(start(), read('bore', 40)), 'bore').jawShortfall).toBeNull();
  });

  test('what a table says comes with its own tolerance, no resolution', () => {
    const job = edit(start(), read('bore', 8.4, { source: 'said', u: 0.05 }));
    expect(stateOf(job, 'bore').evaluation!.standardUncertainty).toBeCloseTo(0.05, 6);
  });

  test('a steadier instrument leaves less doubt in a lone reading', () => {
    const loose = stateOf(edit(start(), read('rim', 31.7)), 'rim').evaluation!;
    const steady = stateOf(edit(start(), read('rim', 31.7, { instrumentId: 'steady' })), 'rim').evaluation!;
    expect(steady.standardUncertainty).toBeLessThan(0.2 * loose.standardUncertainty);
  });

  test('turned readings: out of round is form, not doubt', () => {
    const turned = edit(
      start(),
      read('rim', 31.6, { turn: 0 }),
      read('rim', 31.8, { turn: 120 }),
      read('rim', 31.7, { turn: 240 }),
    );
    const { evaluation } = stateOf(turned, 'rim');
    expect(evaluation!.form).toBeCloseTo(0.2, 9);
    expect(evaluation!.standardUncertainty).toBeLessThan(0.03);
    expect(evaluation!.advice.map(a => a.code)).toContain('out-of-round');
    const unturned = edit(start(), read('rim', 31.6), read('rim', 31.8), read('rim', 31.7));
    expect(stateOf(unturned, 'rim').evaluation!.standardUncertainty).toBeGreaterThan(0.05);
  });
});

describe('worked-out dimensions', () => {
  const measured = () =>
    edit(start(), own('inside'), own('outside'), read('inside', 28.4), read('outside', 44.1), own('spacing'));

  test('a formula takes value and doubt from its inputs, and shows its numbers', () => {
    const job = edit(measured(), {
      kind: 'derive',
      dimensionId: 'spacing',
      derived: formula('centre-distance', { inside: 'inside', outside: 'outside' }),
    });
    const { evaluation, worked, source } = stateOf(job, 'spacing');
    expect(evaluation!.value).toBe(36.25);
    expect(evaluation!.standardUncertainty).toBeCloseTo(
      stateOf(job, 'inside').evaluation!.standardUncertainty / Math.SQRT2,
      6,
    );
    expect(worked).toEqual({ text: '(28.4 + 44.1) / 2 = 36.25 mm' });
    expect(source).toBe('seat');
  });

  test('an expression over names, and one over the other', () => {
    const job = edit(
      measured(),
      own('half'),
      { kind: 'derive', dimensionId: 'spacing', derived: expression('outside - inside') },
      { kind: 'derive', dimensionId: 'half', derived: expression('spacing / 2 + 0.4') },
    );
    expect(stateOf(job, 'half').evaluation!.value).toBeCloseTo(8.25, 9);
    expect(stateOf(job, 'half').worked).toEqual({ text: '15.7 / 2 + 0.4 = 8.25 mm' });
    const u = stateOf(job, 'inside').evaluation!.standardUncertainty;
    expect(stateOf(job, 'half').evaluation!.standardUncertainty).toBeCloseTo(u / Math.SQRT2, 5);
  });

  test('what is not read yet is said', () => {
    const job = edit(start(), own('a'), own('b'), {
      kind: 'derive',
      dimensionId: 'b',
      derived: expression('a * 2'),
    });
    expect(stateOf(job, 'b').worked).toEqual({ problem: 'a has no value yet: measure it first.' });
  });

  test('the least trusted input is what it is worth', () => {
    const job = edit(
      start(),
      own('a'),
      own('b'),
      own('c'),
      read('a', 10),
      read('b', 12, { source: 'old-part' }),
      { kind: 'derive', dimensionId: 'c', derived: expression('a + b') },
    );
    expect(stateOf(job, 'c').source).toBe('old-part');
  });

  test('circles and unknown names are refused, the place marked', () => {
    const job = edit(measured(), {
      kind: 'derive',
      dimensionId: 'spacing',
      derived: expression('outside - inside'),
    });
    expect(() =>
      edit(job, { kind: 'derive', dimensionId: 'outside', derived: expression('inside + spacing') }),
    ).toThrow(/round in a circle/);
    const outside = job.dimensions.find(d => d.id === 'outside')!;
    expect(derivedProblem(outside, expression('inside + spacing'), job)).toMatchObject({ at: 9 });
    expect(derivedProblem(outside, expression('outside + 1'), job)).toMatchObject({ at: 0 });
    expect(derivedProblem(outside, expression('inside + gap'), job)).toEqual({
      message: 'Nothing here is called “gap”.',
      at: 9,
    });
    expect(derivedProblem(outside, expression('inside +'), job)).toMatchObject({
      message: expect.stringContaining('cannot be read'),
    });
  });

  test('a circle made by two windows at once is said, not run into', () => {
    const job = measured();
    const broken: JobDocument = {
      ...job,
      dimensions: job.dimensions.map(d =>
        d.id === 'inside'
          ? { ...d, derived: expression('outside + 1') }
          : d.id === 'outside'
            ? { ...d, derived: expression('inside + 1') }
            : d,
      ),
    };
    const states = evaluateDimensions(broken, shop);
    expect(states.get('outside')!.evaluation).toBeNull();
    expect(JSON.stringify(states.get('inside')!.worked)).toContain('problem');
  });

  test('an angle is not taken for a length', () => {
    const job = edit(measured(), own('slope', { kind: 'angle' }));
    const taper = formula('taper', { large: 60.96, small: 55.88, length: 38.1 });
    expect(() => edit(job, { kind: 'derive', dimensionId: 'spacing', derived: taper })).toThrow(/angle/);
    expect(
      stateOf(edit(job, { kind: 'derive', dimensionId: 'slope', derived: taper }), 'slope').evaluation!.value,
    ).toBeCloseTo(3.814, 3);
  });

  test('what others are made from cannot be removed, and can be read again', () => {
    const job = edit(measured(), {
      kind: 'derive',
      dimensionId: 'spacing',
      derived: expression('outside - inside'),
    });
    expect(() => edit(job, { kind: 'remove-dimension', dimensionId: 'inside' })).toThrow(/is made from it/);
    const free = edit(
      job,
      { kind: 'derive', dimensionId: 'spacing', derived: null },
      { kind: 'remove-dimension', dimensionId: 'inside' },
    );
    expect(free.dimensions.some(d => d.id === 'inside')).toBe(false);
  });

  test('a recipe’s own dimension may be worked out: a rim by a tape', () => {
    const job = edit(start(), own('around'), read('around', 101.2), {
      kind: 'derive',
      dimensionId: 'rim',
      derived: formula('diameter-from-tape', { around: 'around', tape: 0.4 }),
    });
    expect(stateOf(job, 'rim').evaluation!.value).toBeCloseTo(101.2 / Math.PI - 0.4, 9);
  });
});

describe('threads', () => {
  const thread = {
    id: 't1',
    label: 'Outlet',
    side: 'external' as const,
    diameter: 'd',
    span: 's',
    turns: 10,
    ridgeHeight: 'h',
    ridgeWidth: null,
    hand: null,
    taper: null,
    starts: 1,
    crest: null,
    standard: null,
  };
  const added = () =>
    edit(start(), { kind: 'add-thread', thread, dimensions: dimensionsForThread(thread, 'outlet') });
  const state = (job: JobDocument) => threadState(job.threads[0]!, evaluateDimensions(job, shop));

  test('from readings to the name', () => {
    const job = edit(added(), read('d', 13.08), read('s', 13.37), {
      kind: 'thread',
      threadId: 't1',
      change: { taper: false, hand: 'right' },
    });
    const s = state(job);
    expect(s.pitch!.value).toBeCloseTo(1.337, 9);
    expect(s.open).toEqual([]);
    expect(likelyThread(s)!.designation).toBe('G 1/4');
  });

  test('a core reached with the tips of the jaws names it as well, and roots that of a hole', () => {
    const core = { ...thread, measured: 'minor' as const };
    const job = edit(
      start(),
      { kind: 'add-thread', thread: core, dimensions: dimensionsForThread(core, 'outlet') },
      read('d', 11.4),
      read('s', 13.37),
    );
    expect(job.dimensions.find(d => d.id === 'd')!.label).toBe('Outlet: core between the ridges');
    expect(likelyThread(state(job))!.designation).toBe('G 1/4');
    expect(describeThread(state(job), evaluateDimensions(job, shop))).toContain('core 11.4 mm');
    const roots = { ...thread, side: 'internal' as const, measured: 'major' as const };
    const inside = edit(
      start(),
      { kind: 'add-thread', thread: roots, dimensions: dimensionsForThread(roots, 'inlet') },
      read('d', 13.25),
      read('s', 13.37),
    );
    expect(likelyThread(state(inside))!.designation).toBe('G 1/4');
  });

  test('what is open is said in order', () => {
    expect(state(added()).open).toEqual([
      'the outside over the ridges',
      'the span over several turns',
      'the hand',
      'whether it tapers',
    ]);
  });

  test('an odd one is described for the recipe', () => {
    const job = edit(added(), read('d', 108), read('s', 62), read('h', 1.4), {
      kind: 'thread',
      threadId: 't1',
      change: { hand: 'right', starts: 2, crest: 'round', taper: false },
    });
    expect(likelyThread(state(job))).toBeNull();
    expect(describeThread(state(job), evaluateDimensions(job, shop))).toBe(
      'external thread, outside 108 mm, pitch 6.2 mm, 2 starts, lead 12.4 mm, right hand, ridge 1.4 high, rounded crests',
    );
  });

  test('it goes with its dimensions, unless something is made from them', () => {
    const job = edit(added(), own('x'), {
      kind: 'derive',
      dimensionId: 'x',
      derived: expression('outlet_major + 1'),
    });
    expect(() => edit(job, { kind: 'remove-dimension', dimensionId: 's' })).toThrow(/Outlet/);
    expect(() => edit(job, { kind: 'remove-thread', threadId: 't1' })).toThrow(/“x” is made from it/);
    expect(edit(added(), { kind: 'remove-thread', threadId: 't1' })).toEqual(start());
  });
});

describe('photos and marks', () => {
  const photo = {
    id: 'p',
    sha256: 'b'.repeat(64),
    type: 'image/png' as const,
    width: 10,
    height: 10,
    label: 'from above',
  };
  test('a mark on a photo goes with the photo', () => {
    const mark = { on: 'p', from: [0.1, 0.2] as [number, number], to: [0.5, 0.2] as [number, number] };
    const job = edit(start(), { kind: 'add-photo', photo }, own('a'), {
      kind: 'describe-dimension',
      dimensionId: 'a',
      mark,
    });
    expect(job.dimensions.at(-1)!.mark).toEqual(mark);
    expect(edit(job, { kind: 'remove-photo', photoId: 'p' }).dimensions.at(-1)!.mark).toBeUndefined();
    expect(() => edit(start(), own('a'), { kind: 'describe-dimension', dimensionId: 'a', mark })).toThrow(
      /photo/,
    );
  });
});

test('a job of the first schema is read: nothing is lost, nothing is made up', () => {
  const { photos: _, threads: __, ...old } = start();
  const { goneAt: ___, toRead: ____, ...object } = old.object;
  const first = { ...old, schemaVersion: 1, object: { ...object, name: 'vent port', leaves: true } };
  const now = readJobDocument(JSON.parse(JSON.stringify(first)));
  expect(now).toMatchObject({
    schemaVersion: JOB_SCHEMA_VERSION,
    photos: [],
    threads: [],
    object: { name: 'vent port', leaves: true, goneAt: null, toRead: [] },
  });
});
