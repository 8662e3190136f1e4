import { evaluateExpression } from './expression';
import { parseQuantity } from './parse';

/** Standard gravity, m/s². ISO 80000-3. */
export const GRAVITY = 9.80665;

/** Units of a load, N each. One pound-force is 4.4482216 N (0.45359237 kg, exactly). */
const UNITS: Record<string, number> = {
  n: 1,
  kn: 1000,
  kg: GRAVITY,
  kgf: GRAVITY,
  g: GRAVITY / 1000,
  lb: 0.45359237 * GRAVITY,
  lbs: 0.45359237 * GRAVITY,
  lbf: 0.45359237 * GRAVITY,
};

/** Loads from hands, bags and bodies, N. Common practice, no source. */
export const FORCES = [
  { amount: 20, words: 'a finger', meant: /\b(finger|thumb)s?\b/i },
  { amount: 60, words: 'a full shopping bag', meant: /\b(bag|coat|rope|hose)s?\b/i },
  { amount: 120, words: 'a hard pull', meant: /\b(hand|pull|strap|bucket)s?\b/i },
  { amount: 350, words: 'a child', meant: /\b(child|kid|leans?)\b/i },
  { amount: 900, words: 'a grown person', meant: /\b(person|somebody|adult|stands?|sits?|climbs?)\b/i },
] as const;

export type LoadOutcome =
  | { ok: true; newtons: number /** What it was taken for, where no number was given. */; about?: string }
  | { ok: false; message: string };

const MOST = 100_000;

/** A number, or a sum such as `2 * 30`. */
function readNumber(text: string): { ok: true; value: number } | { ok: false; message: string } {
  if (/[*+()]|\d\s*-/.test(text)) return evaluateExpression({ text, unit: 'none' }, 'count', () => undefined);
  const typed = parseQuantity(text, 'count');
  return typed.ok ? { ok: true, value: typed.quantity.value } : typed;
}

/** A load in a maker's words: `300`, `300 N`, `30 kg`, `66 lb`, `2 * 30 kg`, or `a full bag`. */
export function readLoad(text: string): LoadOutcome {
  const typed = text.trim();
  const found = /^([\d.,\s/*+()-]+)\s*([a-z]*)$/i.exec(typed);
  if (found) {
    const factor = found[2] === '' ? 1 : UNITS[found[2]!.toLowerCase()];
    const number = readNumber(found[1]!);
    if (!number.ok) return number;
    if (factor === undefined)
      return { ok: false, message: `“${found[2]}” is not a unit of load: use N, kg or lb.` };
    const newtons = number.value * factor;
    if (!(newtons > 0)) return { ok: false, message: 'A load is above 0.' };
    if (newtons > MOST) return { ok: false, message: 'That is over 10 tonnes: check the unit.' };
    return { ok: true, newtons: Number(newtons.toPrecision(4)) };
  }
  // The strongest thing that is named: “somebody pulls by a hand” is a person.
  const thing = FORCES.findLast(f => f.meant.test(typed));
  if (thing) return { ok: true, newtons: thing.amount, about: thing.words };
  return { ok: false, message: 'How much is that? Type something like 300 N, 30 kg or “a full bag”.' };
}
