import { readJobDocument } from '../../core/job/read-document';
import type { Workshop } from '../../core/job/workshop';
import { learnRepeatability, type Repeatability } from '../../core/measure/repeatability';
import type { Database } from '../store/database';
import { jobs } from '../store/schema';

/** What the readings of all jobs together say about each instrument. */
export async function repeatabilityOfInstruments(
  db: Database,
  workshop: Workshop,
): Promise<{ instrumentId: string; learned: Repeatability }[]> {
  const groups = new Map<string, Map<string, number[]>>();
  for (const row of await db.select({ id: jobs.id, document: jobs.document }).from(jobs)) {
    const document = readJobDocument(JSON.parse(row.document));
    for (const dimension of document.dimensions) {
      if (dimension.kind === 'angle') continue;
      for (const r of dimension.readings) {
        if (r.struck !== null || r.instrumentId === null || r.source === 'said') continue;
        const own = groups.get(r.instrumentId) ?? new Map<string, number[]>();
        groups.set(r.instrumentId, own);
        // A turned object shows its form: only readings at one position tell about the hand.
        const thing = `${row.id}/${dimension.id}/${r.source}/${r.turn ?? '-'}`;
        own.set(thing, [...(own.get(thing) ?? []), r.value - (r.zero ?? 0)]);
      }
    }
  }
  return workshop.instruments.flatMap(instrument => {
    const learned = learnRepeatability(
      [...(groups.get(instrument.id)?.values() ?? [])],
      workshop.operatorRepeatability,
      instrument.resolution,
    );
    return learned ? [{ instrumentId: instrument.id, learned }] : [];
  });
}
