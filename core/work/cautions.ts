import type { Brief } from '../job/document';
import type { Material } from '../job/workshop';
import { formatPlain } from '../quantity/format';
import type { Finding } from '../shape/findings/finding';
import { proofLoad } from '../shape/strength/proof';
import { marginOf } from './demands';
import { HEAT_MARGIN, type Suitability } from './suitability';

/** What must be said before anybody relies on the part. @param suits how its plastic suits the brief */
export function cautionsOf(brief: Brief, material: Material, suits: Suitability): Finding[] {
  const findings: Finding[] = [];
  const say = (code: string, level: Finding['level'], message: string) =>
    findings.push({ code, level, message });
  if (brief.ifItBreaks === 'injury') {
    say(
      'injury',
      'stop',
      'You said a failure may injure somebody. A printed part must not be the only thing that prevents that: ask somebody licensed for this kind of work, and keep to the local rules.',
    );
  }
  if (brief.ifItBreaks === 'damage') {
    say(
      'damage',
      'warn',
      'You said a failure does damage. Test it beyond what it will bear before use, where nothing can be harmed, and look at it again after a week.',
    );
  }
  if (brief.mustHold.includes('water') || brief.mustHold.includes('air')) {
    say(
      'tight',
      'note',
      'Printed walls weep, and a cap can come off. Test it under water or with soap before anything depends on it; buoyancy compartments keep the maker’s own closure.',
    );
  }
  if (brief.ifItBreaks !== null && brief.ifItBreaks !== 'nuisance') {
    const { times } = marginOf(brief);
    for (const load of brief.loads) {
      if (!load.forceN) continue;
      say(
        `proof-${load.id}`,
        'note',
        `Proof test before use, for “${load.words}”: load it with ${proofLoad({ kind: 'force', amount: load.forceN }, times)}, ${formatPlain(times, 1)} times the load, where nothing can be harmed, for ten minutes; look for white lines and cracks, and again after a week in use.`,
      );
    }
  }
  if (brief.touches?.includes('mains')) {
    say(
      'mains',
      'stop',
      'It touches mains. Printed plastic burns and creeps: only a licensed electrician may decide on parts there, by the local rules.',
    );
  }
  if (brief.touches?.includes('food')) {
    say(
      'food',
      'warn',
      'It touches food. Layers hold germs and most filaments and nozzles are not made for food: keep it to dry, short contact, or line it, and follow the local rules.',
    );
  }
  const heat = suits.reasons.find(r => r.about === 'heat');
  if (heat)
    say(
      'heat',
      heat.verdict === 'no' ? 'stop' : 'warn',
      `${material.name} softens at about ${formatPlain(material.softensC)} °C; it will meet ${formatPlain(brief.hottestC ?? 0)} °C. Choose a plastic that keeps at least ${HEAT_MARGIN} °C of distance.`,
    );
  return findings;
}
