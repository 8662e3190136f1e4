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
});
