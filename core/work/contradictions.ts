import { counting } from '../job/history';
import { modelAsSliced } from '../job/history/print';
import { drawnClearance } from '../learn/likelihood';
import { VERDICTS, type Verdict } from '../learn/verdict';
import { outcomeOf } from './outcome';
import type { ResolvedPart } from './resolved';

/** Two verdicts on one surface that contradict each other: the print drawn looser went on tighter. */

interface Judged {
  /** The later of the two tries. */
  tryId: string;
  print: number;
  version: number;
  /** The drawn size as the printer received it, mm. */
  model: number;
  verdict: Verdict;
}

export interface Contradiction {
  mateId: string;
  name: string;
  /** Drawn with more clearance, yet judged tighter. */
  looser: Judged;
  tighter: Judged;
}

/** Clearances closer together than this many times a print's scatter may come out in either order. */
const APART = 2;
/** One step away from “right” depends on the hand; two steps do not. */
const STEPS = 2;

const order = (v: Verdict) => VERDICTS.indexOf(v);

/** The clearest contradiction of each surface, until the maker has said which of the two counts. */
export function contradictionsIn({
  ledger,
  history,
}: Pick<ResolvedPart, 'ledger' | 'history'>): Contradiction[] {
  const { versions, prints, tries, reworks } = counting(history);
  return ledger.mates.flatMap(({ mate, reading, scatter }): Contradiction[] => {
    const judged = prints.flatMap((print): (Judged & { clearance: number })[] => {
      const version = versions.find(v => v.id === print.versionId)!;
      const drawn = version.mates.find(m => m.mateId === mate.id);
      const said = outcomeOf(print, version, { tries, reworks })?.said[mate.id];
      // On a gauge the same print feels different, and rightly so.
      const verdict = said?.gauge ? undefined : said?.verdict;
      const last = tries.findLast(t => t.printId === print.id && t.mates[mate.id]?.verdict);
      if (!drawn || !verdict || !last) return [];
      const model = modelAsSliced(drawn.model, mate.side, print);
      const clearance = drawnClearance({ side: mate.side, reading }, model);
      return [{ tryId: last.id, print: print.number, version: version.number, model, verdict, clearance }];
    });
    const pairs = judged.flatMap(looser =>
      judged.flatMap(tighter => {
        const apart = looser.clearance - tighter.clearance;
        // Verdicts in order, from the tightest to the loosest.
        const against = order(tighter.verdict) - order(looser.verdict);
        return apart > APART * scatter && against >= STEPS
          ? [{ looser, tighter, plain: apart * against }]
          : [];
      }),
    );
    pairs.sort((a, b) => b.plain - a.plain);
    const [worst] = pairs;
    return worst ? [{ mateId: mate.id, name: mate.name, looser: worst.looser, tighter: worst.tighter }] : [];
  });
}
