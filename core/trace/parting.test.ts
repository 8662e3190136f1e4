import { describe, expect, test } from 'vitest';
import { heldCamera } from '../bench/held-camera';
import { gauss, seeded } from '../bench/random';
import { areaOfCurves, type Curve, middleOf } from '../shape/curve';
import { distance2, type Point2, unit2 } from '../shape/vector';
import { eyeOf, projection } from './camera/camera';
import type { Thickness } from './contact';
import { loopOf, type Placing, placingBy, type TracedLoop, upwards } from './outline';
import { partedAsSaid, type Said } from './parting';

const PX = 10;
/** Seen from straight above: ten pixels per millimetre, x and y unchanged. */
const place: Placing = edges => edges.map(e => [e.seen[0] / PX, -e.seen[1] / PX]);
const px = ([x, y]: Point2): Point2 => [PX * x, -PX * y];

/** Edge points a quarter of a millimetre apart along straight lines and an arc each, with some scatter. */
function traced(line: readonly Point2[], scatter = 0.01): TracedLoop {
  const random = seeded(7);
  const points = line.map((p, i) => {
    const [a, b] = [line.at(i - 1)!, line[(i + 1) % line.length]!];
    const [x, y] = unit2([b[1] - a[1], a[0] - b[0]]);
    const off = gauss(random, 0, scatter);
    const seen = px([p[0] + off * x, p[1] + off * y]);
    return { at: [seen[0] / PX, seen[1] / PX] as Point2, seen, out: [x, -y] as Point2 };
  });
  const loop = loopOf(
    false,
    points,
    points.map(() => 'foot' as const),
    place,
    upwards,
    0.05,
  );
  if (!loop) throw new Error('no loop');
  return loop;
}

const STEP = 0.25;
const straight = (a: Point2, b: Point2): Point2[] => {
  const count = Math.round(distance2(a, b) / STEP);
  return Array.from({ length: count }, (_, i) => [
    a[0] + (i / count) * (b[0] - a[0]),
    a[1] + (i / count) * (b[1] - a[1]),
  ]);
};
const round = (middle: Point2, radius: number, from: number, to: number): Point2[] => {
  const count = Math.max(2, Math.round((radius * Math.abs(to - from) * Math.PI) / 180 / STEP));
  return Array.from({ length: count }, (_, i) => {
    const at = ((from + (i / count) * (to - from)) * Math.PI) / 180;
    return [middle[0] + radius * Math.cos(at), middle[1] + radius * Math.sin(at)];
  });
};
/** 40 × 20, one corner rounded. */
const plate = (radius: number): Point2[] => [
  ...straight([0, 0], [40, 0]),
  ...straight([40, 0], [40, 20 - radius]),
  ...round([40 - radius, 20 - radius], radius, 0, 90),
  ...straight([40 - radius, 20], [0, 20]),
  ...straight([0, 20], [0, 0]),
];

const said = (loop: TracedLoop, ...all: Said[]) => partedAsSaid({ loops: [loop], place }, all);
const curvesAfter = (loop: TracedLoop, ...all: Said[]): readonly Curve[] => {
  const { loops, lost } = said(loop, ...all);
  expect(lost).toEqual([]);
  return loops[0]!.curves;
};
const kinds = (curves: readonly Curve[]) =>
  curves
    .map(c => (c.arc ? 'arc' : 'line'))
    .sort()
    .join(' ');
const at = (x: number, y: number): Point2 => px([x, y]);

describe('lines and arcs as the maker says that they are', () => {
  const loop = traced(plate(6));

  test('what was found: four sides and a rounding', () => {
    expect(kinds(loop.curves)).toBe('arc line line line line');
  });

  test('a rounding that is a sharp corner: its neighbours meet where they cross, however far', () => {
    const curves = curvesAfter(loop, { as: 'out', at: at(38.2, 18.2) });
    expect(kinds(curves)).toBe('line line line line');
    // 40 × 20, exactly.
    expect(areaOfCurves(curves)).toBeCloseTo(800, 0);
    expect(curves.some(c => distance2(c.from, [40, 20]) < 0.02)).toBe(true);
  });

  test('a corner that is a rounding: as wide as its points say', () => {
    const small = traced(plate(0.9), 0.004);
    const sharp = said(small, { as: 'out', at: at(39.7, 19.7) }).loops[0]!;
    const curves = curvesAfter(kinds(small.curves).includes('arc') ? sharp : small, {
      as: 'round',
      at: at(40, 20),
    });
    const arc = curves.find(c => c.arc)!.arc!;
    expect(arc.radius).toBeGreaterThan(0.7);
    expect(arc.radius).toBeLessThan(1.1);
  });

  test('a side that is cut, and one that is put together again', () => {
    const cut = curvesAfter(loop, { as: 'cut', at: at(15, 0) });
    expect(cut).toHaveLength(6);
    expect(cut.some(c => distance2(c.from, [15, 0]) < 0.2)).toBe(true);
    const again = curvesAfter(loop, { as: 'cut', at: at(15, 0) }, { as: 'join', at: at(15, 0) });
    expect(kinds(again)).toBe(kinds(loop.curves));
    expect(areaOfCurves(again)).toBeCloseTo(areaOfCurves(loop.curves), 2);
  });

  test('two sides next to the place where the line begins are one as well', () => {
    // Wherever it begins: at each of the corners in turn.
    for (const corner of [at(0, 0), at(40, 0), at(0, 20)]) {
      const cut = said(loop, { as: 'join', at: corner });
      expect(cut.lost).toEqual([]);
      expect(cut.loops[0]!.curves).toHaveLength(4);
    }
  });

  test('a side that is an arc, and back', () => {
    const bow = traced([
      ...round([20, -80], Math.hypot(20, 80), 104.04, 75.96).reverse(),
      ...straight([40, 0], [40, -20]),
      ...straight([40, -20], [0, -20]),
      ...straight([0, -20], [0, 0]),
    ]);
    const flat = curvesAfter(bow, { as: 'line', at: at(20, 2.4) });
    expect(kinds(flat)).toBe('line line line line');
    const arcs = curvesAfter(bow, { as: 'line', at: at(20, 2.4) }, { as: 'arc', at: at(20, 2.4) });
    expect(arcs.find(c => c.arc)!.arc!.radius).toBeGreaterThan(78);
    expect(arcs.find(c => c.arc)!.arc!.radius).toBeLessThan(87);
  });

  test('what cannot be, and what is nowhere near, is told, and changes nothing', () => {
    const slot = traced([
      ...straight([0, 0], [30, 0]),
      ...round([30, 5], 5, -90, 90),
      ...straight([30, 10], [0, 10]),
      ...round([0, 5], 5, 90, 270),
    ]);
    // Opposite sides of a slot never meet.
    const { loops, lost } = said(slot, { as: 'out', at: at(35, 5) }, { as: 'join', at: at(400, 400) });
    expect(lost).toEqual([0, 1]);
    expect(loops[0]).toBe(slot);
  });

  test('a disc has neither corners nor sides', () => {
    const disc = traced(round([0, 0], 12, 0, 360));
    expect(said(disc, { as: 'cut', at: at(12, 0) }).lost).toEqual([0]);
  });
});

test('an edge that stands higher than the rest lies where the camera’s ray meets that height', () => {
  const camera = heldCamera(3000, 2250, { tilt: 8 });
  const see = projection(camera);
  const thickness: Thickness = { height: 3, broken: 0 };
  const whole = [
    ...straight([-20, -10], [20, -10]),
    ...straight([20, -10], [20, 10]),
    ...straight([20, 10], [-20, 10]),
    ...straight([-20, 10], [-20, -10]),
  ];
  // The upper edge all round, except the side at x = 20, a flange at 12.
  const heightOf = ([x]: Point2) => (x > 19.99 ? 12 : 3);
  const points = whole.map((p, i) => {
    const [a, b] = [whole.at(i - 1)!, whole[(i + 1) % whole.length]!];
    const seen = see(p[0], -p[1], heightOf(p));
    return { at: upwards(p), seen, out: unit2([b[1] - a[1], b[0] - a[0]]) };
  });
  const by = placingBy(camera, thickness);
  const loop = loopOf(
    false,
    points,
    points.map(() => 'top' as const),
    by,
    upwards,
    0.05,
  )!;
  /** Where the side at x = 20 lies half-way up. */
  const sideOf = (l: TracedLoop) =>
    l.curves.map(middleOf).reduce((a, b) => (distance2(b, [20, 0]) < distance2(a, [20, 0]) ? b : a))[0];
  // Assumed 3 high, it is off by (eye − place)·(12 − 3)/(H − 12), to first order: similar triangles.
  const eye = eyeOf(camera);
  const off = ((20 - eye.at[0]) * 9) / (eye.height - 12);
  expect(Math.abs(off)).toBeGreaterThan(0.2);
  expect(sideOf(loop) - 20).toBeCloseTo(off, 1);
  const { loops, lost } = partedAsSaid({ loops: [loop], place: by }, [
    { as: 'height', at: see(20, 0, 12), height: 12 },
  ]);
  expect(lost).toEqual([]);
  expect(sideOf(loops[0]!)).toBeCloseTo(20, 2);
});
