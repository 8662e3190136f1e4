import { polygonHull } from 'd3-polygon';
import type { Point2 } from '../../shape/vector';
import { type GcodeFile, ROLES } from './file';

/** The things on the bed in a sliced file: connected groups of pieces, seen from above. Lengths mm. */

export interface Thing {
  /** From below; each layer has its pieces by index. */
  layers: { z: number; pieces: Uint32Array }[];
  /** Convex, anticlockwise, around the centres of its lines above the first layer. */
  outline: Point2[];
  box: [x0: number, y0: number, x1: number, y1: number];
  /** Cells that it covers. */
  cells: number;
}

const CELL = 1;
/** No bed is wider: moves farther out are not part of a print, mm. */
const WIDEST = 3000;
/** Two things are copies where their bounding boxes differ by no more than this, as a share and mm. */
const [ALIKE_SHARE, ALIKE] = [0.02, 0.6];
const IGNORED = new Set(['support', 'skirt', 'prime'].map(r => ROLES.indexOf(r as (typeof ROLES)[number])));

/** Whether a piece is part of the thing itself rather than a support or brim. */
export const isOfThePart = ({ role }: GcodeFile, i: number): boolean => !IGNORED.has(role[i]!);

/** The largest first. */
export function thingsIn(file: GcodeFile): Thing[] {
  const { x0, y0, x1, y1, layers } = file;
  // Brims may touch in the first layer.
  const above = layers.length > 2 ? layers.slice(1) : layers;
  const box = [Infinity, Infinity, -Infinity, -Infinity] as [number, number, number, number];
  const each = (take: (i: number) => void) => {
    for (const { from, to } of above) for (let i = from; i < to; i++) if (isOfThePart(file, i)) take(i);
  };
  each(i => grow(box, x0[i]!, y0[i]!, x1[i]!, y1[i]!));
  if (!(box[2] - box[0] < WIDEST && box[3] - box[1] < WIDEST)) return [];
  const across = Math.ceil((box[2] - box[0]) / CELL) + 3;
  const deep = Math.ceil((box[3] - box[1]) / CELL) + 3;
  const cellAt = (x: number, y: number) =>
    (Math.floor((y - box[1]) / CELL) + 1) * across + Math.floor((x - box[0]) / CELL) + 1;
  const covered = new Uint8Array(across * deep);
  each(i => {
    const [dx, dy] = [x1[i]! - x0[i]!, y1[i]! - y0[i]!];
    const steps = Math.ceil(Math.max(Math.abs(dx), Math.abs(dy)) / (0.7 * CELL));
    for (let s = 0; s <= steps; s++)
      covered[cellAt(x0[i]! + (s / (steps || 1)) * dx, y0[i]! + (s / (steps || 1)) * dy)] = 1;
  });
  const { label, sizes } = labelled(covered, across);
  const things = sizes.map(
    (cells): Thing => ({
      layers: [],
      outline: [],
      box: [Infinity, Infinity, -Infinity, -Infinity],
      cells,
    }),
  );
  for (const layer of layers) {
    const own: number[][] = things.map(() => []);
    for (let i = layer.from; i < layer.to; i++) {
      if (!isOfThePart(file, i)) continue;
      const c = cellAt(x0[i]!, y0[i]!);
      const of = label[c];
      if (of) own[of - 1]!.push(i);
    }
    own.forEach((pieces, t) => {
      if (pieces.length > 0) things[t]!.layers.push({ z: layer.z, pieces: Uint32Array.from(pieces) });
    });
  }
  for (const thing of things) {
    const points: [number, number][] = [];
    thing.layers.sort((a, b) => a.z - b.z);
    const body = thing.layers.length > 2 ? thing.layers.slice(1) : thing.layers;
    for (const { pieces } of body)
      for (const i of pieces) {
        grow(thing.box, x0[i]!, y0[i]!, x1[i]!, y1[i]!);
        points.push([x0[i]!, y0[i]!], [x1[i]!, y1[i]!]);
      }
    thing.outline = polygonHull(points)?.reverse() ?? [];
  }
  return things.filter(t => t.outline.length > 2).sort((a, b) => b.cells - a.cells);
}

/** How many of the things are as large as the first. */
export function copiesIn(things: readonly Thing[]): number {
  const [first] = things;
  if (!first) return 0;
  const like = (a: number, b: number) => Math.abs(a - b) < ALIKE + ALIKE_SHARE * b;
  return things.filter(
    t =>
      like(areaOf(t.outline), areaOf(first.outline)) &&
      like(t.layers.at(-1)!.z, first.layers.at(-1)!.z) &&
      Math.abs(t.cells / first.cells - 1) < 0.1,
  ).length;
}

const areaOf = (outline: readonly Point2[]) =>
  Math.sqrt(
    Math.abs(
      outline.reduce((sum, [x, y], i) => {
        const [u, v] = outline[(i + 1) % outline.length]!;
        return sum + (x * v - u * y) / 2;
      }, 0),
    ),
  );

function grow(box: Thing['box'], ax: number, ay: number, bx: number, by: number): void {
  box[0] = Math.min(box[0], ax, bx);
  box[1] = Math.min(box[1], ay, by);
  box[2] = Math.max(box[2], ax, bx);
  box[3] = Math.max(box[3], ay, by);
}

/** Connected groups of cells, corners included: numbered from 1. */
function labelled(covered: Uint8Array, across: number): { label: Uint32Array; sizes: number[] } {
  const label = new Uint32Array(covered.length);
  const sizes: number[] = [];
  const open: number[] = [];
  const around = [-1, 1, -across, across, -across - 1, -across + 1, across - 1, across + 1];
  for (let c = 0; c < covered.length; c++) {
    if (!covered[c] || label[c]) continue;
    sizes.push(0);
    label[c] = sizes.length;
    open.push(c);
    for (let now = open.pop(); now !== undefined; now = open.pop()) {
      sizes[sizes.length - 1]!++;
      for (const by of around) {
        const next = now + by;
        if (covered[next] && !label[next]) {
          label[next] = sizes.length;
          open.push(next);
        }
      }
    }
  }
  return { label, sizes };
}
