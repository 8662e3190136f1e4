import { describe, expect, test } from 'vitest';
import { boxOf, perimeterOf } from './curve';
import { offsetTo } from './offset';
import { circle, rectangle } from './outline';
import { circleLikeRectangle, ellipse, roundedRectangle, shifted, widestStep } from './section';
import { gapBetween, isInside, wallBetween } from './within';

const box = rectangle(0, 0, 40, 30);

describe('how outlines lie to each other', () => {
  test('a hole’s wall to the nearest edge, and that it breaks through', () => {
    expect(wallBetween(box, circle([10, 15], 4))).toBeCloseTo(6, 2);
    expect(wallBetween(box, circle([3, 15], 4))).toBe(-1);
    expect(wallBetween(box, circle([80, 15], 4))).toBe(-1);
  });
  test('two holes’ gap; touching, crossing and one within the other are none', () => {
    expect(gapBetween(circle([0, 0], 3), circle([10, 0], 4))).toBeCloseTo(3, 2);
    expect(gapBetween(circle([0, 0], 6), circle([10, 0], 6))).toBe(-1);
    expect(gapBetween(circle([0, 0], 9), circle([1, 0], 2))).toBe(-1);
    expect(gapBetween(rectangle(0, 0, 20, 2), rectangle(9, -10, 11, 10))).toBe(-1);
  });
  test('inside and outside of a line with an inward corner', () => {
    const notch = [
      [0, 0],
      [10, 0],
      [10, 10],
      [5, 4],
      [0, 10],
    ] as const;
    expect(isInside([5, 3], notch)).toBe(true);
    expect(isInside([5, 6], notch)).toBe(false);
    expect(isInside([-1, 5], notch)).toBe(false);
  });
});

describe('sections', () => {
  test('a rounded rectangle and an oval reach as far as they are wide and deep', () => {
    for (const outline of [roundedRectangle(60, 34, 8), ellipse(60, 34)]) {
      const found = boxOf(outline);
      expect(found.map(x => Number(x.toFixed(6)))).toEqual([-30, -17, 30, 17]);
    }
    // Corners larger than the section make its ends round.
    expect(perimeterOf(roundedRectangle(60, 34, 99))).toBeCloseTo(2 * 26 + Math.PI * 34, 0);
  });
  test('a circle has a rectangle’s edges, in its order', () => {
    const [round, square] = [circleLikeRectangle(40), roundedRectangle(40, 40, 5)];
    expect(round.edges).toHaveLength(square.edges.length);
    expect(perimeterOf(round)).toBeCloseTo(40 * Math.PI, 9);
    // Edge by edge they are close to each other: none is a turn ahead.
    expect(widestStep(round, square)).toBeLessThan(9);
    expect(widestStep(round, shifted(round, [3, 4]))).toBeCloseTo(5, 9);
  });
  test('moved until its girth is what is asked', () => {
    const girth = (o: typeof box) => perimeterOf(o) / Math.PI;
    const { outline, moved } = offsetTo(roundedRectangle(60, 34, 8), girth, 56);
    expect(girth(outline)).toBeCloseTo(56, 5);
    // Round corners: each mm outwards is two of diameter.
    expect(moved).toBeCloseTo((56 - girth(roundedRectangle(60, 34, 8))) / 2, 5);
  });
});
