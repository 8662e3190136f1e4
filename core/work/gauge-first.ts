import { counting } from '../job/history';
import { USUAL_LAYER } from '../print/estimate';
import { chancesWithGauge, fitsBed, gaugeAsked, gaugeMinutes, hasGauge } from '../print/gauge';
import type { MateLedger } from './ledger';
import type { ResolvedPart } from './resolved';
import type { FirstAsked } from './what-first';

/** The time that a gauge of a mate's object would take; null where none is possible, or where one exists. */
export function gaugeOfMate(
  ledger: MateLedger,
  { history, printer, recipe }: Pick<ResolvedPart, 'history' | 'printer' | 'recipe'>,
): FirstAsked['mates'][number]['gauge'] {
  const asked = gaugeAsked(ledger, recipe.mates);
  if (!hasGauge(ledger) || !fitsBed(asked, printer.bed)) return null;
  if (counting(history).gauges.some(g => g.mateId === ledger.mate.id)) return null;
  return { minutes: gaugeMinutes(asked, printer.nozzle, USUAL_LAYER), ...chancesWithGauge(ledger) };
}
