import { describe, expect, test } from 'vitest';
import { aPrint, aTry, aVersion } from '../../testing/rows';
import { fitsOf, type JobDocument as Job, JobDocument } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { EditRefused } from '../job/edits/tools';
import { counting, emptyHistory, type History, type Try } from '../job/history';
import { newJob } from '../job/new-job';
import { readJobDocument } from '../job/read-document';
import { FIRST_WORKSHOP } from '../job/workshop';
import { MARK_OF, markOf } from '../learn/verdict';
import { requireRecipe } from '../shape/recipes';
import { waysForMate } from './surer';
import { Work } from './work';

const shop = FIRST_WORKSHOP;
const fresh = (material = 'pla') => newJob('Cap', requireRecipe('round-cap'), shop, material);
let count = 0;
const reading = (value: number, source: 'seat' | 'old-part' | 'said' = 'seat') => ({
  id: `r${++count}`,
  value,
  text: String(value),
  unit: 'mm' as const,
  at: '2026-01-01T00:00:00.000Z',
  instrumentId: 'calipers',
  source,
  via: 'typed' as const,
  struck: null,
});
const apply = (job: Job, ...edits: Edit[]) => edits.reduce((now, edit) => applyEdit(now, edit, shop), job);
const read = (job: Job, dimensionId: string, ...values: number[]) =>
  apply(job, ...values.map((v): Edit => ({ kind: 'add-reading', dimensionId, reading: reading(v) })));
const set = (name: string, text: string): Edit => ({
  kind: 'parameter',
  partId: 'part-1',
  name,
  expression: { text, unit: 'mm' },
});
const resolve = (job: Job, history: History = emptyHistory()) => new Work(job, shop, history).part('part-1');
const measured = () => read(read(fresh(), 'rim', 31.7, 31.71, 31.69), 'rim_height', 14);

/** A version, a print and a try, as the server would have recorded them. */
function tried(
  job: Job,
  verdict: Try['mates'][string]['verdict'],
  model: number,
  options: { materialId?: string; voided?: string } = {},
): History {
  const at = '2026-01-02T00:00:00.000Z';
  const want = fitsOf(job).find(m => m.id === 'skirt')!.want;
  return {
    ...emptyHistory(),
    versions: [
      aVersion({
        id: 'v1',
        at,
        materialId: options.materialId ?? 'pla',
        mates: [
          {
            mateId: 'skirt',
            surface: 'skirt',
            want,
            reading: { value: 31.7, u: 0.02 },
            model,
            pRight: 0.4,
            ledger: [],
            prior: { mean: 0.22, sd: 0.14 },
          },
        ],
      }),
    ],
    prints: [aPrint({ id: 'p1', at, versionId: 'v1' })],
    tries: verdict
      ? [aTry({ id: 't1', at, voided: options.voided ?? null, printId: 'p1', mates: { skirt: { verdict } } })]
      : [],
  };
}

describe('documents', () => {
  test('a new job is sound and survives JSON', () => {
    expect(readJobDocument(JSON.parse(JSON.stringify(fresh())))).toEqual(fresh());
  });
  test('a newer schema is refused with a sentence', () => {
    expect(() => readJobDocument({ ...fresh(), schemaVersion: 99 })).toThrow('newer Sagoma');
  });
  test('300 characters are a name, 301 and none are not', () => {
    expect(JobDocument.safeParse({ ...fresh(), title: 'x'.repeat(300) }).success).toBe(true);
    expect(JobDocument.safeParse({ ...fresh(), title: 'x'.repeat(301) }).success).toBe(false);
    expect(JobDocument.safeParse({ ...fresh(), title: '   ' }).success).toBe(false);
  });
});

describe('edits', () => {
  test('readings come, are struck with a reason, and are taken back', () => {
    const job = read(fresh(), 'rim', 31.7, 37.1);
    const slip = job.dimensions[0]!.readings[1]!.id;
    const struck = apply(job, {
      kind: 'strike-reading',
      dimensionId: 'rim',
      readingId: slip,
      reason: 'a slip',
    });
    expect(resolve(struck).dimensions.get('rim')!.evaluation!.value).toBe(31.7);
    expect(
      apply(job, { kind: 'take-back-reading', dimensionId: 'rim', readingId: slip }).dimensions[0]!.readings,
    ).toHaveLength(1);
  });
  test.each([
    [{ kind: 'add-reading', dimensionId: 'lid', reading: reading(3) }, 'no longer there'],
    [{ kind: 'add-reading', dimensionId: 'rim', reading: reading(-3) }, 'above 0'],
    [{ kind: 'add-reading', dimensionId: 'rim', reading: reading(0) }, 'above 0'],
    [{ kind: 'take-back-reading', dimensionId: 'rim', readingId: 'none' }, 'no longer there'],
    [{ kind: 'remove-dimension', dimensionId: 'rim' }, 'recipe needs'],
    [
      { kind: 'parameter', partId: 'part-1', name: 'colour', expression: { text: 'red', unit: 'none' } },
      'no parameter',
    ],
    [{ kind: 'material', partId: 'part-1', materialId: 'gold' }, 'no longer in the workshop'],
    [{ kind: 'material', partId: 'part-9', materialId: 'pla' }, 'no longer there'],
    [{ kind: 'want', mateId: 'none', want: fitsOf(fresh())[0]!.want }, 'no longer there'],
  ] as [Edit, string][])('%j is refused in words', (edit, words) => {
    expect(() => apply(fresh(), edit)).toThrow(EditRefused);
    expect(() => apply(fresh(), edit)).toThrow(words);
  });
  test('1e9 is not a reading', () =>
    expect(() =>
      apply(fresh(), { kind: 'add-reading', dimensionId: 'rim', reading: reading(1e9) }),
    ).toThrow());
  test('flexible plastic turns untouched wants to stretch, and back; a touched one stays', () => {
    const flexible = apply(fresh(), { kind: 'material', partId: 'part-1', materialId: 'tpu' });
    expect(flexible.mates.find(m => m.id === 'skirt')).toMatchObject({
      soft: 'ours',
      want: { name: 'stretch' },
    });
    expect(apply(flexible, { kind: 'material', partId: 'part-1', materialId: 'pla' }).mates).toEqual(
      fresh().mates,
    );
    const own = apply(fresh(), {
      kind: 'want',
      mateId: 'skirt',
      want: { name: 'own', window: { min: 0.1, max: 0.2, unit: 'mm' }, prefer: 'loose' },
    });
    expect(apply(own, { kind: 'material', partId: 'part-1', materialId: 'tpu' }).mates[0]).toEqual(
      own.mates[0],
    );
  });
});

describe('the ledger of a job', () => {
  test('reading, allowance, compensation and lesson add up to the model number', () => {
    const { ledger } = resolve(measured(), tried(measured(), 'tight', 32.04));
    const [skirt] = ledger.mates;
    expect(skirt!.steps.map(s => s.step)).toEqual(['reading', 'allowance', 'compensation', 'lesson']);
    expect(skirt!.steps.reduce((sum, s) => sum + s.amount, 0)).toBeCloseTo(skirt!.model, 9);
    expect(skirt!.steps[3]!.amount).toBeGreaterThan(0.05);
    expect(skirt!.model).toBe(Number(skirt!.model.toFixed(2)));
  });
  test('a flexible cap is drawn smaller than the same cap in rigid plastic', () => {
    const rigid = resolve(measured()).ledger.mates[0]!;
    const flexible = resolve(apply(measured(), { kind: 'material', partId: 'part-1', materialId: 'tpu' }))
      .ledger.mates[0]!;
    expect(rigid.steps[1]!.amount).toBeGreaterThan(0);
    expect(flexible.steps[1]!.amount).toBeLessThan(-0.4);
    expect(flexible.model).toBeLessThan(rigid.model - 0.5);
  });
  test('an old part is copied without allowance, and a seat outranks it', () => {
    const old = apply(fresh(), {
      kind: 'add-reading',
      dimensionId: 'rim',
      reading: reading(32.1, 'old-part'),
    });
    expect(resolve(old).ledger.mates[0]!.steps[1]!.amount).toBeCloseTo(0, 2);
    const both = read(old, 'rim', 31.7);
    expect(resolve(both).dimensions.get('rim')!.evaluation!.value).toBe(31.7);
  });
  test('a verdict from another plastic does not carry over, nor a voided one', () => {
    const plain = resolve(measured()).ledger.mates[0]!.model;
    expect(
      resolve(measured(), tried(measured(), 'tight', 32.04, { materialId: 'tpu' })).ledger.mates[0]!.model,
    ).toBe(plain);
    expect(
      resolve(measured(), tried(measured(), 'tight', 32.04, { voided: 'wrong spool' })).ledger.mates[0]!
        .model,
    ).toBe(plain);
    expect(resolve(measured(), tried(measured(), 'tight', 32.04)).ledger.mates[0]!.model).toBeGreaterThan(
      plain,
    );
  });
  test('a verdict is about the want it was judged by, also after the want has changed', () => {
    // “Right” for snug at 32.04 shows where the print lies; wanting a slide after that asks for a larger hole.
    const history = tried(measured(), 'right', 32.04);
    const snug = resolve(measured(), history).ledger.mates[0]!;
    expect(snug.model).toBe(32.04);
    const slide = apply(measured(), {
      kind: 'want',
      mateId: 'skirt',
      want: { name: 'slide', window: { min: 0.2, max: 0.45, unit: 'mm' }, prefer: 'none' },
    });
    const moved = resolve(slide, history).ledger.mates[0]!;
    expect(moved.bias.mean).toBeCloseTo(snug.bias.mean, 4);
    expect(moved.model).toBeGreaterThan(32.04 + 0.1);
  });
  test('two tries of one print are one print: the later word counts', () => {
    const once = tried(measured(), 'tight', 32.04);
    const twice = structuredClone(once);
    twice.tries.unshift({ ...once.tries[0]!, id: 't0', mates: { skirt: { verdict: 'loose' } } });
    expect(resolve(measured(), twice).ledger.mates[0]!.model).toBe(
      resolve(measured(), once).ledger.mates[0]!.model,
    );
  });
  test('each mate has its own reason, however inside and outside mates alternate', () => {
    const both = read(apply(measured(), set('style', 'both'), set('lip', 'skirt')), 'bore', 24);
    const { mates } = resolve(read(both, 'groove', 29.4)).ledger;
    expect(mates.map(m => m.mate.id)).toEqual(['skirt', 'lip', 'plug']);
    for (const { reason, mate } of mates) expect(reason.startsWith(mate.name)).toBe(true);
  });
  test('lying on its side doubles the doubt of round surfaces', () => {
    const turned = apply(measured(), { kind: 'pose', partId: 'part-1', pose: { down: [0, -1, 0], turn: 0 } });
    expect(resolve(turned).ledger.mates[0]!.prior.sd).toBeCloseTo(0.28, 9);
    expect(resolve(turned).ledger.mates[0]!.pRight).toBeLessThan(resolve(measured()).ledger.mates[0]!.pRight);
  });
  test('an unread mate has no number and no chance', () => {
    const { ledger } = resolve(fresh());
    expect(ledger.mates).toEqual([]);
    expect(ledger.pAllRight).toBeNull();
    expect(ledger.unread.map(m => m.id)).toEqual(['skirt']);
  });
});

describe('parameters and their names', () => {
  test('defaults follow the ledger; until measured they stand on the example', () => {
    expect(resolve(fresh()).provisional.has('skirtDiameter')).toBe(true);
    const { parameters, provisional, ledger } = resolve(measured());
    expect(parameters.skirtDiameter).toBe(ledger.mates[0]!.model);
    expect(parameters.skirtDepth).toBeCloseTo(13.8, 9);
    expect(provisional.size).toBe(0);
  });
  test('own expressions over readings, models and other parameters', () => {
    const { parameters } = resolve(
      apply(
        measured(),
        set('wall', '1.2'),
        set('endThickness', 'wall * 2'),
        set('skirtDepth', 'rim_height / 2'),
        set('skirtDiameter', 'rim.model + 0.1'),
      ),
    );
    expect(parameters).toMatchObject({ endThickness: 2.4, skirtDepth: 7 });
    expect(parameters.skirtDiameter).toBeCloseTo(resolve(measured()).ledger.mates[0]!.model + 0.1, 9);
  });
  test('a circle of names is refused at the field that closes it', () => {
    const { problems } = resolve(apply(measured(), set('wall', 'endThickness'), set('endThickness', 'wall')));
    expect(Object.values(problems).join()).toContain('circle');
  });
  test.each([
    ['wall', 'lid', 'Nothing here is called'],
    ['wall', '-3', 'at least'],
    ['wall', '1e9', 'at most'],
    ['wall', '900', 'at most'],
    ['wall', '🦆', 'not a number'],
    ['endThickness', 'groove', 'measure it first'],
  ])('%s = %s is a problem in words', (name, text, words) => {
    const resolved = resolve(apply(measured(), set(name, text)));
    if (words === 'measure it first') expect(resolved.provisional.has(name)).toBe(true);
    else expect(resolved.problems[name]).toContain(words);
  });
  test('a hidden parameter’s problem is nobody’s', () => {
    expect(resolve(apply(measured(), set('plugDepth', 'lid'))).problems).toEqual({});
  });
  test('choices decide what is measured', () => {
    const keys = (job: Job) => resolve(job).needed.map(d => d.dimension.id);
    expect(keys(fresh())).toEqual(['rim', 'rim_height']);
    expect(keys(apply(fresh(), set('style', 'into')))).toEqual(['bore']);
    expect(keys(apply(fresh(), set('lip', 'skirt')))).toEqual([
      'rim',
      'rim_height',
      'groove',
      'groove_from',
      'groove_width',
    ]);
  });
});

describe('the next step', () => {
  const next = (job: Job, history: History = emptyHistory()) => resolve(job, history).overview.next;

  test('of an object that is away no further reading is asked, and none is offered to be surer', () => {
    const once = read(read(fresh(), 'rim', 31.7), 'rim_height', 14);
    expect(next(once)).toMatchObject({ stage: 'measure', key: 'rim' });
    const goneAt = '2026-01-03T00:00:00.000Z';
    const gone = apply(once, { kind: 'describe-object', leaves: true, goneAt });
    expect(next(gone).stage).not.toBe('measure');
    const offered = (job: Job) => {
      const part = resolve(job);
      return waysForMate(part.ledger.mates[0]!, part, shop).map(w => w.what);
    };
    expect(offered(once)).toContain('ladder');
    expect(offered(gone)).toEqual(offered(once).filter(w => w === 'calibrate'));
  });
  test('measure, then again, then say what breaks, then a version', () => {
    expect(next(fresh())).toMatchObject({ stage: 'measure', action: 'Measure “Rim, outside”', key: 'rim' });
    const once = read(read(fresh(), 'rim', 31.7), 'rim_height', 14);
    expect(next(once)).toMatchObject({ action: 'Measure “Rim, outside” again' });
    expect(next(measured())).toMatchObject({ stage: 'brief' });
    expect(next(apply(measured(), { kind: 'brief', brief: { ifItBreaks: 'nuisance' } }))).toMatchObject({
      stage: 'print',
      action: 'Make version 1',
    });
  });
  test('what happens if it breaks is asked again before anybody relies on it, not before every print', () => {
    expect(next(measured(), tried(measured(), 'tight', 32))).toMatchObject({ stage: 'print' });
    expect(next(measured(), tried(measured(), 'right', 32))).toMatchObject({ stage: 'brief', waits: true });
  });
  test('a slip among the readings comes before anything is printed', () => {
    expect(next(read(measured(), 'rim', 37.1))).toMatchObject({
      action: 'Measure “Rim, outside” again',
      reason: expect.stringContaining('37.1'),
    });
  });
  test('print, try, again, keep', () => {
    const job = apply(measured(), { kind: 'brief', brief: { ifItBreaks: 'nuisance' } });
    expect(next(job, { ...tried(job, undefined, 32), prints: [] })).toMatchObject({
      stage: 'print',
      action: 'Print version 1',
    });
    expect(next(job, tried(job, undefined, 32))).toMatchObject({ stage: 'try', waits: true });
    expect(next(job, tried(job, 'tight', 32))).toMatchObject({ stage: 'print', action: 'Make version 2' });
    expect(next(job, tried(job, 'right', 32))).toMatchObject({ stage: 'keep', action: 'Put it in service' });
    const served = apply(job, { kind: 'in-service', since: '2026-01-03T00:00:00.000Z' });
    expect(next(served, tried(served, 'right', 32))).toMatchObject({ action: 'Note how it holds' });
  });
  test('marks: tight outranks loose, loose outranks right', () => {
    const marks = (said: Try['mates']) =>
      markOf(Object.values(said).flatMap(m => (m.verdict ? [MARK_OF[m.verdict]] : [])));
    const row = (...verdicts: Try['mates'][string]['verdict'][]) =>
      Object.fromEntries(verdicts.map((verdict, i) => [i, { verdict }]));
    expect(marks(row('right', 'loose', 'wont-go'))).toBe('tight');
    expect(marks(row('right', 'drops-off'))).toBe('loose');
    expect(marks(row('right'))).toBe('right');
    expect(marks({})).toBeNull();
  });
  test('what hangs on a voided version does not stand', () => {
    const history = tried(fresh(), 'right', 32);
    history.versions[0]!.voided = 'wrong object';
    expect(counting(history)).toEqual(emptyHistory());
  });
});

describe('cautions', () => {
  const codes = (brief: Partial<Job['brief']>) =>
    resolve({ ...fresh(), brief: { ...fresh().brief, ...brief } }).cautions.map(f => `${f.code} ${f.level}`);
  test('nothing said, nothing cautioned', () => expect(codes({})).toEqual([]));
  test('injury stops, damage warns, water wants a test', () => {
    expect(codes({ ifItBreaks: 'injury' })).toEqual(['injury stop']);
    expect(codes({ ifItBreaks: 'damage', mustHold: ['water'] })).toEqual(['damage warn', 'tight note']);
  });
  test('heat near and above what the plastic bears', () => {
    expect(codes({ hottestC: 44 })).toEqual([]);
    expect(codes({ hottestC: 50 })).toEqual(['heat warn']);
    expect(codes({ hottestC: 60 })).toEqual(['heat stop']);
  });
});
