import type { Columns } from './columns';

/** What of a part hangs over air as it lies, and what of that needs support. Lengths mm. */

export interface SupportRules {
  /** Steepest overhang that needs none, degrees from the upright; what is exactly so steep passes. */
  overhang: number;
  /** Longest bridge that needs none, mm. */
  span: number;
}

/** Common practice, no source. */
export const USUAL_RULES: SupportRules = { overhang: 45, span: 10 };

/** An edge reaches so far out by itself, mm. Common practice, no source. */
export const LIP = 1;
/** What is lower than this is on the bed, mm. */
export const ON_BED = 0.25;
/** The drawn angle itself passes, degrees. */
const PASSES = 1;

const AIR = -1;
const STANDS = -2;
/** Four ways and back. */
const WAYS = [
  [1, 0],
  [0, 1],
  [1, 1],
  [-1, 1],
] as const;

/** How much a triangle must face down to be asked about, as a share: the sine of its lean. */
export const steepest = ({ overhang }: Pick<SupportRules, 'overhang'>): number =>
  Math.sin(((overhang + PASSES) * Math.PI) / 180);

/** Places where the part hangs over air, one for each cell and height; the lists are equally long. */
export interface Hangs {
  /** Positions in the columns' lists of crossings. */
  crossing: number[];
  cell: number[];
  /** How far the nearest edge is that carries it, by the four ways; infinite where none does. */
  reach: Float32Array;
  /** The shortest bridge from edge to edge over it; infinite where there is none. */
  run: Float32Array;
  /** By each of the four ways: the hanging place before this one at about its height, −1 where there is none. */
  before: Int32Array[];
  /** On the bed, mm². */
  foot: number;
}

/** @param hangs by triangle of the columns' mesh, whether it leans out too far to hold itself */
export function hangsOf(columns: Columns, hangs: ArrayLike<unknown>, rules: SupportRules): Hangs {
  const { cell: width, across, deep, first, height, triangle } = columns;
  const cells = across * deep;
  let foot = 0;
  const crossing: number[] = [];
  const cell: number[] = [];
  // By crossing: which of the hanging it is.
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
    // How far to where it stands, going back along the way and going on: each from its neighbour's.
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

/** An edge holds itself so far out, and a bridge its length. */
export const isLip = ({ reach }: Hangs, i: number): boolean => reach[i]! <= LIP;
export const needsSupport = (hangs: Hangs, i: number, { span }: SupportRules): boolean =>
  !isLip(hangs, i) && hangs.run[i]! > span;

/** From a hanging place down to what is below it, mm, and whether that is the part itself. */
export function dropOf({ first, height }: Columns, { crossing, cell }: Hangs, i: number) {
  const n = crossing[i]!;
  const onPart = n > first[cell[i]!]!;
  return { drop: height[n]! - (onPart ? height[n - 1]! : 0), onPart };
}

/** What needs support, as sums. */
export interface Supports {
  /** What must be carried, seen from above, mm². */
  area: number;
  /** Down to what is below it, mm³. */
  volume: number;
  /** Of that, what stands on the part itself and leaves marks there, mm². */
  onPart: number;
  /** Crossings that need it, as positions in the columns' lists. */
  needing: Uint32Array;
  /** The longest gap that is bridged without, mm. */
  bridge: number;
  /** On the bed, mm². */
  foot: number;
}

/** @param hanging by triangle of the columns' mesh, whether it leans out too far to hold itself */
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
