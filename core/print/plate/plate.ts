import { boundsOf, type TriangleMesh } from '../../shape/mesh/mesh';
import { footprintOf, leastRectangle } from '../footprint';
import { BedGrid, type Mask, maskOf } from './mask';
import { GAP, laidOut, rowsOf } from './rows';

/** Parts arranged on beds by their outlines, or in rows where that holds more. Lengths mm. */

type Bed = Readonly<{ width: number; depth: number }>;

export interface PlateBody {
  /** As it lies. */
  mesh: TriangleMesh;
  pieces: number;
}

/** The place of one piece: turned about the upright axis, degrees, then its left front corner put there. */
export interface Placement {
  /** The index of its body. */
  body: number;
  turn: number;
  x: number;
  y: number;
}

/** Turns that are tried for copies of one part; on a plate with several parts, only right angles. */
const TURNS_OF_COPIES = [0, 90, 180, 270, 45, 135];
const TURNS = [0, 90, 180, 270];
/** More beds than this are counted but not arranged. */
const MOST_BEDS = 20;

export interface Plates {
  /** Bed by bed. */
  beds: Placement[][];
  /** By body: pieces that fit on no bed. */
  left: number[];
}

/** The fewest beds that it finds, each as full as possible. @param gap between neighbours, mm */
export function platesOf(bodies: readonly PlateBody[], bed: Bed, gap = GAP): Plates {
  const left = bodies.map(b => b.pieces);
  const beds: Placement[][] = [];
  const masks = bodies.map(({ mesh }) => masksOf(mesh, gap, bodies.length === 1 ? TURNS_OF_COPIES : TURNS));
  while (left.some(n => n > 0) && beds.length < MOST_BEDS) {
    const one = oneBed(bodies, masks, left, bed, gap);
    if (one.length === 0) break;
    for (const { body } of one) left[body]!--;
    beds.push(inTheMiddle(one, bodies, bed));
  }
  return { beds, left };
}

/** How many of one part fit on one bed, at most the number asked for. */
export const copiesOnBed = (mesh: TriangleMesh, bed: Bed, pieces: number, gap = GAP): number =>
  oneBed([{ mesh, pieces }], [masksOf(mesh, gap, TURNS_OF_COPIES)], [pieces], bed, gap).length;

function oneBed(
  bodies: readonly PlateBody[],
  masks: readonly Turned[][],
  left: readonly number[],
  bed: Bed,
  gap: number,
): Placement[] {
  const [only] = bodies;
  if (!only) return [];
  // All in rows, in the given order: sizes of a family are easily found again.
  if (bodies.length > 1) return allInRows(bodies, left, bed, gap) ?? onBed(masks, left, bed);
  const byOutline = onBed(masks, left, bed);
  const inRows = copiesInRows(only.mesh, bed, gap);
  return inRows.length >= byOutline.length ? inRows.slice(0, left[0]) : byOutline;
}

/** Moves everything on a bed together into its middle. */
function inTheMiddle(placed: readonly Placement[], bodies: readonly PlateBody[], bed: Bed): Placement[] {
  const ends = placed.map(p => {
    const { min, max } = boundsOf(turned(bodies[p.body]!.mesh, p.turn));
    return [p.x + max[0] - min[0], p.y + max[1] - min[1]] as const;
  });
  const room = (size: number, starts: number[], stops: number[]) =>
    (size - Math.max(...stops) - Math.min(...starts)) / 2;
  const x = room(
    bed.width,
    placed.map(p => p.x),
    ends.map(e => e[0]),
  );
  const y = room(
    bed.depth,
    placed.map(p => p.y),
    ends.map(e => e[1]),
  );
  return placed.map(p => ({ ...p, x: p.x + x, y: p.y + y }));
}

interface Turned {
  turn: number;
  mask: Mask;
}

/** A part that fits only at an angle is placed at that angle. */
function masksOf(mesh: TriangleMesh, gap: number, turns: readonly number[]): Turned[] {
  const least = leastRectangle(footprintOf(mesh)).turn;
  const all = [...turns, ...(isRightAngle(least) ? [] : [least, least + 90])];
  return all.map(turn => ({ turn, mask: maskOf(turned(mesh, turn), gap) }));
}

const isRightAngle = (turn: number) => Math.abs(turn - 90 * Math.round(turn / 90)) < 0.5;

/** The largest first, each where it reaches back least. */
function onBed(masks: readonly Turned[][], left: readonly number[], bed: Bed): Placement[] {
  const border = Math.max(...masks.flat().map(({ mask }) => mask.border));
  const grid = new BedGrid(bed, border);
  const size = (i: number) => masks[i]![0]!.mask.width * masks[i]![0]!.mask.depth;
  const order = left.map((_, i) => i).sort((a, b) => size(b) - size(a) || a - b);
  const placed: Placement[] = [];
  for (const body of order) {
    // Rows in front of the last one's place are full for this turn.
    const begin = masks[body]!.map(() => 0);
    for (let piece = 0; piece < left[body]!; piece++) {
      let best: { turned: Turned; x: number; y: number; back: number } | undefined;
      masks[body]!.forEach((one, k) => {
        if (begin[k]! < 0) return;
        const place = grid.freePlace(one.mask, begin[k]);
        begin[k] = place ? place.y : -1;
        const back = place ? place.y + one.mask.depth : Infinity;
        if (place && (!best || back < best.back - 1e-6)) best = { turned: one, ...place, back };
      });
      if (!best) break;
      grid.put(best.turned.mask, best.x, best.y);
      placed.push({ body, turn: best.turned.turn, x: best.x, y: best.y });
    }
  }
  return placed;
}

function copiesInRows(mesh: TriangleMesh, bed: Bed, gap: number): Placement[] {
  const { turn, length, width } = leastRectangle(footprintOf(mesh));
  const { min, max } = boundsOf(mesh);
  const asPlaced = rowsOf([max[0] - min[0], max[1] - min[1]], bed, gap);
  const tight = rowsOf([length, width], bed, gap);
  const [rows, by] = tight.length > asPlaced.length ? [tight, turn] : [asPlaced, 0];
  return rows.map(({ x, y, quarter }) => ({ body: 0, turn: by + (quarter ? 90 : 0), x, y }));
}

function allInRows(
  bodies: readonly PlateBody[],
  left: readonly number[],
  bed: Bed,
  gap: number,
): Placement[] | null {
  const all = bodies.flatMap(({ mesh }, body) => Array.from({ length: left[body]! }, () => ({ body, mesh })));
  const laid = laidOut(all, bed.width, bed.depth, gap);
  return (
    laid?.map(({ body, mesh }) => {
      const { min } = boundsOf(mesh);
      return { body, turn: 0, x: min[0], y: min[1] };
    }) ?? null
  );
}

/** Turned about the upright axis, lengths mm, degrees. */
export function turned({ positions: p, triangles }: TriangleMesh, turn: number): TriangleMesh {
  if (turn % 360 === 0) return { positions: p, triangles };
  const a = (turn * Math.PI) / 180;
  const [c, s] =
    turn % 90 === 0 ? [Math.round(Math.cos(a)), Math.round(Math.sin(a))] : [Math.cos(a), Math.sin(a)];
  const positions = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 3) {
    positions[i] = c * p[i]! - s * p[i + 1]!;
    positions[i + 1] = s * p[i]! + c * p[i + 1]!;
    positions[i + 2] = p[i + 2]!;
  }
  return { positions, triangles };
}

/** A part where it was placed. */
export function placedOn(
  mesh: TriangleMesh,
  { turn, x, y }: Pick<Placement, 'turn' | 'x' | 'y'>,
): TriangleMesh {
  const lies = turned(mesh, turn);
  const { min } = boundsOf(lies);
  const by = [x - min[0], y - min[1], 0];
  return { ...lies, positions: lies.positions.map((v, i) => v + by[i % 3]!) };
}
