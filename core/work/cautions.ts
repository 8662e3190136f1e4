import type { JobDocument } from '../job/document';
import type { Material } from '../job/workshop';
import { type Finding, finding } from '../shape/findings/finding';
import { proofLoad } from '../shape/strength/proof';
import { marginOf } from './demands';
import { HEAT_MARGIN, type Suitability } from './suitability';

/** Words in a brief that mean something afloat. */
const AFLOAT = /\b(boat|hull|buoyan|float|raft|canoe|kayak|scull|pontoon)/i;

/**
 * The cautions to show before anybody relies on the part. @param suits how well its plastic suits the brief @param
 * passes round each outline
 */
export function cautionsOf(
  { brief, object }: Pick<JobDocument, 'brief' | 'object'>,
  material: Material,
  suits: Suitability,
  passes: number,
): Finding[] {
  const findings: Finding[] = [];
  const { ifItBreaks, mustHold, touches = [] } = brief;
  if (ifItBreaks === 'injury') findings.push(finding('injury', 'stop', {}));
  if (ifItBreaks === 'damage') findings.push(finding('damage', 'warn', {}));
  const holds = (['water', 'air'] as const).filter(what => mustHold.includes(what)).join(' and ');
  if (holds)
    findings.push(
      finding('tight', 'note', {
        holds,
        floats: AFLOAT.test(`${object.name} ${brief.purpose}`),
        passes,
      }),
    );
  if (ifItBreaks !== null && ifItBreaks !== 'nuisance') {
    const { times } = marginOf(brief);
    for (const { id, words, forceN } of brief.loads) {
      if (!forceN) continue;
      const load = proofLoad({ kind: 'force', amount: forceN }, times);
      findings.push(finding('proof-load', 'note', { words, load, times }, { load: id }));
    }
  }
  if (touches.includes('mains')) findings.push(finding('mains', 'stop', {}));
  if (touches.includes('food')) findings.push(finding('food', 'warn', {}));
  const heat = suits.reasons.find(r => r.about === 'heat');
  if (heat)
    findings.push(
      finding('heat', heat.verdict === 'no' ? 'stop' : 'warn', {
        plastic: material.name,
        softensC: material.softensC,
        meetsC: brief.hottestC ?? 0,
        marginC: HEAT_MARGIN,
      }),
    );
  return findings;
}
