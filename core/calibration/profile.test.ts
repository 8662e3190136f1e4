import { describe, expect, test } from 'vitest';
import { drawPrinter, type PracticePrinter, pieceSize, readPiece, tighterBy } from '../bench/printer';
import { FEATURES } from './piece';
import {
  betweenPieces,
  geometryOf,
  type JudgeReadings,
  printedAt,
  responseOf,
  rowsOfPiece,
  scatterOf,
} from './profile';

const PLAIN: PracticePrinter = {
  hole: 0.25,
  slot: 0.15,
  peg: 0.06,
  rib: 0.04,
  height: 0.05,
  scale: { leftRight: 0.998, frontBack: 1.001 },
  skew: 0.2,
  bulge: 0.15,
  scatter: 0,
};
const exact: JudgeReadings = readings => ({ value: readings[0]!, u: 0.003 });
const readingsOf = (printer: PracticePrinter, piece = 1) =>
  Object.fromEntries(FEATURES.map(f => [f.id, [pieceSize(printer, f, piece)]]));

describe('a piece without scatter gives its printer away', () => {
  const readings = readingsOf(PLAIN);
  const rows = rowsOfPiece(readings, exact);
  test('each kind by itself: offset at its sizes, whichever way they run', () => {
    const at = (kind: (typeof rows)[number]['kind'], size: number) =>
      printedAt(responseOf(kind, rows)!, size).mean - size;
    expect(at('hole', 12)).toBeCloseTo(-0.25 - 0.0005 * 12, 2);
    expect(at('peg', 8)).toBeCloseTo(0.06 - 0.0005 * 8, 2);
    expect(at('slot', 5)).toBeCloseTo(-0.15, 2);
    expect(at('height', 6)).toBeCloseTo(0.05, 2);
  });
  test('the two directions differ, the plate leans, the first layer bulges', () => {
    const { stretch, outOfSquare, bulge } = geometryOf(readings, exact);
    expect(stretch!.value).toBeCloseTo(-0.003, 3);
    // Its own diagonal is the longer one, so the front left corner is sharper than square.
    expect(outOfSquare!.value).toBeCloseTo(-0.2, 2);
    expect(bulge!.value).toBeCloseTo(0.15, 2);
  });
  test('an unread piece says nothing', () => {
    expect(geometryOf({}, exact)).toEqual({ stretch: null, outOfSquare: null, bulge: null });
    expect(rowsOfPiece({ 'hole-20': [] }, exact)).toEqual([]);
    expect(responseOf('hole', [])).toBeNull();
  });
});

test('the scatter found lies between what was believed and what the sizes show', () => {
  const noisy = { ...PLAIN, scatter: 0.2 };
  const spread = scatterOf(rowsOfPiece(readingsOf(noisy), exact), 0.04);
  expect(spread).toBeGreaterThan(0.05);
  expect(spread).toBeLessThan(0.16);
  expect(scatterOf([], 0.04)).toBeCloseTo(0.04, 12);
  // However even one piece came out, the next may be off as a whole.
  expect(scatterOf(rowsOfPiece(readingsOf(PLAIN), exact), 0.04)).toBeGreaterThan(0.028);
});

test('over forty printers, what is believed covers the truth as often as it says', () => {
  let inside = 0;
  const tries = 40;
  for (let n = 0; n < tries; n++) {
    const printer = drawPrinter(`printer-${n}`, 'any');
    const judged: JudgeReadings = r => ({ value: r.reduce((a, b) => a + b) / r.length, u: 0.02 });
    const readings = Object.fromEntries(
      FEATURES.map(f => [f.id, [0, 1].map(i => readPiece(printer, f, 1, i, 0.01, 0))]),
    );
    const hole = responseOf('hole', rowsOfPiece(readings, judged))!;
    const { mean, sd } = printedAt(hole, 15);
    const doubt = Math.hypot(sd, betweenPieces(0.04));
    if (Math.abs(mean - (15 - tighterBy(printer, 'inside', 'round', 15))) < 2 * doubt) inside++;
  }
  // 95 % of 40 is 38; fewer than 33, or an uncertainty that easily covers all, would be wrong (binomial, 0.2 %).
  expect(inside).toBeGreaterThanOrEqual(33);
});
