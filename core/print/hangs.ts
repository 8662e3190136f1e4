import type { Columns } from './columns';

/** The parts of a pose that hang over air, and what of that needs support. Lengths mm. */

export interface SupportRules {
  /** Steepest overhang without support, degrees from the upright; exactly this angle passes. */
  overhang: number;
  /** Longest bridge without support, mm. */
  span: number;
}

/** Common practice, no source. */
export const USUAL_RULES: SupportRules = { overhang: 45, span: 10 };

/** An edge can reach out this far by itself, mm. Common practice, no source. */
export const LIP = 1;
/** Anything lower than this is on the bed, mm. */
export const ON_BED = 0.25;
/** The drawn angle itself passes, degrees. */
const PASSES = 1;

const AIR = -1;
const STANDS = -2;
/** Four directions and their opposites. */
const WAYS = [
  [1, 0],
  [0, 1],
  [1, 1],
  [-1, 1],
] as const;

/** How much a triangle must face down to count, as a share: the sine of its lean. */
export const steepest = ({ overhang }: Pick<SupportRules, 'overhang'>): number =>
  Math.sin(((overhang + PASSES) * Math.PI) / 180);

/** Places where the part hangs over air, one for each cell and height; the lists are of equal length. */
export interface Hangs {
  /** Positions in the columns' lists of crossings. */
  crossing: number[];
  cell: number[];
  /** The distance to the nearest edge that carries it, in the four directions; infinite where none does. */
  reach: Float32Array;
  /** The shortest bridge across it from edge to edge; infinite where there is none. */
  run: Float32Array;
  /** In each of the four directions: the hanging place before this one at about its height, −1 where there is none. */
  before: Int32Array[];
  /** Area on the bed, mm². */
  foot: number;
}

/** @param hangs by triangle of the columns' mesh, whether it leans out too far to support itself */
export function hangsOf(columns: Columns, hangs: ArrayLike<unknown>, rules: SupportRules): Hangs {
  const { cell: width, across, deep, first, height, triangle } = columns;
  const cells = across * deep;
  let foot = 0;
  const crossing: number[] = [];
  const cell: number[] = [];
  // By crossing: the index of its hanging place.
  const index = new Int32Array(height.length).fill(-1);
  for (let c = 0; c < cells; c++) {
    const [from, to] = [first[c]!, first[c + 1]!];
    if ((to - from) % 2 === 1) continue;
    for (let n = from; n < to; n += 2) {
      if (height[n]! < ON_BED) foot++;
      else if (hangs[triangle[n]!]) {
        index[n] = crossing.length;
        crossing.push(n);
        cell.push(c);
      }
    }
  }
  const rise = width * Math.tan(((90 - rules.overhang) * Math.PI) / 180);
  const count = crossing.length;
  const reach = new Float32Array(count).fill(Infinity);
  const run = new Float32Array(count).fill(Infinity);
  const before: Int32Array[] = [];
  for (const [dx, dy] of WAYS) {
    const step = Math.hypot(dx, dy) * width;
    const by = dy * across + dx;
    const alike = rise * Math.hypot(dx, dy) + 0.15;
    const neighbour = (i: number, way: 1 | -1): number => {
      const c = cell[i]! + way * by;
      const z = height[crossing[i]!]!;
      if (c < 0 || c >= cells) return AIR;
      let stands = AIR;
      for (let n = first[c]!; n < first[c + 1]!; n += 2) {
        if (index[n]! >= 0 && Math.abs(height[n]! - z) <= alike) return index[n]!;
        if (height[n]! < z - 0.05 && height[n + 1]! > z - 0.05) stands = STANDS;
      }
      return stands;
    };
    // The distance to where it is carried, in both directions: each place takes it from its neighbour.
    const [back, on] = [1, 2].map(() => new Float32Array(count).fill(Infinity)) as [
      Float32Array,
      Float32Array,
    ];
    const hangsBefore = new Int32Array(count).fill(-1);
    for (let i = 0; i < count; i++) {
      const n = neighbour(i, -1);
      back[i] = n === STANDS ? step / 2 : n >= 0 ? back[n]! + step : Infinity;
      if (n >= 0) hangsBefore[i] = n;
    }
    before.push(hangsBefore);
    for (let i = count - 1; i >= 0; i--) {
      const n = neighbour(i, 1);
      on[i] = n === STANDS ? step / 2 : n >= 0 ? on[n]! + step : Infinity;
    }
    for (let i = 0; i < count; i++) {
      const [b, o] = [back[i]!, on[i]!];
      reach[i] = Math.min(reach[i]!, b, o);
      run[i] = Math.min(run[i]!, b + o);
    }
  }
  return { crossing, cell, reach, run, before, foot: foot * width ** 2 };
}

/** An edge supports itself up to this reach, and a bridge up to its length. */
export const isLip = ({ reach }: Hangs, i: number): boolean => reach[i]! <= LIP;
export const needsSupport = (hangs: Hangs, i: number, { span }: SupportRules): boolean =>
  !isLip(hangs, i) && hangs.run[i]! > span;

/** From a hanging place down to what is below it, mm, and whether that is the part itself. */
export function dropOf({ first, height }: Columns, { crossing, cell }: Hangs, i: number) {
  const n = crossing[i]!;
  const onPart = n > first[cell[i]!]!;
  return { drop: height[n]! - (onPart ? height[n - 1]! : 0), onPart };
}

/** The support that is needed, in total. */
export interface Supports {
  /** The area to be supported, seen from above, mm². */
  area: number;
  /** The volume down to what is below it, mm³. */
  volume: number;
  /** The share of that area whose supports stand on the part itself and leave marks there, mm². */
  onPart: number;
  /** Crossings that need support, as positions in the columns' lists. */
  needing: Uint32Array;
  /** The longest gap that is bridged without support, mm. */
  bridge: number;
  /** Area on the bed, mm². */
  foot: number;
}

/** @param hanging by triangle of the columns' mesh, whether it leans out too far to support itself */
export function supportsOf(
  columns: Columns,
  hanging: ArrayLike<unknown>,
  rules: SupportRules = USUAL_RULES,
): Supports {
  const hangs = hangsOf(columns, hanging, rules);
  const needing: number[] = [];
  let [volume, onPart, bridge] = [0, 0, 0];
  for (let i = 0; i < hangs.crossing.length; i++) {
    if (needsSupport(hangs, i, rules)) {
      needing.push(hangs.crossing[i]!);
      const below = dropOf(columns, hangs, i);
      volume += below.drop;
      if (below.onPart) onPart++;
    } else if (!isLip(hangs, i)) bridge = Math.max(bridge, hangs.run[i]!);
  }
  const area = columns.cell ** 2;
  return {
    area: needing.length * area,
    volume: volume * area,
    onPart: onPart * area,
    needing: Uint32Array.from(needing),
    bridge,
    foot: hangs.foot,
  };
}
