import { expect, test } from 'vitest';
import { decimalsOf, formatLength, formatPercent, formatPlain, formatSigned } from './format';

test('lengths keep their decimals and a true minus sign', () => {
  expect(formatLength(31.7)).toBe('31.70');
  expect(formatLength(-0.25)).toBe('−0.25');
  expect(formatLength(-0.001)).toBe('0.00');
  expect(formatLength(31.75, 'in')).toBe('1.2500');
});

test('ledger steps always carry a sign', () => {
  expect(formatSigned(0.12)).toBe('+0.12');
  expect(formatSigned(-0.05)).toBe('−0.05');
  expect(formatSigned(0)).toBe('±0.00');
});

test('plain numbers lose trailing zeros only', () => {
  expect(formatPlain(1.2)).toBe('1.2');
  expect(formatPlain(100)).toBe('100');
  expect(formatPlain(0.3302, 4)).toBe('0.3302');
});

test('chances never claim certainty', () => {
  expect(formatPercent(0.784)).toBe('78 %');
  expect(formatPercent(0.999)).toBe('over 99 %');
  expect(formatPercent(0.001)).toBe('under 1 %');
});

test('a resolution tells its decimals', () => {
  expect([1, 0.5, 0.05, 0.01, 0.02, 0.001, 0.0254].map(decimalsOf)).toEqual([0, 1, 2, 2, 2, 3, 4]);
});
