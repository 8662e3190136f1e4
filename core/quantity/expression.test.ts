import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { evaluateExpression, namesIn } from './expression';
import type { Unit } from './units';

const values: Record<string, number | null> = {
  rim: 31.7,
  'rim.model': 32.04,
  bore: 24,
  wall: 1.6,
  unread: null,
};
const look = (name: string) => values[name];
const run = (text: string, unit: Unit = 'mm') => evaluateExpression({ text, unit }, 'length', look);
const value = (text: string, unit?: Unit) => {
  const outcome = run(text, unit);
  return outcome.ok ? outcome.value : outcome.message;
};

describe('expressions', () => {
  test.each([
    ['rim', 31.7],
    ['rim.model', 32.04],
    ['bore + 0.4', 24.4],
    ['bore/2 + 0.4', 12.4],
    ['bore/2 + 0,4', 12.4],
    ['2 * wall', 3.2],
    ['wall * 2', 3.2],
    ['-wall + 3', 1.4],
    ['(rim - bore) / 2', 3.85],
    ['max(wall, 1.2)', 1.6],
    ['min(rim, bore, 3)', 3],
    ['1 1/4 in', 31.75],
    ['rim + 0.5 in', 44.4],
  ])('%s', (text, expected) => expect(value(text)).toBeCloseTo(expected, 9));

  test('a bare number in a sum takes the field’s unit; one that multiplies is a factor', () => {
    expect(value('bore + 1', 'in')).toBeCloseTo(49.4, 9);
    expect(value('bore/2 + 1', 'in')).toBeCloseTo(37.4, 9);
    expect(value('3 * 0.5', 'in')).toBeCloseTo(38.1, 9);
  });

  test('names are told apart: unknown, unread, forbidden', () => {
    expect(run('lid + 1')).toMatchObject({ ok: false, name: 'lid', at: 0 });
    expect(value('1 + lid')).toContain('Nothing here is called “lid”');
    expect(value('unread')).toContain('measure it first');
    expect(namesIn({ text: 'rim.model + wall', unit: 'mm' }, 'length')).toEqual(['rim.model', 'wall']);
  });

  test.each([
    'rim +',
    'rim = 3',
    'rim; bore',
    '[1,2]',
    'import("fs")',
    'constructor',
    'rim.constructor',
    'toString()',
    'eval(1)',
    'rim ^ 2',
    'rim > 3',
    '"text"',
    'rim/0',
    'sqrt(-1)',
    'f(x) = 1',
    `${'1+'.repeat(200)}1`,
  ])('%s is refused with a sentence', text => {
    const outcome = run(text);
    expect(outcome.ok).toBe(false);
    expect(outcome.ok ? '' : outcome.message).toMatch(/\w.*[.:]/);
  });

  test('no text makes it throw', () => {
    const tokens = fc.constantFrom(
      'rim',
      'bore',
      '+',
      '-',
      '*',
      '/',
      '(',
      ')',
      ',',
      '.',
      '3',
      '1.2',
      ' ',
      'in',
      '"',
      'max',
      '%',
      '{',
      '🦆',
    );
    fc.assert(
      fc.property(fc.array(tokens, { maxLength: 12 }), parts => {
        expect(() => run(parts.join(''))).not.toThrow();
      }),
      { seed: 3, numRuns: 800 },
    );
  });
});
