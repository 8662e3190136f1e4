import type { Material, Printer } from '../job/workshop';
import { type SupportRules, USUAL_RULES } from './hangs';
import { type NotedPrint, type Pace, paceOf, timeOf } from './pace';
import { type Machine, type PrintSettings, type Quality, settingsFor, USUAL_MACHINE } from './settings';
import { coolingSeconds, type Estimate, forCopies, PLASTIC_DOUBT } from './time';

/** What a printer of the workshop means for a print: settings, motion, supports, time and plastic. */

export const settingsOf = ({ lineWidth }: Pick<Printer, 'lineWidth'>, quality: Quality): PrintSettings =>
  settingsFor(quality, lineWidth);

/** Other moves have their usual ratio to the speed of passes. Common practice, no source. */
export function machineOf({ speed, acceleration }: Pick<Printer, 'speed' | 'acceleration'>): Machine {
  const times = (speed ?? USUAL_MACHINE.inner) / USUAL_MACHINE.inner;
  const { outer, inner, infill, skin, travel } = USUAL_MACHINE;
  return {
    ...USUAL_MACHINE,
    outer: times * outer,
    inner: times * inner,
    infill: times * infill,
    skin: times * skin,
    travel: Math.max(travel, times * travel),
    acceleration: acceleration ?? USUAL_MACHINE.acceleration,
  };
}

export const rulesOf = ({ overhang }: Pick<Printer, 'overhang'>): SupportRules => ({
  ...USUAL_RULES,
  overhang: overhang ?? USUAL_RULES.overhang,
});

export const paceOfPrinter = (
  { speed, acceleration }: Pick<Printer, 'speed' | 'acceleration'>,
  noted: readonly NotedPrint[],
): Pace => paceOf(noted, speed !== undefined && acceleration !== undefined ? 'described' : 'unknown');

/** Time and plastic for this many copies at once. Hours with the range that holds nine of ten; grams with their sd. */
export interface Takes {
  hours: number;
  from: number;
  to: number;
  grams: number;
  gramsU: number;
  cost: number;
  /** The hours that are only spent waiting for layers to cool. */
  waits: number;
}

export function takesOf(
  estimate: Estimate,
  pace: Pace,
  { density, pricePerKg }: Pick<Material, 'density' | 'pricePerKg'>,
  pieces = 1,
): Takes {
  const all = forCopies(estimate, pieces);
  const { seconds, low, high } = timeOf(all, pace);
  const grams = (all.plastic / 1000) * density;
  const usual = pace.chances.reduce((sum, c) => sum + c.chance * Math.log(c.pace), 0);
  return {
    hours: seconds / 3600,
    from: low / 3600,
    to: high / 3600,
    grams,
    gramsU: PLASTIC_DOUBT * grams,
    cost: (grams / 1000) * pricePerKg,
    waits: coolingSeconds(all, Math.exp(usual)) / 3600,
  };
}
