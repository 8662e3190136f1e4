import {
  areaOfCurves,
  type Curve,
  counterClockwise,
  curvesOf,
  headingAt,
  outlineOfCurves,
  reversed,
} from './curve';
import type { Outline, OutlineEdge } from './kernels/kernel';
import { crossesItself, OffsetError, offsetOutline } from './offset';
import type { Point2 } from './vector';
import { distance2, minus2, unit2 } from './vector';

/**
 * An outline as a maker writes it: its corners in order, `x, y`, separated by semicolons or lines, each with its own
 * words:
 *
 *     0, 0; 40, 0 round 3; 40, 25 chamfer 2; 20, 30 via 32, 29; 0, 25 trim -3
 *
 * `round` and `chamfer` take the corner off; `via` makes the edge that ends here an arc through that point; `trim`
 * moves that edge outwards, inwards below 0. Numbers may be expressions. mm
 */
export interface Corner<N = number> {
  x: N;
  y: N;
  round?: N;
  chamfer?: N;
  via?: [N, N];
  trim?: N;
}

/** A round hole; without a depth it goes through. */
export interface Hole<N = number> {
  x: N;
  y: N;
  diameter: N;
  deep?: N;
}

/** The text is not an outline; the message is for the maker. */
export class OutlineTextError extends Error {
  override name = 'OutlineTextError';
}

/** Enough for a traced outline; nobody types more by hand, and the kernel would take minutes. */
export const MOST_CORNERS = 200;
const MOST_HOLES = 60;

export const readCorners = (text: string): Corner<string>[] => {
  const corners = entriesOf(text).map((entry, i) => cornerOf(entry, `Corner ${i + 1}`));
  if (corners.length > MOST_CORNERS)
    throw new OutlineTextError(`An outline may have at most ${MOST_CORNERS} corners.`);
  return corners;
};

/** Holes are written `x, y, diameter`, with `deep 3` where they do not go through. */
export const readHoles = (text: string): Hole<string>[] => {
  const holes = entriesOf(text).map((entry, i): Hole<string> => {
    const name = `Hole ${i + 1}`;
    const { numbers, words } = split(entry, name, ['deep']);
    const [x, y, diameter] = counted(numbers, 3, name, 'x, y and its diameter, such as 20, 12, 4.2');
    return { x: x!, y: y!, diameter: diameter!, ...one(words.deep, 'deep', name) };
  });
  if (holes.length > MOST_HOLES) throw new OutlineTextError(`There may be at most ${MOST_HOLES} holes.`);
  return holes;
};

export const writeCorners = (corners: readonly Corner<string | number>[]): string =>
  corners
    .map(({ x, y, round, chamfer, via, trim }) =>
      [
        `${x}, ${y}`,
        ...(round === undefined ? [] : [`round ${round}`]),
        ...(chamfer === undefined ? [] : [`chamfer ${chamfer}`]),
        ...(via === undefined ? [] : [`via ${via.join(', ')}`]),
        ...(trim === undefined ? [] : [`trim ${trim}`]),
      ].join(' '),
    )
    .join('; ');

export const writeHoles = (holes: readonly Hole<string | number>[]): string =>
  holes
    .map(({ x, y, diameter, deep }) => `${x}, ${y}, ${diameter}${deep === undefined ? '' : ` deep ${deep}`}`)
    .join('; ');

/** The same list with each expression replaced by its value. */
export function mapCorner<A, B>(c: Corner<A>, value: (written: A) => B): Corner<B> {
  return {
    x: value(c.x),
    y: value(c.y),
    ...(c.round === undefined ? {} : { round: value(c.round) }),
    ...(c.chamfer === undefined ? {} : { chamfer: value(c.chamfer) }),
    ...(c.via === undefined ? {} : { via: [value(c.via[0]), value(c.via[1])] as [B, B] }),
    ...(c.trim === undefined ? {} : { trim: value(c.trim) }),
  };
}
export function mapHole<A, B>(h: Hole<A>, value: (written: A) => B): Hole<B> {
  return {
    x: value(h.x),
    y: value(h.y),
    diameter: value(h.diameter),
    ...(h.deep === undefined ? {} : { deep: value(h.deep) }),
  };
}

/** @throws OutlineTextError when a number cannot be read or is far too large */
export function numberOf(written: string): number {
  const value = Number(written);
  if (written.trim() === '' || !Number.isFinite(value))
    throw new OutlineTextError(`“${written}” is not a number.`);
  if (Math.abs(value) > 1000) throw new OutlineTextError(`${written} mm is further than 1000 mm.`);
  return value;
}

/**
 * From corners to an outline that runs counter-clockwise: trimmed first, then its corners are taken off.
 * @throws OutlineTextError
 */
export function outlineOfCorners(corners: readonly Corner[]): Outline {
  if (corners.length < 2 || (corners.length === 2 && !corners.some(c => c.via)))
    throw new OutlineTextError('An outline needs three corners, or two and an arc.');
  const n = corners.length;
  corners.forEach((c, i) => {
    if (distance2([c.x, c.y], cornerAt(corners, (i + 1) % n)) < 0.01)
      throw new OutlineTextError(`Corner ${((i + 1) % n) + 1} is where corner ${i + 1} is: take one out.`);
  });
  const edges = corners.map((_, i): OutlineEdge => {
    const next = corners[(i + 1) % n]!;
    return { to: [next.x, next.y], ...(next.via ? { via: next.via } : {}) };
  });
  let curves = curvesOf({ start: cornerAt(corners, 0), edges });
  // Edge i ends at corner i + 1, which holds its trim.
  let trims = corners.map((_, i) => corners[(i + 1) % n]!.trim ?? 0);
  let ends = corners.map((_, i) => corners[(i + 1) % n]!);
  if (areaOfCurves(curves) < 0) {
    curves = curves.map(reversed).reverse();
    trims = trims.reverse();
    // After reversal, edge i ends where it began.
    ends = corners.map((_, i) => corners[n - 1 - i]!);
  }
  const sharp = outlineOfCurves(curves);
  if (crossesItself(sharp)) throw new OutlineTextError('The outline crosses itself.');
  return cornersOff(trimmed(sharp, trims), ends);
}

const cornerAt = (corners: readonly Corner[], i: number): Point2 => [corners[i]!.x, corners[i]!.y];

function trimmed(outline: Outline, trims: readonly number[]): Outline {
  try {
    const moved = offsetOutline(outline, trims);
    if (moved.edges.length !== outline.edges.length)
      throw new OutlineTextError('A trim takes an edge away: take its corner out instead.');
    return moved;
  } catch (error) {
    if (error instanceof OffsetError) throw new OutlineTextError(`The trims cannot be: ${error.message}`);
    throw error;
  }
}

/** @param ends the corner at which each edge ends */
function cornersOff(outline: Outline, ends: readonly Corner[]): Outline {
  const curves = curvesOf(outline);
  const n = curves.length;
  const starts = curves.map(c => c.from);
  const stops = curves.map(c => c.to);
  const between: (Curve | undefined)[] = [];
  curves.forEach((a, i) => {
    const size = ends[i]!.round ?? ends[i]!.chamfer ?? 0;
    if (size === 0) return;
    const where = `at ${plain(a.to)}`;
    if (size < 0) throw new OutlineTextError(`A corner is taken off by 0 or more, ${where}.`);
    const b = curves[(i + 1) % n]!;
    if (a.arc || b.arc)
      throw new OutlineTextError(`Only a corner between two straight edges can be taken off, not ${where}.`);
    const [into, out] = [headingAt(a, 1), headingAt(b, 0)];
    const turn = Math.atan2(into[0] * out[1] - into[1] * out[0], into[0] * out[0] + into[1] * out[1]);
    if (Math.abs(turn) < 1e-6) return;
    const back = ends[i]!.round === undefined ? size : size * Math.abs(Math.tan(turn / 2));
    const p: Point2 = [a.to[0] - back * into[0], a.to[1] - back * into[1]];
    const q: Point2 = [a.to[0] + back * out[0], a.to[1] + back * out[1]];
    stops[i] = p;
    starts[(i + 1) % n] = q;
    if (ends[i]!.round === undefined) between[i] = { from: p, to: q };
    else {
      const sense = turn > 0 ? 1 : -1;
      const centre: Point2 = [p[0] - sense * size * into[1], p[1] + sense * size * into[0]];
      between[i] = { from: p, to: q, arc: { centre, radius: size, turn: sense } };
    }
  });
  const result: Curve[] = [];
  curves.forEach((c, i) => {
    const [from, to] = [starts[i]!, stops[i]!];
    if (!c.arc && distance2(c.from, c.to) > 0) {
      const [dx, dy] = unit2(minus2(c.to, c.from));
      const left = (to[0] - from[0]) * dx + (to[1] - from[1]) * dy;
      if (left < -1e-9)
        throw new OutlineTextError(
          `What is taken off the corners is more than the edge to ${plain(c.to)} has.`,
        );
    }
    if (distance2(from, to) > 1e-6) result.push({ ...c, from, to });
    if (between[i]) result.push(between[i]);
  });
  const done = counterClockwise(outlineOfCurves(result));
  if (crossesItself(done))
    throw new OutlineTextError('With its corners taken off the outline crosses itself.');
  return done;
}

/** Longer texts are not read at all. */
export const LONGEST_OUTLINE = 8000;

/** What is asked of a written outline or list of holes, with every number evaluated. */
export const resolvedText = (
  kind: 'outline' | 'holes',
  text: string,
  value: (written: string) => number,
): string =>
  kind === 'outline'
    ? writeCorners(readCorners(text).map(c => mapCorner(c, value)))
    : writeHoles(readHoles(text).map(h => mapHole(h, value)));

/** @throws OutlineTextError */
export const outlineOfText = (text: string): Outline =>
  outlineOfCorners(readCorners(text).map(c => mapCorner(c, numberOf)));

/** As written, before any trim. @throws OutlineTextError */
export const untrimmedOfText = (text: string): Outline =>
  outlineOfCorners(readCorners(text).map(c => ({ ...mapCorner(c, numberOf), trim: 0 })));

/** @throws OutlineTextError */
export const holesOfText = (text: string): Hole[] =>
  readHoles(text).map((h, i) => {
    const hole = mapHole(h, numberOf);
    if (hole.diameter < 0.2) throw new OutlineTextError(`Hole ${i + 1} needs a diameter of 0.2 mm or more.`);
    if (hole.deep !== undefined && hole.deep <= 0)
      throw new OutlineTextError(`Hole ${i + 1} needs a depth above 0; without one it goes through.`);
    return hole;
  });

const plain = (p: Point2) => p.map(x => String(Number(x.toFixed(2)))).join(', ');

const entriesOf = (text: string) =>
  text
    .split(/[;\n]/)
    .map(entry => entry.trim())
    .filter(Boolean);

function cornerOf(entry: string, name: string): Corner<string> {
  const { numbers, words } = split(entry, name, ['round', 'chamfer', 'via', 'trim']);
  const [x, y] = counted(numbers, 2, name, 'x and y, such as 40, 12');
  if (words.round && words.chamfer)
    throw new OutlineTextError(`${name} cannot be rounded and chamfered at once.`);
  const via = words.via && counted(words.via, 2, `${name}, via`, 'x and y of a point on the arc');
  return {
    x: x!,
    y: y!,
    ...one(words.round, 'round', name),
    ...one(words.chamfer, 'chamfer', name),
    ...(via ? { via: [via[0]!, via[1]!] as [string, string] } : {}),
    ...one(words.trim, 'trim', name),
  };
}

/** The numbers before the first word, and those after each word. */
function split(entry: string, name: string, known: readonly string[]) {
  // `round(w)` is a function of expressions.
  const parts = entry.split(new RegExp(`\\b(${known.join('|')})\\b(?!\\s*\\()`));
  const words: Record<string, string[]> = {};
  for (let i = 1; i < parts.length; i += 2) {
    if (words[parts[i]!]) throw new OutlineTextError(`${name} says “${parts[i]}” twice.`);
    words[parts[i]!] = listed(parts[i + 1]!);
  }
  return { numbers: listed(parts[0]!), words };
}

/** Split at commas outside brackets, so that an expression may contain its own. */
function listed(text: string): string[] {
  const found: string[] = [''];
  let depth = 0;
  for (const c of text) {
    if (c === '(') depth++;
    if (c === ')') depth--;
    if (c === ',' && depth === 0) found.push('');
    else found[found.length - 1] += c;
  }
  return found.map(f => f.trim());
}

function counted(numbers: readonly string[], count: number, name: string, wanted: string) {
  if (numbers.length !== count || numbers.some(x => x === ''))
    throw new OutlineTextError(`${name} needs ${wanted}.`);
  return numbers;
}

function one<K extends string>(list: readonly string[] | undefined, key: K, name: string) {
  if (!list) return {};
  return { [key]: counted(list, 1, `${name}, ${key}`, 'one number')[0]! } as Record<K, string>;
}
