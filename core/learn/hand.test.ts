import { describe, expect, test } from 'vitest';
import { gauss, seeded } from '../bench/random';
import { type HandSeen, handAfter, handOfLesson, lessonOfHand, shiftOf } from './hand';
import { verdictFor, verdictScale } from './verdict-scale';

const scale = verdictScale({ min: 0.1, max: 0.3 }, 'mm');
/** Tries by a hand that is off by this much, on prints all over the window. */
function triesOf(off: number, count: number, u = 0.02): HandSeen[] {
  const random = seeded(7);
  return Array.from({ length: count }, (_, i) => {
    const clearance = -0.05 + (0.5 * (i + 0.5)) / count;
    const verdict = verdictFor(clearance - off, scale);
    return { verdict, clearance: { value: gauss(random, clearance, u), u }, scale };
  });
}

describe('a hand’s own edges', () => {
  test.each([-0.1, 0, 0.08, 0.15])('are found off measured tries: %d', off => {
    const { after } = handAfter(triesOf(off, 24), 0.01);
    expect(Math.abs(after.mean - off)).toBeLessThan(2.5 * after.sd + 0.005);
    expect(after.sd).toBeLessThan(0.03);
  });

  test('a single try leaves them open, and no try says more than its readings', () => {
    expect(handAfter(triesOf(0.1, 1), 0.01).after.sd).toBeGreaterThan(0.04);
    expect(handAfter(triesOf(0.1, 200), 0.06).after.sd).toBeGreaterThan(0.059);
  });

  test('are gone by once they are sure and can be felt', () => {
    expect(shiftOf({ mean: 0.08, sd: 0.02 })).toBe(0.08);
    expect(shiftOf({ mean: -0.08, sd: 0.02 })).toBe(-0.08);
    expect(shiftOf({ mean: 0.05, sd: 0.05 })).toBe(0);
    expect(shiftOf({ mean: 0.01, sd: 0.001 })).toBe(0);
  });

  test('one name in two spellings is one hand; a surface is none', () => {
    expect(lessonOfHand(' The  Boat-keeper')).toBe(lessonOfHand('the boat-keeper'));
    expect(handOfLesson(lessonOfHand('Ada'))).toBe('ada');
    expect(handOfLesson('hole-on-side')).toBeNull();
  });
});
