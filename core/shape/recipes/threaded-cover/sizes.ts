import { threadNamed } from '../../../shelf/threads';
import type { Thread } from '../../../shelf/threads/thread';
import { basicForm, type ThreadForm } from '../../thread';
import type { Point2 } from '../../vector';
import type { Places, SurfacePlace } from '../define-recipe';
import type { P } from './parameters';

/**
 * A cover or ring on a threaded neck, a plug into one, or a coupler between two necks; any pitch, hand and number of
 * starts, or a standard thread by its name. The end is on the bed; the first thread opens upwards, a coupler's second
 * one downwards; the axis is z. Lengths mm, angles degrees.
 */
export const isPlug = (p: P) => p.style === 'plug';
export const isCoupler = (p: P) => p.style === 'coupler';
/** Which of the two threads: the coupler's second one has its own numbers. */
export type Which = '' | 'B';

export interface Sizes {
  thread: ThreadForm;
  /** A coupler's other thread. */
  second: ThreadForm | null;
  outer: number;
  /** Where the first thread begins. */
  floor: number;
  top: number;
  seal: number;
  /** Diameter of the passage through a plug, or through a coupler's stop. */
  through: number;
  lobes: number;
}

export const isStandard = (p: P, which: Which = '') => p[`standard${which}` as const].trim() !== '';
export const standardOf = (p: P, which: Which = ''): Thread | undefined =>
  threadNamed(p[`standard${which}` as const].trim());

/** The first thread goes over its counterpart, except on a plug. */
export const inTurns = (p: P) => !isPlug(p);
/** Not a standard thread: its numbers are read. */
export const odd =
  (which: Which, also: (p: P) => boolean = () => true) =>
  (p: P) =>
    !isStandard(p, which) && also(p);

/** How far the stop between a coupler's necks reaches in from the smaller thread's ridges, each side. */
const STOP = 2;

/** A thread's numbers: its standard's, or what was read. */
function threadOf(p: P, which: Which, major: number, from: number, to: number): ThreadForm {
  const standard = isStandard(p, which) ? standardOf(p, which) : undefined;
  if (standard) return { ...basicForm(standard, major), hand: p[`hand${which}` as const], from, to };
  const rounding = which === '' ? p.rounding : 0;
  return {
    major,
    minor: major - 2 * p[`ridge${which}` as const],
    pitch: p[`pitchLength${which}` as const],
    starts: which === '' ? p.starts : 1,
    hand: p[`hand${which}` as const],
    foot: which === '' ? p.foot : 0.6 * p.pitchLengthB,
    flankAngle: p.flanks,
    ...(rounding > 0 ? { rounding } : {}),
    from,
    to,
  };
}

export function sizesOf(p: P): Sizes {
  const end = p.end;
  const long = p.length;
  const wall = p.wall;
  const below = isCoupler(p) ? p.lengthB : 0;
  const floor = p.style === 'ring' ? 0 : end + below;
  const major = isPlug(p) ? p.plugThread : p.coverThread;
  const thread = threadOf(p, '', major, floor, floor + long);
  const second = isCoupler(p) ? threadOf(p, 'B', p.coverThreadB, 0, below) : null;
  return {
    thread,
    second,
    outer: Math.max(major, second?.major ?? 0) / 2 + wall,
    floor,
    top: floor + long,
    seal: p.style === 'cover' ? p.seal : 0,
    through: isPlug(p) ? p.bore : second ? Math.min(thread.minor, second.minor) - 2 * STOP : 0,
    lobes: p.flutes,
  };
}

/** Height of a lead-in cone: equal to the depth of the thread. */
export const leadOf = ({ major, minor }: ThreadForm): number => (major - minor) / 2;

/** The outside from above: round, with flutes to grip by. */
export function gripOf(s: Sizes): Point2[] {
  return Array.from({ length: s.lobes }, (_, i): Point2 => {
    const a = (2 * Math.PI * i) / s.lobes;
    return [(s.outer + 1.2) * Math.cos(a), (s.outer + 1.2) * Math.sin(a)];
  });
}

export type Mate = 'cover' | 'plug' | 'coverB';

export function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const of = (thread: ThreadForm, from: number, to: number): SurfacePlace => ({
    kind: 'thread',
    core: thread.minor,
    hand: thread.hand,
    at: [0, 0, (from + to) / 2],
    axis: [0, 0, 1],
    from,
    to,
  });
  const first = of(s.thread, s.floor, s.top - leadOf(s.thread));
  return {
    cover: isPlug(p) ? null : first,
    plug: isPlug(p) ? first : null,
    coverB: s.second && of(s.second, leadOf(s.second), s.second.to),
  };
}
