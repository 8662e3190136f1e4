import { describe, expect, test } from 'vitest';
import { readLoad } from './load';

describe('a load as a maker says it', () => {
  test.each([
    ['300', 300],
    ['300 N', 300],
    ['0,3 kN', 300],
    ['30 kg', 294.2],
    ['30kg', 294.2],
    ['66 lb', 293.6],
    ['2 * 30 kg', 588.4],
    ['(120 + 80) / 2 N', 100],
    ['1 1/2 kg', 14.71],
    ['a full bag', 60],
    ['somebody stands on it', 900],
    ['one hand pulls', 120],
  ])('%s', (text, newtons) => expect(readLoad(text)).toMatchObject({ ok: true, newtons }));

  test('what it was taken for is told where no number was given', () => {
    expect(readLoad('a full bag')).toMatchObject({ about: 'a full shopping bag' });
    expect(readLoad('300 N')).not.toHaveProperty('about');
  });

  test.each([
    ['', /How much/],
    ['a lot', /300 N, 30 kg/],
    ['0', /above 0/],
    ['30 mm', /not a unit of load/],
    ['99 000 000', /not a number|check the unit/],
    ['20000 kg', /check the unit/],
    ['3.4.5', /two decimal marks/],
  ])('“%s” is refused in words', (text, words) => {
    const outcome = readLoad(text);
    expect(outcome.ok ? '' : outcome.message).toMatch(words);
  });
});
