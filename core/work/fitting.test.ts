import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import { fitsOf, type JobDocument } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP, type Workshop } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { Work } from './work';

const recipe = requireRecipe('round-cap');
const job = (materialId: string, ...edits: Edit[]): JobDocument =>
  edits.reduce((j, e) => applyEdit(j, e, FIRST_WORKSHOP), newJob('Cap', recipe, FIRST_WORKSHOP, materialId));
const skirt = (document: JobDocument, workshop: Workshop = FIRST_WORKSHOP) =>
  new Work(document, workshop, emptyHistory()).part('part-1').ledger.mates.find(m => m.mate.id === 'skirt')!;

describe('the object as it is', () => {
  const oval = [
    read('rim', 31.6, { turn: 0 }),
    read('rim', 31.8, { turn: 120 }),
    read('rim', 31.7, { turn: 240 }),
  ];
  test('a rigid bore passes the largest place of an oval rim, a flexible one follows the mean', () => {
    expect(skirt(job('pla', ...oval)).reading.value).toBeCloseTo(31.8, 9);
    expect(skirt(job('tpu', ...oval)).reading.value).toBeCloseTo(31.7, 9);
  });

  test('a usual want widens on a large thing, one’s own does not', () => {
    const large = job('pla', read('rim', 110));
    expect(skirt(large).window.max).toBeGreaterThan(0.3);
    const want = {
      name: 'own' as const,
      window: { min: 0.05, max: 0.2, unit: 'mm' as const },
      prefer: 'none' as const,
    };
    expect(skirt(applyEdit(large, { kind: 'want', mateId: 'skirt', want }, FIRST_WORKSHOP)).window.max).toBe(
      0.2,
    );
  });

  test('an old part is copied without allowance and gets back its wear', () => {
    const old = job('pla', read('rim', 31.7, { source: 'old-part' }));
    expect(skirt(old).clearance).toBeCloseTo(0, 2);
    const want = { ...fitsOf(old)[0]!.want, wear: 0.1 };
    // A worn bore has grown: the new one is smaller by the wear.
    const mended = skirt(applyEdit(old, { kind: 'want', mateId: 'skirt', want }, FIRST_WORKSHOP));
    expect(mended.clearance).toBeCloseTo(-0.1, 2);
    expect(mended.model).toBeCloseTo(skirt(old).model - 0.1, 2);
  });
});

describe('a calibrated printer', () => {
  const rows = [8, 20, 32, 40].map(drawn => ({ kind: 'hole' as const, drawn, printed: drawn - 0.3 }));
  const calibrated: Workshop = {
    ...FIRST_WORKSHOP,
    calibrations: [
      {
        id: 'old',
        printerId: 'printer',
        materialId: 'pla',
        at: '2025-01-01T00:00:00.000Z',
        note: '',
        rows: rows.map(r => ({ ...r, printed: r.drawn })),
      },
      { id: 'new', printerId: 'printer', materialId: 'pla', at: '2026-01-01T00:00:00.000Z', note: '', rows },
      {
        id: 'other',
        printerId: 'printer',
        materialId: 'petg',
        at: '2026-02-01T00:00:00.000Z',
        note: '',
        rows: rows.map(r => ({ ...r, printed: r.drawn + 1 })),
      },
    ],
  };
  const measured = job('pla', read('rim', 31.7), read('rim', 31.71), read('rim', 31.69));

  test('the newest of this printer with this plastic is where the ledger starts, and the doubt shrinks', () => {
    const before = skirt(measured);
    const after = skirt(measured, calibrated);
    expect(before.calibration).toBeNull();
    expect(after.calibration!.id).toBe('new');
    expect(after.prior.mean).toBeCloseTo(0.3, 2);
    expect(after.model).toBeCloseTo(31.7 + 0.125 + 0.3, 1);
    expect(after.pRight).toBeGreaterThan(before.pRight + 0.3);
    expect(after.steps.reduce((sum, s) => sum + s.amount, 0)).toBeCloseTo(after.model, 9);
  });

  test('pieces lie flat: a part on its side is not calibrated', () => {
    const onSide = applyEdit(
      measured,
      { kind: 'pose', partId: 'part-1', pose: { down: [0, -1, 0], turn: 0 } },
      FIRST_WORKSHOP,
    );
    expect(skirt(onSide, calibrated).calibration).toBeNull();
  });
});

test('the sheet: what was read, what is open, what a thread is', () => {
  const thread = {
    id: 't',
    label: 'Outlet',
    side: 'external' as const,
    diameter: 'd',
    span: 's',
    turns: 10,
    ridgeHeight: null,
    ridgeWidth: null,
    hand: 'right' as const,
    taper: false,
    starts: 1,
    crest: null,
    standard: null,
  };
  const own = (id: string) => ({
    id,
    name: id,
    label: id,
    kind: 'outside' as const,
    critical: false,
    guide: null,
    note: 'by hand',
    readings: [],
  });
  const document = job(
    'pla',
    read('rim', 31.7),
    read('rim', 1.25, { text: '1.25', unit: 'in', struck: 'inches' }),
    { kind: 'add-thread', thread, dimensions: [own('d'), own('s')] },
    read('d', 13.08),
    read('s', 13.37),
  );
  const { sheet } = new Work(document, FIRST_WORKSHOP, emptyHistory());
  expect(sheet.open).toEqual(['Rim height']);
  const rim = sheet.rows.find(r => r.id === 'rim')!;
  expect(rim).toMatchObject({ critical: true, with: 'Calipers', source: 'the seat' });
  expect(rim.readings).toEqual([
    { text: '31.7', struck: false },
    { text: '1.25 in', struck: true },
  ]);
  expect(sheet.rows.find(r => r.id === 'd')!.note).toBe('by hand');
  expect(sheet.threads[0]).toMatchObject({ label: 'Outlet', standard: 'likely G 1/4' });
  expect(sheet.views[0]!.values.rim).toBe('31.70');
});
