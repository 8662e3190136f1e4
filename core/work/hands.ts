import { group } from 'd3-array';
import { counting } from '../job/history';
import { type HandSeen, handAfter, lessonOfHand } from '../learn/hand';
import { type Evidence, toldBy } from '../learn/lessons';
import { scaleAbout } from './evidence';
import { countedPrints } from './outcome';
import type { Work } from './work';

/** Tries for which both sizes were measured: that of the object, or of its gauge, and that of the print. */
function measuredTries(work: Work): { by: string; mate: string; u: number; seen: HandSeen; at: string }[] {
  return work.parts.flatMap(({ part }) => {
    const { history, dimensions } = work.part(part.id);
    const { tries, gaugeSizes } = counting(history);
    return countedPrints(counting(history)).flatMap(({ print, version }) =>
      tries
        .filter(t => t.printId === print.id && t.by !== '')
        .flatMap(({ by, mates, at }) =>
          Object.entries(mates).flatMap(([id, { verdict, printed, depth, gauge }]) => {
            const drawn = version.mates.find(m => m.mateId === id);
            const mate = work.document.mates.find(m => m.id === id);
            if (!verdict || !printed || depth || !drawn || mate?.kind !== 'fit') return [];
            // A strain has other edges than a clearance.
            if (drawn.want.window.unit !== 'mm' || mate.other.of !== 'object') return [];
            const other = gauge ? gaugeSizes.findLast(g => g.gaugeId === gauge) : drawn.reading;
            if (!other) return [];
            const source = dimensions.get(mate.other.dimension)?.source ?? 'seat';
            const inside = mate.side === 'inside';
            const value = inside ? printed.value - other.value : other.value - printed.value;
            const seen: HandSeen = {
              verdict,
              clearance: { value, u: printed.u },
              scale: scaleAbout(drawn.reading.value, source, drawn.want, mate),
            };
            return [{ by, mate: id, u: other.u, seen, at }];
          }),
        ),
    );
  });
}

/** What a job's tries teach about the hands that judged them. */
export function handsTaught(work: Work, jobId: string): Evidence[] {
  const title = work.document.title.slice(0, 120);
  return [...group(measuredTries(work), t => lessonOfHand(t.by))].flatMap(([surface, all]): Evidence[] => {
    // All tries of a surface share the error of its reading.
    const mates = new Set(all.map(t => t.mate)).size;
    const shared = Math.max(...all.map(t => t.u)) / Math.sqrt(mates);
    const { before, after } = handAfter(
      all.map(t => t.seen),
      shared,
    );
    const told = toldBy(before, after);
    if (!told) return [];
    const at = all
      .map(t => t.at)
      .toSorted()
      .at(-1)!;
    return [{ jobId, title, printerId: null, materialId: null, surface, ...told, prints: all.length, at }];
  });
}
