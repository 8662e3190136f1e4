import type { Brief, FitMate } from '../job/document';
import type { Material } from '../job/workshop';
import { formatPlain } from '../quantity/format';
import { POLYMERS, type Polymer } from '../shelf/polymers';
import { given } from '../shelf/table';

/** Whether a plastic suits the demands of the brief. Rules of thumb: common practice, no source. */
export interface Suitability {
  verdict: 'suitable' | 'doubtful' | 'no';
  /** The reasons against it, the worst first; empty where it suits. */
  reasons: { verdict: 'doubtful' | 'no'; about: 'heat' | 'other'; words: string }[];
}

/** The shelf's other figures for a spool, by its stated polymer or its name; undefined where neither is known. */
export const polymerOf = (material: Material): Polymer | undefined =>
  POLYMERS.find(p => p.key === (material.polymer ?? material.name.toUpperCase().replaceAll(' ', '')));

/** A plastic keeps its shape up to this far below its softening point, °C. */
export const HEAT_MARGIN = 10;
/** A closed car or a dark part in the sun reaches this, °C. */
const IN_THE_SUN = 70;
/** Polymer families that resist fuels and solvents, and those that do not. */
const RESISTS: Record<string, 'well' | 'badly'> = {
  PP: 'well',
  PA6: 'well',
  PA12: 'well',
  'PA-CF': 'well',
  ABS: 'badly',
  ASA: 'badly',
  PC: 'badly',
  PLA: 'badly',
  'PLA-CF': 'badly',
};

export function suitabilityOf(material: Material, brief: Brief, mates: readonly FitMate[]): Suitability {
  const polymer = polymerOf(material);
  const reasons: Suitability['reasons'] = [];
  const doubt = (words: string) => reasons.push({ verdict: 'doubtful', about: 'other', words });
  const no = (words: string) => reasons.push({ verdict: 'no', about: 'other', words });
  const softens = `softens at about ${formatPlain(material.softensC)} °C`;
  if (brief.hottestC !== null) {
    if (brief.hottestC >= material.softensC)
      reasons.push({
        verdict: 'no',
        about: 'heat',
        words: `it ${softens}, and it will meet ${formatPlain(brief.hottestC)} °C`,
      });
    else if (brief.hottestC > material.softensC - HEAT_MARGIN)
      reasons.push({
        verdict: 'doubtful',
        about: 'heat',
        words: `it ${softens} and will meet ${formatPlain(brief.hottestC)} °C: less than ${HEAT_MARGIN} °C of distance`,
      });
  }
  if (brief.outdoors) {
    if (material.softensC < IN_THE_SUN) doubt(`it ${softens}; a dark part in the sun gets hotter`);
    if (polymer?.uv === 'poor') doubt('sunlight makes it brittle within a season');
  }
  const touches = brief.touches ?? [];
  const wet = brief.outdoors || brief.mustHold.includes('water') || touches.includes('water');
  if (wet && polymer?.moisture === 'much') doubt('it takes up water and swells: the fit changes');
  if (touches.includes('food')) doubt('its layers hold germs, and few filaments are made for food');
  for (const liquid of ['fuel', 'solvent'] as const) {
    if (!touches.includes(liquid)) continue;
    const resists = RESISTS[polymer?.key ?? ''];
    if (resists === 'badly') no(`${liquid} eats or cracks it`);
    else if (resists !== 'well') doubt(`how it bears ${liquid} is not known: soak a scrap for a week first`);
  }
  const conducts = polymer?.key.includes('CF') ?? false;
  if (touches.includes('mains')) {
    if (conducts) no('its carbon conducts: never over contacts');
    else no('parts at mains are for a licensed electrician to decide');
  }
  wants(material, polymer, mates, doubt, no);
  const order = { no: 0, doubtful: 1 };
  reasons.sort((a, b) => order[a.verdict] - order[b.verdict]);
  return { verdict: reasons[0]?.verdict ?? 'suitable', reasons };
}

function wants(
  material: Material,
  polymer: Polymer | undefined,
  mates: readonly FitMate[],
  doubt: (words: string) => void,
  no: (words: string) => void,
): void {
  for (const { want, soft } of mates) {
    const { window } = want;
    if (window.unit !== 'strain' || soft === 'theirs') continue;
    const stretched = `it is stretched up to ${formatPlain(100 * window.max, 1)} %`;
    if (window.min > material.strainLimit)
      no(`${stretched} and bears ${formatPlain(100 * material.strainLimit, 1)} % once`);
    else if (window.max > material.strainLimit)
      doubt(`${stretched} and bears ${formatPlain(100 * material.strainLimit, 1)} % once`);
    else if (polymer && 100 * window.max > given(polymer, 'strainOften'))
      doubt(`${stretched}; on and off often it bears ${given(polymer, 'strainOften')} %`);
  }
  const held = mates.some(
    m => m.want.window.unit === 'mm' && (m.want.name === 'press' || m.want.name === 'jam'),
  );
  if (held && polymer?.key.startsWith('PLA')) doubt('it creeps: a press fit of it goes slack in weeks');
}
