import { alongFrame, BED, backwards, bentFrame, type Frame } from '../../vector';
import type { End, Fitting, P } from './parameters';

/**
 * Joins two tubes or hoses: each end goes over, goes into, or holds a hose by barbs; end A may be a flange. End A is on
 * the bed with axis z. In line it is one profile revolved about the axis; when offset or at an angle, each end narrows
 * to one tube, which bends towards +x.
 */
export type Kind = P['kindA'];
export const kindOf = (p: P, end: End): Kind => p[`kind${end}` as const];
export const fits = (fitting: Fitting, end: End) => (p: P) => kindOf(p, end) === fitting;
export const is = {
  bent: (p: P) => p.run !== 'straight',
  offset: (p: P) => p.run === 'offset',
  angle: (p: P) => p.run === 'angle',
  click: (end: End) => (p: P) => kindOf(p, end) === 'over' && p[`click${end}` as const],
  coned: (end: End) => (p: P) =>
    (kindOf(p, end) === 'over' || kindOf(p, end) === 'into') && p[`coned${end}` as const],
  flange: (p: P) => kindOf(p, 'A') === 'flange',
};

/** In (radius, height from the mouth inwards). */
export type Profile = [number, number][];

export interface EndSizes {
  kind: Kind;
  /** Radius of the mating surface, midway along it where it tapers. */
  mate: number;
  /** Radii of the passage and of the outside at the end's inner side. */
  inner: number;
  /** Radius of the passage beyond it: past the stop, where a tube is pushed in. */
  way: number;
  root: number;
  /** Widest. */
  outer: number;
  length: number;
  /** Height from the mouth at which the diameter has its written value. */
  hold: number;
  /** Growth of the outside, per side, for each mm inwards; an inside gets smaller by that. */
  taper: number;
  /** Inner radius, and heights from the mouth, of a ridge that clicks into the tube's groove. */
  ridge?: { radius: number; from: number; low: number; high: number; to: number };
}

export interface Sizes {
  A: EndSizes;
  B: EndSizes;
  wall: number;
  /** Radius of the narrowest way through. */
  bore: number;
  middle: number;
  chamfer: number;
}

export const BARB_PITCH = 4;
export const BARB_HEIGHT = 0.6;
/** Ridges rise and fall at 45°, which prints well, holds and lets go. */
const RIDGE_WIDTH = 1;

function endOf(p: P, end: End): EndSizes {
  const kind = kindOf(p, end);
  const wall = p.wall;
  if (kind === 'flange') {
    const bore = p.flangeBore / 2;
    return {
      kind,
      mate: p.boltCircle / 2,
      inner: bore,
      way: bore,
      root: bore + wall,
      outer: p.flangeDiameter / 2,
      length: p.flangeThickness,
      hold: 0,
      taper: 0,
    };
  }
  const long = p[`length${end}` as const];
  const taper = kind === 'barb' ? 0 : Math.tan((p[`taper${end}` as const] * Math.PI) / 180);
  const hold = holdOf(p, end, long, taper);
  const written = p[`${kind}${end}` as const] / 2;
  const mate = written - (kind === 'over' ? -1 : 1) * taper * (hold - long / 2);
  const half = (taper * long) / 2;
  if (kind === 'over') {
    const outer = mate + half + wall;
    const ridge = is.click(end)(p) ? ridgeOf(p, end, mate) : undefined;
    return {
      kind,
      mate,
      inner: mate - half,
      // Narrower than the end, so that a tube pushed in meets its stop.
      way: mate - half - p.stop,
      outer,
      root: outer,
      length: long,
      hold,
      taper,
      ...(ridge ? { ridge } : {}),
    };
  }
  // A barb's ridges are the mating size: the core between them is lower.
  const core = kind === 'barb' ? mate - BARB_HEIGHT : mate;
  return {
    kind,
    mate,
    inner: core - half - wall,
    way: core - half - wall,
    outer: mate + half,
    root: core + half,
    length: long,
    hold,
    taper,
  };
}

/** At this distance from a tapered end's rim its diameter can be measured, mm. */
const FROM_RIM = 0.2;

function holdOf(p: P, end: End, long: number, taper: number): number {
  const holds = is.coned(end)(p) ? 'inner' : p[`holds${end}` as const];
  if (taper === 0 || holds === 'middle') return long / 2;
  return holds === 'inner' ? long - FROM_RIM : Math.min(long / 2, p.leadIn + FROM_RIM);
}

function ridgeOf(p: P, end: End, mate: number): EndSizes['ridge'] {
  const radius = p[`ridge${end}` as const] / 2;
  const rise = mate - radius;
  const middle = p[`ridgeAt${end}` as const];
  const low = middle - RIDGE_WIDTH / 2;
  const high = middle + RIDGE_WIDTH / 2;
  return { radius, from: low - rise, low, high, to: high + rise };
}

export function sizesOf(p: P): Sizes {
  const [A, B] = [endOf(p, 'A'), endOf(p, 'B')];
  return {
    A,
    B,
    wall: p.wall,
    bore: Math.min(A.way, B.way),
    middle: p.middle,
    chamfer: p.leadIn,
  };
}

/** Of the mating surface at a height from the mouth. */
export const mateAt = (e: EndSizes, z: number): number =>
  e.mate + (e.kind === 'over' ? -1 : 1) * e.taper * (z - e.length / 2);

/** Outside of an end, from mouth to root. */
export function outsideOf(e: EndSizes, chamfer: number): Profile {
  if (e.kind === 'over')
    return [
      [e.outer, 0],
      [e.outer, e.length],
    ];
  if (e.kind === 'flange')
    return [
      [e.outer, 0],
      [e.outer, e.length],
      [e.root, e.length],
    ];
  if (e.kind === 'into')
    return [
      [mateAt(e, chamfer) - chamfer, 0],
      [mateAt(e, chamfer), chamfer],
      [e.root, e.length],
    ];
  const core = e.mate - BARB_HEIGHT;
  const points: Profile = [];
  // Round entry, square back: each ridge rises from the mouth and drops at once.
  const count = Math.max(1, Math.floor((e.length - 1) / BARB_PITCH));
  for (let i = 0; i < count; i++) {
    const z = i * BARB_PITCH;
    points.push(
      [core, z],
      [e.mate, z + BARB_PITCH * 0.6],
      [e.mate, z + BARB_PITCH * 0.85],
      [core, z + BARB_PITCH * 0.85],
    );
  }
  points.push([core, e.length]);
  return points;
}

/** Inside of an end that goes over a tube, from its mouth to where the tube stops. */
function pocketOf(e: EndSizes, chamfer: number): Profile {
  const { ridge } = e;
  return [
    [mateAt(e, chamfer) + chamfer, 0],
    [mateAt(e, chamfer), chamfer],
    ...(ridge
      ? ([
          [e.mate, ridge.from],
          [ridge.radius, ridge.low],
          [ridge.radius, ridge.high],
          [e.mate, ridge.to],
        ] as Profile)
      : []),
    [e.inner, e.length],
  ];
}

/**
 * In line: the passage, with heights from end A's mouth. Between the ends its wall is as thick as elsewhere, square to
 * its slope; past a stop it opens at 45°, and it is never narrower than both ends.
 */
export function wayThrough(s: Sizes): Profile {
  const { A, B, wall, chamfer } = s;
  const [zA, zB] = [A.length, A.length + s.middle];
  const total = zB + B.length;
  const slope = (B.root - A.root) / s.middle;
  const square = wall * Math.hypot(1, slope);
  const [low, high] = [Math.min(A.way, B.way), Math.max(A.way, B.way)];
  const line = (z: number) => A.root + slope * (z - zA) - square;
  const at = (z: number) =>
    Math.min(
      Math.max(low, Math.min(high, line(z))),
      A.way + Math.max(0, z - zA),
      B.way + Math.max(0, zB - z),
    );
  // A slope that begins at an end's root begins slightly earlier on the inside: the wall turns a corner there.
  const earlier = (square - wall) / (Math.abs(slope) || 1);
  const into = (e: EndSizes) => (e.kind === 'over' || e.taper > 0 ? 0 : Math.min(earlier, e.length / 2));
  const from = zA - (slope < 0 ? into(A) : 0);
  const to = zB + (slope > 0 ? into(B) : 0);
  const cross = (r: number) => (slope === 0 ? zA : zA + (r + square - A.root) / slope);
  const corners = [
    from,
    to,
    zA,
    zB,
    cross(low),
    cross(high),
    zA + high - A.way,
    zB - (high - B.way),
    // Where the slope meets what opens at 45° past either stop.
    zA + (A.root - square - A.way) / (1 - slope),
    zA + (B.way + s.middle - A.root + square) / (1 + slope),
  ];
  const between = [...new Set(corners.filter(z => Number.isFinite(z) && z >= from && z <= to))]
    .sort((a, b) => a - b)
    .map((z): [number, number] => [at(z), z]);
  const mouth = (e: EndSizes): Profile => (e.kind === 'over' ? pocketOf(e, chamfer) : [[e.inner, 0]]);
  return [
    ...mouth(A),
    ...between,
    ...mouth(B)
      .map(([r, z]): [number, number] => [r, total - z])
      .reverse(),
  ];
}

/** Inside of an end of a bent adapter, from mouth to the bore it leads to. */
export function insideOf(e: EndSizes, bore: number, chamfer: number): Profile {
  if (e.kind === 'over')
    return [
      ...pocketOf(e, chamfer),
      [e.way, e.length],
      // Past the stop at 45°, as far inside the outside's slope as the wall is thick.
      ...(e.way > bore + 1e-9 ? ([[e.way, e.length + e.inner - e.way]] as Profile) : []),
      [bore, e.length + (e.way > bore + 1e-9 ? e.inner - bore : 0)],
    ];
  // The passage narrows to the bore at 45°, so that it prints with either end down.
  const run = Math.max(0, e.inner - bore);
  return run > 0
    ? [
        [e.inner, 0],
        [e.inner, e.length],
        [bore, e.length + run],
      ]
    : [
        [e.inner, 0],
        [bore, e.length],
      ];
}

/** The path of the tube between the ends of a bent adapter. */
export interface Run {
  /** Outside of the tube that bends. */
  tube: number;
  /** Heights over which each end narrows to it. */
  reach: { A: number; B: number };
  radius: number;
  /** Where each piece begins; `turn` in degrees, `straight` in mm. */
  pieces: ({ frame: Frame; turn: number } | { frame: Frame; straight: number })[];
  /** Where end B's section begins, and its direction towards B's mouth. */
  end: Frame;
}

/** The steepest lean of an offset, degrees: it prints without support. */
const LEAN = 45;

export function runOf(p: P, s: Sizes): Run {
  const tube = s.bore + s.wall;
  const reach = { A: reachOf(s.A, s), B: reachOf(s.B, s) };
  const radius = p.bendRadius || 1.5 * tube;
  const start = alongFrame(BED, [0, s.A.length + reach.A]);
  if (is.angle(p)) {
    const turn = p.bendAngle;
    return { tube, reach, radius, pieces: [{ frame: start, turn }], end: bentFrame(start, radius, turn) };
  }
  const aside = p.offset;
  const bends = 2 * radius * (1 - Math.cos((LEAN * Math.PI) / 180));
  const turn = aside >= bends ? LEAN : (Math.acos(Math.max(-1, 1 - aside / (2 * radius))) * 180) / Math.PI;
  const straight = aside > bends + 0.01 ? (aside - bends) / Math.sin((LEAN * Math.PI) / 180) : 0;
  const leaning = bentFrame(start, radius, turn);
  const again = backwards(alongFrame(leaning, [0, straight]));
  return {
    tube,
    reach,
    radius,
    pieces: [
      { frame: start, turn },
      ...(straight > 0 ? [{ frame: leaning, straight }] : []),
      { frame: again, turn },
    ],
    end: backwards(bentFrame(again, radius, turn)),
  };
}

/**
 * From an end's inner side to the tube: the slope of the outside, later than the inside's so that the wall keeps its
 * thickness.
 */
function reachOf(e: EndSizes, s: Sizes): number {
  const inside = e.way > s.bore + 1e-9 ? e.inner - s.bore : 0;
  return Math.max(inside, laterBy(e, s) + Math.abs(e.root - s.bore - s.wall)) + 1;
}

const laterBy = (e: EndSizes, s: Sizes): number => (e.way > s.bore + 1e-9 ? (Math.SQRT2 - 1) * s.wall : 0);

/** An end up to the tube: outside and inside, from the mouth. */
export function endProfile(e: EndSizes, s: Sizes, run: Pick<Run, 'tube' | 'reach'>, end: End) {
  const top = e.length + run.reach[end];
  const later = laterBy(e, s);
  const outside: Profile = [
    ...outsideOf(e, s.chamfer),
    [e.root, e.length + later],
    [run.tube, e.length + later + Math.abs(e.root - run.tube)],
    [run.tube, top],
  ];
  const inside: Profile = [...insideOf(e, s.bore, s.chamfer), [s.bore, top]];
  return { outside, inside, top };
}

/** For a bent adapter: the frame in which end B's own heights count from its mouth inwards. */
export function mouthFrame(s: Sizes, run: Run): Frame {
  const { at, x, up } = alongFrame(run.end, [0, run.reach.B + s.B.length]);
  return { at, x, up: [-up[0], -up[1], -up[2]] };
}

/** In line: the least radial wall between the ends, mm. */
export function straightWall(s: Sizes): number {
  const [a, b] = [s.A.length, s.A.length + s.middle];
  const outsideAt = (z: number) => s.A.root + ((s.B.root - s.A.root) * (z - a)) / (b - a);
  const between = wayThrough(s).filter(([, z]) => z >= a && z <= b);
  // A pocket's last corner belongs to its tube, not to the slope.
  return Math.min(
    ...between
      .filter(([r, z]) => !(z === a && r === s.A.inner) && !(z === b && r === s.B.inner))
      .map(([r, z]) => outsideAt(z) - r),
  );
}
