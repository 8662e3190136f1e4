import { HEAT_SET_INSERTS, PLASTIC_PILOT_RATIO } from '../shelf/fasteners';
import { given } from '../shelf/table';

/** Screws and plastic: printed threads, bosses, inserts, and which of them to use. Sizes mm, angles degrees. */

export interface PrintedThread {
  /** The thread that it must run with, as measured or from its standard. */
  major: number;
  minor: number;
  pitch: number;
  starts: number;
  hand: 'right' | 'left';
  /** Our part: an external thread is the male one. */
  side: 'external' | 'internal';
  /** Angle between the flanks: 60 for ISO and unified, 55 for pipe; a round thread about 30. */
  flankAngle: number;
  /** Wanted clearance across the diameter; the ledger adds the printer's own error. */
  clearance: number;
  /** Radius of the mating crest, which our root must clear; 0 for a sharp or flat one. */
  crestRadius: number;
}

export interface ThreadNumbers {
  /** The sizes of our part, before the printer's compensation. */
  major: number;
  minor: number;
  /** Travel in one turn. */
  lead: number;
  /** Helix angle at the mean diameter. */
  helix: number;
  /** The play that the clearance gives, along the axis. */
  axialPlay: number;
  /** Height of the ridge as drawn. */
  depth: number;
  /** Chamfer at the start, 45°, along the axis: as deep as the thread. */
  leadIn: number;
  /** Radius of our root, so that the mating crest does not touch it. */
  rootRadius: number;
  /** Number of layers of this height in one pitch. */
  layersPerPitch: number;
}

/** With fewer layers than this in a pitch a thread prints as a staircase and binds. Common practice, no source. */
export const LEAST_LAYERS = 7;

/**
 * A thread of our own that runs with an existing one. A clearance c across the diameter leaves c/2 on each side, and
 * c·tan(flank/2) along the axis (geometry of the flank).
 * @param layer height, mm
 * @throws RangeError for a thread without a ridge
 */
export function printedThread(t: PrintedThread, layer: number): ThreadNumbers {
  if (!(t.major > t.minor && t.minor > 0))
    throw new RangeError('The major diameter must be above the minor one, and both above 0.');
  if (!(t.pitch > 0 && t.starts >= 1)) throw new RangeError('A thread has a pitch and at least one start.');
  if (!(t.flankAngle > 0 && t.flankAngle < 120))
    throw new RangeError('The angle between the flanks is between 0 and 120°.');
  const sign = t.side === 'internal' ? 1 : -1;
  const [major, minor] = [t.major + sign * t.clearance, t.minor + sign * t.clearance];
  const lead = t.pitch * t.starts;
  const depth = (major - minor) / 2;
  const half = ((t.flankAngle / 2) * Math.PI) / 180;
  return {
    major,
    minor,
    lead,
    helix: (Math.atan(lead / ((Math.PI * (t.major + t.minor)) / 2)) * 180) / Math.PI,
    axialPlay: t.clearance * Math.tan(half),
    depth,
    leadIn: depth,
    rootRadius: t.crestRadius + t.clearance / 2,
    layersPerPitch: t.pitch / layer,
  };
}

export type ThreadWay = 'print' | 'tap' | 'insert' | 'nut';

export interface ThreadAdvice {
  way: ThreadWay;
  /** Why, as a sentence. */
  words: string;
}

/**
 * Ways in which a screw holds in a printed part, the best first. Rules of thumb: common practice, no source.
 * @param often undone more than a few times
 * @param pull along the screw, N; 0 where it only keeps things in place
 */
export function threadWays(q: {
  diameter: number;
  pitch: number;
  layer: number;
  often: boolean;
  pull: number;
}): ThreadAdvice[] {
  const layers = q.pitch / q.layer;
  const ways: ThreadAdvice[] = [];
  // A printed ridge shears along its layers: about 3 N per square millimetre of a cylinder of the bolt's diameter, one
  // diameter deep.
  const carries = 3 * q.diameter ** 2;
  if (q.pull > carries)
    ways.push({
      way: 'nut',
      words: `${round(q.pull)} N is more than a thread in plastic should carry (about ${round(carries)} N here): let the screw pass through to a nut or a plate.`,
    });
  if (layers >= LEAST_LAYERS && q.diameter >= 8)
    ways.push({
      way: 'print',
      words: `${layers.toFixed(1)} layers to a pitch print cleanly, standing upright; coarse threads wear slowly.`,
    });
  if (q.diameter <= 8 && (q.often || q.diameter <= 5))
    ways.push({
      way: 'insert',
      words: q.often
        ? 'Undone often: brass does not wear.'
        : 'A small screw holds best in a brass insert melted in.',
    });
  if (q.diameter <= 12 && !q.often)
    ways.push({
      way: 'tap',
      words:
        'Undone seldom: drill the print to size and cut the thread with a tap, with walls of four passes.',
    });
  if (ways.length === 0)
    ways.push({
      way: 'nut',
      words: `${layers.toFixed(1)} layers to a pitch would bind, and it is undone often: take a nut in a pocket.`,
    });
  return ways;
}

const round = (x: number) => Math.round(x);

/** The boss around a screw. Sizes as wanted on the part, before the printer's compensation. */
export interface Boss {
  hole: number;
  /** Minimum depth of the hole. */
  depth: number;
  /** Minimum outside diameter. */
  outside: number;
  words: string;
}

/**
 * A self-tapping screw: hole 0.8 of its outside diameter, boss twice that diameter, depth 2.5 times. Common practice,
 * no source.
 */
export const selfCuttingBoss = (outside: number): Boss => ({
  hole: PLASTIC_PILOT_RATIO * outside,
  depth: 2.5 * outside,
  outside: 2 * outside,
  words: 'Turn it in by hand the first time; back a half-turn at each turn.',
});

/** For a brass insert, from the shelf's table. @param size such as M3; undefined where the shelf has none */
export function insertBoss(size: string): Boss | undefined {
  const row = HEAT_SET_INSERTS.find(r => r.key === size);
  return (
    row && {
      hole: given(row, 'hole'),
      depth: given(row, 'depth') + 1,
      outside: given(row, 'boss'),
      words: 'Hot metal and fumes: a stand for the iron, air, and let it cool before the screw.',
    }
  );
}

/**
 * A taper pipe thread wedges its boss apart: the wall it needs, or another solution. Depth of the thread from its
 * standard (1.1 at 1/4 NPT). Three times the thread's depth: common practice, no source.
 */
export const taperBossWall = (threadDepth: number): number => 3 * threadDepth;
