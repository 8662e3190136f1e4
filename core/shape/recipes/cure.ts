import { formatPlain } from '../../quantity/format';
import type { Finding } from '../findings/finding';
import { type ParameterSpec, type Parameters, unitOf, usualText } from './parameters';
import type { Recipe } from './recipe';

/** Whatever refuses numbers: a recipe, or an addition with its own. */
export interface Refusing {
  parameters: readonly ParameterSpec[];
  refuse(p: Parameters): Finding[];
  /** Numbers that follow a reading: a remedy never changes them. */
  measured(spec: ParameterSpec): boolean;
}

/** Whether a number follows a reading by the recipe: that of a mate, or one set by a size of the object. */
export const followsReading =
  ({ guide }: Pick<Recipe, 'guide'>, choices: Parameters) =>
  (spec: ParameterSpec): boolean =>
    spec.kind === 'length' &&
    (usualText(spec, choices).match(/[a-z_][\w.]*/gi) ?? []).some(
      name => name.endsWith('.model') || guide.some(g => g.key === name),
    );

/** How far towards an end of its range a number is moved, step by step, until it works. */
const STEPS = [0.01, 0.03, 0.08, 0.2, 0.4, 0.7, 1];
const HALVINGS = 8;
/** The most numbers that are tried for one answer. */
const MOST_TRIES = 400;

/**
 * The refusals, each with the number that cures it. Every remedy was tried: its refusal goes, no other appears, and
 * nothing that was read is changed. Where no single number works, there is no remedy.
 */
export function refusals(refusing: Refusing, p: Parameters): Finding[] {
  const found = refusing.refuse(p);
  if (found.length === 0) return found;
  const before = new Set(found.map(causeOf));
  let tries = 0;
  const cures = (cause: string, changed: Parameters): boolean => {
    tries++;
    const after = refusing.refuse(changed).map(causeOf);
    return after.length < found.length && after.every(c => c !== cause && before.has(c));
  };
  return found.map(({ remedy, ...rest }) => {
    const cause = causeOf(rest);
    const does = (spec: Length, value: number) => cures(cause, { ...p, [spec.name]: value });
    const free = refusing.parameters.filter(
      (s): s is Length => s.kind === 'length' && !refusing.measured(s) && (s.shown?.(p) ?? true),
    );
    const named = free.find(s => s.name === rest.parameter);
    const asked = named && remedy?.parameter === named.name ? Number(remedy.text) : undefined;
    if (named && asked !== undefined && inRange(named, asked) && does(named, asked))
      return { ...rest, remedy: remedyOf(named, asked) };
    // The named number, otherwise the one that has to change least.
    for (const specs of [named ? [named] : [], free.filter(s => s !== named)]) {
      const ways = specs.flatMap(spec => {
        if (tries > MOST_TRIES) return [];
        const value = nearest(spec, p[spec.name] as number, v => does(spec, v));
        return value === null ? [] : [{ spec, value }];
      });
      const least = ways.toSorted((a, b) => movedBy(a, p) - movedBy(b, p))[0];
      if (least) return { ...rest, remedy: remedyOf(least.spec, least.value) };
    }
    return rest;
  });
}

type Length = Extract<ParameterSpec, { kind: 'length' }>;

/** The same refusal with other numbers in its sentence is the same. */
const causeOf = ({ code, parameter, message }: Finding) =>
  `${code} ${parameter} ${message.replace(/[\d.,−-]+/g, '#')}`;

const inRange = ({ min, max }: Length, value: number) => value >= min && value <= max;

const movedBy = ({ spec, value }: { spec: Length; value: number }, p: Parameters) => {
  const now = p[spec.name] as number;
  return Math.abs(value - now) / Math.max(1, Math.abs(now));
};

/** The nearest number that works, to a tenth, or a whole one for a count; null where none in its range does. */
function nearest(spec: Length, now: number, does: (value: number) => boolean): number | null {
  const unit = spec.measure === 'count' ? 1 : 10;
  const found = [spec.min, spec.max].flatMap(end => {
    // 0 of a thing makes another part: it is not proposed.
    const to = end === 0 && now > 0 ? Math.min(now, 0.1) : end;
    const outwards = to > now ? Math.ceil : Math.floor;
    const tidy = (x: number) => Math.min(spec.max, Math.max(spec.min, outwards(x * unit - 1e-9) / unit));
    let bad = now;
    for (const share of STEPS) {
      const at = tidy(now + share * (to - now));
      if (at === bad) continue;
      if (!does(at)) {
        bad = at;
        continue;
      }
      let good = at;
      for (let i = 0; i < HALVINGS; i++) {
        const middle = tidy((good + bad) / 2);
        if (middle === good || middle === bad) break;
        if (does(middle)) good = middle;
        else bad = middle;
      }
      return [good];
    }
    return [];
  });
  return found.toSorted((a, b) => Math.abs(a - now) - Math.abs(b - now))[0] ?? null;
}

/** States the number and its parameter. */
function remedyOf(spec: Length, value: number): NonNullable<Finding['remedy']> {
  const text = String(Number(value.toFixed(2)));
  return {
    label: `Make “${spec.label}” ${formatPlain(value)}${unitOf(spec)}`,
    parameter: spec.name,
    text,
  };
}
