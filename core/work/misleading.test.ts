import { describe, expect, test } from 'vitest';
import { readEdit } from '../../testing/read-edit';
import { aPrint, aTry, aVersion } from '../../testing/rows';
import type { JobDocument } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory, type History, type Try, type Version } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import type { Verdict } from '../learn/verdict';
import { RECIPES, requireRecipe } from '../shape/recipes';
import { outcomeOf } from './outcome';
import type { PartWork } from './part-work';
import { Work } from './work';

const AT = '2026-11-01T10:00:00.000Z';
const job = (recipe: string, ...edits: Edit[]): JobDocument =>
  edits.reduce(
    (now, edit) => applyEdit(now, edit, FIRST_WORKSHOP),
    newJob('Tried', requireRecipe(recipe), FIRST_WORKSHOP, 'petg'),
  );
const work = (document: JobDocument, history: History = emptyHistory()): PartWork =>
  new Work(document, FIRST_WORKSHOP, history).part('part-1');
const draw = (name: string, text: string): Edit => ({
  kind: 'parameter',
  partId: 'part-1',
  name,
  expression: { text, unit: 'mm' },
});

/** A version of the part as it is drawn now, printed. */
function printed(part: PartWork): { version: Version; history: History } {
  const version = aVersion({
    id: 'v1',
    at: AT,
    partId: part.part.id,
    recipe: part.recipe.id,
    printerId: part.printer.id,
    materialId: part.material.id,
    parameters: { ...part.parameters },
    mates: part.ledger.mates.map(m => ({
      mateId: m.mate.id,
      surface: m.mate.ours.surface,
      want: m.mate.want,
      reading: { value: m.reading.value, u: m.reading.u },
      model: m.model,
      pRight: m.pRight,
      ledger: m.steps,
      prior: m.prior,
    })),
  });
  const print = aPrint({ id: 'p1', at: AT, versionId: 'v1' });
  return { version, history: { ...emptyHistory(), versions: [version], prints: [print] } };
}

const said = (history: History, ...rows: Try['mates'][]): History => ({
  ...history,
  tries: rows.map((mates, i) => aTry({ id: `t${i}`, at: AT, printId: 'p1', mates })),
});

describe('a verdict on a copied old part', () => {
  const old = job('round-cap', ...[28, 28.02, 27.98].map(v => readEdit('rim', v, { source: 'old-part' })));
  const tried = (verdict: Verdict) => {
    const before = work(old);
    const { history } = printed(before);
    const after = work(old, said(history, { skirt: { verdict } }));
    return { drawn: before.ledger.mates[0]!.model, next: after.ledger.mates[0]! };
  };
  test('“right” lets its number stay; it does not drift by the middle of the want', () => {
    const { drawn, next } = tried('right');
    expect(next.model).toBe(drawn);
    expect(next.reason).toContain('its number stays');
  });
  test.each([
    ['wont-go', 1, 0.2],
    ['tight', 1, 0.05],
    ['loose', -1, 0.05],
    ['drops-off', -1, 0.2],
  ] as const)('“%s” moves it the right way, by what a hand can tell', (verdict, way, least) => {
    const { drawn, next } = tried(verdict);
    expect((next.model - drawn) * way).toBeGreaterThan(least - 0.006);
  });
  test('tight and loose move it about as far', () => {
    const [tight, loose] = [tried('tight'), tried('loose')];
    const [up, down] = [tight.next.model - tight.drawn, loose.drawn - loose.next.model];
    expect(Math.abs(up - down)).toBeLessThan(0.05);
  });
});

describe('a number of the maker’s own', () => {
  const measured = job('round-cap', ...[31.7, 31.71, 31.69].map(v => readEdit('rim', v)));
  const own = applyEdit(measured, draw('skirtDiameter', '28'), FIRST_WORKSHOP);
  test('has its own chance, and stands in the ledger as such', () => {
    const [plain, mine] = [work(measured).ledger, work(own).ledger];
    const skirt = mine.mates[0]!;
    expect(skirt.model).toBe(28);
    expect(skirt.proposed).toBe(plain.mates[0]!.model);
    expect(skirt.pRight).toBeLessThan(0.01);
    expect(mine.pAllRight).toBeLessThan(0.01);
    expect(plain.pAllRight).toBeGreaterThan(0.3);
    expect(skirt.reason).toContain('28.00 is a number of your own');
    // The chain still adds up to what is built.
    expect(skirt.steps.at(-1)!.step).toBe('own');
    expect(skirt.steps.reduce((sum, s) => sum + s.amount, 0)).toBeCloseTo(28, 9);
  });
  test('written as an offset to the ledger’s, it follows it', () => {
    const wider = work(applyEdit(measured, draw('skirtDiameter', 'rim.model + 0.1'), FIRST_WORKSHOP)).ledger;
    expect(wider.mates[0]!.model).toBeCloseTo(wider.mates[0]!.proposed + 0.1, 6);
  });
  test('back to the ledger’s, nothing is left of it', () => {
    const back = applyEdit(
      own,
      { kind: 'parameter', partId: 'part-1', name: 'skirtDiameter', expression: null },
      FIRST_WORKSHOP,
    );
    expect(work(back).ledger.mates[0]!.steps.map(s => s.step)).not.toContain('own');
  });
  test('stays through a verdict, which says what the ledger would draw', () => {
    const { history } = printed(work(own));
    const skirt = work(own, said(history, { skirt: { verdict: 'wont-go' } })).ledger.mates[0]!;
    expect(skirt.model).toBe(28);
    expect(skirt.proposed).toBeGreaterThan(28.2);
    expect(skirt.reason).toMatch(/your own; the ledger would draw \d/);
  });
  test('a state that nothing changed in gives the same ledger', () => {
    const before = new Work(own, FIRST_WORKSHOP, emptyHistory());
    const ledger = before.part('part-1').ledger;
    const after = before.with({ document: { ...own, title: 'Other words' } });
    expect(after.part('part-1').ledger).toBe(ledger);
  });
});

describe('how sure a large number is', () => {
  const wide = (size: number, ...edits: Edit[]) =>
    work(job('wall-plate', ...[0, 0.02, -0.02].map(by => readEdit('screw', size + by)), ...edits)).ledger
      .mates[0]!;
  const seat = (size: number) =>
    work(
      job(
        'profile-part',
        ...[0, 0.02, -0.02].map(by => readEdit('seat_width', size + by)),
        readEdit('seat_height', 30),
        readEdit('seat_depth', 12),
      ),
    ).ledger;
  test('grows less with size: its axes and its plastic’s shrinkage are not known', () => {
    const [small, large] = [seat(40).mates[0]!, seat(300).mates[0]!];
    expect(large.sd).toBeGreaterThan(3 * small.sd);
    expect(large.pRight).toBeLessThan(0.6);
    expect(large.doubts[0]!.name).toBe('how a size like this shrinks');
    expect(wide(4).doubts.map(d => d.name)).not.toContain('how a size like this shrinks');
  });
  test('is not told at all of what no bed can hold', () => {
    const ledger = seat(505);
    expect(ledger.mates[0]!.tooLarge).toBe(true);
    expect(ledger.pAllRight).toBeNull();
    expect(seat(300).mates[0]!.tooLarge).toBe(false);
  });
});

describe('what a print came to', () => {
  const both = job(
    'round-cap',
    draw('style', 'both'),
    ...[31.7, 31.7, 31.7].map(v => readEdit('rim', v)),
    ...[24.2, 24.2, 24.2].map(v => readEdit('bore', v)),
    readEdit('rim_height', 14),
    { kind: 'brief', brief: { ifItBreaks: 'nuisance' } },
  );
  const { version, history } = printed(work(both));
  const outcome = (...rows: Try['mates'][]) =>
    outcomeOf(history.prints[0]!, version, said(history, ...rows))!;
  const right = { verdict: 'right' as const };

  test('one of two surfaces judged is not done: the other one is asked for', () => {
    expect(outcome({ skirt: right })).toMatchObject({ right: false, unjudged: [{ mateId: 'plug' }] });
    const { next } = work(both, said(history, { skirt: right })).overview;
    expect(next).toMatchObject({ stage: 'try', reason: 'Not judged yet: Plug in bore.' });
  });
  test('said in two tries, it is done', () => {
    expect(outcome({ skirt: right }, { plug: right }).right).toBe(true);
    expect(work(both, said(history, { skirt: right }, { plug: right })).overview.next.stage).toBe('keep');
  });
  test('right, but too hard to pull off, is not done', () => {
    expect(outcome({ skirt: right, plug: { ...right, effort: { off: 'too-hard' } } }).right).toBe(false);
    expect(outcome({ skirt: right, plug: { ...right, effort: { off: 'good' } } }).right).toBe(true);
  });
  test('the later word on a surface counts', () => {
    expect(outcome({ skirt: { verdict: 'tight' }, plug: right }, { skirt: right }).right).toBe(true);
    expect(outcome({ skirt: right, plug: right }, { skirt: { verdict: 'loose' } }).right).toBe(false);
  });
});

describe('an angle', () => {
  const angled = (instrumentId: string | null, value = 30) => {
    const add: Edit = {
      kind: 'add-dimension',
      dimension: {
        id: 'lean',
        name: 'lean',
        label: 'Lean',
        kind: 'angle',
        critical: false,
        guide: null,
        note: '',
        readings: [],
      },
    };
    return work(job('bush', add, readEdit('lean', value, { unit: 'deg', instrumentId }))).dimensions.get(
      'lean',
    )!;
  };
  test('without a protractor has the doubt of an eye, not of calipers', () => {
    for (const instrument of [null, 'calipers'])
      expect(angled(instrument).evaluation!.expandedUncertainty).toBeGreaterThan(1);
  });
});

describe('the other hand', () => {
  const plain = job('wall-plate');
  const [part] = plain.parts;
  const placed: JobDocument = {
    ...plain,
    parts: [
      {
        ...part!,
        neighbours: [
          {
            id: 'n1',
            name: 'Rail',
            form: 'box',
            width: 10,
            depth: 8,
            height: 20,
            x: 30,
            y: 0,
            z: 0,
            room: 1,
          },
        ] as never,
        loads: [
          {
            id: 'l1',
            words: 'a bag',
            kind: 'force',
            amount: 60,
            towards: 'left',
            at: 'right at 5',
            held: 'left',
          },
        ] as never,
        goesOn: { from: 'left', distance: 40 } as never,
      },
    ],
  };
  const handed = (times: number): JobDocument => ({
    ...placed,
    parts: placed.parts.map(p => ({
      ...p,
      additions: Array.from({ length: times }, (_, i) => ({
        id: `hand${i + 1}`,
        kind: 'other-hand' as const,
        name: 'Other hand',
        order: i,
        on: true,
      })),
    })),
  });
  test('has its neighbours, its loads and its way on at the other side too', () => {
    const { demands } = work(handed(1));
    expect(demands.neighbours[0]).toMatchObject({ x: 30, mirrored: true });
    expect(demands.loads[0]).toMatchObject({ towards: 'right', at: 'left at -5', held: 'right' });
    expect(demands.goesOn).toMatchObject({ from: 'right', distance: 40 });
  });
  test('made twice, it is the first hand again', () => {
    for (const times of [0, 2]) {
      const { demands } = work(handed(times));
      expect(demands.neighbours[0]).not.toHaveProperty('mirrored');
      expect(demands.goesOn).toMatchObject({ from: 'left' });
    }
  });
});

describe('what to do next, in a sentence', () => {
  test('names its dimension as it is called, whatever the recipe', () => {
    for (const recipe of RECIPES) {
      const { action } = work(job(recipe.id)).overview.next;
      const labels = recipe.guide.map(g => `Measure “${g.label}”`);
      expect([...labels, 'Say what happens if it breaks'], recipe.id).toContain(action);
    }
  });
});
