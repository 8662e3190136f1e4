import { expectedMinutes, furtherPrints, sliceSaves } from '../print/worth';
import type { Surer } from './surer';

/** What to do first, by the average time until a part sits right. Minutes. */

export interface FirstAsked {
  /** Chance that the whole part sits right as it is drawn now. */
  pAllRight: number;
  /** Time to print it whole. */
  whole: number;
  mates: readonly {
    id: string;
    name: string;
    pRight: number;
    /** What would make it surer. */
    surer: readonly Surer[];
    /** Time to print a slice that carries it; null where there is none. */
    slice: number | null;
    /**
     * Time to print and measure a gauge of its object, and how it divides the uncertainty; null or left out where there
     * is none.
     */
    gauge?: { minutes: number; onGauge: number; onObject: number } | null;
  }[];
  /** The object is away: a part travels to it, and word of the fit comes back later. */
  away?: boolean;
  /** What would rescue the print that was tried last, the quickest first. */
  rescues?: readonly { mateId: string; words: string; minutes: number }[];
}

export interface First {
  what: 'print' | 'slice' | 'gauge' | 'rescue' | Exclude<Surer['what'], 'calibrate'>;
  /** The surface it is about; null for the part. */
  mateId: string | null;
  words: string;
  /** The average time of this step and all that may follow until a part sits right. */
  minutes: number;
}

/** Share of prints that serve after sanding, reaming or shimming. Common practice, no source. */
const RESCUED = 0.7;
/**
 * Time until a part has reached an object that is away and word of it has come back: a day. Common practice, no source.
 */
const THERE_AND_BACK = 24 * 60;

/** All possible first steps, the one with the least average time first. */
export function whatFirst({ pAllRight, whole, mates, rescues = [], away = false }: FirstAsked): First[] {
  const sent = (p: number) => (away ? THERE_AND_BACK * (1 + furtherPrints(p)) : 0);
  const print = expectedMinutes(pAllRight, whole) + sent(pAllRight);
  const steps: First[] = [{ what: 'print', mateId: null, words: 'print the whole part', minutes: print }];
  for (const { id, name, pRight, surer, slice } of mates) {
    // The other surfaces stay as likely as they are.
    const then = (p: number) => Math.min(1, (pAllRight / Math.max(pRight, 1e-6)) * p);
    for (const way of surer) {
      // The calibration piece pays for itself over many jobs: it is not a step of one job.
      if (way.what === 'calibrate') continue;
      steps.push({
        what: way.what,
        mateId: id,
        words: `${way.words} for “${name}”`,
        minutes: way.minutes + expectedMinutes(then(way.pRight), whole) + sent(then(way.pRight)),
      });
    }
    // A slice is tried on the object itself.
    if (slice !== null && !away)
      steps.push({
        what: 'slice',
        mateId: id,
        words: `print a slice that carries “${name}”`,
        minutes: print - sliceSaves(pRight, slice, whole),
      });
  }
  for (const { id, name, pRight, gauge } of mates) {
    if (!gauge || !away) continue;
    // The verdict on the other surfaces comes from the object only.
    const others = Math.min(1, pAllRight / Math.max(pRight, 1e-6));
    const there = others * gauge.onObject;
    steps.push({
      what: 'gauge',
      mateId: id,
      words: `print a gauge in place of the object of “${name}”, and fit the part on that`,
      minutes:
        gauge.minutes +
        expectedMinutes(gauge.onGauge, whole) +
        expectedMinutes(there, whole) -
        expectedMinutes(1, whole) +
        sent(there),
    });
  }
  const [rescue] = rescues;
  if (rescue && new Set(rescues.map(r => r.mateId)).size === 1)
    steps.push({
      what: 'rescue',
      mateId: rescue.mateId,
      words: rescue.words,
      minutes: rescue.minutes + (1 - RESCUED) * print,
    });
  return steps.sort((a, b) => a.minutes - b.minutes || (a.what === 'print' ? -1 : 1));
}
