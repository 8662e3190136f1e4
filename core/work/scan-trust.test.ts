import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import type { JobDocument } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { EditRefused } from '../job/edits/tools';
import { newJob } from '../job/new-job';
import type { Scan, ScanPiece } from '../job/scans';
import { FIRST_WORKSHOP } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { UNCHECKED_SCALE } from './dimension';
import { evaluateDimensions } from './dimensions';
import { scanCheck } from './scan-trust';

const SCAN: Scan = { id: 's1', sha256: 'c'.repeat(64), label: 'rim', unit: 'mm', steps: [] };
const edit = (job: JobDocument, ...edits: Edit[]) =>
  edits.reduce((j, e) => applyEdit(j, e, FIRST_WORKSHOP), job);
const scanned = (id: string, value: number, u = 0.01) =>
  read(id, value, {
    source: 'scan',
    instrumentId: null,
    u,
    scanned: { scan: 's1', kind: 'cylinder', near: [0, 0, 0] },
  });
const start = edit(newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP), {
  kind: 'add-scan',
  scan: SCAN,
});
const rimOf = (job: JobDocument) => evaluateDimensions(job, FIRST_WORKSHOP).get('rim')!;
const check = (job: JobDocument) => scanCheck(job.scans[0]!, job, FIRST_WORKSHOP);
const thrice = (id: string, value: number) => [0, 0, 0].map(() => read(id, value));

describe('a reading off a scan', () => {
  test('carries the scan’s own doubt, and that of a scale nobody checked', () => {
    const { evaluation, source } = rimOf(edit(start, scanned('rim', 31.9, 0.02)));
    expect(source).toBe('scan');
    expect(evaluation!.value).toBe(31.9);
    expect(evaluation!.standardUncertainty).toBeCloseTo(Math.hypot(0.02, 31.9 * UNCHECKED_SCALE), 6);
  });
  test('is corrected as the scan is, its doubt then the settled one', () => {
    const job = edit(start, scanned('rim', 31.9, 0.02), {
      kind: 'scan',
      scanId: 's1',
      change: { trust: { factor: 0.995, u: 0.0005 } },
    });
    const { evaluation } = rimOf(job);
    expect(evaluation!.value).toBeCloseTo(31.9 * 0.995, 9);
    expect(evaluation!.standardUncertainty).toBeCloseTo(Math.hypot(0.02, 31.74 * 0.0005), 4);
  });
  test('steps back where calipers read the same', () => {
    const job = edit(start, scanned('rim', 31.9), ...thrice('rim', 31.7));
    expect(rimOf(job).source).toBe('seat');
    expect(rimOf(job).evaluation!.value).toBeCloseTo(31.7, 9);
  });
});

describe('whether a scan is as large as the object', () => {
  test('nobody knows while nothing was read both ways', () => {
    expect(check(edit(start, scanned('rim', 31.9)))).toMatchObject({
      verdict: 'nothing-read',
      factor: null,
    });
  });
  test('half a percent too large is told, with the factor that puts it right', () => {
    const both = (id: string, true_: number) => [scanned(id, 1.005 * true_), ...thrice(id, true_)];
    const found = check(edit(start, ...both('rim', 131.7), ...both('rim_height', 62)));
    expect(found.verdict).toBe('off');
    expect(found.factor).toBeCloseTo(1 / 1.005, 4);
    expect(found.words).toContain('large by 0.50 %');
  });
  test('a good one is', () => {
    const found = check(edit(start, scanned('rim', 31.71), ...thrice('rim', 31.7)));
    expect(found.verdict).toBe('true');
  });
  test('sizes that no one factor brings in line are named', () => {
    const found = check(
      edit(
        start,
        scanned('rim', 31.7),
        ...thrice('rim', 31.7),
        scanned('rim_height', 14.6),
        ...thrice('rim_height', 14),
      ),
    );
    expect(found.verdict).toBe('uneven');
    expect(found.odd!.label).toBe('Rim height');
  });
  test('another unit is checked anew; a scan that was read off stays', () => {
    const settled = edit(start, { kind: 'scan', scanId: 's1', change: { trust: { factor: 1, u: 0.001 } } });
    expect(
      edit(settled, { kind: 'scan', scanId: 's1', change: { unit: 'in' } }).scans[0]!.trust,
    ).toBeUndefined();
    const used = edit(start, scanned('rim', 31.9));
    expect(() => edit(used, { kind: 'remove-scan', scanId: 's1' })).toThrow(EditRefused);
    expect(edit(start, { kind: 'remove-scan', scanId: 's1' }).scans).toEqual([]);
  });
});

describe('a test piece of a section', () => {
  const piece = (tried: ScanPiece['tried'], more: Partial<ScanPiece> = {}): ScanPiece => ({
    id: 'piece-1',
    at: '2026-11-01T10:00:00.000Z',
    where: 'level at 12 mm',
    form: 'plate',
    across: [60, 40],
    clearance: 0.3,
    ...(tried ? { tried } : {}),
    ...more,
  });
  const tried = (play: number, printed?: [number, number], off: ('left' | 'back')[] = []) => ({
    at: '2026-11-02T10:00:00.000Z',
    lay: [0, 1].map(way => ({
      lay: 'slides' as const,
      play,
      ...(printed ? { printed: printed[way]! } : {}),
    })) as [ScanPieceLay, ScanPieceLay],
    off,
  });
  const withPieces = (...pieces: ScanPiece[]) =>
    edit(start, { kind: 'scan', scanId: 's1', change: { pieces } });

  test('goes where the scan’s numbers turn out to be of another unit: it was printed in the wrong size', () => {
    const other = edit(withPieces(piece(tried(0.3))), { kind: 'scan', scanId: 's1', change: { unit: 'in' } });
    expect(other.scans[0]!.pieces).toBeUndefined();
    const same = edit(withPieces(piece(tried(0.3))), {
      kind: 'scan',
      scanId: 's1',
      change: { label: 'rim, again' },
    });
    expect(same.scans[0]!.pieces).toHaveLength(1);
  });

  test('says nothing until it was laid on the object', () => {
    expect(check(withPieces(piece(undefined))).verdict).toBe('nothing-read');
  });

  test('a plate as read by calipers, with its play, is the object’s size', () => {
    // Printed 59.6 with a play of 1: the object is 60.6 where the scan says 60.
    const { pairs, factor, verdict } = check(withPieces(piece(tried(1, [59.6, 39.4]))));
    expect(pairs.map(p => [p.scanned, p.read])).toEqual([
      [60, 60.6],
      [40, 40.4],
    ]);
    expect(factor).toBeCloseTo(1.01, 5);
    expect(verdict).toBe('off');
  });

  test('a frame is larger than the object by its play', () => {
    const { factor, verdict } = check(withPieces(piece(tried(0.3), { form: 'frame' })));
    // Printed as drawn, with the clearance as drawn: the scan is as large as the object.
    expect(factor).toBeCloseTo(1, 6);
    expect(verdict).toBe('true');
  });

  test('without calipers and play each answer stands for a window, and is less sure', () => {
    const guess = check(
      withPieces(
        piece({ at: '2026-11-02T10:00:00.000Z', lay: [{ lay: 'loose' }, { lay: 'loose' }], off: [] }),
      ),
    );
    expect(guess.u).toBeGreaterThan(3 * check(withPieces(piece(tried(0.6, [59.7, 39.7])))).u);
  });

  test('one way off tells that no factor helps, and where it stood off', () => {
    const { verdict, words } = check(
      withPieces(piece({ ...tried(0.3, [59.7, 39.7], ['left']), lay: [at(0.3, 59.7), at(1.5, 39.7)] })),
    );
    expect(verdict).toBe('uneven');
    expect(words).toContain('stood off at its left');
  });
});

type ScanPieceLay = NonNullable<ScanPiece['tried']>['lay'][0];
const at = (play: number, printed: number): ScanPieceLay => ({ lay: 'loose', play, printed });
