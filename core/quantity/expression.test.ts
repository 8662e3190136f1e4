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

  test.each([
    ['12 * sin(30)', 6],
    ['rim * cos(60)', 15.85],
    ['sin(30°) * 12', 6],
    ['10 * tan(45 deg) + 1', 11],
    ['2 * (bore * sin(90))', 48],
    ['bore / tan(45)', 24],
  ])('%s: angles are degrees', (text, expected) => expect(value(text)).toBeCloseTo(expected, 9));

  test('an angle from a ratio, in degrees', () => {
    const angle = (text: string) => evaluateExpression({ text, unit: 'deg' }, 'angle', look);
    expect(angle('atan(1)')).toMatchObject({ ok: true, value: expect.closeTo(45, 9) });
    // 55.88 → 60.96 over 38.1 is 3.814° to each side (practice).
    expect(angle('atan((60.96 - 55.88) / 2 / 38.1)')).toMatchObject({ value: expect.closeTo(3.814, 3) });
    expect(angle('atan((rim - bore) / 2 / bore)')).toMatchObject({ value: expect.closeTo(9.11, 2) });
  });

  test('in inches a length keeps its inches beside a sine', () => {
    expect(value('2 * sin(30)', 'in')).toBeCloseTo(25.4, 9);
    expect(value('sin(30) * 2', 'in')).toBeCloseTo(25.4, 9);
  });

  test.each([
    ['max(3, 5)', 5],
    ['max(3; 5)', 5],
    ['max(3,5; 2)', 3.5],
    ['min(rim, 12)', 12],
    ['max(wall; 1,2)', 1.6],
    ['(3,5 + 1)', 4.5],
  ])('%s: a semicolon, or a comma and a space, separates', (text, expected) => {
    expect(value(text)).toBeCloseTo(expected, 9);
  });

  test('what can be read both ways is not guessed', () => {
    for (const text of ['max(3,5)', 'min(12,8)', 'max(wall, 1,2)'])
      expect(value(text), text).toMatch(/may be the two numbers \S+; \S+ or the one number/);
    expect(value('max(3,5)')).toContain('write “3; 5” or “3.5”');
  });

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
