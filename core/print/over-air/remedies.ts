import { kindOf } from '../../shape/additions';
import { type Addition, nameForNew } from '../../shape/additions/addition';
import { freeName } from '../../shape/additions/free-name';
import { faceInWords } from '../../shape/additions/pressed';
import { longName } from '../../shape/additions/with-additions';
import type { BuiltPart } from '../../shape/built-part';
import type { Kernels } from '../../shape/kernels/kernel';
import { facing, type TriangleMesh } from '../../shape/mesh/mesh';
import type { SolidSpec } from '../../shape/solid-key';
import { cross, dot, lengthOfVector, moved, type Point3, scaled } from '../../shape/vector';
import { type Attempt, rebuilt, rounded, splitAttempt } from '../attempt';
import { LIP } from '../hangs';
import { drawnFrom } from '../pose';
import { hangsOn, type OverAir, type OverAirAsked } from './over-air';

/**
 * Changes that would avoid supports, each tried on the solid itself. A remedy is offered only where the part can still
 * be built, every surface that must fit keeps its size, and most of the support is gone.
 */

export interface Remedy extends Attempt {
  /** The region's support that is left, mm². */
  left: number;
}

/** At least this share of a region's support must be gone. */
const GONE = 0.7;
/** A smaller rest counts as none, mm². */
const ALL_BUT = 1.5;
/** The measured size of a surface that must fit may change by this, mm. */
const SAME_SIZE = 0.02;
/** An edge is searched this near to where the region is carried, mm. */
const NEAR_EDGE = 1.2;
/** Cutting a part in two is worth it from this area on, mm². Common practice, no source. */
const WORTH_A_CUT = 200;
/** The most attempts that are built. Bounded by number rather than time: a slow machine offers what a fast one does. */
const MOST_TRIED = 40;
/** Larger chamfers change the part too much, mm. */
const MOST_CHAMFER = 20;

/**
 * The best remedy of each region that has one, by its place in the list; the largest regions come first.
 * @param found called for each as soon as it is known
 */
export function remediesFor(
  part: SolidSpec,
  now: BuiltPart,
  asked: OverAirAsked,
  kernels: Kernels,
  found: (place: number, remedy: Remedy) => void = () => {},
): Record<number, Remedy> {
  const hangs = hangsOn(now, asked);
  const all = areaToSupport(hangs);
  const leftWith = trying(part, now, asked, kernels);
  const remedies: Record<number, Remedy> = {};
  hangs.forEach((region, i) => {
    const remedy = remedyFor(region, all, attempts(region, part, now, asked), leftWith);
    if (!remedy) return;
    remedies[i] = remedy;
    found(i, remedy);
  });
  return remedies;
}

/** The support that an attempt leaves on the whole part, mm²; null where it fails, or enough was tried. */
type LeftWith = (attempt: Attempt) => number | null;

/** Each attempt is built once, even where several regions ask for it. */
function trying(part: SolidSpec, now: BuiltPart, asked: OverAirAsked, kernels: Kernels): LeftWith {
  const tried = new Map<string, number | null>();
  return attempt => {
    const key = JSON.stringify([attempt.numbers, attempt.additions.map(a => a.begins)]);
    const known = tried.get(key);
    if (known !== undefined) return known;
    if (tried.size >= MOST_TRIED) return null;
    const built = rebuilt(part, attempt, kernels);
    const left = built && sameSizes(now, built) ? areaToSupport(hangsOn(built, asked)) : null;
    tried.set(key, left);
    return left;
  };
}

function remedyFor(
  region: OverAir,
  all: number,
  attempts: Iterable<Attempt>,
  leftWith: LeftWith,
): Remedy | null {
  if (region.kind === 'bridge' || region.area === 0) return null;
  const elsewhere = all - region.area;
  let best: Remedy | null = null;
  for (const attempt of attempts) {
    const whole = leftWith(attempt);
    if (whole === null) continue;
    const left = Math.max(0, whole - elsewhere);
    if (left > (1 - GONE) * region.area || (best && left >= best.left)) continue;
    best = { ...attempt, left };
    if (left < ALL_BUT) break;
  }
  return best;
}

/** mm² */
const areaToSupport = (hangs: readonly OverAir[]): number =>
  hangs.filter(r => r.kind !== 'bridge').reduce((sum, r) => sum + r.area, 0);

const sameSizes = (a: BuiltPart, b: BuiltPart): boolean =>
  a.mates.every(m => {
    const other = b.mates.find(o => o.id === m.id);
    return (
      other !== undefined &&
      // What could not be measured before cannot be compared afterwards; what vanished can.
      (Number.isNaN(m.size) ? Number.isNaN(other.size) : Math.abs(other.size - m.size) <= SAME_SIZE)
    );
  });

function* attempts(
  region: OverAir,
  part: SolidSpec,
  now: BuiltPart,
  asked: OverAirAsked,
): Generator<Attempt> {
  yield* pointedHoles(part);
  // Nothing is added to a surface that must fit, nor is it cut in two.
  if (region.mates.length > 0) return;
  yield* chamfers(region, part, now, asked);
  if (region.area > WORTH_A_CUT && now.pieces.length === 0) yield* cuts(region, part, now, asked);
}

/** A level hole supports itself when its roof comes to a point. */
function* pointedHoles({ additions, parameters }: SolidSpec): Generator<Attempt> {
  for (const addition of additions) {
    const name = longName(addition, 'teardrop');
    const lies = addition.kind === 'hole' && addition.on && parameters[name] !== true;
    if (!lies || parameters[longName(addition, 'use')] === 'threaded') continue;
    yield { label: `Point the top of “${addition.name}”`, additions: [], numbers: { [name]: 'yes' } };
  }
}

/** A chamfer in the corner where a ceiling is carried turns it into 45°. */
function* chamfers(
  { kind, reach, angle, carriedAt, at }: OverAir,
  part: SolidSpec,
  { whole }: BuiltPart,
  { now, rules }: OverAirAsked,
): Generator<Attempt> {
  const flat = angle > 85 && (kind === 'roof' || kind === 'overhang');
  if (!flat || !Number.isFinite(reach)) return;
  const drawn = drawnFrom(whole, now);
  const corners = carriedAt.flatMap(at => {
    const edge = innerEdgeNear(whole, drawn(at));
    return edge ? [edge] : [];
  });
  const size = kind === 'roof' ? (reach - rules.span) / 2 + 0.3 : reach - LIP + 0.3;
  if (size > MOST_CHAMFER) return;
  const through = ([x, y, z]: Point3) => ({
    which: 'point',
    pointX: rounded(x),
    pointY: rounded(y),
    pointZ: rounded(z),
  });
  const [one, other] = corners;
  if (one) yield chamfered([through(one)], size, part);
  if (one && other) yield chamfered([through(one), through(other)], size, part);
  // A socket with flat sides has a corner along each of them.
  const ceiling = { up: now.down, offset: dot(drawn(at), now.down) };
  if (!one || kind !== 'roof') return;
  for (const times of [1, FROM_CORNERS])
    yield chamfered([{ which: 'face', place: faceInWords(ceiling) }], times * size, part);
}

/** From corner to corner a hexagon is wider than across its flats by this factor. */
const FROM_CORNERS = 2 / Math.sqrt(3);

/** @param edges which edges, in the words of the addition */
function chamfered(
  edges: readonly Record<string, string>[],
  size: number,
  { additions }: SolidSpec,
): Attempt {
  const taken: Pick<Addition, 'id' | 'name'>[] = [...additions];
  const width = String(Number((Math.ceil(size * 10) / 10).toFixed(1)));
  const added = edges.map(which => {
    const addition = {
      id: freeName(kindOf('edges').short, taken),
      kind: 'edges' as const,
      name: nameForNew('Chamfer that carries', taken),
      on: true,
    };
    taken.push(addition);
    return { addition, begins: { how: 'chamfer', size: width, ...which } };
  });
  return { label: `Chamfer of ${width} mm under it`, additions: added, numbers: {} };
}

/** Two pieces, each laid on the cut, where the ceiling is. */
function* cuts(
  { at }: OverAir,
  { additions }: SolidSpec,
  { whole }: BuiltPart,
  { now }: OverAirAsked,
): Generator<Attempt> {
  const axis = now.down.findIndex(d => Math.abs(d) > 0.999);
  if (axis < 0) return;
  const where = drawnFrom(whole, now)(at)[axis]!;
  for (const joint of ['dowels', 'glue'] as const)
    yield splitAttempt(axis as 0 | 1 | 2, where, joint, { additions });
}

/** The middle of the nearest inner edge, where two faces meet in a corner; null where none is near. */
function innerEdgeNear(mesh: TriangleMesh, to: Point3): Point3 | null {
  const { positions: p, triangles } = mesh;
  const corner = (v: number): Point3 => [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!];
  const seen = new Map<number, number>();
  let best: { at: Point3; off: number } | null = null;
  for (let t = 0; t < triangles.length / 3; t++) {
    for (let e = 0; e < 3; e++) {
      const [a, b] = [triangles[3 * t + e]!, triangles[3 * t + ((e + 1) % 3)]!];
      const key = Math.min(a, b) * (p.length / 3) + Math.max(a, b);
      const other = seen.get(key);
      if (other === undefined) {
        seen.set(key, t);
        continue;
      }
      const [from, along] = [corner(a), moved(corner(b), corner(a), -1)];
      const long = dot(along, along);
      const share = Math.max(0, Math.min(1, dot(moved(to, from, -1), along) / long));
      const on = moved(from, along, share);
      const off = lengthOfVector(moved(to, on, -1));
      if (off > NEAR_EDGE || (best && off >= best.off) || !isInner(mesh, t, other)) continue;
      best = { at: on, off };
    }
  }
  return best?.at ?? null;
}

/** Whether two triangles that share an edge face each other, like the sides of a corner, by 30° at least. */
function isInner(mesh: TriangleMesh, a: number, b: number): boolean {
  const unit = (t: number) => scaled(facing(mesh, t), 1 / lengthOfVector(facing(mesh, t)));
  const [m, n] = [unit(a), unit(b)];
  if (dot(m, n) > Math.cos(Math.PI / 6)) return false;
  const middle = (t: number): Point3 => {
    const at = (i: 0 | 1 | 2) => {
      const { positions: p, triangles } = mesh;
      return (
        (p[3 * triangles[3 * t]! + i]! +
          p[3 * triangles[3 * t + 1]! + i]! +
          p[3 * triangles[3 * t + 2]! + i]!) /
        3
      );
    };
    return [at(0), at(1), at(2)];
  };
  return lengthOfVector(cross(m, n)) > 1e-6 && dot(m, moved(middle(b), middle(a), -1)) > 0;
}
