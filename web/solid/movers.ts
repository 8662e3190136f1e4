import type { Press } from '../../core/shape/additions/pressed';
import type { Mover, Nudge } from '../../core/shape/movers';
import type { spanMovers } from '../../core/shape/span/span-movers';
import type { Place } from '../../core/shape/vector';
import { nudgesOf } from '../../core/work/nudges';
import type { Work } from '../../core/work/work';
import type { Answer, AskedPart, SolidApi } from '../workers/solid-protocol';
import { kernelLine } from './kernel-worker';

type Api = Pick<SolidApi, keyof SolidApi>;

/** The result, and how many numbers were not tried since the part takes long to build. */
export type Tried<T> = T & { untried: number };

/**
 * The numbers of a part that move its surface at a pressed place.
 * @returns null where another question overtook this one
 * @throws Error with the kernel's words
 */
export const moversOf = (
  work: Work,
  partId: string,
  press: Press,
): Promise<Tried<{ movers: Mover[] }> | null> =>
  tried(work, partId, (api, part, nudges) => api.movers(part, press, nudges));

/**
 * The size between two pressed faces, or across one hole or boss, with the numbers of the part that change it.
 * @returns null where another question overtook this one
 * @throws Error with the kernel's words
 */
export const spanOn = (
  work: Work,
  partId: string,
  places: readonly Place[],
): Promise<Tried<{ found: ReturnType<typeof spanMovers> }> | null> =>
  tried(work, partId, (api, part, nudges) => api.span(part, places, nudges));

async function tried<T>(
  work: Work,
  partId: string,
  ask: (api: Api, part: AskedPart, nudges: Nudge[]) => Promise<Answer<T & { tried: number }>>,
): Promise<Tried<T> | null> {
  const { part, parameters } = work.part(partId);
  const { recipe, additions } = part;
  const nudges = nudgesOf(work, partId);
  const answer = await kernelLine('movers').ask(api => ask(api, { recipe, additions, parameters }, nudges));
  if (!answer) return null;
  if (!answer.ok) throw new Error(answer.findings[0]?.message ?? 'The solid could not be built.');
  return { ...answer, untried: nudges.length - answer.tried };
}
