import { counting } from '../job/history';
import { type Evidence, toldBy } from '../learn/lessons';
import { handsTaught } from './hands';
import { countedPrints } from './outcome';
import type { Work } from './work';

/**
 * What a job's tries teach about the printers, plastics and hands involved, for the next jobs. It is taken from the
 * beliefs before and after the tries, so that the workshop's other lessons are not counted again.
 */
export const taughtBy = (work: Work, jobId: string): Evidence[] => [
  ...ofPrinters(work, jobId),
  ...handsTaught(work, jobId),
];

function ofPrinters(work: Work, jobId: string): Evidence[] {
  return work.parts.flatMap(({ part }) => {
    const standing = countedPrints(counting(work.part(part.id).history)).filter(p => p.outcome !== null);
    const made = new Map(
      standing.map(p => [`${p.version.printerId}/${p.version.materialId}`, p.version] as const),
    );
    return [...made.values()].flatMap(({ printerId, materialId }): Evidence[] => {
      const own = standing.filter(
        p => p.version.printerId === printerId && p.version.materialId === materialId,
      );
      const at = own
        .map(p => p.print.at)
        .sort()
        .at(-1)!;
      // As if the next one were made in the same way: only then do its tries count.
      const parts = work.document.parts.map(p => (p.id === part.id ? { ...p, printerId, materialId } : p));
      const { learned } = work.with({ document: { ...work.document, parts } }).part(part.id).ledger;
      return learned.flatMap(({ surface, before, after, prints }): Evidence[] => {
        const told = toldBy(before, after);
        if (!told) return [];
        const title = work.document.title.slice(0, 120);
        return [{ jobId, title, printerId, materialId, surface, ...told, prints, at }];
      });
    });
  });
}
