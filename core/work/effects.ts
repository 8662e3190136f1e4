import { bondHolds, bondRule } from '../fit/bond';
import { FRICTION } from '../fit/grip';
import { clearanceChange, OBJECT_EXPANSION, ROOM_C } from '../fit/heat';
import { pressFit } from '../fit/press';
import { strainAt } from '../fit/wants';
import type { Brief } from '../job/document';
import { formatPlain, formatSigned } from '../quantity/format';
import { given } from '../shelf/table';
import type { MateLedger } from './ledger';
import type { ResolvedPart } from './resolved';
import { polymerOf } from './suitability';

/** What a fit does to the part and to the hand: each effect is a number with its unit and a verdict. */
export interface Effect {
  label: string;
  value: string;
  /** ok: borne, even often; warn: borne once, or near a limit; stop: beyond the limit. */
  level: 'ok' | 'warn' | 'stop';
  words: string;
  /** A stretch compared with what the plastic bears, ratios. */
  gauge?: { strain: number; often: number; once: number };
}

/** Poisson's ratio of plastics. Common practice, no source. */
const POISSON = 0.38;

/** Effects of a mate at its model number; empty where the plastic's figures are not known. */
export function effectsOf(ledger: MateLedger, resolved: ResolvedPart, brief: Brief): Effect[] {
  const polymer = polymerOf(resolved.material);
  if (!polymer) return [];
  const modulus = { low: given(polymer, 'modulusLow'), high: given(polymer, 'modulusHigh') };
  const { parameters, recipe } = resolved;
  const wall =
    recipe.grips?.(parameters).find(g => g.mate === ledger.mate.ours.surface)?.wall ?? parameters.wall;
  const contact = recipe.surfaces(parameters).find(s => s.mate === ledger.mate.ours.surface);
  // Only for rings and round joints: squeezing flats follows another formula.
  if (contact?.kind !== 'round') return warmth(ledger, given(polymer, 'expansion'), brief);
  const length = contact ? Math.abs(contact.to - contact.from) : null;
  return [
    ...grip(ledger, resolved, modulus, typeof wall === 'number' ? wall : null, length),
    ...bonded(ledger, polymer.key, length, brief),
    ...warmth(ledger, given(polymer, 'expansion'), brief),
  ];
}

/** For a stretch or a press: strain against the plastic's limit, pressure, and the pull to get it off. */
function grip(
  { mate, clearance, reading }: MateLedger,
  { material }: ResolvedPart,
  modulus: { low: number; high: number },
  wall: number | null,
  length: number | null,
): Effect[] {
  // Where the object is the soft side, or nothing is squeezed, our plastic bears nothing worth mentioning.
  if (clearance >= 0 || mate.soft === 'theirs') return [];
  const strain = strainAt(clearance, reading.value, mate.side, 'ours');
  const effects: Effect[] = [strainEffect(strain, material.strainLimit, oftenOf(material))];
  if (wall === null || mate.side !== 'inside') return effects;
  const hub = (e: number) => ({
    inner: reading.value,
    outer: reading.value + 2 * wall,
    modulus: e,
    poisson: POISSON,
  });
  // The object is taken as rigid: a soft one would take some of the squeeze.
  const hard = { inner: 0, outer: reading.value, modulus: 200_000, poisson: 0.3 };
  const [weak, strong] = [modulus.low, modulus.high].map(e =>
    pressFit(hub(e), hard, reading.value, -clearance, length ?? 1, 1),
  ) as [ReturnType<typeof pressFit>, ReturnType<typeof pressFit>];
  effects.push({
    label: 'presses with',
    value: `${formatPlain(weak.pressure, 2)} to ${formatPlain(strong.pressure, 2)} MPa`,
    level: 'ok',
    words: 'over the whole surface, by Lamé; it falls as the plastic creeps.',
  });
  if (length !== null) {
    effects.push({
      label: 'pulls off with about',
      value: `${formatPlain(FRICTION.low * weak.pushOff, 0)} to ${formatPlain(FRICTION.high * strong.pushOff, 0)} N`,
      level: FRICTION.low * weak.pushOff > HARD_TO_PULL ? 'warn' : 'ok',
      words:
        FRICTION.low * weak.pushOff > HARD_TO_PULL
          ? 'more than a hand pulls: give it a lever, a thinner wall or a looser want.'
          : `${formatPlain((FRICTION.low * weak.pushOff) / 9.81, 1)} to ${formatPlain((FRICTION.high * strong.pushOff) / 9.81, 1)} kg on a spring balance.`,
    });
  }
  return effects;
}

/** How hard a strong hand can pull something it grips, N. Common practice, no source. */
export const HARD_TO_PULL = 250;

/** The strain its plastic bears often, ratio. */
export const oftenOf = (material: ResolvedPart['material']): number => {
  const polymer = polymerOf(material);
  return polymer ? given(polymer, 'strainOften') / 100 : material.strainLimit / 2;
};

function strainEffect(strain: number, once: number, often: number): Effect {
  const value = `${formatPlain(100 * strain, 1)} %`;
  const gauge = { strain, often, once };
  const bears = `it bears ${formatPlain(100 * once, 1)} % once and ${formatPlain(100 * often, 1)} % often`;
  if (strain > once)
    return {
      label: 'stretches by',
      value,
      gauge,
      level: 'stop',
      words: `beyond what it bears: ${bears}. A looser want, or a plastic that gives.`,
    };
  if (strain > often)
    return {
      label: 'stretches by',
      value,
      gauge,
      level: 'warn',
      words: `fine to put on and leave; ${bears}.`,
    };
  return { label: 'stretches by', value, gauge, level: 'ok', words: `${bears}.` };
}

/** A glued, taped or sealed joint: its area, its allowable load, and whether the plastic bonds. */
function bonded(
  { mate, reading }: MateLedger,
  polymer: string,
  length: number | null,
  { loads }: Brief,
): Effect[] {
  const bond = (['glue', 'tape', 'seal'] as const).find(b => b === mate.want.name);
  const rule = bond && bondRule(bond, polymer);
  if (!bond || !rule || length === null) return [];
  const area = Math.PI * reading.value * length;
  const holds = bondHolds(bond, area, rule);
  const most = Math.max(0, ...loads.map(l => l.forceN ?? 0));
  const joint: Effect = {
    label: 'joint of',
    value: `${formatPlain(area / 100, 1)} cm²`,
    level: rule.takes === 'badly' ? 'stop' : rule.takes === 'roughened' ? 'warn' : 'ok',
    words:
      rule.takes === 'badly'
        ? `${rule.with}.`
        : `${rule.with}${rule.takes === 'roughened' ? ', on roughened faces: smooth ones let go' : ''}. Air the room; keep it off skin and eyes.`,
  };
  if (rule.takes === 'badly') return [joint];
  return [
    joint,
    {
      label: 'may carry about',
      value: `${formatPlain(holds, 0)} N`,
      level: most > holds ? 'stop' : 'ok',
      words:
        most > holds
          ? `the brief says ${formatPlain(most, 0)} N: a longer joint, or a screw or pin beside it.`
          : 'along the joint, day by day; a fresh one shows more.',
    },
  ];
}

/** How the clearance changes with heat, for the likely materials of the object. */
function warmth({ mate, reading, clearance, window }: MateLedger, ours: number, brief: Brief): Effect[] {
  const { hottestC } = brief;
  if (hottestC === null || Math.abs(hottestC - ROOM_C) < 10) return [];
  const changes = [OBJECT_EXPANSION.steel, OBJECT_EXPANSION['hard plastic']].map(theirs =>
    mate.side === 'inside'
      ? clearanceChange(reading.value, ours, theirs, hottestC)
      : clearanceChange(reading.value, theirs, ours, hottestC),
  );
  const [low, high] = [Math.min(...changes), Math.max(...changes)];
  const leaves = clearance + low < window.min || clearance + high > window.max;
  return [
    {
      label: `at ${formatPlain(hottestC)} °C the gap changes by`,
      value: `${formatSigned(low)} to ${formatSigned(high)} mm`,
      level: leaves ? 'warn' : 'ok',
      words: leaves
        ? 'on steel and on a hard plastic: the fit may leave its window. Try it warm.'
        : 'on steel and on a hard plastic: it stays within its window.',
    },
  ];
}
