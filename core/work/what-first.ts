import { expectedMinutes, sliceSaves } from '../print/worth';
import type { Surer } from './surer';

/** What to do first, by the time that it takes on the average until a part sits right. Minutes. */

export interface FirstAsked {
  /** Chance that the whole part sits right as it is drawn now. */
  pAllRight: number;
  /** To print it whole. */
  whole: number;
  mates: readonly {
    id: string;
    name: string;
    pRight: number;
    /** What would make it surer. */
    surer: readonly Surer[];
    /** To print a slice that carries it; null where there is none. */
    slice: number | null;
  }[];
  /** What would save the print that was tried last, the quickest first. */
  rescues?: readonly { mateId: string; words: string; minutes: number }[];
}

export interface First {
  what: 'print' | 'slice' | 'rescue' | Exclude<Surer['what'], 'calibrate'>;
  /** The surface it is about; null for the part. */
  mateId: string | null;
  words: string;
  /** Until a part sits right, on the average, this step and all that may follow. */
  minutes: number;
}

/** A print that was sanded, reamed or shimmed serves in so many cases. Common practice, no source. */
const RESCUED = 0.7;

/** All that may be done first, the one that takes least on the average first. */
export function whatFirst({ pAllRight, whole, mates, rescues = [] }: FirstAsked): First[] {
  const print = expectedMinutes(pAllRight, whole);
  const steps: First[] = [{ what: 'print', mateId: null, words: 'print the whole part', minutes: print }];
  for (const { id, name, pRight, surer, slice } of mates) {
    // The other surfaces stay as likely as they are.
    const then = (p: number) => Math.min(1, (pAllRight / Math.max(pRight, 1e-6)) * p);
    for (const way of surer) {
      // The calibration piece pays for itself over many jobs: it is no step of one.
      if (way.what === 'calibrate') continue;
      steps.push({
        what: way.what,
        mateId: id,
        words: `${way.words} for “${name}”`,
        minutes: way.minutes + expectedMinutes(then(way.pRight), whole),
      });
    }
    if (slice !== null)
      steps.push({
        what: 'slice',
        mateId: id,
        words: `print a slice that carries “${name}”`,
        minutes: print - sliceSaves(pRight, slice, whole),
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
