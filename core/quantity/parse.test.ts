import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { parseQuantity } from './parse';

const mm = (text: string, unit?: 'mm' | 'in') => {
  const outcome = parseQuantity(text, 'length', unit);
  return outcome.ok ? outcome.quantity.value : outcome.code;
};

describe('what a person types', () => {
  test.each([
    ['31.7', 31.7],
    ['31,7', 31.7],
    [' 31.7 mm ', 31.7],
    ['.5', 0.5],
    ['3.', 3],
    ['-0,2', -0.2],
    ['−0.2', -0.2],
    ['+4', 4],
    ['1 1/4 in', 31.75],
    ['1.25"', 31.75],
    ['1.25″', 31.75],
    ['0.08in', 2.032],
    ['3.25 in', 82.55],
    ['1/64 in', 0.396875],
    ['13 thou', 0.3302],
    ['32/2', 16],
    ['½ in', 12.7],
    ['1½ in', 38.1],
    ['1¼″', 31.75],
    ['2 cm', 20],
  ])('%s is %f mm', (text, value) => expect(mm(text)).toBeCloseTo(value, 9));

  test('a bare number takes the field’s unit', () => {
    expect(mm('1.25', 'in')).toBeCloseTo(31.75, 9);
    expect(mm('1.25 mm', 'in')).toBe(1.25);
  });

  test.each([
    ['', 'empty'],
    ['   ', 'empty'],
    ['wide', 'not-a-number'],
    ['🦆', 'not-a-number'],
    ['31.7.2', 'two-separators'],
    ['1,234.5', 'two-separators'],
    ['31.7 °', 'wrong-unit'],
    ['31.7 furlongs', 'wrong-unit'],
    ['1/0', 'not-finite'],
    ['1e9', 'not-a-number'],
    ['0x10', 'not-a-number'],
    ['NaN', 'not-a-number'],
    ['Infinity', 'not-a-number'],
  ])('%j is refused as %s', (text, code) => expect(mm(text)).toBe(code));

  test('a refusal names what was typed, shortened', () => {
    const outcome = parseQuantity('x'.repeat(300), 'length');
    expect(outcome.ok ? '' : outcome.message.length).toBeLessThan(120);
  });

  test('kinds take their own units', () => {
    expect(parseQuantity('4 %', 'strain')).toMatchObject({ ok: true, quantity: { value: 0.04 } });
    expect(parseQuantity('4', 'strain')).toMatchObject({ ok: true, quantity: { value: 0.04 } });
    expect(parseQuantity('90°', 'angle')).toMatchObject({ ok: true, quantity: { value: 90 } });
    expect(parseQuantity('3 mm', 'angle')).toMatchObject({ ok: false, code: 'wrong-unit' });
    expect(parseQuantity('3 mm', 'count')).toMatchObject({ ok: false, code: 'wrong-unit' });
  });

  test('any decimal survives typing with point or comma, in mm and inches', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 5_000_000 }), thousandths => {
        const text = (thousandths / 1000).toFixed(3);
        expect(mm(text)).toBeCloseTo(thousandths / 1000, 9);
        expect(mm(text.replace('.', ','))).toBeCloseTo(thousandths / 1000, 9);
        expect(mm(`${text} in`)).toBeCloseTo((25.4 * thousandths) / 1000, 6);
      }),
      { seed: 7 },
    );
  });

  test('no text makes it throw', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), text => {
        expect(() => parseQuantity(text, 'length')).not.toThrow();
      }),
      { seed: 11, numRuns: 500 },
    );
  });
});
