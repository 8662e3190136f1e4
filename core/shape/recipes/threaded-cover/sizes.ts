import { threadNamed } from '../../../shelf/threads';
import type { Thread } from '../../../shelf/threads/thread';
import type { MateSurface } from '../../mates';
import { basicForm, type ThreadForm } from '../../thread';
import type { Point2 } from '../../vector';
import { lengthOf, type Parameters, textOf } from '../parameters';

/**
 * A cover or ring on a threaded neck, a plug into one, or a coupler between two necks; any pitch, hand and number
 * of starts, or a standard thread by its name. The end is on the bed, the first thread opens upwards, a
 * coupler's second one downwards; the axis is z. Lengths mm, angles degrees.
 */
export const isPlug = (p: Parameters) => p.style === 'plug';
export const isCoupler = (p: Parameters) => p.style === 'coupler';
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
  /** Diameter of the way through a plug, or through a coupler's stop. */
  through: number;
  lobes: number;
}

export const isStandard = (p: Parameters, which: Which = '') => textOf(p, `standard${which}`).trim() !== '';
export const standardOf = (p: Parameters, which: Which = ''): Thread | undefined =>
  threadNamed(textOf(p, `standard${which}`).trim());

/** How far the stop between a coupler's necks reaches in from the smaller thread's ridges, each side. */
const STOP = 2;

/** A thread's numbers: its standard's, or what was read. */
function threadOf(p: Parameters, which: Which, major: number, from: number, to: number): ThreadForm {
  const standard = isStandard(p, which) ? standardOf(p, which) : undefined;
  const hand = textOf(p, `hand${which}`) === 'left' ? 'left' : 'right';
  if (standard) return { ...basicForm(standard, major), hand, from, to };
  const rounding = which === '' ? lengthOf(p, 'rounding') : 0;
  return {
    major,
    minor: major - 2 * lengthOf(p, `ridge${which}`),
    pitch: lengthOf(p, `pitchLength${which}`),
    starts: which === '' ? lengthOf(p, 'starts') : 1,
    hand,
    foot: which === '' ? lengthOf(p, 'foot') : 0.6 * lengthOf(p, 'pitchLengthB'),
    flankAngle: lengthOf(p, 'flanks'),
    ...(rounding > 0 ? { rounding } : {}),
    from,
    to,
  };
}

export function sizesOf(p: Parameters): Sizes {
  const end = lengthOf(p, 'end');
  const long = lengthOf(p, 'length');
  const wall = lengthOf(p, 'wall');
  const below = isCoupler(p) ? lengthOf(p, 'lengthB') : 0;
  const floor = p.style === 'ring' ? 0 : end + below;
  const major = lengthOf(p, isPlug(p) ? 'plugThread' : 'coverThread');
  const thread = threadOf(p, '', major, floor, floor + long);
  const second = isCoupler(p) ? threadOf(p, 'B', lengthOf(p, 'coverThreadB'), 0, below) : null;
  return {
    thread,
    second,
    outer: Math.max(major, second?.major ?? 0) / 2 + wall,
    floor,
    top: floor + long,
    seal: p.style === 'cover' ? lengthOf(p, 'seal') : 0,
    through: isPlug(p) ? lengthOf(p, 'bore') : second ? Math.min(thread.minor, second.minor) - 2 * STOP : 0,
    lobes: lengthOf(p, 'flutes'),
  };
}

/** Height of a lead-in cone: as much as the thread is deep. */
export const leadOf = ({ major, minor }: ThreadForm): number => (major - minor) / 2;

/** The outside from above: round, with flutes to grip by. */
export function gripOf(s: Sizes): Point2[] {
  return Array.from({ length: s.lobes }, (_, i): Point2 => {
    const a = (2 * Math.PI * i) / s.lobes;
    return [(s.outer + 1.2) * Math.cos(a), (s.outer + 1.2) * Math.sin(a)];
  });
}

export function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  const of = (mate: string, thread: ThreadForm, from: number, to: number): MateSurface => ({
    mate,
    side: mate === 'plug' ? 'outside' : 'inside',
    kind: 'thread',
    size: thread.major,
    core: thread.minor,
    hand: thread.hand,
    at: [0, 0, (from + to) / 2],
    axis: [0, 0, 1],
    from,
    to,
  });
  return [
    of(isPlug(p) ? 'plug' : 'cover', s.thread, s.floor, s.top - leadOf(s.thread)),
    ...(s.second ? [of('coverB', s.second, leadOf(s.second), s.second.to)] : []),
  ];
}
