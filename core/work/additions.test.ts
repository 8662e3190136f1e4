import { describe, expect, test } from 'vitest';
import { readEdit } from '../../testing/read-edit';
import { applyChanges, diff, invert } from '../job/changes';
import { fitsOf, type JobDocument } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory } from '../job/history';
import { newJob } from '../job/new-job';
import { readJobDocument } from '../job/read-document';
import { FIRST_WORKSHOP } from '../job/workshop';
import { inOrder } from '../shape/additions/addition';
import { requireRecipe } from '../shape/recipes';
import { Work } from './work';

/** Additions as edits: stored with the job, in order; their numbers are ordinary parameters. */
const start = () => newJob('Plate', requireRecipe('wall-plate'), FIRST_WORKSHOP);
const edit = (job: JobDocument, ...edits: Edit[]) =>
  edits.reduce((next, e) => applyEdit(next, e, FIRST_WORKSHOP), job);
const add = (id: string, kind: 'shape' | 'hole' | 'words' | 'slot' | 'split'): Edit => ({
  kind: 'add-addition',
  partId: 'part-1',
  addition: { id, kind, name: `The ${kind}`, on: true },
});
const set = (name: string, text: string): Edit => ({
  kind: 'parameter',
  partId: 'part-1',
  name,
  expression: { text, unit: 'mm' },
});
const resolve = (job: JobDocument) => new Work(job, FIRST_WORKSHOP, emptyHistory()).part('part-1');
const ids = (job: JobDocument) => inOrder(job.parts[0]!.additions).map(a => a.id);

describe('a new split', () => {
  test('begins in the middle; one from before, without that choice, stays where it was', () => {
    const part = edit(start(), add('split1', 'split')).parts[0]!;
    expect(resolve(edit(start(), add('split1', 'split'))).parameters).toMatchObject({
      split1_at: 0,
      split1_from: 'middle',
    });
    const { split1_at: _, split1_from: __, ...older } = part.parameters;
    const before = { ...start(), parts: [{ ...part, parameters: older }] };
    expect(resolve(before).parameters).toMatchObject({ split1_at: 10, split1_from: 'origin' });
  });
});

test('a new row of slots runs across them; one from before runs as it did', () => {
  const part = edit(start(), add('slot1', 'slot'), set('slot1_copies', 'row')).parts[0]!;
  expect(resolve({ ...start(), parts: [part] }).parameters.slot1_runs).toBe('up');
  const { slot1_runs: _, ...older } = part.parameters;
  expect(resolve({ ...start(), parts: [{ ...part, parameters: older }] }).parameters.slot1_runs).toBe(
    'right',
  );
});

describe('the list', () => {
  test('added, moved, switched off and removed, each a step that can be undone', () => {
    let job = edit(start(), add('shape1', 'shape'), add('hole1', 'hole'), add('words1', 'words'));
    expect(ids(job)).toEqual(['shape1', 'hole1', 'words1']);
    const steps: Edit[] = [
      { kind: 'move-addition', partId: 'part-1', additionId: 'words1', by: -1 },
      { kind: 'addition', partId: 'part-1', additionId: 'hole1', change: { on: false } },
      { kind: 'addition', partId: 'part-1', additionId: 'shape1', change: { name: 'Tab' } },
      set('shape1_width', '14'),
      { kind: 'remove-addition', partId: 'part-1', additionId: 'shape1' },
    ];
    for (const step of steps) {
      const next = edit(job, step);
      const changes = diff(job, next);
      expect(changes.length, step.kind).toBeGreaterThan(0);
      const back = applyChanges(next, invert(changes));
      expect(back.ok && inOrder((back.document as JobDocument).parts[0]!.additions)).toEqual(
        inOrder(job.parts[0]!.additions),
      );
      job = next;
    }
    expect(ids(job)).toEqual(['words1', 'hole1']);
    // A removed addition leaves nothing behind; a new one is placed from the middle of its face.
    expect(Object.keys(job.parts[0]!.parameters).sort()).toEqual(['hole1_from', 'words1_from']);
  });

  test('bad ones are refused in words', () => {
    const job = edit(start(), add('shape1', 'shape'));
    expect(() => edit(job, add('shape1', 'hole'))).toThrow('already');
    expect(() =>
      edit(job, { kind: 'move-addition', partId: 'part-1', additionId: 'shape1', by: -1 }),
    ).toThrow('first');
    expect(() => edit(job, { kind: 'remove-addition', partId: 'part-1', additionId: 'hole9' })).toThrow(
      'no longer',
    );
    expect(() => edit(job, set('hole9_width', '3'))).toThrow('no parameter');
    expect(() => edit(start(), { ...add('Shape 1', 'shape') } as Edit)).toThrow();
  });

  test('its numbers may name the part’s, and the part’s may name them; a bad place is told', () => {
    const job = edit(
      start(),
      add('shape1', 'shape'),
      set('shape1_rise', 'thickness * 2'),
      set('width', 'shape1_width + 60'),
    );
    const { parameters } = resolve(job);
    expect(parameters.shape1_rise).toBe(8);
    expect(parameters.width).toBe(72);
    const bad = resolve(edit(job, set('shape1_place', 'upstairs')));
    expect(bad.problems.shape1_place).toContain('top, underside');
    const placed = resolve(edit(job, set('shape1_place', 'top at thickness')));
    expect(placed.parameters.shape1_place).toBe('top at 4');
    expect(
      resolve(edit(job, set('shape1_place', 'top at shape1_rise + '))).problems.shape1_place,
    ).toBeDefined();
  });
});

describe('an addition that must fit', () => {
  const fitted = () => {
    const job = edit(
      start(),
      add('slot1', 'slot'),
      {
        kind: 'add-dimension',
        dimension: {
          id: 'strap',
          name: 'strap',
          label: 'Strap, width',
          kind: 'outside',
          critical: true,
          guide: null,
          note: '',
          readings: [],
        },
      },
      { kind: 'addition-fits', partId: 'part-1', additionId: 'slot1', dimensionId: 'strap' },
    );
    return edit(job, readEdit('strap', 20));
  };

  test('has a mate and a chain of its own, and its number follows the reading', () => {
    const { ledger, parameters } = resolve(fitted());
    const mate = ledger.mates.find(m => m.mate.ours.surface === 'slot1')!;
    expect(mate.mate.side).toBe('inside');
    expect(mate.kind).toContain('slot');
    expect(parameters.slot1_width).toBe(mate.model);
    expect(mate.model).toBeGreaterThan(20.2);
    expect(mate.steps.reduce((sum, s) => sum + s.amount, 0)).toBeCloseTo(mate.model, 9);
    expect(resolve(fitted()).checkContext.ledger.slot1).toMatchObject({ model: mate.model, reading: 20 });
  });

  test('copied, the copy fits the same size its own way, and has a name of its own', () => {
    const copied = edit(fitted(), {
      kind: 'copy-addition',
      partId: 'part-1',
      additionId: 'slot1',
      id: 'slot2',
    });
    const before = resolve(copied);
    expect(before.ledger.mates.map(m => m.mate.name)).toEqual(
      expect.arrayContaining(['The slot', 'The slot 2']),
    );
    expect(before.parameters.slot2_width).toBe(before.parameters.slot1_width);
    const want = { ...fitsOf(copied).find(m => m.id === 'part-1-slot2')!.want, name: 'own' as const };
    const tight = edit(copied, {
      kind: 'want',
      mateId: 'part-1-slot2',
      want: { ...want, window: { min: -0.3, max: -0.1, unit: 'mm' } },
    });
    const after = resolve(tight);
    expect(after.parameters.slot1_width).toBe(before.parameters.slot1_width);
    expect(after.parameters.slot2_width).toBeLessThan(before.parameters.slot2_width as number);
  });

  test('renamed, its mate has the new name too', () => {
    const change = { name: 'Strap slot' };
    const named = edit(fitted(), { kind: 'addition', partId: 'part-1', additionId: 'slot1', change });
    expect(resolve(named).ledger.mates.at(-1)!.mate.name).toBe('Strap slot');
  });

  test('let go again, its number is its own; removed, its mate is gone and the reading stays', () => {
    const loose = edit(fitted(), {
      kind: 'addition-fits',
      partId: 'part-1',
      additionId: 'slot1',
      dimensionId: null,
    });
    expect(resolve(loose).parameters.slot1_width).toBe(4.5);
    expect(loose.mates.some(m => m.ours.surface === 'slot1')).toBe(false);
    const gone = edit(fitted(), { kind: 'remove-addition', partId: 'part-1', additionId: 'slot1' });
    expect(gone.mates.some(m => m.ours.surface === 'slot1')).toBe(false);
    expect(gone.dimensions.find(d => d.id === 'strap')!.readings).toHaveLength(1);
  });

  test('switched off it asks nothing of the ledger; words fit nothing', () => {
    const off = edit(fitted(), {
      kind: 'addition',
      partId: 'part-1',
      additionId: 'slot1',
      change: { on: false },
    });
    expect(resolve(off).ledger.mates.some(m => m.mate.ours.surface === 'slot1')).toBe(false);
    const job = edit(fitted(), add('words1', 'words'));
    expect(() =>
      edit(job, { kind: 'addition-fits', partId: 'part-1', additionId: 'words1', dimensionId: 'strap' }),
    ).toThrow('set by a reading');
  });
});

test('a job of the second schema gets parts with nothing added', () => {
  const job = start();
  const old = {
    ...job,
    schemaVersion: 2,
    parts: job.parts.map(
      ({ additions: _, binds: __, loads: ___, neighbours: ____, goesOn: _____, ...part }) => part,
    ),
  };
  expect(readJobDocument(JSON.parse(JSON.stringify(old)))).toEqual(job);
});

test('loads, neighbours and the way on are kept with the part and reach the checks', () => {
  const job = edit(
    start(),
    {
      kind: 'part-loads',
      partId: 'part-1',
      loads: [
        { id: 'l', words: 'a bag', kind: 'force', amount: 60, towards: 'underside', at: 'top', held: 'left' },
      ],
    },
    { kind: 'goes-on', partId: 'part-1', goesOn: { from: 'top', distance: 40 } },
    { kind: 'brief', brief: { ifItBreaks: 'injury' } },
  );
  const context = resolve(job).checkContext;
  expect(context.loads).toHaveLength(1);
  expect(context.goesOn).toEqual({ from: 'top', distance: 40 });
  expect(context.mayHurt).toBe(true);
  expect(context.margin.times).toBe(4);
  expect(context.strength).toMatchObject({ name: 'PLA' });
  expect(() =>
    edit(job, {
      kind: 'part-loads',
      partId: 'part-1',
      loads: [
        { id: 'l', words: '', kind: 'force', amount: -1, towards: 'underside', at: 'top', held: 'left' },
      ],
    }),
  ).toThrow();
});

test('a recipe with additions is made once for a part', () => {
  const work = new Work(edit(start(), add('hole1', 'hole')), FIRST_WORKSHOP, emptyHistory());
  const { part, recipe } = work.part('part-1');
  expect(work.recipeOf({ ...part })).toBe(recipe);
  expect(recipe.parameters.some(p => p.name === 'hole1_screw')).toBe(true);
});
