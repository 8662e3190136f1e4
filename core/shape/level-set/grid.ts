/** Points in rows, columns and layers, with the same spacing in every direction. Lengths mm. */
export interface Grid {
  /** The first point. */
  readonly from: readonly [number, number, number];
  readonly cell: number;
  /** Number of points to the right, to the back and up. */
  readonly count: readonly [number, number, number];
}

/** A number at each point of a grid: first to the right, then to the back, then up. */
export interface Field {
  readonly grid: Grid;
  readonly values: Float32Array;
}

/** @param most points at all: for a larger box the spacing grows */
export function gridOver(
  min: readonly [number, number, number],
  max: readonly [number, number, number],
  cell: number,
  most: number,
): Grid {
  const size = [0, 1, 2].map(i => Math.max(max[i]! - min[i]!, cell));
  let step = cell;
  const points = () => size.map(s => Math.ceil(s / step - 1e-9) + 1) as [number, number, number];
  while (points().reduce((product, n) => product * n, 1) > most) step *= 1.05;
  return { from: min, cell: step, count: points() };
}
