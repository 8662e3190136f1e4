import {
  type DrawDimension,
  type Drawing,
  type DrawPoint,
  type DrawShape,
  frameOf,
} from '../../shape/drawing/drawing';

/** What is measured on a thread, by the ids of its dimensions. */
export interface ThreadKeys {
  side: 'external' | 'internal';
  /** Over the ridges or between them. */
  measured: 'major' | 'minor';
  diameter: string;
  span: string;
  ridgeHeight: string | null;
  ridgeWidth: string | null;
}

const PITCH = 10;
const HEIGHT = 6;
const TURNS = 6;
const CORE = 16;

/** Half a thread's outline above the axis, from left to right. */
function ridges(sign: 1 | -1, base: number): DrawPoint[] {
  const points: DrawPoint[] = [];
  for (let i = 0; i < TURNS; i++) {
    const x = i * PITCH;
    points.push([x, base], [x + 2.5, base + sign * HEIGHT], [x + 4.5, base + sign * HEIGHT], [x + 7, base]);
  }
  points.push([TURNS * PITCH, base]);
  return points;
}

const mirror = (points: readonly DrawPoint[]): DrawPoint[] => points.map(([x, y]) => [x, -y] as const);

/** A thread from the side (external) or cut through (internal) with the dimensions to measure. */
export function threadFigure(keys: ThreadKeys): Drawing {
  const outside = keys.side === 'external';
  const length = TURNS * PITCH;
  const top = outside ? CORE + HEIGHT : CORE;
  const upper = outside ? ridges(1, CORE) : ridges(-1, CORE + HEIGHT);
  const shapes: DrawShape[] = outside
    ? [{ ink: 'cut', points: [...upper, ...mirror(upper).reverse()], closed: true }]
    : [
        {
          ink: 'cut',
          points: [...upper, [length, CORE + HEIGHT + 10], [0, CORE + HEIGHT + 10]],
          closed: true,
        },
        {
          ink: 'cut',
          points: [...mirror(upper), [length, -CORE - HEIGHT - 10], [0, -CORE - HEIGHT - 10]],
          closed: true,
        },
      ];
  shapes.push({
    ink: 'centre',
    points: [
      [-6, 0],
      [length + 6, 0],
    ],
  });
  const far = outside ? top + 14 : CORE + HEIGHT + 22;
  const crest = 3.5;
  const diameter = keys.measured === 'major' ? CORE + HEIGHT : CORE;
  // The crest of an external thread and the root of an internal one are at the same place along the axis.
  const reached = (keys.measured === 'major') === outside ? crest : 0;
  const dimensions: DrawDimension[] = [
    {
      key: keys.diameter,
      label: outside
        ? keys.measured === 'major'
          ? 'outside'
          : 'core'
        : keys.measured === 'major'
          ? 'roots'
          : 'hole',
      from: [reached, -diameter],
      to: [reached, diameter],
      line: -12,
      direction: 'up',
      diameter: true,
    },
    {
      key: keys.span,
      label: 'span',
      from: [crest, top],
      to: [crest + 4 * PITCH, top],
      line: far,
      direction: 'across',
    },
  ];
  if (keys.ridgeHeight)
    dimensions.push({
      key: keys.ridgeHeight,
      label: 'ridge height',
      from: [length - 6.5, CORE],
      to: [length - 6.5, CORE + HEIGHT],
      line: length + 10,
      direction: 'up',
    });
  if (keys.ridgeWidth) {
    const y = outside ? -CORE : -CORE - HEIGHT;
    dimensions.push({
      key: keys.ridgeWidth,
      label: 'ridge width',
      from: [2 * PITCH, y],
      to: [2 * PITCH + 7, y],
      line: -far,
      direction: 'across',
    });
  }
  return {
    title: outside ? 'The thread from the side' : 'The threaded hole, cut through',
    shapes,
    dimensions,
    frame: frameOf(shapes, dimensions, 3),
  };
}
