import { describe, expect, test } from 'vitest';
import { laid } from '../../bench/flat-thing';
import { curvesOf, flattenedPoints, lengthOfCurve, pointAt } from '../../shape/curve';
import { partedInto } from '../../shape/lines-and-arcs/lines-and-arcs';
import type { Parted } from '../../shape/lines-and-arcs/pieces';
import type { Point2 } from '../../shape/vector';
import { Doubt } from '../doubt';
import { differences, type Laid } from './differences';
import { laidBy } from './laid-on';
import { RingIndex } from './ring-index';
import type { Rings, Side } from './sides';

/** 80 × 50 with three roundings and two holes: without any symmetry. */
const DRAWN = {
  outer: '-40, -25 round 6; 40, -25 round 6; 40, 25; -40, 25 round 10',
  holes: [
    { at: [-28, -13] as Point2, diameter: 6.4 },
    { at: [10, 8] as Point2, diameter: 14 },
  ],
};
type Thing = typeof DRAWN;

/** Every line as points, y up. */
const lines = (thing: Thing, turn = 0, at: Point2 = [0, 0]): Point2[][] =>
  laid(thing, turn, at).map(o => flattenedPoints(o, 0.002).map(([x, y]): Point2 => [x, -y]));
const mirrored = (rings: Rings): Rings => rings.map(r => r.map(([x, y]): Point2 => [-x, y]).reverse());
const BAR: Rings = [
  [
    [0, 0],
    [80, 0],
    [80, 4],
    [0, 4],
  ],
];
const drawn = lines(DRAWN);
const shadows: Record<Side, Rings> = {
  top: drawn,
  bottom: mirrored(drawn),
  front: BAR,
  back: BAR,
  right: BAR,
  left: BAR,
};

/** The way edges are found: a point every quarter of a millimetre. */
const points = (thing: Thing, turn: number, at: Point2): Point2[][] =>
  laid(thing, turn, at).map(o =>
    curvesOf(o).flatMap(c => {
      const count = Math.ceil(4 * lengthOfCurve(c));
      return Array.from({ length: count }, (_, i): Point2 => {
        const [x, y] = pointAt(c, i / count);
        return [x, -y];
      });
    }),
  );

/** As from a photo: in any pose, uncertain only in its scale, sd 0.1 %. */
function traced(thing: Thing, turn = 37, at: Point2 = [12, -30], flip = false): Doubt {
  const seen = points(thing, turn, at).map(l => (flip ? l.map(([x, y]): Point2 => [-x, y]).reverse() : l));
  const parted = (by: number): Parted[] =>
    seen.map(l =>
      partedInto(
        l.map(([x, y]): Point2 => [by * x, by * y]),
        true,
        0.05,
      ),
    );
  return new Doubt(parted(1), [parted(1.001)]);
}

const offsOf = ({ pieces }: Laid) => pieces.map(p => p.off!.value);

describe('a traced outline laid on a part', () => {
  test('what is as drawn lies on it wherever it was put, and differs nowhere', () => {
    for (const turn of [0, 37, 181]) {
      const found = differences(traced(DRAWN, turn), shadows)!;
      expect(found.side).toBe('top');
      expect(found.overlap).toBe(1);
      expect(found.missing).toEqual([]);
      for (const off of offsOf(found)) expect(Math.abs(off)).toBeLessThan(0.01);
      const home = laidBy(found.pose)([12, -30]);
      expect(Math.hypot(...home)).toBeLessThan(0.02);
    }
  });

  test('laid on its other face it is known by that', () => {
    expect(differences(traced(DRAWN, 37, [12, -30], true), shadows)!.side).toBe('bottom');
  });

  test('its lines are where the photo shows them', () => {
    const found = differences(traced(DRAWN), shadows)!;
    const seen = new RingIndex(lines(DRAWN, 37, [12, -30]));
    for (const p of found.rings.flat()) expect(seen.nearest(p)!.distance).toBeLessThan(0.02);
  });

  test('longer, narrower, a hole smaller and another moved: each is said where it is', () => {
    // 0.4 longer at one end, holes 6.4 → 6.1 and one moved by 0.3 along.
    const printed: Thing = {
      outer: '-40, -25 round 6; 40.4, -25 round 6; 40.4, 25; -40, 25 round 10',
      holes: [
        { at: [-28, -13], diameter: 6.1 },
        { at: [10.3, 8], diameter: 14 },
      ],
    };
    const found = differences(traced(printed), shadows)!;
    const round = found.pieces.filter(p => p.piece === null);
    // Material reaches into a hole that is too small: above 0, by the radius.
    expect(round[0]!.off!.value).toBeCloseTo(0.15, 1);
    expect(round[0]!.off!.value).toBeGreaterThan(0.1);
    // A hole that is only displaced is right on average, and off by as much at its sides.
    expect(Math.abs(round[1]!.off!.value)).toBeLessThan(0.05);
    expect(Math.abs(round[1]!.most)).toBeGreaterThan(0.08);
    // The best fit shares the extra length between both ends.
    const [one, other, next] = found.pieces
      .flatMap(p => (p.piece === null ? [] : [p.off!.value]))
      .toSorted((a, b) => b - a);
    expect(one! + other!).toBeGreaterThan(0.36);
    expect(one! + other!).toBeLessThan(0.42);
    expect(next!).toBeLessThan(other!);
    expect(found.mean!.value).toBeGreaterThan(0);
  });

  test('the ± follows from how large the photo may be wrong: most at the ends, hardly at a hole', () => {
    const found = differences(traced(DRAWN), shadows)!;
    const us = found.pieces.map(p => p.off!.u);
    // 0.1 % of 80, half to each end, twice.
    expect(Math.max(...us)).toBeGreaterThan(0.06);
    expect(Math.max(...us)).toBeLessThan(0.1);
    expect(found.pieces.at(-2)!.off!.u).toBeLessThan(0.02);
  });

  test('moved by hand it lies where it was moved to, from the side that was said', () => {
    const still = differences(traced(DRAWN), shadows)!;
    const moved = differences(traced(DRAWN), shadows, {
      side: 'top',
      nudge: { across: 1, up: -0.5, turn: 0 },
    })!;
    const [before, after] = [still.rings[0]![0]!, moved.rings[0]![0]!];
    expect(after[0] - before[0]).toBeCloseTo(1, 3);
    expect(after[1] - before[1]).toBeCloseTo(-0.5, 3);
    const turned = differences(traced(DRAWN), shadows, { nudge: { across: 0, up: 0, turn: 90 } })!;
    // About its own middle, anticlockwise as it is seen.
    const about: Point2 = [12, -30];
    const [x, y] = [before[0] - about[0], before[1] - about[1]];
    expect(
      Math.hypot(turned.rings[0]![0]![0] - (about[0] - y), turned.rings[0]![0]![1] - (about[1] + x)),
    ).toBeLessThan(0.1);
    expect(turned.overlap).toBeLessThan(0.9);
  });

  test('an opening that the photo does not show is missed, one that the part lacks has no counterpart', () => {
    const without: Thing = { ...DRAWN, holes: [DRAWN.holes[0]!] };
    const found = differences(traced(without), shadows)!;
    expect(found.missing).toHaveLength(1);
    expect(found.missing[0]!.width).toBeCloseTo(14, 1);
    const more: Thing = { ...DRAWN, holes: [...DRAWN.holes, { at: [-10, 12], diameter: 5 }] };
    const strange = differences(traced(more), shadows)!;
    const round = strange.pieces.filter(p => p.piece === null);
    expect(round.map(p => p.off === null)).toEqual([false, false, true]);
    expect(strange.overlap).toBeLessThan(1);
  });

  test('a disc and another thing altogether', () => {
    const disc = drawn[2]!.map(([x, y]): Point2 => [3 * (x - 10), 3 * (y - 8)]);
    const rings = { ...shadows, top: [disc], bottom: mirrored([disc]) };
    const parted = partedInto(
      disc.map(([x, y]): Point2 => [x + 50, y - 20]),
      true,
      0.05,
    );
    const found = differences(new Doubt([parted], []), rings)!;
    expect(found.overlap).toBe(1);
    expect(found.pieces).toHaveLength(1);
    expect(Math.abs(found.mean!.value)).toBeLessThan(0.01);
    const other = differences(new Doubt([parted], []), shadows)!;
    expect(other.overlap).toBeLessThan(0.9);
    expect(
      differences(new Doubt([parted], []), {
        ...rings,
        top: [],
        bottom: [],
        front: [],
        back: [],
        right: [],
        left: [],
      }),
    ).toBeNull();
  });
});
