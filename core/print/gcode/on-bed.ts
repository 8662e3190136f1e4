import type { GcodeFile } from './file';
import { copiesIn, type Thing, thingsIn } from './things';

/** What is known of a file before it is compared with versions. */
export interface Bed {
  things: Thing[];
  copies: number;
  layer: number;
  firstLayer: number;
  lineWidth: number;
}

/** Diameter of filament where it is not stated, mm. Common practice, no source. */
export const FILAMENT = 1.75;
export function bedOf(file: GcodeFile): Bed {
  const things = thingsIn(file);
  const heights = file.layers.map(l => l.z);
  const steps = heights
    .slice(1)
    .map((z, i) => z - heights[i]!)
    .filter(d => d > 0.01)
    .sort((a, b) => a - b);
  const layer = steps[Math.floor(steps.length / 2)] ?? heights[0] ?? 0.2;
  const own = things[0]?.layers ?? [];
  const firstLayer = own[0]?.z ?? heights[0] ?? layer;
  return {
    things,
    copies: copiesIn(things),
    layer,
    firstLayer,
    lineWidth: lineWidthOf(file, things[0], layer),
  };
}

/** A line's width from the plastic in it, as a rectangle. */
function lineWidthOf(
  { x0, y0, x1, y1, e, role, said }: GcodeFile,
  thing: Thing | undefined,
  layer: number,
): number {
  const area = (Math.PI * (said.diameter ?? FILAMENT) ** 2) / 4;
  const widths: number[] = [];
  const layers = thing?.layers ?? [];
  const step = Math.max(1, Math.floor(layers.length / 12));
  for (let k = Math.min(2, layers.length - 1); k >= 0 && k < layers.length; k += step)
    for (const i of layers[k]!.pieces) {
      const long = Math.hypot(x1[i]! - x0[i]!, y1[i]! - y0[i]!);
      // Outermost passes where they are marked, otherwise any line.
      if (long > 0.5 && role[i]! <= 1) widths.push((area * e[i]!) / (long * layer));
    }
  widths.sort((a, b) => a - b);
  const width = widths[Math.floor(widths.length / 2)] ?? 0.42;
  return Math.min(3, Math.max(0.1, width));
}
