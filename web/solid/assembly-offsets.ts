import type { ShownAssembly } from '../workers/solid-protocol';

type Vector = [number, number, number];
/** Pulled off by its own size plus this, mm. */
const CLEAR = 12;

/** How far each part is moved from its place, for a view. */
export function offsetsFor(
  { parts }: ShownAssembly,
  view: 'together' | 'exploded' | 'apart',
): readonly Vector[] {
  if (view === 'together') return parts.map(() => [0, 0, 0]);
  if (view === 'exploded')
    return parts.map(({ off, min, max }): Vector => {
      const long = off.reduce((sum, x, i) => sum + Math.abs(x) * (max[i]! - min[i]!), 0) + CLEAR;
      return [off[0]! * long, off[1]! * long, off[2]! * long];
    });
  // In a row from left to right, each down on the bed.
  let right = 0;
  return parts.map(({ min, max }): Vector => {
    const by: Vector = [right - min[0]!, -(min[1]! + max[1]!) / 2, -min[2]!];
    right += max[0]! - min[0]! + CLEAR;
    return by;
  });
}

/** The box around all parts after they were moved. */
export function boxAfter({ parts }: ShownAssembly, offsets: readonly Vector[]): [number[], number[]] {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  parts.forEach(({ min, max }, k) => {
    for (let i = 0; i < 3; i++) {
      low[i] = Math.min(low[i]!, min[i]! + offsets[k]![i]!);
      high[i] = Math.max(high[i]!, max[i]! + offsets[k]![i]!);
    }
  });
  return [low, high];
}
