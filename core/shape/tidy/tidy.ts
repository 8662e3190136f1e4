import { type Curve, flattenedPoints, outlineOfCurves } from '../curve';
import { curvesOfParted, partedAgain, roundOf } from '../lines-and-arcs/lines-and-arcs';
import { type Parted, type Piece, withRadius } from '../lines-and-arcs/pieces';
import { cross2, distance2, minus2, type Point2 } from '../vector';

/**
 * What a measured outline was most likely meant to be: sides at right angles, corners of one radius, two equal sides.
 * Nothing is changed silently: each suggestion says how far it moves things, and is accepted or not. Lengths mm, angles
 * degrees.
 */
export interface Tidying {
  /** Identifies it: its kind, and the loops and pieces that it involves. */
  key: string;
  kind: 'square' | 'radius' | 'mirror';
  words: string;
  /** The farthest that it moves anything, mm. */
  moves: number;
  members: readonly Member[];
}

/** A piece of a loop; of a circle, piece 0. */
export interface Member {
  loop: number;
  piece: number;
}

/** An angle counts as a right one within this many of its own uncertainties, plus degrees. Tried on traced outlines. */
const [DOUBTS, AND] = [2.5, 0.07];
/** Radii are equal within this, mm, plus this many of their uncertainties. */
const RADII = 0.05;
/** Sides shorter than this, mm, say nothing about angles; arcs of less than this, radians, nothing about radii. */
const [SHORT, LITTLE] = [4, 0.6];
/** Nothing is tidied by more than this: it was made that way, mm. */
const MOST = 0.25;
/** Neighbouring points have the same error over this distance, mm. */
const ALIKE = 1.5;

const RADIAN = 180 / Math.PI;

/** @param loops of one outline, the outer one first */
export function tidyings(loops: readonly Parted[]): Tidying[] {
  const mirror = mirrorOf(loops);
  return [...squares(loops), ...radii(loops), ...(mirror ? [mirror.tidying] : [])];
}

/** The line of symmetry, if that was accepted and there is one. */
export const takenMirror = (loops: readonly Parted[], taken: readonly string[]): MirrorLine | null =>
  taken.includes(MIRROR) ? mirrorOf(loops) : null;

/**
 * The outline with the accepted suggestions. Keys that no longer fit anything are ignored.
 * @param mirror already found, for an outline that is nearly the same
 */
export function tidied(
  loops: readonly Parted[],
  taken: readonly string[],
  mirror: MirrorLine | null = takenMirror(loops, taken),
): Curve[][] {
  let now = mirror ? mirroredLoops(loops, mirror.at, mirror.way) : [...loops];
  const offers = [...squares(now), ...radii(now)].filter(t => taken.includes(t.key));
  const rounds = new Map<number, number>();
  for (const { kind, members } of offers) {
    if (kind === 'square') now = squared(now, members);
    if (kind === 'radius') {
      const radius = meanRadius(now, members);
      now = withOneRadius(now, members, radius);
      for (const m of members) if (now[m.loop]!.pieces === 'circle') rounds.set(m.loop, radius);
    }
  }
  return now.map((loop, i) =>
    loop.pieces === 'circle' ? roundOf(loop.points, rounds.get(i)) : curvesOfParted(loop),
  );
}

const MIRROR = 'mirror';

interface MirrorLine {
  at: Point2;
  way: Point2;
}

const key = (kind: string, members: readonly Member[]) =>
  `${kind} ${members.map(m => `${m.loop}.${m.piece}`).join(' ')}`.slice(0, 60);

type Line = Extract<Piece, { kind: 'line' }>;
type Arc = Extract<Piece, { kind: 'arc' }>;

const pieceAt = (loops: readonly Parted[], { loop, piece }: Member): Piece | null => {
  const { pieces } = loops[loop]!;
  return pieces === 'circle' ? null : (pieces[piece] ?? null);
};

const lengthOf = ({ points }: Parted, p: Piece) => distance2(points[p.from]!, points[p.to]!);

/** The uncertainty of a side's direction, degrees, standard. */
function doubtOfDirection(loop: Parted, line: Line): number {
  const own = loop.points.slice(line.from, line.to + 1);
  const off = own.map(q => cross2(line.way, minus2(q, line.at)));
  const rms = Math.sqrt(off.reduce((s, d) => s + d * d, 0) / own.length);
  const long = lengthOf(loop, line);
  return (RADIAN * rms * Math.sqrt(12)) / long / Math.sqrt(Math.max(1, long / ALIKE));
}

/** How far a direction is from the nearest of four at right angles, degrees from −45 to 45. */
const offRight = (degrees: number) => ((((degrees + 45) % 90) + 90) % 90) - 45;
const degreesOf = ([x, y]: Point2) => Math.atan2(y, x) * RADIAN;

function squares(loops: readonly Parted[]): Tidying[] {
  const lines = loops.flatMap((loop, l) =>
    loop.pieces === 'circle'
      ? []
      : loop.pieces.flatMap((p, piece) =>
          p.kind === 'line' && lengthOf(loop, p) > SHORT
            ? [{ loop: l, piece, line: p, long: lengthOf(loop, p), u: doubtOfDirection(loop, p) }]
            : [],
        ),
  );
  const left = new Set(lines);
  const out: Tidying[] = [];
  for (const first of [...lines].sort((a, b) => b.long - a.long)) {
    if (!left.has(first)) continue;
    const group = [...left].filter(l => {
      const off = Math.abs(offRight(degreesOf(l.line.way) - degreesOf(first.line.way)));
      return off < DOUBTS * Math.hypot(l.u, first.u) + AND;
    });
    for (const l of group) left.delete(l);
    if (group.length < 2) continue;
    const way = meanDirection(group);
    const offs = group.map(l => Math.abs(offRight(degreesOf(l.line.way) - way)));
    const moves = Math.max(...group.map((l, i) => (l.long / 2) * Math.sin(offs[i]! / RADIAN)));
    if (moves > MOST) continue;
    const members = group.map(({ loop, piece }) => ({ loop, piece }));
    out.push({
      key: key('square', members),
      kind: 'square',
      words: `${group.length} sides parallel or at right angles: off by up to ${Math.max(...offs).toFixed(2)}°`,
      moves,
      members,
    });
  }
  return out;
}

/** Of four directions at right angles, those that fit the sides best, degrees. */
function meanDirection(lines: readonly { line: Line; long: number }[]): number {
  const base = degreesOf(lines.reduce((a, b) => (b.long > a.long ? b : a)).line.way);
  const weight = lines.reduce((s, l) => s + l.long ** 3, 0);
  return base + lines.reduce((s, l) => s + l.long ** 3 * offRight(degreesOf(l.line.way) - base), 0) / weight;
}

function squared(loops: readonly Parted[], members: readonly Member[]): Parted[] {
  const lines = members.flatMap(m => {
    const line = pieceAt(loops, m);
    return line?.kind === 'line' ? [{ line, long: lengthOf(loops[m.loop]!, line), ...m }] : [];
  });
  if (lines.length < 2) return [...loops];
  const way = meanDirection(lines);
  return replaced(loops, members, piece => {
    if (piece.kind !== 'line') return piece;
    const now = degreesOf(piece.way);
    const to = (now - offRight(now - way)) / RADIAN;
    return { ...piece, way: [Math.cos(to), Math.sin(to)] };
  });
}

function replaced(
  loops: readonly Parted[],
  members: readonly Member[],
  by: (piece: Piece, loop: Parted) => Piece,
): Parted[] {
  return loops.map((loop, l) => {
    const { pieces } = loop;
    if (pieces === 'circle') return loop;
    const mine = new Set(members.filter(m => m.loop === l).map(m => m.piece));
    return { ...loop, pieces: pieces.map((p, i) => (mine.has(i) ? by(p, loop) : p)) };
  });
}

interface Round extends Member {
  radius: number;
  u: number;
  /** Radians that are seen of it. */
  sweep: number;
}

function roundsOf(loops: readonly Parted[]): Round[] {
  return loops.flatMap((loop, l): Round[] => {
    if (loop.pieces === 'circle') {
      const [arc] = curvesOfParted(loop);
      return arc?.arc ? [{ loop: l, piece: 0, radius: arc.arc.radius, u: 0.01, sweep: 2 * Math.PI }] : [];
    }
    return loop.pieces.flatMap((p, piece): Round[] => {
      if (p.kind !== 'arc') return [];
      const sweep = ((p.to - p.from) * stepOf(loop)) / p.radius;
      if (sweep < LITTLE) return [];
      // Sagitta and radius: the effect of a hundredth of scatter on it (half-chord² / 2r).
      const u = 0.01 / Math.max(0.02, 1 - Math.cos(Math.min(Math.PI, sweep) / 2));
      return [{ loop: l, piece, radius: p.radius, u, sweep }];
    });
  });
}

const stepOf = ({ points }: Parted) => distance2(points[0]!, points[1]!);

function radii(loops: readonly Parted[]): Tidying[] {
  const all = roundsOf(loops);
  const left = new Set(all);
  const out: Tidying[] = [];
  for (const first of [...all].sort((a, b) => a.u - b.u)) {
    if (!left.has(first)) continue;
    const group = [...left].filter(
      r => Math.abs(r.radius - first.radius) < RADII + DOUBTS * Math.hypot(r.u, first.u),
    );
    for (const r of group) left.delete(r);
    if (group.length < 2) continue;
    const mean = meanOf(group);
    const moves = Math.max(...group.map(r => Math.abs(r.radius - mean)));
    if (moves > MOST) continue;
    const members = group.map(({ loop, piece }) => ({ loop, piece }));
    out.push({
      key: key('radius', members),
      kind: 'radius',
      words: `${group.length} rounds of one radius, ${mean.toFixed(2)} mm: off by up to ${moves.toFixed(2)} mm`,
      moves,
      members,
    });
  }
  return out;
}

const meanOf = (rounds: readonly Round[]) => {
  const weight = rounds.reduce((s, r) => s + 1 / r.u ** 2, 0);
  return rounds.reduce((s, r) => s + r.radius / r.u ** 2, 0) / weight;
};

function meanRadius(loops: readonly Parted[], members: readonly Member[]): number {
  const all = roundsOf(loops);
  return meanOf(all.filter(r => members.some(m => m.loop === r.loop && m.piece === r.piece)));
}

const withOneRadius = (loops: readonly Parted[], members: readonly Member[], radius: number): Parted[] =>
  replaced(
    loops,
    members,
    (piece, loop): Piece =>
      piece.kind === 'arc' ? ({ ...withRadius(loop, piece, radius) } satisfies Arc) : piece,
  );

/** Number of points at which a mirrored outline is compared. */
const COMPARED = 160;

/** A line about which the outline is symmetric, where there is one. */
function mirrorOf(loops: readonly Parted[]): (MirrorLine & { tidying: Tidying }) | null {
  const outer = curvesOfParted(loops[0]!);
  if (outer.length === 0 || loops[0]!.pieces === 'circle') return null;
  const line = flattenedPoints(outlineOfCurves(outer), 0.02);
  const all = spread(line, COMPARED);
  const at: Point2 = [
    all.reduce((s, p) => s + p[0], 0) / all.length,
    all.reduce((s, p) => s + p[1], 0) / all.length,
  ];
  let best: { way: number; off: number } | null = null;
  // Sides and axes suggest directions to try; then the best is refined.
  for (let k = 0; k < 180; k++) {
    const off = missOf(all, line, at, k);
    if (!best || off < best.off) best = { way: k, off };
  }
  for (let step = 0.5; step > 0.01 && best; step /= 2)
    for (const way of [best.way - step, best.way + step]) {
      const off = missOf(all, line, at, way);
      if (off < best.off) best = { way, off };
    }
  if (!best || best.off > MOST) return null;
  const way: Point2 = [Math.cos(best.way / RADIAN), Math.sin(best.way / RADIAN)];
  const members = [{ loop: 0, piece: 0 }];
  return {
    at,
    way,
    tidying: {
      key: MIRROR,
      kind: 'mirror',
      words: `The same on both sides of a line: off by up to ${best.off.toFixed(2)} mm`,
      moves: best.off / 2,
      members,
    },
  };
}

/** The distance that all but a few points stay within, mm. */
function missOf(points: readonly Point2[], line: readonly Point2[], at: Point2, degrees: number): number {
  const way: Point2 = [Math.cos(degrees / RADIAN), Math.sin(degrees / RADIAN)];
  const far: number[] = [];
  for (const p of points) {
    far.push(distance2(nearestOn(line, mirrored(p, at, way)), mirrored(p, at, way)));
    // One that is far off already rules out this line.
    if (far.length === 12 && Math.min(...far) > 2) return Infinity;
  }
  return far.sort((a, b) => a - b)[Math.floor(0.95 * far.length)]!;
}

function mirrored(p: Point2, at: Point2, way: Point2): Point2 {
  const along = (p[0] - at[0]) * way[0] + (p[1] - at[1]) * way[1];
  const foot: Point2 = [at[0] + along * way[0], at[1] + along * way[1]];
  return [2 * foot[0] - p[0], 2 * foot[1] - p[1]];
}

function nearestOn(line: readonly Point2[], p: Point2): Point2 {
  let best: Point2 = line[0]!;
  let least = Infinity;
  for (let i = 0; i < line.length; i++) {
    const [a, b] = [line[i]!, line[(i + 1) % line.length]!];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const s = Math.max(0, Math.min(1, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy || 1)));
    const q: Point2 = [a[0] + s * dx, a[1] + s * dy];
    const far = (q[0] - p[0]) ** 2 + (q[1] - p[1]) ** 2;
    if (far < least) [best, least] = [q, far];
  }
  return best;
}

function spread(line: readonly Point2[], count: number): Point2[] {
  const along = line.map((p, i) => distance2(p, line[(i + 1) % line.length]!));
  const whole = along.reduce((s, d) => s + d, 0);
  const out: Point2[] = [];
  let next = 0;
  along.reduce((sum, d, i) => {
    for (; next < sum + d && out.length < count; next += whole / count) {
      const s = d > 0 ? (next - sum) / d : 0;
      const [a, b] = [line[i]!, line[(i + 1) % line.length]!];
      out.push([a[0] + s * (b[0] - a[0]), a[1] + s * (b[1] - a[1])]);
    }
    return sum + d;
  }, 0);
  return out;
}

/** Every point half-way to where its image says that it should be. */
function mirroredLoops(loops: readonly Parted[], at: Point2, way: Point2): Parted[] {
  const lines = loops.map(l => flattenedPoints(outlineOfCurves(curvesOfParted(l)), 0.005));
  const images = lines.map(l => l.map(p => mirrored(p, at, way)));
  return loops.map(loop =>
    partedAgain(
      loop,
      loop.points.map((p): Point2 => {
        const near = images.map(i => nearestOn(i, p));
        const q = near.reduce((a, b) => (distance2(b, p) < distance2(a, p) ? b : a));
        // A piece without a counterpart on the other side stays.
        return distance2(q, p) > 2 * MOST ? p : [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
      }),
    ),
  );
}
