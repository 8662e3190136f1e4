import { phi } from '../../fit/probability';
import { THREADS } from './index';
import type { Thread } from './thread';

/**
 * Which standard thread a measured one is. Each known thread gives a likelihood of these readings: its outside (or
 * hole) lies somewhere within the standard's tolerance, blurred by the readings' uncertainty, and its pitch is exact.
 * The alternative is “none of these”: any size and any pitch, with a flat density.
 */
export interface MeasuredThread {
  side: 'external' | 'internal';
  /** Outside over the ridges (external), or root to root (internal). */
  major?: Quantity | null;
  /** Core (external), or the hole between the ridges (internal). */
  minor?: Quantity | null;
  pitch: Quantity;
  /** Whether it tapers; null or left out when the maker has not checked. */
  taper?: boolean | null;
  starts?: number;
}

interface Quantity {
  value: number;
  u: number;
}

export interface ThreadCandidate {
  designation: string;
  standard: string;
  major: number;
  pitch: number;
  probability: number;
  thread: Thread;
}

export interface Identified {
  /** Likeliest first; those over one in a thousand. */
  candidates: ThreadCandidate[];
  none: number;
}

/** Share of threads on objects to be copied that are standard ones. Common practice, no source. */
const STANDARD_SHARE = 0.9;
/** No reading of a thread is better than this: crests are rounded, worn and painted. Practice. */
const LEAST_U = { diameter: 0.03, pitch: 0.003 };
/** The range of odd threads, mm: spread evenly over ratios. */
const ODD = { diameter: [1, 200], pitch: [0.2, 12] } as const;
/** Before the taper was checked a parallel thread is named before its taper twin. */
const TAPER_UNSEEN = 0.6;
const LEAST_SHOWN = 0.001;

/** @throws RangeError without a diameter, or with impossible sizes */
export function identifyThread(measured: MeasuredThread): Identified {
  const { pitch, major, minor } = measured;
  if (!major && !minor) throw new RangeError('Give the outside or the hole: a pitch alone names no thread.');
  for (const [name, q] of Object.entries({ pitch, major, minor })) {
    if (q && !(q.value > 0 && q.u >= 0))
      throw new RangeError(`The ${name} must be above 0, with an uncertainty of 0 or more.`);
  }
  const starts = measured.starts ?? 1;
  // On a thread of several starts a span over turns gives the pitch between neighbouring ridges.
  const weights = THREADS.map(thread => {
    if (measured.taper === true && !thread.taper) return 0;
    if (measured.taper === false && thread.taper) return 0;
    if (starts > 1 && thread.family !== 'trapezoidal' && thread.family !== 'bottle') return 0;
    const seen =
      measured.taper === undefined || measured.taper === null ? (thread.taper ? TAPER_UNSEEN : 1) : 1;
    return thread.commonness * seen * likelihood(thread, measured);
  });
  const total = THREADS.reduce((sum, t) => sum + t.commonness, 0);
  const odd = (1 - STANDARD_SHARE) * oddLikelihood(measured);
  const standard = weights.map(w => (STANDARD_SHARE * w) / total);
  const all = odd + standard.reduce((sum, w) => sum + w, 0);
  const candidates = THREADS.flatMap((thread, i) => {
    const probability = standard[i]! / all;
    if (!(probability > LEAST_SHOWN)) return [];
    return [
      {
        designation: thread.designation,
        standard: thread.standard,
        major: thread.major,
        pitch: thread.pitch,
        probability,
        thread,
      },
    ];
  }).sort((a, b) => b.probability - a.probability);
  return { candidates, none: all > 0 ? odd / all : 1 };
}

function likelihood(thread: Thread, { side, major, minor, pitch }: MeasuredThread): number {
  let l = normal(pitch.value - thread.pitch, Math.hypot(pitch.u, LEAST_U.pitch));
  const depth = thread.major - thread.minorInternal;
  if (side === 'external') {
    const { least, most } = thread.externalUnder;
    if (major) l *= worn(major, thread.major - most, thread.major - least, thread, -1);
    // Roots are rounded: an external core is up to a fifth of the depth smaller than the basic hole.
    if (minor) l *= spread(minor, thread.minorInternal - most - 0.2 * depth, thread.minorInternal - least);
  } else {
    const { least, most } = thread.internalOver;
    if (minor) l *= worn(minor, thread.minorInternal + least, thread.minorInternal + most, thread, 1);
    if (major) l *= spread(major, thread.major + least, thread.major + most + 0.1 * depth);
  }
  return l;
}

/** Some are worn, printed or painted: crests lose more than the standard allows. Practice. */
const WORN_SHARE = 0.12;

function worn(reading: Quantity, low: number, high: number, thread: Thread, sign: 1 | -1): number {
  const far = 0.1 + 0.1 * thread.pitch;
  const tail = sign < 0 ? spread(reading, low - far, low) : spread(reading, high, high + far);
  return (1 - WORN_SHARE) * spread(reading, low, high) + WORN_SHARE * tail;
}

function oddLikelihood({ major, minor, pitch }: MeasuredThread): number {
  const density = (value: number, [low, high]: readonly [number, number]) =>
    1 / (Math.max(value, low) * Math.log(high / low));
  let l = density(pitch.value, ODD.pitch);
  if (major) l *= density(major.value, ODD.diameter);
  if (minor) l *= density(minor.value, ODD.diameter);
  return l;
}

const normal = (x: number, sd: number) => Math.exp(-0.5 * (x / sd) ** 2) / (sd * Math.sqrt(2 * Math.PI));

/** Density of a size anywhere between two limits, as seen through a reading's uncertainty. */
function spread({ value, u }: Quantity, low: number, high: number): number {
  const sd = Math.hypot(u, LEAST_U.diameter);
  const width = high - low;
  if (width < 0.1 * sd) return normal(value - (low + high) / 2, sd);
  return (phi((high - value) / sd) - phi((low - value) / sd)) / width;
}
