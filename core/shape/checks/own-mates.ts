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

/** The number is made so much larger to see what it moves: mm, and degrees of an angle. */
const NUDGE = { length: 0.4, angle: 2 };
/** What was pressed is this near to what the numbers say, mm or degrees: screens show hundredths. */
const AS_ASKED = 0.05;

/**
 * Whether what the maker said must fit stands on the finished solid. Two faces that were pressed are measured again;
 * else the part is built with the number a little larger: a size is two faces that far apart, an angle two faces at
 * that angle, of which the number moves the distance one to one; a place is whatever it moves.
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
    // What cannot be built so much larger is not judged by it.
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

/** Faces are looked for as far as a number that was changed by this would move them, mm. */
const REACH = 1.5;
