import { chanceWithin } from '../fit/probability';
import { trianglesOfMates } from '../shape/checks/measure';
import type { MateSurface } from '../shape/mates';
import { boundsOf, type TriangleMesh, volumeOf } from '../shape/mesh/mesh';
import type { Load, Weakest } from '../shape/strength/loads';
import { weakestSection } from '../shape/strength/loads';
import type { Point3 } from '../shape/vector';
import { waysDown } from './candidates';
import { columnsOf } from './columns';
import { type Facings, facesTo, facingsOf, hanging } from './facings';
import { bedFit, footprintOf, leastRectangle, liesOn } from './footprint';
import { type SupportRules, steepest, supportsOf } from './hangs';
import { acrossSeconds, LINK } from './motion';
import { AS_DRAWN, isSameDirection, type Pose, posed, upOf } from './pose';
import type { Machine, PrintSettings } from './settings';
import { inThreads } from './supports';
import { type Orientation, orientationOf } from './surface-orientation';
import { supportSeconds } from './time';

/** The poses in which a part may be printed, each with its cost in minutes of the maker's time. Lengths mm. */

export interface PlanAsked {
  /** As drawn. */
  mesh: TriangleMesh;
  hull: TriangleMesh;
  mates: readonly PlanMate[];
  bed: { width: number; depth: number; height: number };
  rules: SupportRules;
  settings: PrintSettings;
  machine: Machine;
  loads: readonly Load[];
  /** MPa; null where the plastic's is not known. */
  strength: { along: number; across: number } | null;
  /** How many times its load it should bear. */
  margin: number;
  /** The current pose. */
  now: Pose;
  /** How far its triangles may be from the true surface. */
  sagitta: number;
}

export interface PlanMate {
  surface: MateSurface;
  name: string;
  form: 'round' | 'flats';
  /** Chance that it fits as it is drawn now; null where that is not known. */
  pRight: number | null;
  /** A screw's hole tolerates more. */
  forgiving: boolean;
}

/** How a mate comes out in a pose. */
export interface MateInPose {
  name: string;
  lies: Orientation;
  /** Supports stand on it. */
  supported: boolean;
  /** It begins on the bed, where the first layer bulges. */
  onBed: boolean;
  /** Every layer begins and ends on it, and it has no corner to hide that; a screw's hole does not mind. */
  seam: boolean;
  /** Its uncertainty relative to printing it upright. */
  doubt: number;
}

export interface PosePlan {
  pose: Pose;
  supports: { area: number; volume: number; onPart: number };
  /** The longest gap that is bridged, mm. */
  bridge: number;
  /** On the bed, mm². */
  foot: number;
  height: number;
  /** The smallest rectangle around it, the longer side first. */
  footprint: [number, number];
  fits: boolean;
  /** How much it is too large for the bed where it does not fit. */
  over: number;
  mates: MateInPose[];
  weakest: Weakest | null;
  /** The components of the cost in minutes, for the reasons. */
  costs: Readonly<Record<CostKind, number>>;
  cost: number;
}

export const COST_KINDS = ['printing', 'supports', 'cleaning', 'again', 'loose', 'weak', 'bed'] as const;
export type CostKind = (typeof COST_KINDS)[number];

/** How many are examined closely after a rough pass over all. */
const CLOSELY = 8;
/** A smaller gain is not worth turning the part: share and minutes. */
const [TIE_SHARE, TIE_MINUTES] = [0.04, 1];

/** Uncertainty by orientation, relative to upright. Common practice, no source. */
const DOUBT = { upright: 1, leaning: 1.6, lying: 2, 'in layers': 1.8 } as const;
const DOUBT_OF_LYING_THREAD = 3;
const DOUBT_OF_SUPPORTED = 1.8;
/** The first layer bulges at its mouth; the rest of the surface is unaffected. Common practice, no source. */
const DOUBT_OF_BULGE = 1.1;
/** A surface that begins lower than this has its mouth in the first layer, mm. */
const FIRST_LAYER = 0.1;
/** Used where nothing was read yet. */
const USUAL_CHANCE = 0.8;
const FORGIVING_SHARE = 0.25;
/**
 * Time to remove supports and clean up, minutes: a fixed part, mm² per minute, and mm² of marks per minute. Practice.
 */
const CLEANING = { begin: 4, area: 60, marks: 30 };
/** Time to start again after a print that did not fit, or came loose, minutes. Common practice, no source. */
const [TAKE_UP_AGAIN, TAKE_UP_LOOSE] = [15, 5];
/** At this slenderness half of the prints come loose; and how sharply that sets in. Common practice, no source. */
const [SLENDER, SLENDER_STEP] = [9, 1.2];
const WEAK = { begin: 60, doubling: 240 };
/** What cannot be printed at all comes last, minutes. */
const NO_BED = 10_000;

/** All poses worth considering, the best first; the current one stays first unless another is clearly better. */
export function planPoses(asked: PlanAsked): PosePlan[] {
  const { mesh, hull, mates, now } = asked;
  const surfaces = mates.map(m => m.surface);
  const owner = trianglesOfMates(mesh, surfaces, asked.sagitta);
  const ways = waysDown(hull, surfaces);
  const whole = wholeFacts(mesh, surfaces);
  const glanced = ways
    .map((down, i) => ({ down, i, cost: glance(down, asked, whole) }))
    .sort((a, b) => a.cost - b.cost || a.i - b.i);
  const nowOrDrawn = (down: Point3) =>
    isSameDirection(down, now.down) || isSameDirection(down, AS_DRAWN.down);
  const close = [...glanced.slice(0, CLOSELY), ...glanced.slice(CLOSELY).filter(g => nowOrDrawn(g.down))];
  if (!close.some(g => isSameDirection(g.down, now.down))) close.push({ down: now.down, i: -1, cost: 0 });
  const plans = close.map(({ down }) => planOf(down, asked, owner, whole));
  return ranked(plans, now);
}

function ranked(plans: readonly PosePlan[], now: Pose): PosePlan[] {
  const sorted = [...plans].sort((a, b) => a.cost - b.cost);
  const isTie = (plan: PosePlan) => plan.cost <= (1 + TIE_SHARE) * sorted[0]!.cost + TIE_MINUTES;
  // The current pose, then the drawn one: the answer must not flicker while a number is typed.
  const stays =
    sorted.find(p => isSameDirection(p.pose.down, now.down) && isTie(p)) ??
    sorted.find(p => isSameDirection(p.pose.down, AS_DRAWN.down) && isTie(p));
  return stays ? [stays, ...sorted.filter(p => p !== stays)] : sorted;
}

interface WholeFacts {
  volume: number;
  facings: Facings;
  /** Triangles between the ridges and grooves of a thread: their flanks never count as overhangs. */
  inThread: Uint8Array;
}

const wholeFacts = (mesh: TriangleMesh, surfaces: readonly MateSurface[]): WholeFacts => ({
  volume: volumeOf(mesh),
  facings: facingsOf(mesh),
  inThread: inThreads(mesh, surfaces),
});

/** What the triangles' normals alone show: how much overhangs, the height, and the orientation of the mates. */
function glance(
  down: Point3,
  { mesh, mates, rules, settings, machine }: PlanAsked,
  whole: WholeFacts,
): number {
  const steep = steepest(rules);
  const { positions: p, triangles } = mesh;
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < p.length; i += 3) {
    const h = p[i]! * down[0] + p[i + 1]! * down[1] + p[i + 2]! * down[2];
    if (h < low) low = h;
    if (h > high) high = h;
  }
  let [overAir, foot] = [0, 0];
  for (let t = 0; t < triangles.length / 3; t++) {
    const facesDown = facesTo(whole.facings, t, down);
    if (facesDown <= steep) continue;
    const v = 3 * triangles[3 * t]!;
    const h = p[v]! * down[0] + p[v + 1]! * down[1] + p[v + 2]! * down[2];
    const area = facesDown * whole.facings.area[t]!;
    if (high - h < 0.3) foot += area;
    else if (!whole.inThread[t]) overAir += area;
  }
  const height = high - low;
  const minutes = quickMinutes(down, height, whole, settings, machine);
  const mean = mates.reduce((sum, m) => sum + DOUBT[liesIn(m, down)] - 1, 0);
  return (
    minutes +
    (overAir > 0 ? CLEANING.begin + overAir / CLEANING.area : 0) +
    10 * mean +
    looseMinutes(height, foot, Math.sqrt(foot), minutes)
  );
}

/** Passes run at this share of their speed on average, corners included. Measured on the recipes' demo parts. */
const ROUND_CORNERS = 0.85;
/** Lifting and travelling for each layer, s. */
const LAYER_CHANGE = 0.8;

/** Rough time, min, from volume, normals and height alone: enough to compare poses of one part. */
function quickMinutes(
  down: Point3,
  height: number,
  { volume, facings }: WholeFacts,
  { layer, lineWidth, walls, top, bottom, infill }: PrintSettings,
  machine: Machine,
): number {
  let [upright, flat] = [0, 0];
  for (let t = 0; t < facings.area.length; t++) {
    const along = facesTo(facings, t, down);
    upright += facings.area[t]! * Math.sqrt(Math.max(0, 1 - along * along));
    flat += facings.area[t]! * Math.abs(along);
  }
  const layers = Math.max(1, height / layer);
  const area = volume / height;
  const round = upright / height;
  const passes = Math.min(walls * round, area / lineWidth);
  const inside = Math.max(0, area - walls * round * lineWidth);
  const skin = Math.min(inside, (flat * (top + bottom) * layer) / 2 / height);
  const chord = (Math.PI * inside) / Math.max(1, round);
  const lines = (length: number, spacing: number, v: number) =>
    length > 0 && chord > 0
      ? (length / chord) * (acrossSeconds(chord, v, machine) + acrossSeconds(LINK * spacing, v, machine))
      : 0;
  const outermost = Math.min(round, passes);
  const moving =
    outermost / (ROUND_CORNERS * machine.outer) +
    (passes - outermost) / (ROUND_CORNERS * machine.inner) +
    lines(skin / lineWidth, lineWidth, machine.skin) +
    lines((infill * (inside - skin)) / lineWidth, lineWidth / Math.max(0.02, infill), machine.infill) +
    LAYER_CHANGE;
  return machine.start + (layers * Math.max(moving, machine.leastLayer)) / 60;
}

/** The orientation of a mate's surface when that direction is down. */
const liesIn = ({ surface: { axis, across }, form }: PlanMate, down: Point3): Orientation =>
  orientationOf(form === 'flats' && across ? { axis, across } : { axis }, down);

function looseMinutes(height: number, foot: number, width: number, minutes: number): number {
  const slender = height / Math.max(0.5, Math.min(width, Math.sqrt(foot)));
  const comesLoose = 1 / (1 + Math.exp(-(slender - SLENDER) / SLENDER_STEP));
  return Math.min(1000, (comesLoose / Math.max(0.02, 1 - comesLoose)) * (0.6 * minutes + TAKE_UP_LOOSE));
}

function planOf(down: Point3, asked: PlanAsked, owner: Int16Array, whole: WholeFacts): PosePlan {
  const { mates, bed, rules, settings, machine } = asked;
  const flat = posed(asked.mesh, { down, turn: 0 });
  const outline = footprintOf(flat);
  const fit = bedFit(outline, bed);
  const stays = isSameDirection(down, asked.now.down) && liesOn(bed, outline, asked.now.turn);
  const rectangle = leastRectangle(outline);
  const height = boundsOf(flat).max[2];
  const threads = mates.map(m => m.surface.kind === 'thread');
  const columns = columnsOf(flat);
  const hangs = hanging(whole.facings, down, steepest(rules), t => whole.inThread[t] === 1);
  const supports = supportsOf(columns, hangs, rules);
  const touched = new Set(Array.from(supports.needing, n => owner[columns.triangle[n]!]!));
  const begins = matesOnBed(flat, owner);
  const inPose = mates.map((m, i): MateInPose => {
    const lies = liesIn(m, down);
    const supported = touched.has(i);
    const lyingThread = threads[i] && lies !== 'upright';
    const onBed = lies === 'upright' && begins.has(i);
    const doubt =
      (lyingThread ? DOUBT_OF_LYING_THREAD : DOUBT[lies]) *
      (supported ? DOUBT_OF_SUPPORTED : 1) *
      (onBed ? DOUBT_OF_BULGE : 1);
    const seam = lies === 'upright' && m.form === 'round' && !m.forgiving;
    return { name: m.name, lies, supported, onBed, seam, doubt };
  });
  const weakest = asked.strength
    ? asked.loads
        .map(l => weakestSection(asked.mesh, l, upOf({ down, turn: 0 }), asked.strength!))
        .reduce((worst, w) => (w && (!worst || w.use > worst.use) ? w : worst), null)
    : null;
  const minutes = quickMinutes(down, height, whole, settings, machine);
  const over = Math.max(fit.over, height - bed.height);
  const fits = fit.fits && height <= bed.height;
  const short = weakest ? weakest.use * asked.margin : 0;
  const costs = {
    printing: minutes,
    supports: supportSeconds(supports.volume, settings, machine) / 60,
    cleaning:
      supports.area > 0
        ? CLEANING.begin + supports.area / CLEANING.area + supports.onPart / CLEANING.marks
        : 0,
    again: againMinutes(mates, inPose, minutes),
    loose: looseMinutes(height, supports.foot, rectangle.width, minutes),
    weak: short > 1 ? WEAK.begin + WEAK.doubling * Math.log2(short) : 0,
    bed: fits ? 0 : NO_BED,
  };
  return {
    pose: stays ? asked.now : { down, turn: fit.turn },
    supports: { area: supports.area, volume: supports.volume, onPart: supports.onPart },
    bridge: supports.bridge,
    foot: supports.foot,
    height,
    footprint: [rectangle.length, rectangle.width],
    fits,
    over: fits ? 0 : over,
    mates: inPose,
    weakest,
    costs,
    cost: COST_KINDS.reduce((sum, k) => sum + costs[k], 0),
  };
}

/** Mates that reach down to the bed, by their place in the list. @param flat in the pose */
function matesOnBed({ positions: p, triangles }: TriangleMesh, owner: Int16Array): Set<number> {
  const found = new Set<number>();
  owner.forEach((mate, t) => {
    if (mate < 0 || found.has(mate)) return;
    for (let e = 0; e < 3; e++) if (p[3 * triangles[3 * t + e]! + 2]! < FIRST_LAYER) found.add(mate);
  });
  return found;
}

/** A print that does not fit is made again: how much more often than when everything is upright. */
function againMinutes(mates: readonly PlanMate[], inPose: readonly MateInPose[], minutes: number): number {
  let ratio = 1;
  mates.forEach((m, i) => {
    const chance = Math.min(0.98, Math.max(0.1, m.pRight ?? USUAL_CHANCE));
    // Half a window of 1, and the scatter that gives this chance of hitting it.
    const doubt = inPose[i]!.doubt;
    const sd = scatterFor(chance);
    const then = chanceWithin(-1, 1, 0, sd * doubt);
    ratio *= (chance / then) ** (m.forgiving ? FORGIVING_SHARE : 1);
  });
  return (ratio - 1) * (minutes + TAKE_UP_AGAIN);
}

/** The sd with which a window of ±1 is hit with this chance. */
function scatterFor(chance: number): number {
  let [low, high] = [0.05, 20];
  for (let i = 0; i < 40; i++) {
    const middle = Math.sqrt(low * high);
    if (chanceWithin(-1, 1, 0, middle) > chance) low = middle;
    else high = middle;
  }
  return low;
}
