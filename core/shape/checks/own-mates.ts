import { buildPart } from '../build';
import type { BuiltPart } from '../built-part';
import { type Finding, finding } from '../findings/finding';
import type { Kernels } from '../kernels/kernel';
import type { Parameters } from '../recipes/parameters';
import type { Recipe } from '../recipes/recipe';
import { isSpan } from '../span/span';
import { spanAt } from '../span/span-movers';
import { movedMost, standsAt } from '../span/stands';
import type { OwnMateAsked } from './context';

/** The number is made larger by this to see what it moves: mm, and degrees for an angle. */
const NUDGE = { length: 0.4, angle: 2 };
/** A pressed size must agree with the numbers to this, mm or degrees: screens show hundredths. */
const AS_ASKED = 0.05;

/**
 * Whether the maker's own mates exist on the finished solid. Two faces that were pressed are measured again. Otherwise
 * the part is built with the number slightly larger: a size is two faces at that distance, an angle two faces at that
 * angle, where the number changes it one to one; a position is anything that it moves.
 */
export function checkOwnMates(
  own: readonly OwnMateAsked[],
  recipe: Recipe,
  parameters: Parameters,
  part: BuiltPart,
  kernels: Kernels,
): Finding[] {
  const build = (p: Parameters) => {
    const outcome = buildPart(recipe, p, kernels, 'screen');
    return outcome.ok ? outcome.part : null;
  };
  let built: BuiltPart | null = null;
  return own.flatMap((asked): Finding[] => {
    const { name, number, kind, pressed } = asked;
    const size = parameters[number];
    if (typeof size !== 'number') return [];
    if (pressed) return pressedAgain(asked, pressed, size, part);
    const spec = recipe.parameters.find(p => p.name === number);
    const angle = kind === 'angle';
    const step = NUDGE[angle ? 'angle' : 'length'];
    const by = spec?.kind === 'length' && size + step > spec.max ? -step : step;
    built ??= build(parameters);
    const larger = build({ ...parameters, [number]: size + by });
    // A number that cannot be that much larger cannot be judged this way.
    if (!built || !larger) return [];
    const enlarged = { size, by, angle, now: built, larger };
    const isThere = kind === 'position' || kind === 'flush' ? movedMost(enlarged) : standsAt(enlarged);
    if (isThere) return [];
    return [
      finding(
        'own-mate-not-there',
        'note',
        { name, size: Number(size.toFixed(2)), is: kind === 'fit' ? 'length' : kind },
        { parameter: number },
      ),
    ];
  });
}

function pressedAgain(
  { name, number, kind, rate }: OwnMateAsked,
  pressed: NonNullable<OwnMateAsked['pressed']>,
  now: number,
  part: BuiltPart,
): Finding[] {
  const unit = kind === 'angle' ? ('deg' as const) : ('mm' as const);
  const asked = pressed.size + rate * (now - pressed.number);
  const found = spanAt(part, pressed.places, REACH);
  if (!found || !isSpan(found))
    return [finding('own-mate-lost', 'note', { name, asked, unit }, { parameter: number })];
  if (Math.abs(found.size - asked) < AS_ASKED) return [];
  return [finding('own-mate-off', 'warn', { name, size: found.size, asked, unit }, { parameter: number })];
}

/** Faces are searched as far as a change of this size would move them, mm. */
const REACH = 1.5;
