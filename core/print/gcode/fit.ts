import { polygonCentroid } from 'd3-polygon';
import { solved } from '../../quantity/linear';
import type { MeshKernel } from '../../shape/kernels/kernel';
import type { TriangleMesh } from '../../shape/mesh/mesh';
import { boundsOf } from '../../shape/mesh/mesh';
import { sectionAtZ } from '../../shape/mesh/section';
import { distance2, type Point2 } from '../../shape/vector';
import { isInside } from '../../shape/within';
import type { GcodeFile } from './file';
import { ROLES } from './file';
import type { Bed } from './on-bed';
import type { Thing } from './things';
import { hullOf, reachOf } from './turns';

/**
 * A version's outermost passes fitted to those of a file: place, turn, scale in each direction, and an even offset.
 * Lengths mm.
 */

/** Sections that are compared. */
const LEVELS = 12;
/** Spacing of points along each outline, mm, and how many of a section at most. */
const [APART, MOST_POINTS] = [1, 260];
const CELL = 2;

/** One layer of the file. */
export interface Level {
  /** The area of the plastic that was printed. */
  middle: number;
  /** How far its lines reach in each direction from the middle of the thing. */
  reach: Float64Array;
  /** Its lines by cells, for finding the nearest. */
  grid: Map<number, number[]>;
  pieces: Uint32Array;
}

export interface Laid {
  file: GcodeFile;
  levels: Level[];
  middle: Point2;
  lineWidth: number;
  layer: number;
  /** The file states which passes are outermost: then only those are compared. */
  told: boolean;
}

const keyOf = (x: number, y: number) => Math.floor(x / CELL) * 100_003 + Math.floor(y / CELL);

export function laidOn(file: GcodeFile, thing: Thing, { layer, lineWidth }: Bed): Laid {
  const outer = ROLES.indexOf('outer');
  const hasOuter = file.rolesKnown && file.role.includes(outer);
  const counts = (i: number) => !hasOuter || file.role[i] === outer;
  const { layers } = thing;
  const middle = polygonCentroid([...thing.outline] as [number, number][]);
  // The first layer is squeezed, and may have a brim.
  const first = Math.min(2, layers.length - 1);
  const picked = new Set(
    Array.from({ length: LEVELS }, (_, n) =>
      Math.round(first + ((n + 0.5) / LEVELS) * (layers.length - 1 - first)),
    ),
  );
  const levels = [...picked].flatMap((k): Level[] => {
    const at = layers[k];
    if (!at) return [];
    const thick = Math.min(1.5 * layer, at.z - (layers[k - 1]?.z ?? at.z - layer));
    const grid = new Map<number, number[]>();
    const points: [number, number][] = [];
    for (const i of at.pieces) {
      points.push([file.x0[i]!, file.y0[i]!], [file.x1[i]!, file.y1[i]!]);
      if (!counts(i)) continue;
      const [dx, dy] = [file.x1[i]! - file.x0[i]!, file.y1[i]! - file.y0[i]!];
      const steps = Math.max(1, Math.ceil(Math.hypot(dx, dy) / (0.7 * CELL)));
      let last = Number.NaN;
      for (let s = 0; s <= steps; s++) {
        const key = keyOf(file.x0[i]! + (s / steps) * dx, file.y0[i]! + (s / steps) * dy);
        if (key === last) continue;
        last = key;
        const cell = grid.get(key);
        if (cell) cell.push(i);
        else grid.set(key, [i]);
      }
    }
    return [
      {
        middle: at.z - thick / 2,
        reach: reachOf(hullOf(points), middle).map(r => r + lineWidth / 2),
        grid,
        pieces: at.pieces,
      },
    ];
  });
  return {
    file,
    levels,
    middle,
    lineWidth,
    layer,
    told: hasOuter,
  };
}

/** Where a version's outermost passes should be, level by level, in its own coordinates as it lies. */
export interface Walls {
  levels: {
    at: Level;
    points: { p: Point2; n: Point2 }[];
    loops: (readonly Point2[])[];
    /** How far the section reaches in each direction from the middle. */
    reach: Float64Array;
  }[];
  count: number;
  /** The centre of its convex outline. */
  middle: Point2;
}

/** @param scale of the file relative to the version, as measured */
export function wallsOf(
  lies: TriangleMesh,
  { levels, lineWidth }: Laid,
  { scale, upright }: { scale: number; upright: number },
  kernel: Pick<MeshKernel, 'inset'>,
): Walls {
  const top = boundsOf(lies).max[2];
  const all: [number, number][] = [];
  for (let i = 0; i < lies.positions.length; i += 3) all.push([lies.positions[i]!, lies.positions[i + 1]!]);
  const middle = polygonCentroid(hullOf(all));
  let count = 0;
  const own = levels.flatMap(at => {
    const z = at.middle / upright;
    if (z <= 0 || z >= top) return [];
    const section = sectionAtZ(lies, z);
    if (section.length === 0) return [];
    const loops = section.map(l => l.points);
    const middles = kernel.inset(loops, lineWidth / 2 / scale);
    const round = middles.reduce((sum, l) => sum + lengthOf(l), 0);
    const step = Math.max(APART / scale, round / MOST_POINTS);
    const points = middles.flatMap(l => pointsAlong(l, step));
    count += points.length;
    return [{ at, points, loops, reach: reachOf(hullOf(loops.flat()), middle) }];
  });
  return { levels: own, count, middle };
}

const lengthOf = (l: readonly Point2[]) =>
  l.reduce((sum, p, i) => sum + distance2(p, l[(i + 1) % l.length]!), 0);

/** Outwards is to the right of the direction of travel: loops run anticlockwise around plastic. */
function pointsAlong(loop: readonly Point2[], step: number): { p: Point2; n: Point2 }[] {
  const points: { p: Point2; n: Point2 }[] = [];
  let carry = step / 2;
  loop.forEach((a, i) => {
    const b = loop[(i + 1) % loop.length]!;
    const long = distance2(a, b);
    if (long < 1e-9) return;
    const [ux, uy] = [(b[0] - a[0]) / long, (b[1] - a[1]) / long];
    for (; carry < long; carry += step)
      points.push({ p: [a[0] + carry * ux, a[1] + carry * uy], n: [uy, -ux] });
    carry -= long;
  });
  return points;
}

export interface Fitted {
  /** Degrees, anticlockwise from above. */
  turn: number;
  scale: number;
  /** Scale along the part's own x over that along its y. */
  stretch: number;
  /** How far its outlines lie outside their place, mm: the effect of a correction in the slicing program. */
  moved: number;
  /** Shares found: of the expected passes, and of what is printed. */
  found: number;
  belongs: number;
  /** Mean distance of the passes that were found, mm. */
  off: number;
  cost: number;
  /** From the version as it lies, not turned, to the file: x′ = a x + b y + c and y′ = d x + e y + f. */
  place: readonly [a: number, b: number, c: number, d: number, e: number, f: number];
  /** From the centre of an outermost line to the plastic's edge, mm. */
  half: number;
}

/** Lines are searched this near to their place, mm: in a file that marks its outermost passes, and in others. */
const ROUNDS = { told: [1.5, 1, 0.6, 0.4, 0.4, 0.4], untold: [0.5, 0.4, 0.35, 0.3, 0.3, 0.3] };
/** A pass this near to its place counts as found, mm. */
const FOUND = 0.12;
const CLIP = 0.3;
/** Outlines closer than this to their drawn place count as not offset, mm. */
const NOT_MOVED = 0.012;
/** Largest step of an unknown: mm, radians, or of a logarithm. */
const LARGEST_STEP = 2;
/** The prior: nothing is stretched or offset; sd of the logarithm, mm, and of the turn. */
const [STRETCH, MOVED, TURN] = [0.004, 0.06, 0.1];

/** The unknowns, and what they do to a point and a direction of the version. */
function placing(walls: Walls, laid: Laid, { turn, mirrored, scale }: Start) {
  // x, y, turn, logarithms of the scale along x and y, even offset.
  const s = [laid.middle[0], laid.middle[1], (turn * Math.PI) / 180, Math.log(scale), Math.log(scale), 0];
  const local = ([x, y]: Point2): [number, number] => [
    (mirrored ? -1 : 1) * (x - walls.middle[0]),
    y - walls.middle[1],
  ];
  const place = (p: Point2): [number, number] => {
    const [x, y] = local(p);
    const [u, v] = [Math.exp(s[3]!) * x, Math.exp(s[4]!) * y];
    const [c, n] = [Math.cos(s[2]!), Math.sin(s[2]!)];
    return [c * u - n * v + s[0]!, n * u + c * v + s[1]!];
  };
  const facing = ([nx, ny]: Point2): [number, number] => {
    const [x, y] = [mirrored ? -nx : nx, ny];
    const [c, n] = [Math.cos(s[2]!), Math.sin(s[2]!)];
    return [c * x - n * y, n * x + c * y];
  };
  return { s, place, facing };
}

type Start = { turn: number; mirrored: boolean; scale: number };

/** How badly the passes fit before anything is fitted: for choosing among turns. */
export function glanced(walls: Walls, laid: Laid, start: Start): number {
  const { s, place, facing } = placing(walls, laid, start);
  let [off, all] = [0, 0];
  for (const { at, points } of walls.levels)
    for (let i = 0; i < points.length; i += 3) {
      const { p, n } = points[i]!;
      const r = offAlong(laid, at, place(p), facing(n), 0.8);
      off += r === null ? 0.8 : Math.abs(r);
      all++;
    }
  return s.length > 0 ? off / Math.max(1, all) : 0;
}

export function fitted(walls: Walls, laid: Laid, start: Start): Fitted {
  const { s, place, facing } = placing(walls, laid, start);
  for (const reach of laid.told ? ROUNDS.told : ROUNDS.untold) {
    const a = new Float64Array(36);
    const b = new Float64Array(6);
    for (const { at, points } of walls.levels)
      for (const { p, n } of points) {
        const q = place(p);
        const m = facing(n);
        const r = offAlong(laid, at, [q[0] + s[5]! * m[0], q[1] + s[5]! * m[1]], m, reach);
        if (r === null) continue;
        const weight = 1 / (1 + (r / (0.3 * reach)) ** 2);
        const [dx, dy] = [q[0] - s[0]!, q[1] - s[1]!];
        const [c, k] = [Math.cos(s[2]!), Math.sin(s[2]!)];
        const [u, v] = [c * dx + k * dy, -k * dx + c * dy];
        const j = [
          m[0],
          m[1],
          -dy * m[0] + dx * m[1],
          u * (c * m[0] + k * m[1]),
          v * (-k * m[0] + c * m[1]),
          1,
        ];
        for (let i = 0; i < 6; i++) {
          b[i]! += weight * j[i]! * r;
          for (let l = 0; l < 6; l++) a[6 * i + l]! += weight * j[i]! * j[l]!;
        }
      }
    // The prior decides what the outlines leave open: the turn of a disc, and scale against offset.
    const noise = 0.02 ** 2 * 4;
    const believe = (i: number, sd: number, off: number) => {
      a[7 * i]! += noise / sd ** 2;
      b[i]! -= (noise / sd ** 2) * off;
    };
    believe(2, TURN, 0);
    believe(5, MOVED, s[5]!);
    const pull = noise / STRETCH ** 2;
    a[6 * 3 + 3]! += pull;
    a[6 * 4 + 4]! += pull;
    a[6 * 3 + 4]! -= pull;
    a[6 * 4 + 3]! -= pull;
    b[3]! -= pull * (s[3]! - s[4]!);
    b[4]! += pull * (s[3]! - s[4]!);
    const step = solvedFlat(a, b);
    if (!step) break;
    for (let i = 0; i < 6; i++) s[i]! += Math.max(-LARGEST_STEP, Math.min(LARGEST_STEP, step[i]!));
  }
  return judged(walls, laid, s, place, facing);
}

function judged(
  walls: Walls,
  laid: Laid,
  s: readonly number[],
  place: (p: Point2) => Point2,
  facing: (n: Point2) => Point2,
): Fitted {
  let [found, near, all] = [0, 0, 0];
  for (const { at, points } of walls.levels)
    for (const { p, n } of points) {
      const q = place(p);
      const m = facing(n);
      const r = offAlong(laid, at, [q[0] + s[5]! * m[0], q[1] + s[5]! * m[1]], m, 0.6);
      const off = r === null ? CLIP : Math.min(CLIP, Math.abs(r));
      if (off <= FOUND) found++;
      near += off;
      all++;
    }
  const belongs = shareThatBelongs(walls, laid, place);
  const off = near / Math.max(1, all);
  const share = found / Math.max(1, all);
  // A line's width from its plastic depends on whether its sides count as round: an offset explained by either counts
  // as none.
  const round = (laid.layer * (1 - Math.PI / 4)) / 2;
  const moved =
    Math.abs(s[5]!) < NOT_MOVED
      ? s[5]!
      : Math.abs(s[5]! + round) < NOT_MOVED
        ? s[5]! + round
        : s[5]! + round / 2;
  const [o, u, v] = [place([0, 0]), place([1, 0]), place([0, 1])];
  return {
    place: [u[0] - o[0], v[0] - o[0], o[0], u[1] - o[1], v[1] - o[1], o[1]],
    half: laid.lineWidth / 2 + moved - s[5]!,
    turn: degrees(s[2]!),
    scale: Math.exp((s[3]! + s[4]!) / 2),
    stretch: Math.exp(s[3]! - s[4]!),
    moved,
    found: share,
    belongs,
    off,
    cost: 1 - share + 0.5 * (1 - belongs) + 4 * off + 0.3 * Math.abs(moved),
  };
}

const degrees = (radians: number): number => {
  const d = ((radians * 180) / Math.PI) % 360;
  return d > 180 ? d - 360 : d <= -180 ? d + 360 : d;
};

/**
 * How far, along a direction, the nearest line of the file that runs along the wall is from a point; null where there
 * is none.
 */
function offAlong({ file }: Laid, { grid }: Level, q: Point2, n: Point2, reach: number): number | null {
  let best = reach;
  let off: number | null = null;
  const rings = Math.ceil(reach / CELL);
  for (let gx = -rings; gx <= rings; gx++)
    for (let gy = -rings; gy <= rings; gy++) {
      const cell = grid.get(keyOf(q[0] + gx * CELL, q[1] + gy * CELL));
      if (!cell) continue;
      for (const i of cell) {
        const [ax, ay] = [file.x0[i]!, file.y0[i]!];
        const [dx, dy] = [file.x1[i]! - ax, file.y1[i]! - ay];
        const long2 = dx * dx + dy * dy;
        if (long2 < 1e-8) continue;
        const across = dx * n[0] + dy * n[1];
        // Lines of infill meet the wall; only lines along it count.
        if (across * across > 0.3 * long2) continue;
        const t = Math.max(0, Math.min(1, ((q[0] - ax) * dx + (q[1] - ay) * dy) / long2));
        const [ex, ey] = [ax + t * dx - q[0], ay + t * dy - q[1]];
        const d = Math.sqrt(ex * ex + ey * ey);
        if (d < best) {
          best = d;
          off = ex * n[0] + ey * n[1];
        }
      }
    }
  return off;
}

/** The share of what is printed that lies within the version's own section. */
function shareThatBelongs(walls: Walls, laid: Laid, place: (p: Point2) => Point2): number {
  let [within, all] = [0, 0];
  for (const { at, loops } of walls.levels) {
    const placed = loops.map(l => l.map(place));
    const step = Math.max(1, Math.floor(at.pieces.length / 60));
    for (let k = 0; k < at.pieces.length; k += step) {
      const i = at.pieces[k]!;
      const { x0, y0, x1, y1 } = laid.file;
      const q: Point2 = [(x0[i]! + x1[i]!) / 2, (y0[i]! + y1[i]!) / 2];
      all++;
      if (placed.filter(l => isInside(q, l)).length % 2 === 1) within++;
    }
  }
  return all > 0 ? within / all : 0;
}

/** Six equations with six unknowns; null where they have no unique solution. */
function solvedFlat(a: Float64Array, b: Float64Array): number[] | null {
  const n = b.length;
  const rows = Array.from({ length: n }, (_, i) => Array.from(a.subarray(n * i, n * i + n)));
  return solved(rows, Array.from(b));
}
