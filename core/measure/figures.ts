import {
  type DrawDimension,
  type Drawing,
  type DrawPoint,
  type DrawShape,
  frameOf,
} from '../shape/drawing/drawing';

/** A plain figure for each derived dimension: where its inputs are taken. Sizes are those of the figure. */
const figure = (title: string, shapes: DrawShape[], dimensions: DrawDimension[]): Drawing => ({
  title,
  shapes,
  dimensions,
  frame: frameOf(shapes, dimensions, 3),
});

const across = (
  key: string,
  label: string,
  x1: number,
  x2: number,
  y: number,
  line: number,
  diameter = false,
): DrawDimension => ({
  key,
  label,
  from: [x1, y],
  to: [x2, y],
  line,
  direction: 'across',
  diameter,
});
const up = (key: string, label: string, x: number, y1: number, y2: number, line: number): DrawDimension => ({
  key,
  label,
  from: [x, y1],
  to: [x, y2],
  line,
  direction: 'up',
});

/** An arc as points, degrees, counter-clockwise. */
function arc(cx: number, cy: number, r: number, from = 0, to = 360): DrawPoint[] {
  const n = Math.max(8, Math.round(Math.abs(to - from) / 6));
  return Array.from({ length: n + 1 }, (_, i) => {
    const t = ((from + ((to - from) * i) / n) * Math.PI) / 180;
    return [cx + r * Math.cos(t), cy + r * Math.sin(t)] as const;
  });
}
const circle = (
  cx: number,
  cy: number,
  r: number,
  ink: DrawShape['ink'] = 'cut',
  key?: string,
): DrawShape => ({
  ink,
  points: arc(cx, cy, r),
  closed: true,
  key,
});
const closed = (ink: DrawShape['ink'], ...points: DrawPoint[]): DrawShape => ({ ink, points, closed: true });
const line = (ink: DrawShape['ink'], ...points: DrawPoint[]): DrawShape => ({ ink, points });
const polygon = (n: number, r: number): DrawPoint[] =>
  Array.from(
    { length: n },
    (_, i) => [r * Math.cos((2 * Math.PI * i) / n), r * Math.sin((2 * Math.PI * i) / n)] as const,
  );

/** A row of ridges along y = 0, for pitches. */
function ridges(count: number, pitch: number, height: number): DrawPoint[] {
  const points: DrawPoint[] = [[-pitch, -14]];
  for (let i = -1; i < count; i++) {
    points.push([i * pitch, 0], [(i + 0.5) * pitch, height]);
  }
  points.push([count * pitch, 0], [count * pitch, -14]);
  return points;
}

const flats = (30 * Math.sqrt(3)) / 2;
const cone: DrawShape = closed('cut', [-24, 0], [24, 0], [15, 44], [-15, 44]);

const FIGURES: Record<string, () => Drawing> = {
  radius: () =>
    figure('Half of a diameter', [circle(0, 0, 25)], [across('diameter', 'diameter', -25, 25, 0, 33, true)]),
  'diameter-from-tape': () =>
    figure(
      'A tape once round',
      [circle(0, 0, 25), circle(0, 0, 27.5, 'mate', 'around')],
      [across('around', 'around', -27.5, 27.5, 0, 37), up('tape', 'tape', 27.5, 25, 27.5, 44)],
    ),
  'centre-distance': () =>
    figure(
      'Two holes, nearest and farthest edges',
      [
        closed('cut', [-45, -18], [45, -18], [45, 18], [-45, 18]),
        circle(-24, 0, 9, 'edge'),
        circle(24, 0, 9, 'edge'),
      ],
      [across('inside', 'nearest', -15, 15, 0, 26), across('outside', 'farthest', -33, 33, 0, -27)],
    ),
  'centre-distance-from-gap': () =>
    figure(
      'A gap and two diameters',
      [circle(-24, 0, 9), circle(24, 0, 11)],
      [
        across('inside', 'gap', -15, 13, 0, 20),
        across('first', 'first', -33, -15, 0, -18, true),
        across('second', 'second', 13, 35, 0, -18, true),
      ],
    ),
  'radius-from-chord': () =>
    figure(
      'A piece of an arc',
      [line('mate', ...arc(0, -24, 40, 37, 143)), line('edge', [-32, 0], [32, 0])],
      [across('chord', 'chord', -32, 32, 0, -10), up('height', 'height', 0, 0, 16, 40)],
    ),
  'circle-through-three': () =>
    figure(
      'Three points from one corner',
      [
        circle(30, 28, 20, 'edge'),
        ...[20, 100, 250].map(a => circle(...(arc(30, 28, 20, a, a)[0] as [number, number]), 1.4, 'cut')),
        line('centre', [0, 0], [60, 0]),
        line('centre', [0, 0], [0, 54]),
      ],
      [],
    ),
  'across-corners': () =>
    figure(
      'A hexagon on its corners',
      [closed('cut', ...polygon(6, 30))],
      [up('flats', 'flats', -15, -flats, flats, -40)],
    ),
  'flats-from-corners': () =>
    figure(
      'A hexagon over its corners',
      [closed('cut', ...polygon(6, 30))],
      [across('corners', 'corners', -30, 30, 0, 36)],
    ),
  taper: () =>
    figure(
      'A cone from the side',
      [cone],
      [
        across('large', 'large', -24, 24, 0, -9, true),
        across('small', 'small', -15, 15, 44, 53, true),
        up('length', 'length', 24, 0, 44, 34),
      ],
    ),
  'taper-stop': () =>
    figure(
      'A ring on a cone',
      [
        cone,
        closed('mate', [-28, 20], [-19.9, 20], [-19.9, 26], [-28, 26]),
        closed('mate', [28, 20], [19.9, 20], [19.9, 26], [28, 26]),
      ],
      [
        across('large', 'large', -24, 24, 0, -9, true),
        across('small', 'small', -15, 15, 44, 53, true),
        up('length', 'length', 24, 0, 44, 38),
        across('bore', 'bore', -19.9, 19.9, 20, 13, true),
      ],
    ),
  pitch: () =>
    figure(
      'Ridges from the side',
      [closed('cut', ...ridges(7, 9, 7))],
      [across('span', 'span', 4.5, 49.5, 7, 16)],
    ),
  wall: () =>
    figure(
      'A tube cut through',
      [circle(0, 0, 27), circle(0, 0, 20, 'edge')],
      [across('outside', 'outside', -27, 27, 0, 35, true), across('inside', 'inside', -20, 20, 0, -35, true)],
    ),
  'depth-step': () =>
    figure(
      'A stepped hole cut through',
      [
        closed(
          'cut',
          [-36, 0],
          [-18, 0],
          [-18, -20],
          [-9, -20],
          [-9, -42],
          [9, -42],
          [9, -20],
          [18, -20],
          [18, 0],
          [36, 0],
          [36, -52],
          [-36, -52],
        ),
      ],
      [up('shallow', 'shallow', -18, -20, 0, -46), up('deep', 'deep', 9, -42, 0, 46)],
    ),
  'angle-from-offsets': () =>
    figure(
      'Two heights over a straight edge',
      [closed('cut', [-34, 8], [34, 30], [34, 44], [-34, 44]), line('edge', [-40, 0], [40, 0])],
      [
        up('near', 'first', -24, 0, 11.2, -42),
        up('far', 'second', 24, 0, 26.8, 42),
        across('between', 'between', -24, 24, 0, -9),
      ],
    ),
  'bolt-circle': () =>
    figure(
      'Holes on a circle',
      [
        circle(0, 0, 34),
        ...[54, 126, 198, 270, 342].map(a =>
          circle(...(arc(0, 0, 24, a, a)[0] as [number, number]), 4, 'edge'),
        ),
        circle(0, 0, 24, 'ghost'),
      ],
      [across('chord', 'neighbours', -14.1, 14.1, 19.4, 42)],
    ),
  'in-between-size': () =>
    figure(
      'The size between',
      [circle(-40, 0, 12), circle(0, 0, 15, 'ghost'), circle(44, 0, 18)],
      [across('below', 'below', -52, -28, 0, -20, true), across('above', 'above', 26, 62, 0, -26, true)],
    ),
  'small-bore': () =>
    figure(
      'Two lands in a bore',
      [
        circle(0, 0, 26),
        closed('mate', [-24, -9], [-19, -9], [-19, 9], [-24, 9]),
        closed('mate', [24, -9], [19, -9], [19, 9], [24, 9]),
      ],
      [across('reading', 'reading', -24, 24, 9, 34), up('land', 'land', 24, -9, 9, 36)],
    ),
};

/** @throws RangeError for a kind without a figure */
export function deriveFigure(kind: string): Drawing {
  const make = FIGURES[kind];
  if (!make) throw new RangeError(`There is no figure for “${kind}”.`);
  return make();
}
