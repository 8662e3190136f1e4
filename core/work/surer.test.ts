import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import { fitsOf, type JobDocument } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory, type History, type TryMate } from '../job/history';
import { newJob } from '../job/new-job';
import { type Calibration, FIRST_WORKSHOP, type Workshop } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { chanceIf } from './ledger';
import { gainsOf, Printers } from './printers';
import { waysToBeSurer } from './surer';
import { Work } from './work';

const recipe = requireRecipe('round-cap');
const PRINTER = FIRST_WORKSHOP.printers[0]!;
const job = (materialId: string, ...edits: Edit[]): JobDocument =>
  edits.reduce((j, e) => applyEdit(j, e, FIRST_WORKSHOP), newJob('Cap', recipe, FIRST_WORKSHOP, materialId));
const skirt = (document: JobDocument, workshop: Workshop = FIRST_WORKSHOP) =>
  new Work(document, workshop, emptyHistory()).part('part-1').ledger.mates.find(m => m.mate.id === 'skirt')!;
const measured = job('petg', read('rim', 31.7), read('rim', 31.72), read('rim', 31.69));

const calibration: Calibration = {
  id: 'c',
  printerId: 'printer',
  materialId: 'petg',
  at: '2026-11-01T00:00:00.000Z',
  note: '',
  rows: [8, 12, 20, 32].map(drawn => ({ kind: 'hole' as const, drawn, printed: 0.998 * drawn - 0.2 })),
};
const calibrated = { ...FIRST_WORKSHOP, calibrations: [calibration] };

describe('what would make the first print surer', () => {
  test('a shaky reading is read again first; an uncalibrated printer is worth a piece', () => {
    const shaky = job('petg', read('rim', 31.6), read('rim', 31.8));
    const ways = waysToBeSurer(skirt(shaky), { spread: 0.141, count: 2 }, FIRST_WORKSHOP, PRINTER);
    // Two readings that differ: their scatter is shown, and another reading costs a minute.
    expect(ways.map(w => w.what).toSorted()).toEqual(['calibrate', 'ladder', 'read-again']);
    expect(ways.find(w => w.what === 'read-again')!.minutes).toBeLessThan(2);
    const sure = waysToBeSurer(skirt(measured), { spread: 0.02, count: 3 }, FIRST_WORKSHOP, PRINTER);
    expect(sure.map(w => w.what)).toEqual(['ladder', 'calibrate']);
    expect(sure[1]!.pRight).toBeGreaterThan(skirt(measured).pRight + 0.2);
  });
  test('what it promises of a piece is about what a piece then gives', () => {
    const way = waysToBeSurer(skirt(measured), { spread: 0.02, count: 3 }, FIRST_WORKSHOP, PRINTER).find(
      w => w.what === 'calibrate',
    );
    expect(Math.abs(way!.pRight - skirt(measured, calibrated).pRight)).toBeLessThan(0.12);
  });
  test('a calibrated printer and good readings leave at most a ladder to offer', () => {
    const ledger = skirt(measured, calibrated);
    const left = waysToBeSurer(ledger, { spread: 0.02, count: 3 }, calibrated, PRINTER);
    expect(left.map(w => w.what).filter(w => w !== 'ladder')).toEqual([]);
  });
});

describe('what if', () => {
  test('the number as it is gives what the ledger says; any other is no better', () => {
    const ledger = skirt(measured);
    expect(chanceIf(ledger, {})).toBeCloseTo(ledger.pRight, 9);
    for (const by of [-0.2, -0.05, 0.05, 0.2])
      expect(chanceIf(ledger, { model: ledger.model + by })).toBeLessThan(ledger.pRight + 1e-3);
    expect(chanceIf(ledger, { window: { min: -1, max: 1 } })).toBeGreaterThan(0.99);
  });
});

describe('a calibration and size', () => {
  const two = job(
    'petg',
    { kind: 'parameter', partId: 'part-1', name: 'lip', expression: { text: 'skirt', unit: 'none' } },
    read('rim', 60),
    read('groove', 20),
  );
  test('mates of different sizes each start from their own size, and the chain adds up', () => {
    const { mates } = new Work(two, calibrated, emptyHistory()).part('part-1').ledger;
    const compensation = (id: string) =>
      mates.find(m => m.mate.id === id)!.steps.find(s => s.step === 'compensation')!.amount;
    // 0.002 of 40 mm more on the larger one, drawn towards a scale of 1 by the belief about printers.
    const more = compensation('skirt') - compensation('lip');
    expect(more).toBeGreaterThan(0.04);
    expect(more).toBeLessThan(0.085);
    for (const m of mates)
      expect(
        m.steps.reduce((sum, s) => sum + s.amount, 0),
        m.mate.id,
      ).toBeCloseTo(m.model, 9);
  });
  test('another nozzle is another printer', () => {
    const other = { ...calibrated, calibrations: [{ ...calibration, nozzle: 0.6 }] };
    expect(skirt(measured, other).calibration).toBeNull();
  });
  test('slots stand in for holes, with more doubt; settings that correct sizes start at nothing', () => {
    const part = { printerId: 'printer', materialId: 'petg' };
    const slots: Calibration = { ...calibration, rows: calibration.rows.map(r => ({ ...r, kind: 'slot' })) };
    const by = (c: Calibration) =>
      new Printers({ ...FIRST_WORKSHOP, calibrations: [c] }).belief(part, 'inside', 'hole', 20);
    expect(by(slots).mean).toBeCloseTo(by(calibration).mean, 9);
    expect(by(slots).sd).toBeGreaterThan(by(calibration).sd);
    const said = by({ ...calibration, rows: [], compensates: true });
    expect(said).toMatchObject({ mean: 0, calibration: { id: 'c' } });
    // When it is read with those settings on, the readings count.
    expect(by({ ...calibration, compensates: true }).mean).toBeCloseTo(by(calibration).mean, 9);
  });
  test('every example fit gains by it', () => {
    const both: Calibration = {
      ...calibration,
      rows: [
        ...calibration.rows,
        ...[6, 12, 20].map(drawn => ({ kind: 'peg' as const, drawn, printed: drawn + 0.1 })),
      ],
    };
    for (const gain of gainsOf(both, FIRST_WORKSHOP))
      expect(gain.after, gain.words).toBeGreaterThan(gain.before);
    expect(new Printers({ ...FIRST_WORKSHOP, calibrations: [] }).scatter(calibration)).toBe(0.04);
  });
});

describe('a ladder', () => {
  const ladder: History['ladders'][number] = {
    id: 'l',
    at: '2026-11-01T00:00:00.000Z',
    voided: null,
    mateId: 'skirt',
    partId: 'part-1',
    printerId: 'printer',
    materialId: 'petg',
    want: fitsOf(measured).find(m => m.id === 'skirt')!.want,
    sizes: [31.85, 31.97, 32.09, 32.21, 32.33],
  };
  const said = (
    verdicts: History['ladderTries'][number]['verdicts'],
    change: Partial<typeof ladder> = {},
  ) => {
    const history: History = {
      ...emptyHistory(),
      ladders: [{ ...ladder, ...change }],
      ladderTries: [{ id: 't', at: ladder.at, voided: null, ladderId: 'l', verdicts }],
    };
    return new Work(measured, FIRST_WORKSHOP, history)
      .part('part-1')
      .ledger.mates.find(m => m.mate.id === 'skirt')!;
  };
  test('the ring that sat right is about the number, and the next print is surer', () => {
    const after = said(['wont-go', 'tight', 'tight', 'right', 'loose']);
    expect(Math.abs(after.model - 32.21)).toBeLessThan(0.05);
    expect(after.pRight).toBeGreaterThan(skirt(measured).pRight + 0.3);
    expect(after).toMatchObject({ tries: 0, laddered: true });
    expect(after.reason).toContain('the ladder was tried');
    expect(waysToBeSurer(after, { spread: 0.02, count: 3 }, FIRST_WORKSHOP, PRINTER)).toEqual([]);
  });
  test('what it promised is about what it gives', () => {
    const way = waysToBeSurer(skirt(measured), { spread: 0.02, count: 3 }, FIRST_WORKSHOP, PRINTER).find(
      w => w.what === 'ladder',
    )!;
    expect(Math.abs(way.pRight - said(['wont-go', 'tight', 'tight', 'right', 'loose']).pRight)).toBeLessThan(
      0.15,
    );
  });
  test('skipped rings, another plastic and a voided ladder say nothing', () => {
    const untouched = skirt(measured).model;
    expect(said([null, null, null, null, null]).model).toBe(untouched);
    expect(said(['tight', 'tight', 'tight', 'tight', 'tight'], { materialId: 'pla' }).model).toBe(untouched);
    expect(said(['tight', 'tight', 'tight', 'tight', 'tight'], { voided: 'no' }).model).toBe(untouched);
  });
});

describe('effort apart from size', () => {
  const soft = job('tpu', read('rim', 31.7));
  const advised = (said: TryMate, document = soft) => {
    const history = {
      ...emptyHistory(),
      versions: [{ id: 'v', partId: 'part-1', number: 1, voided: null, mates: [], signed: [] }],
      prints: [{ id: 'p', versionId: 'v', voided: null, failed: null }],
      tries: [
        {
          id: 't',
          printId: 'p',
          voided: null,
          at: '2026-11-01T00:00:00.000Z',
          note: '',
          mates: { skirt: said },
          happened: [],
        },
      ],
    } as Partial<Record<keyof History, unknown>> as History;
    return new Work(document, FIRST_WORKSHOP, history).part('part-1').effortAdvice;
  };
  test('too hard all over: a softer wall, the diameter stays', () => {
    const [advice] = advised({ verdict: 'right', effort: { on: 'too-hard', off: 'too-hard' } });
    expect(advice!.words).toContain('The diameter stays');
    expect(advice!.remedy).toMatchObject({ parameter: 'wall', text: '1.2' });
  });
  test('hard to start only: a longer entry; slack at home: a firmer wall', () => {
    expect(advised({ verdict: 'right', effort: { on: 'too-hard', home: 'good' } })[0]!.remedy).toMatchObject({
      parameter: 'leadIn',
      text: '1.2',
    });
    expect(advised({ effort: { home: 'too-easy' } })[0]!.remedy).toMatchObject({
      parameter: 'wall',
      text: '2.15',
    });
    expect(advised({ verdict: 'right', effort: { off: 'too-easy' } })[0]!.words).toContain(
      'comes off too easily',
    );
  });
  test('where the size was wrong, size comes first; where all is good, nothing is said', () => {
    expect(advised({ verdict: 'tight', effort: { on: 'too-hard' } })).toEqual([]);
    expect(advised({ verdict: 'right', effort: { on: 'good', off: 'good', home: 'good' } })).toEqual([]);
  });
});

describe('bonded mates', () => {
  const glued = (materialId: string, forceN: number | null) => {
    const want = {
      name: 'glue' as const,
      window: { min: 0.1, max: 0.3, unit: 'mm' as const },
      prefer: 'none' as const,
    };
    const document = job(
      materialId,
      read('rim', 31.7),
      { kind: 'want', mateId: 'skirt', want },
      {
        kind: 'brief',
        brief: { loads: [{ id: 'l', words: 'pulled', forceN, direction: 'up' }] },
      },
    );
    const resolved = new Work(document, FIRST_WORKSHOP, emptyHistory()).part('part-1');
    const ledger = resolved.ledger.mates.find(m => m.mate.id === 'skirt')!;
    return resolved.effectsOf(ledger);
  };
  test('area and what it may carry; a load beyond that stops', () => {
    const [joint, carries] = glued('pla', 100);
    expect(joint).toMatchObject({ label: 'joint of', level: 'ok' });
    expect(carries!.level).toBe('ok');
    expect(glued('pla', 100_000)[1]!.level).toBe('stop');
    expect(glued('petg', null)[0]!.level).toBe('warn');
  });
});

test('a hose gives, whatever our plastic: its barb is drawn larger by the stretch', () => {
  const adapter = requireRecipe('tube-adapter');
  const barbed = (materialId: string): JobDocument =>
    [
      {
        kind: 'parameter',
        partId: 'part-1',
        name: 'kindA',
        expression: { text: 'barb', unit: 'none' },
      } as const,
      read('hose_a', 19),
      read('hose_a', 19.02),
      read('hose_a', 18.98),
    ].reduce<JobDocument>(
      (j, e) => applyEdit(j, e, FIRST_WORKSHOP),
      newJob('Adapter', adapter, FIRST_WORKSHOP, materialId),
    );
  for (const materialId of ['petg', 'tpu']) {
    const { mates } = new Work(barbed(materialId), FIRST_WORKSHOP, emptyHistory()).part('part-1').ledger;
    const barb = mates.find(m => m.mate.id === 'barbA')!;
    expect(barb.mate.soft).toBe('theirs');
    // Of the usual stretch of 1.5 to 4 %.
    expect(-barb.clearance / 19).toBeGreaterThan(0.015);
    expect(-barb.clearance / 19).toBeLessThan(0.04);
    expect(barb.model).toBeGreaterThan(19.2);
  }
});
