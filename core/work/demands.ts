import type { Brief, JobDocument, OpenZone, Part } from '../job/document';
import type { Material, Workshop } from '../job/workshop';
import type { Lookup } from '../quantity/expression';
import { mirroredPlace, PlaceError, placeText, readPlace } from '../shape/additions/place';
import type { PrintStrength } from '../shape/checks/context';
import { PRINTED_STRENGTH } from '../shelf/polymers';
import { given } from '../shelf/table';
import { referenceOf } from './parameters';
import { polymerOf } from './suitability';
import { amountOf, worked } from './written';

/** How many times its load a part should bear, by the consequence of a failure. Common practice, no source. */
const MARGINS = {
  unsaid: { times: 2.5, why: 'it is not said yet what happens when it breaks' },
  nuisance: { times: 1.5, why: '' },
  damage: { times: 2.5, why: 'damage would follow' },
  injury: { times: 4, why: 'somebody may be hurt' },
};

/** The job's one margin: how many times its load a part should bear, and with how many times it is proof-loaded. */
export const marginOf = ({ ifItBreaks }: Pick<Brief, 'ifItBreaks'>): { times: number; why: string } =>
  MARGINS[ifItBreaks ?? 'unsaid'];

/** Made for the other side: its place, its loads and its path are stated for the side for which it was drawn. */
const isOtherHand = ({ additions }: Pick<Part, 'additions'>): boolean =>
  additions.filter(a => a.kind === 'other-hand' && a.on).length % 2 === 1;

/** “left” becomes “right”. */
const otherSide = <T extends string>(words: T): T =>
  words.replace(/\b(left|right)\b/g, side => (side === 'left' ? 'right' : 'left')) as T;

/** A face in words with its numbers worked out; what cannot be read stays as it is, and its check reports that. */
function faceNow(words: string, lookup: Lookup, other: boolean): string {
  if (words.startsWith('mate ')) return words;
  try {
    const place = readPlace(words, text => {
      const value = amountOf({ text, unit: 'mm' }, 'length', lookup);
      return typeof value === 'number' ? value : Number.NaN;
    });
    return placeText(other ? mirroredPlace(place) : place);
  } catch (error) {
    if (!(error instanceof PlaceError)) throw error;
    return words;
  }
}

const zoneOnOtherSide = (zone: OpenZone): OpenZone => ({
  ...zone,
  edge: otherSide(zone.edge),
  end: otherSide(zone.end),
});

const wayOnOtherSide = (way: Part['goesOn']): Part['goesOn'] =>
  way && {
    ...way,
    from: otherSide(way.from),
    ...(way.before ? { before: { ...way.before, from: otherSide(way.before.from) } } : {}),
  };

/** The loads a part has to bear and its surroundings, for the checks. */
export function demandsOf(
  document: JobDocument,
  part: Part,
  material: Material,
  workshop: Workshop,
  lookup: Lookup,
) {
  const other = isOtherHand(part);
  const strengthOf = (m: Material): PrintStrength | null => {
    const row = PRINTED_STRENGTH.find(r => r.key === polymerOf(m)?.key);
    return row ? { name: m.name, along: given(row, 'along'), across: given(row, 'across') } : null;
  };
  return {
    loads: part.loads.map(load => ({
      ...load,
      towards: other ? otherSide(load.towards) : load.towards,
      at: faceNow(load.at, lookup, other),
      held: faceNow(load.held, lookup, other),
    })),
    strength: strengthOf(material),
    otherStrengths: workshop.materials.flatMap(m => {
      const strength = m.id === material.id || m.flexible !== material.flexible ? null : strengthOf(m);
      return strength ? [strength] : [];
    }),
    margin: marginOf(document.brief),
    mayHurt: document.brief.ifItBreaks === 'injury',
    pose: part.pose,
    neighbours: part.neighbours.map(n => ({
      ...worked(n, lookup),
      ...(n.form === 'model' ? { model: referenceOf(document, n.model ?? '') } : {}),
      ...(other ? { mirrored: true } : {}),
    })),
    keepOpen: part.keepOpen.map(zone => worked(other ? zoneOnOtherSide(zone) : zone, lookup)),
    goesOn: other ? wayOnOtherSide(part.goesOn) : part.goesOn,
  };
}
