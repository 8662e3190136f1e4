import type { Brief, JobDocument, Part } from '../job/document';
import type { Material, Workshop } from '../job/workshop';
import type { PrintStrength } from '../shape/checks/context';
import { PRINTED_STRENGTH } from '../shelf/polymers';
import { given } from '../shelf/table';
import { referenceOf } from './parameters';
import { polymerOf } from './suitability';

/** How many times its load a part should bear, by what happens when it breaks. Common practice, no source. */
const MARGINS = {
  unsaid: { times: 2.5, why: 'nobody said yet what happens when it breaks' },
  nuisance: { times: 1.5, why: '' },
  damage: { times: 2.5, why: 'damage would follow' },
  injury: { times: 4, why: 'somebody may be hurt' },
};

/** The one margin of a job: how many times its load a part should bear, and is loaded with before it is used. */
export const marginOf = ({ ifItBreaks }: Pick<Brief, 'ifItBreaks'>): { times: number; why: string } =>
  MARGINS[ifItBreaks ?? 'unsaid'];

/** The way layers are stacked in the part's own coordinates. */
const STACKED: Record<Part['pose'], readonly [number, number, number]> = {
  'as-drawn': [0, 0, 1],
  'turned-over': [0, 0, -1],
  // Laid on its front.
  'on-side': [0, 1, 0],
};

/** What the part has to bear and where it goes, for the checks. */
export function demandsOf(document: JobDocument, part: Part, material: Material, workshop: Workshop) {
  const strengthOf = (m: Material): PrintStrength | null => {
    const row = PRINTED_STRENGTH.find(r => r.key === polymerOf(m)?.key);
    return row ? { name: m.name, along: given(row, 'along'), across: given(row, 'across') } : null;
  };
  return {
    loads: part.loads,
    strength: strengthOf(material),
    otherStrengths: workshop.materials.flatMap(m => {
      const strength = m.id === material.id || m.flexible !== material.flexible ? null : strengthOf(m);
      return strength ? [strength] : [];
    }),
    margin: marginOf(document.brief),
    mayHurt: document.brief.ifItBreaks === 'injury',
    stacked: STACKED[part.pose],
    neighbours: part.neighbours.map(n =>
      n.form === 'model' ? { ...n, model: referenceOf(document, n.model ?? '') } : n,
    ),
    goesOn: part.goesOn,
  };
}
