import { describe, expect, test } from 'vitest';
import type { Point2 } from '../../shape/vector';
import type { EdgePoint } from './edge-points';
import type { Flattened } from './flattened';
import { shadowWithin } from './shadow';

/** 20 × 20 mm of sheet, with each place as given by `tone`, as shares of the sheet's light. */
function flat(tone: (x: number, y: number) => readonly [number, number, number]): Flattened {
  const [wide, tall, step] = [81, 81, 0.25];
  const light = new Float32Array(3 * wide * tall);
  for (let j = 0; j < tall; j++)
    for (let i = 0; i < wide; i++) light.set(tone(-10 + i * step, -10 + j * step), 3 * (j * wide + i));
  return { from: [-10, -10], step, wide, tall, light };
}
const even = (_x: number, _y: number, out: Float64Array) => void out.fill(1);
/** The line of a square of 12: its right side faces along x. */
const right = Array.from({ length: 40 }, (_, i): EdgePoint => {
  const at: Point2 = [6, -6 + 0.3 * i];
  return { at, seen: at, out: [1, 0] };
});
const left = right.map((p): EdgePoint => ({ ...p, at: [-6, p.at[1]], out: [-1, 0] }));
const line = [...right, ...left];
const tops = line.map(() => 'top' as const);
const RED = [0.3, 0.05, 0.04] as const;

describe('ground in shadow within the line', () => {
  test('the object’s own tone up to its edge is none', () => {
    expect(
      shadowWithin(
        line,
        tops,
        flat(() => RED),
        even,
        [...RED],
      ),
    ).toBe(0);
  });

  test('a grey strip along one side is half of it', () => {
    const strip = flat(x => (x > 4.5 ? [0.15, 0.15, 0.15] : RED));
    expect(shadowWithin(line, tops, strip, even, [...RED])).toBe(0.5);
  });

  test('a strip of another colour is the object’s own', () => {
    const strip = flat(x => (x > 4.5 ? [0.1, 0.4, 0.1] : RED));
    expect(shadowWithin(line, tops, strip, even, [...RED])).toBe(0);
  });

  test('a darker wall that faces the camera is no shadow; where it looks away it is', () => {
    const grey = [0.3, 0.3, 0.3] as const;
    const strip = flat(x => (x > 4.5 ? [0.12, 0.12, 0.12] : grey));
    const feet = line.map(() => 'foot' as const);
    expect(shadowWithin(line, feet, strip, even, [...grey])).toBe(0);
    expect(shadowWithin(line, tops, strip, even, [...grey])).toBe(0.5);
  });

  test('noise on black, and edges that were not found, tell nothing', () => {
    const black = [0.035, 0.035, 0.035] as const;
    const noisy = flat((x, y) => ((Math.round(4 * x) + Math.round(4 * y)) % 2 ? [0.06, 0.06, 0.06] : black));
    expect(shadowWithin(line, tops, noisy, even, [...black])).toBe(0);
    expect(shadowWithin([null, null], [null, null], noisy, even, [...black])).toBe(0);
  });
});
