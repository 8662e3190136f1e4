import type { AdditionKind } from '../shape/additions/addition';
import { PLACE, PlaceError, readPlace } from '../shape/additions/place';
import { mapCorner, OutlineTextError, readCorners, writeCorners } from '../shape/outline-text';
import type { ParameterSpec } from '../shape/recipes/parameters';

/** Which directions are swapped: left and right, or front and back. */
export const SIDES_CHANGED = ['left-right', 'front-back'] as const;
export type SidesChanged = (typeof SIDES_CHANGED)[number];

const SWAPPED: Readonly<Record<SidesChanged, readonly [string, string]>> = {
  'left-right': ['left', 'right'],
  'front-back': ['front', 'back'],
};

/** Whether an addition of this kind can be placed on the part's other side. */
export const canMirror = (kind: Pick<AdditionKind, 'kind' | 'parameters'>): boolean =>
  kind.parameters.some(s => s.name === 'x' && s.kind === 'length') &&
  !['band', 'thread', 'flutes'].includes(kind.kind);

/** `-(rim / 2 + 3)`; a number keeps its plain form. */
const negative = (text: string): string => {
  const number = Number(text);
  return Number.isFinite(number) && text.trim() !== '' ? String(-number || 0) : `-(${text})`;
};

/**
 * The texts of an addition's numbers for the other side of the part, or of its face: what it sits on, where it is, and
 * which way it is turned. By short names, only those that change.
 * @param said a short name's current text: what the maker wrote, else its default
 */
export function mirroredTexts(
  kind: Pick<AdditionKind, 'kind' | 'parameters'>,
  said: (name: string) => string,
  change: SidesChanged,
): Record<string, string> {
  const texts: Record<string, string> = {};
  const has = (name: string, of: ParameterSpec['kind']) =>
    kind.parameters.some(s => s.name === name && s.kind === of);
  const place = has('place', 'place') ? said('place') : null;
  if (place !== null) texts.place = mirroredPlaceText(place, change);
  // On a level face the second direction is the bed's own; on an upright face it is up.
  const level = place === null || isLevel(place);
  const along = change === 'front-back' && level ? 'y' : 'x';
  texts[along] = negative(said(along));
  const copies = has('copies', 'choice') ? said('copies') : 'one';
  if (copies === 'row' || copies === 'grid') {
    // A row runs to the right or up, so on the other side its other end comes first.
    const inRow = said('runs') === 'up' ? 'y' : 'x';
    const [count, pitch] =
      inRow === along
        ? [said('count'), said('pitch')]
        : copies === 'grid'
          ? [said('rows'), said('rowPitch')]
          : ['1', '0'];
    texts[along] = `${texts[along]} - (${count} - 1) * (${pitch})`;
  }
  if (has('turn', 'length')) texts.turn = negative(said('turn'));
  if (has('outline', 'outline')) {
    const outline = mirroredOutline(said('outline'));
    if (outline) texts.outline = outline;
  }
  return texts;
}

function isLevel(place: string): boolean {
  try {
    // Where a number is an expression, only its outer form is looked at.
    return Math.abs(readPlace(place, text => Number(text) || 0).up[2]) > 0.99;
  } catch (error) {
    if (!(error instanceof PlaceError)) throw error;
    return true;
  }
}

function mirroredPlaceText(place: string, change: SidesChanged): string {
  const [a, b] = SWAPPED[change];
  const [, plane = '', way = '', at] = PLACE.exec(place) ?? [];
  const word = way.toLowerCase();
  if (word === a || word === b)
    return `${plane}${word === a ? b : a}${at === undefined ? '' : ` at ${negative(at)}`}`;
  const numbers = way.split(',').map(s => s.trim());
  if (numbers.length !== 3) return place;
  const i = change === 'left-right' ? 0 : 1;
  numbers[i] = negative(numbers[i]!);
  return `${plane}${numbers.join(', ')}${at === undefined ? '' : ` at ${at}`}`;
}

/** Null where it cannot be read: it stays as it is and shows its own problem. */
function mirroredOutline(text: string): string | null {
  try {
    return writeCorners(
      readCorners(text).map(c => ({
        ...mapCorner(c, t => t),
        x: negative(c.x),
        ...(c.via ? { via: [negative(c.via[0]), c.via[1]] as [string, string] } : {}),
      })),
    );
  } catch (error) {
    if (error instanceof OutlineTextError) return null;
    throw error;
  }
}
