import type { Frame, Point3 } from '../../vector';
import { countName, has, holeName, type Mate, type P, SIZES } from './parameters';

/**
 * A block with a row of places for tools: holes, upright or leaning, each wide for the handle above and narrow for the
 * blade below, or V grooves in which a tool lies. Flat on the bed; the row runs along x, the back is towards +y.
 */
export interface Place {
  /** Middle of the place half-way up the block. */
  x: number;
  /** Radius of the hole, or of the tool in its V. */
  radius: number;
  mate: Mate;
  /** Tangents of its lean to the right and to the back. */
  right: number;
  back: number;
}

export interface Sizes {
  vee: boolean;
  places: Place[];
  blade: number;
  height: number;
  width: number;
  depth: number;
  floor: number;
  step: number;
  edge: number;
  /** Between the edges of neighbours. */
  between: number;
}

export function sizesOf(p: P): Sizes {
  const vee = has.vee(p);
  const between = p.pitch - p.hole;
  const places = placesOf(p, vee, between);
  const [first, last] = [places[0]!, places.at(-1)!];
  const { height, edge } = p;
  // A leaning hole leaves the block farther out below than above.
  const out = Math.max(
    last.x + reachAside(last, height),
    -(first.x - reachAside(first, height)),
    ...places.map(q => Math.abs(q.x) + reachAside(q, height)),
  );
  const deepest = Math.max(...places.map(q => height * q.back + 2 * q.radius * Math.hypot(1, q.back)));
  return {
    vee,
    places,
    blade: has.steps(p) ? p.blade / 2 : 0,
    height,
    width: 2 * (out + edge),
    depth: vee ? p.long : deepest + 2 * edge,
    floor: p.floor,
    step: p.step,
    edge,
    between,
  };
}

/** Half of a place's width, with what its lean adds at the top and the underside. */
const reachAside = ({ radius, right }: Place, height: number): number =>
  radius * Math.hypot(1, right) + (height / 2) * Math.abs(right);

function placesOf(p: P, vee: boolean, between: number): Place[] {
  const row = SIZES.filter(size => has.size(size)(p)).flatMap(size =>
    Array.from({ length: p[countName(size)] }, () => ({
      radius: p[holeName(size)] / 2,
      mate: holeName(size),
    })),
  );
  const lean = vee ? 0 : Math.tan((p.lean * Math.PI) / 180);
  let x = 0;
  const at = row.map(({ radius }, i) => {
    if (i > 0) x += row[i - 1]!.radius + between + radius;
    return x;
  });
  const middle = (at[0]! - row[0]!.radius + at.at(-1)! + row.at(-1)!.radius) / 2;
  return row.map((place, i) => {
    const share = row.length > 1 ? (2 * i) / (row.length - 1) - 1 : 0;
    return {
      ...place,
      x: at[i]! - middle,
      right: p.leans === 'side' ? lean : p.leans === 'fan' ? share * lean : 0,
      back: p.leans === 'back' ? lean : 0,
    };
  });
}

/** How much longer than the height a place's axis is. */
export const slope = ({ right, back }: Place): number => Math.hypot(1, right, back);

/** Where the axis of a hole meets the top, and its direction downwards. */
export function frameOf(s: Sizes, place: Place): Frame {
  const { x, right, back } = place;
  const long = slope(place);
  const half = s.height / 2;
  const across: Point3 = [1 / Math.hypot(1, right), 0, -right / Math.hypot(1, right)];
  return {
    at: [x + half * right, half * back, s.height],
    // Square to the axis: a hole leans to the right or to the back, never both.
    x: right === 0 ? [1, 0, 0] : across,
    up: [-right / long, -back / long, -1 / long],
  };
}

/** Along the axis from the top to the step, and to the floor. */
export function reachOf(s: Sizes, place: Place) {
  const tan = Math.hypot(place.right, place.back);
  const along = (z: number) => (s.height - z) * slope(place);
  return {
    step: s.step,
    floor: s.floor > 0 ? along(s.floor) - place.radius * tan : along(0) + 2 * place.radius + 2,
  };
}

/** Along the axis from the top, where a section across it shows the whole hole: between slanting top and step. */
export function wholeRing(s: Sizes, place: Place): [number, number] {
  const { step: to, floor } = reachOf(s, place);
  const slant = place.radius * Math.hypot(place.right, place.back);
  return [slant, s.blade > 0 ? to : Math.min(floor, s.height * slope(place) - slant)];
}

/** Least plastic between two neighbours, anywhere along them. */
export function leastBetween(s: Sizes): number {
  const half = s.height / 2;
  return Math.min(
    ...s.places.slice(1).map((b, i) => {
      const a = s.places[i]!;
      const spread = b.right - a.right;
      // At top or underside, whichever is nearer.
      const apart = b.x - a.x - half * Math.abs(spread);
      return apart / Math.hypot(1, Math.max(Math.abs(a.right), Math.abs(b.right))) - a.radius - b.radius;
    }),
  );
}

/** A right-angled V in which a tool lies with its middle level with the top. */
export const veeDepth = ({ radius }: Place): number => radius * Math.SQRT2;
