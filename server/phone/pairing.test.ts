import { expect, test } from 'vitest';
import { Pairing } from './pairing';

const at = (clock: { ms: number }) => new Pairing(() => clock.ms);

test('a code is taken once, typed as it comes to hand', () => {
  const pairing = at({ ms: 0 });
  const { code, lasts } = pairing.make();
  expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{10}$/);
  expect(lasts).toBe(300);
  pairing.redeem(` ${code.slice(0, 5).toLowerCase()}-${code.slice(5)} `);
  expect(() => pairing.redeem(code)).toThrow(/No phone is waited for/);
});

test('letters that look like figures are read as such', () => {
  const pairing = at({ ms: 0 });
  let { code } = pairing.make();
  while (!/[01]/.test(code)) ({ code } = pairing.make());
  expect(() => pairing.redeem(code.replaceAll('0', 'o').replaceAll('1', 'L'))).not.toThrow();
});

test('it ends with its time, with the next one, and when it is withdrawn', () => {
  const clock = { ms: 0 };
  const pairing = at(clock);
  const first = pairing.make().code;
  clock.ms = 300_001;
  expect(() => pairing.redeem(first)).toThrow(/No phone is waited for/);
  const second = pairing.make().code;
  const third = pairing.make().code;
  expect(() => pairing.redeem(second)).toThrow(/That is not the code/);
  expect(() => pairing.redeem(third)).not.toThrow();
  const last = pairing.make().code;
  pairing.withdraw();
  expect(() => pairing.redeem(last)).toThrow(/No phone is waited for/);
});

test('after ten wrong guesses the right one is not taken either', () => {
  const pairing = at({ ms: 0 });
  const { code } = pairing.make();
  for (let i = 0; i < 10; i++) expect(() => pairing.redeem(`guess ${i}`)).toThrow(/That is not the code/);
  expect(() => pairing.redeem(code)).toThrow(/No phone is waited for/);
});
