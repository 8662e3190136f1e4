import type { FitMate } from '../job/document';
import { counting, type TryMate } from '../job/history';
import { formatPlain } from '../quantity/format';
import type { Parameters } from '../shape/recipes/parameters';
import type { EffortLever } from '../shape/recipes/recipe';
import type { ResolvedPart } from './resolved';

/** Advice on changing the effort of putting on, taking off or holding, without changing a size that fits. */
export interface EffortAdvice {
  mate: FitMate;
  words: string;
  /** The parameter to change, if one does it. */
  remedy?: { label: string; parameter: string; text: string };
}

/** One step softer or firmer: a quarter less, a third more. Common practice, no source. */
const SOFTER = 0.75;
const FIRMER = 4 / 3;
/** An entry chamfer grows by this, mm. Common practice, no source. */
const LONGER_ENTRY = 0.6;

/** From the last try of each mate; none where the size itself was wrong, since that comes first. */
export function effortAdvice(resolved: ResolvedPart): EffortAdvice[] {
  const { tries } = counting(resolved.history);
  const levers = resolved.recipe.levers?.(resolved.parameters) ?? [];
  return resolved.mates.flatMap(mate => {
    const said = tries.findLast(t => t.mates[mate.id]?.effort)?.mates[mate.id];
    if (!said?.effort || (said.verdict !== undefined && said.verdict !== 'right')) return [];
    const own = levers.filter(l => l.mate === mate.ours.surface);
    const advice = adviseOn(said.effort, mate, own, resolved.parameters);
    return advice ? [{ mate, ...advice }] : [];
  });
}

function adviseOn(
  { on, off, home }: NonNullable<TryMate['effort']>,
  { name }: FitMate,
  levers: readonly EffortLever[],
  p: Parameters,
): Omit<EffortAdvice, 'mate'> | null {
  const grip = levers.find(l => l.acts === 'grip');
  const entry = levers.find(l => l.acts === 'entry');
  const change = (lever: EffortLever | undefined, to: (now: number) => number) => {
    const now = lever && p[lever.parameter];
    if (!lever || typeof now !== 'number') return undefined;
    const text = formatPlain(Math.min(lever.most, Math.max(lever.least, Math.round(to(now) * 20) / 20)), 2);
    return text === formatPlain(now, 2)
      ? undefined
      : { label: `Make the ${lever.label} ${text} mm`, parameter: lever.parameter, text };
  };
  const softer = change(grip, now => now * SOFTER ** (1 / grip!.power));
  const firmer = change(grip, now => now * FIRMER ** (1 / grip!.power));
  const stays = 'The diameter stays: it sat right.';
  if (home === 'too-easy')
    return { words: `${name} does not hold once home. ${stays} A firmer wall grips more.`, remedy: firmer };
  if (on === 'too-hard' && home !== 'too-hard' && off !== 'too-hard')
    return {
      words: `${name} is hard to start but right once home. ${stays} A longer entry chamfer helps it on.`,
      remedy: change(entry, now => now + LONGER_ENTRY),
    };
  if (on === 'too-hard' || off === 'too-hard' || home === 'too-hard')
    return {
      words: `${name} takes too much force. ${stays} A softer wall takes a quarter off the effort.`,
      remedy: softer,
    };
  if (off === 'too-easy' || on === 'too-easy')
    return {
      words: `${name} comes ${off === 'too-easy' ? 'off' : 'on'} too easily. ${stays} A firmer wall grips more.`,
      remedy: firmer,
    };
  return null;
}
