import type { Point3 } from '../../shape/vector';
import { type Columns, middleOfCell } from '../columns';
import { dropOf, type Hangs, isLip, needsSupport, type SupportRules } from '../hangs';
import type { Island } from './islands';

/** What hangs over air, region by region, each with its kind: the names that people who print use. Lengths mm. */

/**
 * bridge: carried at both ends, and short enough to span freely. roof: too long for that. overhang: carried at one end,
 * or nowhere. lean: a wall that leans out too far. island: it begins in the air.
 */
export type HangKind = 'bridge' | 'roof' | 'overhang' | 'lean' | 'island';

export interface Region {
  kind: HangKind;
  /** Area seen from above, mm²: what needs support; for a region that needs none, all of it. */
  area: number;
  /** Volume of the supports under it, mm³. */
  volume: number;
  /** The share of that area whose supports stand on the part. */
  onPart: number;
  /** Its span between its ends, or its reach from where it is carried; infinite where nothing carries it. */
  reach: number;
  /** Its lean from the upright, degrees: 90 for a flat ceiling. */
  angle: number;
  /** A place in its middle, on its surface, in the pose. */
  at: Point3;
  /** Two places on the edges that carry it, far from each other; fewer where there are none. */
  carriedAt: Point3[];
  /** Its lowest place above the bed. */
  begins: number;
  /** The height where an island joins the rest. */
  meets?: number;
  /** Positions in the lists of hangs. */
  places: number[];
}

/** A steeper ceiling counts as flat, degrees from the upright. */
const FLAT = 75;
/** The middle of a ceiling is at least this far from its nearest edge, as a share of its span. */
const LEDGE = 0.3;
/** Smaller regions are not worth mentioning, mm². */
const LEAST_AREA = 1.5;
/** Bridges this short need no mention, mm. */
const LEAST_BRIDGE = 2;

/**
 * @param angleOf by crossing, how far the surface leans there, degrees from the upright
 * @returns what needs support first, the largest first
 */
export function regionsOf(
  columns: Columns,
  hangs: Hangs,
  islands: readonly Island[],
  angleOf: (crossing: number) => number,
  rules: SupportRules,
): Region[] {
  const { crossing, before } = hangs;
  const asks = Uint8Array.from(crossing, (_, i) => (needsSupport(hangs, i, rules) ? 1 : 0));
  const reaches = reachesOf(columns, hangs);
  const groups = grouped(crossing.length, before, i => !isLip(hangs, i));
  const unseen = new Set(islands);
  const regions = groups.flatMap((all): Region[] => {
    // The corners of a long ceiling would span freely by themselves, but they are not bridges.
    const asking = all.filter(i => asks[i] === 1);
    const needs = asking.length > 0;
    const places = needs ? asking : all;
    const region = described(columns, hangs, reaches, places, angleOf, needs);
    const cells = new Set(places.map(i => hangs.cell[i]!));
    const island = islands.find(
      o => unseen.has(o) && cells.has(o.cell) && Math.abs(o.begins - region.begins) < 0.5,
    );
    if (island) {
      unseen.delete(island);
      return [{ ...region, kind: 'island', begins: island.begins, meets: island.meets }];
    }
    const small = region.area < LEAST_AREA || (!needs && region.reach < LEAST_BRIDGE);
    return small ? [] : [region];
  });
  // A tip that is steep all round hangs nowhere, yet it begins in the air.
  const tips = [...unseen].map(
    (island): Region => ({
      kind: 'island',
      area: 0,
      volume: 0,
      onPart: 0,
      reach: Infinity,
      angle: 0,
      at: [...middleOfCell(columns, island.cell), island.begins],
      carriedAt: [],
      begins: island.begins,
      meets: island.meets,
      places: [],
    }),
  );
  const order = (r: Region) => (r.kind === 'bridge' ? 2 : r.kind === 'island' ? 0 : 1);
  return [...regions, ...tips].sort((a, b) => order(a) - order(b) || b.area - a.area);
}

function described(
  columns: Columns,
  hangs: Hangs,
  { far, edge }: Reaches,
  places: number[],
  angleOf: (crossing: number) => number,
  needs: boolean,
): Region {
  const cell2 = columns.cell ** 2;
  let [volume, onPart, angle, x, y, begins, reach, span, spanned] = [0, 0, 0, 0, 0, Infinity, 0, 0, 0];
  for (const i of places) {
    const below = dropOf(columns, hangs, i);
    volume += below.drop;
    if (below.onPart) onPart++;
    angle += angleOf(hangs.crossing[i]!);
    const [cx, cy] = middleOfCell(columns, hangs.cell[i]!);
    x += cx;
    y += cy;
    begins = Math.min(begins, columns.height[hangs.crossing[i]!]!);
    if (hangs.run[i]! < Infinity) {
      spanned++;
      span = Math.max(span, hangs.run[i]!);
    }
    reach = Math.max(reach, far[i]!);
  }
  const count = places.length;
  const lean = angle / count;
  // A ledge around a bore can also be crossed from end to end, along its chords.
  const bothEnds = spanned > count / 2 && reach > LEDGE * span;
  const kind: HangKind = !needs ? 'bridge' : bothEnds ? 'roof' : lean < FLAT ? 'lean' : 'overhang';
  const where = (i: number): Point3 => [
    ...middleOfCell(columns, hangs.cell[i]!),
    columns.height[hangs.crossing[i]!]!,
  ];
  // The place nearest to the middle: the middle of a ring is not part of it.
  const middle = [x / count, y / count] as const;
  const off = (i: number) => {
    const [cx, cy] = middleOfCell(columns, hangs.cell[i]!);
    return Math.hypot(cx - middle[0], cy - middle[1]);
  };
  const nearest = places.reduce((best, i) => (off(i) < off(best) ? i : best));
  return {
    kind,
    area: count * cell2,
    volume: needs ? volume * cell2 : 0,
    onPart: needs ? onPart * cell2 : 0,
    reach: bothEnds || !needs ? span : reach,
    angle: lean,
    at: where(nearest),
    carriedAt: farApart([...new Set(places.map(i => edge[i]!))].filter(e => e >= 0).map(where)),
    begins,
    places,
  };
}

/** The first of them, and the one farthest from it. */
function farApart(all: readonly Point3[]): Point3[] {
  const [first] = all;
  if (!first) return [];
  const off = (p: Point3) => Math.hypot(p[0] - first[0], p[1] - first[1]);
  const other = all.reduce((best, p) => (off(p) > off(best) ? p : best), first);
  return other === first ? [first] : [first, other];
}

/**
 * The distance of each hanging place from the nearest edge that carries it, mm; infinite where none does. Each place
 * takes over its neighbour's edge where that is nearer, until nothing changes.
 */
function reachesOf(columns: Columns, hangs: Hangs): Reaches {
  const { cell: cells, reach, before } = hangs;
  const x = Float32Array.from(cells, c => middleOfCell(columns, c)[0]);
  const y = Float32Array.from(cells, c => middleOfCell(columns, c)[1]);
  // At its own edge a place is less than a cell away.
  const edge = Int32Array.from(reach, (r, i) => (r < columns.cell ? i : -1));
  const far = Float32Array.from(reach, (r, i) => (edge[i]! >= 0 ? r : Infinity));
  let changed = true;
  const take = (i: number, from: number) => {
    const e = edge[from]!;
    if (e < 0 || e === edge[i]) return;
    const [dx, dy] = [x[i]! - x[e]!, y[i]! - y[e]!];
    const d = Math.sqrt(dx * dx + dy * dy) + reach[e]!;
    if (d >= far[i]! - 0.01) return;
    far[i] = d;
    edge[i] = e;
    changed = true;
  };
  for (let round = 0; changed && round < MOST_ROUNDS; round++) {
    changed = false;
    for (let i = 0; i < far.length; i++) for (const list of before) if (list[i]! >= 0) take(i, list[i]!);
    for (let i = far.length - 1; i >= 0; i--) for (const list of before) if (list[i]! >= 0) take(list[i]!, i);
  }
  return { far, edge };
}

interface Reaches {
  far: Float32Array;
  /** By hanging place: the place at the edge that carries it, −1 where none does. */
  edge: Int32Array;
}

/** Enough for winding paths; on a surface that needs more, the distance comes out slightly too large. */
const MOST_ROUNDS = 12;

/** Neighbours of one sort, together. */
function grouped(count: number, before: readonly Int32Array[], belongs: (i: number) => boolean): number[][] {
  const of = Int32Array.from({ length: count }, (_, i) => i);
  const root = (i: number): number => {
    let r = i;
    while (of[r] !== r) r = of[r]!;
    of[i] = r;
    return r;
  };
  for (const list of before)
    for (let i = 0; i < count; i++) {
      const n = list[i]!;
      if (n < 0 || !belongs(i) || !belongs(n)) continue;
      const [a, b] = [root(i), root(n)];
      if (a !== b) of[Math.max(a, b)] = Math.min(a, b);
    }
  const groups = new Map<number, number[]>();
  for (let i = 0; i < count; i++) {
    if (!belongs(i)) continue;
    const r = root(i);
    const group = groups.get(r);
    if (group) group.push(i);
    else groups.set(r, [i]);
  }
  return [...groups.values()];
}
