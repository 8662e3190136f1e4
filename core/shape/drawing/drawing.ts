/**
 * Views as data: one renderer each for the page, SVG, DXF and PDF. Lengths mm, y up.
 */
export type DrawPoint = readonly [number, number];

export interface DrawShape<K extends string = string> {
  /** How it is drawn: a cut face is hatched, an edge beyond it is thin, a mate has the working colour. */
  ink: 'cut' | 'edge' | 'mate' | 'centre' | 'ghost';
  points: readonly DrawPoint[];
  closed?: boolean;
  /** The key of its dimension or mate, so that selecting one highlights it. */
  key?: K;
}

export interface DrawDimension<K extends string = string> {
  /** The dimension's or parameter's key. */
  key: K | typeof AS_DRAWN;
  label: string;
  from: DrawPoint;
  to: DrawPoint;
  /** The position of the dimension line: a y for one measured across, an x for one measured up; unused along. */
  line: number;
  direction: 'across' | 'up' | 'along';
  diameter?: boolean;
}

/** The key of a dimension without a parameter of its own: its value is its drawn length. */
export const AS_DRAWN = 'as-drawn';

/** The drawn length of a dimension, mm: for one without a parameter. */
export const drawnLength = ({ from, to, direction }: DrawDimension): number => {
  const [x, y] = [Math.abs(to[0] - from[0]), Math.abs(to[1] - from[1])];
  return direction === 'across' ? x : direction === 'up' ? y : Math.hypot(x, y);
};

export interface Drawing<K extends string = string> {
  title: string;
  shapes: readonly DrawShape<K>[];
  dimensions: readonly DrawDimension<K>[];
  /** min x, min y, max x, max y of everything, dimension lines included. */
  frame: readonly [number, number, number, number];
}

/** The frame that holds shapes and dimension lines, with a margin for their labels. */
export function frameOf(
  shapes: readonly DrawShape[],
  dimensions: readonly DrawDimension[],
  margin: number,
): Drawing['frame'] {
  const xs: number[] = [];
  const ys: number[] = [];
  for (const shape of shapes) {
    for (const [x, y] of shape.points) {
      xs.push(x);
      ys.push(y);
    }
  }
  for (const d of dimensions) {
    if (d.direction === 'across') {
      xs.push(d.from[0], d.to[0]);
      ys.push(d.line);
    } else if (d.direction === 'along') {
      xs.push(d.from[0], d.to[0]);
      ys.push(d.from[1], d.to[1]);
    } else {
      ys.push(d.from[1], d.to[1]);
      xs.push(d.line);
    }
  }
  return [
    Math.min(...xs) - margin,
    Math.min(...ys) - margin,
    Math.max(...xs) + margin,
    Math.max(...ys) + margin,
  ];
}

/** A half outline in (radius, height) and its mirror image: a cut through a turned part. */
export function mirrored(points: readonly DrawPoint[]): DrawPoint[] {
  return points.map(([x, y]) => [-x, y] as const);
}
