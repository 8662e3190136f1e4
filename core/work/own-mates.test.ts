import { describe, expect, test } from 'vitest';
import { readEdit } from '../../testing/read-edit';
import { aPrint, aRework, aTry, aVersion } from '../../testing/rows';
import type { JobDocument, Mate, SignedMate } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory, type History, type Rework } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { USUAL_SENSE } from '../learn/signed';
import { requireRecipe } from '../shape/recipes';
import { proposedChanges } from './next-version';
import { outcomeOf } from './outcome';
import { rescuesFor } from './rescue';
import { Work } from './work';

const start = newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP);
const edited = (document: JobDocument, ...edits: Edit[]): JobDocument =>
  edits.reduce((doc, edit) => applyEdit(doc, edit, FIRST_WORKSHOP), document);
const part = (document: JobDocument, history: History = emptyHistory()) =>
  new Work(document, FIRST_WORKSHOP, history).part('part-1');

const size = (id: string, kind: 'length' | 'outside' | 'angle' = 'length'): Edit => ({
  kind: 'add-dimension',
  dimension: { id, name: id, label: id, kind, critical: false, guide: null, note: '', readings: [] },
});
const height = (change: Partial<SignedMate> = {}): SignedMate => ({
  id: 'tall',
  name: 'Height over the deck',
  kind: 'length',
  ours: { of: 'part', part: 'part-1', surface: 'tall' },
  other: { of: 'object', dimension: 'room' },
  number: 'skirtDepth',
  rate: 1,
  tolerance: { min: -0.5, max: 0.1 },
  sense: USUAL_SENSE.length,
  ...change,
});
const add = (mate: Mate): Edit => ({ kind: 'add-mate', mate });
/** A cap with its readings, whose depth must be right too. */
const measured = edited(start, readEdit('rim', 31.7), readEdit('rim_height', 14), size('room'));
const judged = edited(measured, add(height()), readEdit('room', 12.4));

/** Version 1 drew this depth; its print was judged `off`. */
function tried(model: number, off: number | null, verdict: 'right' | 'tight' = 'right'): History {
  const { mates } = part(judged).ledger;
  const at = '2026-01-02T00:00:00.000Z';
  const [skirt] = mates;
  return {
    ...emptyHistory(),
    versions: [
      aVersion({
        id: 'v1',
        at,
        mates: [
          {
            mateId: skirt!.mate.id,
            surface: 'skirt',
            want: skirt!.mate.want,
            reading: { value: 31.7, u: 0.03 },
            model: skirt!.model,
            pRight: 0.5,
            ledger: [],
            prior: { mean: 0.2, sd: 0.1 },
          },
        ],
        signed: [
          {
            mateId: 'tall',
            name: 'Height over the deck',
            number: 'skirtDepth',
            target: { value: 12.4, u: 0.03 },
            tolerance: { min: -0.5, max: 0.1 },
            model,
            pRight: 0.5,
            ledger: [],
            prior: { mean: 0, sd: 0.1 },
          },
        ],
      }),
    ],
    prints: [aPrint({ id: 'p1', at, versionId: 'v1' })],
    tries: [
      aTry({
        id: 't1',
        at,
        printId: 'p1',
        mates: {
          [skirt!.mate.id]: { verdict },
          ...(off === null ? {} : { tall: { off: { value: off, u: 0.05, by: 'caliper' } } }),
        },
      }),
    ],
  };
}

describe('a length that must be right', () => {
  test('sets its number from its target and the middle of what is right', () => {
    const { ledger, parameters } = part(judged);
    const [row] = ledger.signed;
    expect(parameters.skirtDepth).toBe(row!.model);
    expect(row!.model).toBeCloseTo(12.4 - 0.2, 2);
    expect(row!.steps.reduce((sum, s) => sum + s.amount, 0)).toBeCloseTo(row!.model, 6);
    expect(ledger.pAllRight).toBeLessThan(row!.pRight);
  });

  test('is waited for until its target is read, and then is one of the dimensions that are asked for', () => {
    const unread = part(edited(measured, add(height())));
    expect(unread.ledger.unread.map(m => m.name)).toEqual(['Height over the deck']);
    expect(unread.ledger.pAllRight).toBeNull();
    expect(unread.provisional.has('skirtDepth')).toBe(true);
    expect(unread.needed.map(d => d.dimension.id)).toContain('room');
  });

  test('a number of the maker’s own stands in its ledger as such, with the chance of that number', () => {
    const own = part(
      edited(judged, {
        kind: 'parameter',
        partId: 'part-1',
        name: 'skirtDepth',
        expression: { text: '13', unit: 'mm' },
      }),
    ).ledger.signed[0]!;
    expect([own.model, own.proposed]).toEqual([13, 12.2]);
    expect(own.pRight).toBeLessThan(0.02);
    expect(own.steps.at(-1)).toMatchObject({ step: 'own', amount: expect.closeTo(0.8, 6) });
  });

  test('is not right before it is judged, nor while it is out of its tolerance', () => {
    const { overview: open } = part(judged, tried(12.2, null));
    expect(open.next.action).toBe('Say how the rest of version 1 sits');
    expect(open.next.reason).toContain('Height over the deck');
    const { overview: off, ledger } = part(judged, tried(12.2, 0.8));
    expect(off.next.action).toBe('Make version 2');
    expect(ledger.signed[0]!.model).toBeLessThan(12.2 - 0.3);
    expect(ledger.signed[0]!.reason).toContain('0.8 mm too long');
    const { overview: right, ledger: kept } = part(judged, tried(12.2, -0.15));
    expect(right.next.action).not.toBe('Make version 2');
    expect(kept.signed[0]!.model).toBe(12.2);
  });
});

describe('anything the maker says must fit', () => {
  const stem: Mate = {
    id: 'outer',
    name: 'Cap in its ring',
    kind: 'fit',
    ours: { of: 'part', part: 'part-1', surface: 'outer' },
    other: { of: 'object', dimension: 'ring' },
    side: 'outside',
    soft: 'none',
    want: { name: 'slide', window: { min: 0.2, max: 0.45, unit: 'mm' }, prefer: 'none' },
    own: { number: 'skirtDiameter', form: 'round', lying: false },
  };

  test('shares its number with what the recipe fits there, and the ledger says so', () => {
    const both = part(edited(measured, size('ring', 'outside'), readEdit('ring', 32.6), add(stem)));
    const [skirt, ring] = both.ledger.mates;
    expect(skirt!.model).toBe(ring!.model);
    expect(skirt!.reason).toContain('shares its number with “Cap in its ring”');
    expect(both.parameters.skirtDiameter).toBe(skirt!.model);
  });

  test.each([
    [height({ number: 'none' }), 'no such length'],
    [height({ kind: 'angle' }), 'cannot be an angle'],
    [height({ other: { of: 'object', dimension: 'gone' } }), 'no longer there'],
  ])('is refused where it makes no sense: %#', (mate, words) => {
    expect(() => edited(measured, add(mate))).toThrow(words);
  });

  test('an angle goes with an angle', () => {
    const withAngle = edited(measured, size('lean', 'angle'));
    expect(() => edited(withAngle, add(height({ other: { of: 'object', dimension: 'lean' } })))).toThrow(
      'cannot be an angle',
    );
  });

  test('is called otherwise, and its tolerance is changed, in one place', () => {
    const changed = edited(judged, {
      kind: 'change-mate',
      mateId: 'tall',
      name: 'Room under the lid',
      tolerance: { min: -1, max: 0 },
    });
    const [row] = part(changed).ledger.signed;
    expect(row!.mate.name).toBe('Room under the lid');
    expect(row!.model).toBeCloseTo(12.4 - 0.5, 2);
    expect(() =>
      edited(judged, { kind: 'change-mate', mateId: 'skirt', tolerance: { min: -1, max: 0 } }),
    ).toThrow('judged by a feel');
  });
});

describe('a part that stands free', () => {
  const free = edited(measured, {
    kind: 'drop-mate',
    mateId: 'skirt',
    stays: { text: '40', unit: 'mm' },
  });

  test('need not fit anything: its number stays, and its seat is no longer asked for', () => {
    const { ledger, parameters, needed, provisional } = part(free);
    expect(ledger).toMatchObject({ mates: [], pAllRight: null });
    expect(parameters.skirtDiameter).toBe(40);
    expect(provisional.has('skirtDiameter')).toBe(false);
    expect(needed.map(d => d.dimension.id)).not.toContain('rim');
  });

  test('must fit again on a word', () => {
    const again = part(edited(free, { kind: 'propose-mate', partId: 'part-1', surface: 'skirt' }));
    expect(again.ledger.mates).toHaveLength(1);
    expect(again.parameters.skirtDiameter).toBe(part(measured).parameters.skirtDiameter);
  });

  test('what goes with a surface of it must be let go first', () => {
    expect(() => edited(free, { kind: 'propose-mate', partId: 'part-1', surface: 'none' })).toThrow(
      'no such surface',
    );
  });
});

describe('what the next version would change', () => {
  const skirtAt = part(judged).ledger.mates[0]!.model;

  test('is listed with what it does to the chance, and what was right is not in it', () => {
    const changes = proposedChanges(part(judged, tried(12.2, 0.8, 'right')));
    expect(changes.map(c => c.name)).toEqual(['Height over the deck']);
    const [height] = changes;
    expect(height).toMatchObject({ was: 12.2, parameter: 'skirtDepth', unit: 'mm' });
    expect(height!.taken).toBeGreaterThan(height!.left + 0.2);
  });

  test('left as it was, it is the maker’s own number, and still stands in the list', () => {
    const left = edited(judged, {
      kind: 'parameter',
      partId: 'part-1',
      name: 'skirtDepth',
      expression: { text: '12.2', unit: 'mm' },
    });
    const [height] = proposedChanges(part(left, tried(12.2, 0.8)));
    expect(height!.built).toBe(12.2);
    expect(height!.proposed).toBeLessThan(12);
  });

  test('a verdict on one surface changes its number, and the list says so', () => {
    const changes = proposedChanges(part(judged, tried(12.2, -0.15, 'tight')));
    expect(changes.map(c => c.name)).toEqual(['Skirt over rim']);
    expect(changes[0]!.proposed).toBeGreaterThan(skirtAt);
  });
});

describe('a correction that the slicing program made besides ours', () => {
  const withPrint = (holes: number, drawn = 0): History => {
    const history = tried(12.2, -0.15, 'right');
    const [version] = history.versions;
    const mates = version!.mates.map(m => ({ ...m, model: m.model + drawn }));
    return {
      ...history,
      versions: [{ ...version!, mates }],
      prints: history.prints.map(p => ({ ...p, sliced: { holes } })),
    };
  };
  const modelAfter = (history: History) => part(judged, history).ledger.mates[0]!.model;
  test('is taken out of what the print teaches: the next number needs none', () => {
    const [version] = withPrint(0).versions;
    // It sat right with holes made 0.2 larger by the slicing program: then 0.2 more must be drawn.
    expect(modelAfter(withPrint(0.2))).toBeCloseTo(modelAfter(withPrint(0, 0.2)), 9);
    expect(modelAfter(withPrint(0.2))).toBeGreaterThan(version!.mates[0]!.model + 0.1);
    expect(modelAfter(withPrint(0))).toBeCloseTo(version!.mates[0]!.model, 2);
  });
  test('of outsides says nothing of a hole', () => {
    const history = withPrint(0);
    const other = { ...history, prints: history.prints.map(p => ({ ...p, sliced: { outsides: 0.2 } })) };
    expect(modelAfter(other)).toBe(modelAfter(history));
  });
});

describe('a print that misses may be saved by hand', () => {
  const saved = (verdict: 'right' | 'tight') => {
    const history = tried(12.2, 0, verdict);
    const work = part(judged, history);
    return rescuesFor(
      outcomeOf(history.prints[0]!, history.versions[0]!, history)!,
      { version: history.versions[0]!, print: history.prints[0]! },
      work,
    );
  };
  test('with how much, and its caution: a tight bore is reamed by what it misses the middle by', () => {
    const found = saved('tight');
    const ream = found.find(r => r.how === 'ream')!;
    expect(ream.amount).toBeGreaterThan(0.07);
    expect(ream.amount).toBeLessThan(0.4);
    expect(ream.words).toMatch(/0\.\d+ mm across, 0\.\d+ per side/);
    expect(ream.caution).toContain('vice');
  });
  test('not where it sits right', () => {
    expect(saved('right')).toEqual([]);
  });
});

describe('what was worked on by hand is kept apart from the try', () => {
  const tight = tried(12.2, 0, 'tight');
  const printId = tight.prints[0]!.id;
  const mateId = tight.versions[0]!.mates[0]!.mateId;
  const worked = (...rows: Partial<Rework>[]): History => ({
    ...tight,
    reworks: rows.map((row, i) =>
      aRework({ id: `w${i}`, at: '2026-01-03T00:00:00.000Z', printId, mateId, ...row }),
    ),
  });
  const outcome = (history: History) => outcomeOf(history.prints[0]!, history.versions[0]!, history)!;
  const model = (history: History) => part(judged, history).ledger.mates[0]!.model;

  test('the print stays tight, and its piece may be used once it sits', () => {
    expect(outcome(tight)).toMatchObject({ right: false, saved: false });
    expect(outcome(worked({}))).toMatchObject({
      right: false,
      saved: true,
      marks: expect.arrayContaining(['tight']),
    });
    expect(outcome(worked({ after: 'tight' })).saved).toBe(false);
    const { overview } = new Work(
      edited(judged, { kind: 'brief', brief: { ifItBreaks: 'nuisance' } }),
      FIRST_WORKSHOP,
      worked({}),
    );
    expect(overview.next).toMatchObject({
      stage: 'keep',
      reason: 'Version 1 sits right after work by hand.',
    });
    expect(new Work(judged, FIRST_WORKSHOP, tight).overview.next.action).toContain('Make version 2');
  });

  test('how much it took says how far off it was: the next number follows it', () => {
    const drawn = tight.versions[0]!.mates[0]!.model;
    const [little, much] = [model(worked({ amount: 0.15 })), model(worked({ amount: 0.5 }))];
    expect(much).toBeGreaterThan(little + 0.1);
    // Half a millimetre too small for a bore that was drawn for the middle of its window.
    expect(much - drawn).toBeGreaterThan(0.3);
    expect(much - drawn).toBeLessThan(0.65);
    // Two goes are as good as one.
    const twice = worked({ amount: 0.2, after: 'tight' }, { amount: 0.3 });
    expect(Math.abs(model(twice) - much)).toBeLessThan(0.05);
  });

  test('nobody measured it, it does not sit yet, or it does not count: then it teaches nothing', () => {
    for (const rows of [{ amount: null }, { after: 'tight' as const }])
      expect(model(worked(rows))).toBe(model(tight));
    expect(model(worked({ voided: 'another print' }))).toBe(model(tight));
  });
});

describe('a draft in another plastic', () => {
  const flexible = edited(judged, { kind: 'material', partId: 'part-1', materialId: 'tpu' });
  const ledger = (document: JobDocument, history: History = emptyHistory()) =>
    part(document, history).ledger.mates[0]!;
  const made = (verdict: 'right' | 'tight'): History => {
    const history = tried(12.2, 0, verdict);
    return {
      ...history,
      versions: history.versions.map(v => ({ ...v, materialId: ledger(judged) && part(judged).material.id })),
    };
  };
  test('says of the object as much in this one, and that it does', () => {
    const fresh = ledger(flexible);
    const after = ledger(flexible, made('tight'));
    expect(fresh.reason).toContain('not tried yet');
    expect(after.reason).toMatch(/not tried this way yet\. What PLA taught of the object carries over/);
    expect(after.bias.mean).toBeGreaterThan(fresh.bias.mean);
    expect(after.tries).toBe(0);
    // It was tried in another plastic: the belief about the printer stays as before.
    expect(part(flexible, made('tight')).ledger.learned).toEqual([]);
  });
  test('that sat right leaves the reading as it is', () => {
    const [fresh, after] = [ledger(flexible), ledger(flexible, made('right'))];
    expect(Math.abs(after.bias.mean - fresh.bias.mean)).toBeLessThan(0.03);
    expect(after.bias.sd).toBeLessThan(fresh.bias.sd + 2e-3);
  });
});
