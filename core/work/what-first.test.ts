import { describe, expect, test } from 'vitest';
import { type FirstAsked, whatFirst } from './what-first';

const mate = (more: Partial<FirstAsked['mates'][number]> = {}): FirstAsked['mates'][number] => ({
  id: 'bore',
  name: 'Bore',
  pRight: 0.5,
  surer: [],
  slice: null,
  ...more,
});
const first = (asked: Partial<FirstAsked>) =>
  whatFirst({ pAllRight: 0.5, whole: 300, mates: [mate()], ...asked });

describe('what to do first', () => {
  test('a part that is nearly sure is printed', () => {
    expect(first({ pAllRight: 0.97, mates: [mate({ pRight: 0.97, slice: 20 })] })[0]!.what).toBe('print');
  });
  test('of a long print in doubt a slice goes first, of a short one not', () => {
    expect(first({ mates: [mate({ slice: 20 })] })[0]!.what).toBe('slice');
    expect(first({ whole: 9, mates: [mate({ slice: 8 })] })[0]!.what).toBe('print');
  });
  test('two more readings that make it sure go before everything', () => {
    const surer = [
      { what: 'read-again' as const, words: 'read it twice more', pRight: 0.8, minutes: 2 },
      {
        what: 'ladder' as const,
        words: 'print a ladder of 5 rings and try them on',
        pRight: 0.95,
        minutes: 40,
      },
      { what: 'calibrate' as const, words: 'print the piece', pRight: 0.9, minutes: 60 },
    ];
    const steps = first({ mates: [mate({ surer, slice: 60 })] });
    expect(steps.map(s => s.what)).toEqual(['ladder', 'read-again', 'slice', 'print']);
    expect(first({ whole: 30, mates: [mate({ surer })] })[0]!.what).toBe('read-again');
  });
  test('a surface that is not in doubt wins nothing by a ladder of another', () => {
    const surer = [{ what: 'ladder' as const, words: 'print a ladder', pRight: 0.99, minutes: 40 }];
    // The other surface is what fails: 0.4 in all, 0.95 here.
    expect(first({ pAllRight: 0.4, whole: 100, mates: [mate({ pRight: 0.95, surer })] })[0]!.what).toBe(
      'print',
    );
  });
  test('a print that one minute by hand may save is saved; one that misses at two places is not', () => {
    const sand = { mateId: 'bore', words: 'sand 0.1', minutes: 15 };
    expect(first({ rescues: [sand] })[0]!.what).toBe('rescue');
    const both = [sand, { mateId: 'rim', words: 'shim', minutes: 5 }];
    expect(first({ rescues: both }).map(s => s.what)).not.toContain('rescue');
  });
  test('of an object that is away, a gauge saves trips; where the reading is what is in doubt, it does not', () => {
    const gauge = { minutes: 60, onGauge: 0.5, onObject: 0.97 };
    const away = (mates: FirstAsked['mates']) => first({ away: true, mates, whole: 100 });
    const steps = away([mate({ slice: 20, gauge })]);
    expect(steps.map(s => s.what)).toEqual(['gauge', 'print']);
    // By hand: 60 for the gauge; 115 · (1 + 0.5/0.85) on it; 0.03/0.85 of a part and a trip more, and the first trip.
    const further = 0.03 / 0.85;
    expect(steps[0]!.minutes).toBeCloseTo(
      60 + 115 * (1 + 0.5 / 0.85) + 115 * further + 1440 * (1 + further),
      6,
    );
    expect(steps[1]!.minutes).toBeCloseTo((115 + 1440) * (1 + 0.5 / 0.85), 6);
    const unread = { minutes: 60, onGauge: 0.97, onObject: 0.51 };
    expect(away([mate({ gauge: unread })])[0]!.what).toBe('print');
    expect(first({ mates: [mate({ gauge })] }).map(s => s.what)).toEqual(['print']);
  });
});
