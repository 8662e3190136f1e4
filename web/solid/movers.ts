import type { Press } from '../../core/shape/additions/pressed';
import type { Mover } from '../../core/shape/movers';
import { nudgesOf } from '../../core/work/nudges';
import type { Work } from '../../core/work/work';
import { kernelLine } from './kernel-worker';

export interface Moved {
  movers: Mover[];
  /** Numbers that were not tried, since the part takes long to build. */
  untried: number;
}

/**
 * Which numbers of a part move its surface where it was pressed.
 * @returns null where another question overtook this one
 * @throws Error with the kernel's words
 */
export async function moversOf(work: Work, partId: string, press: Press): Promise<Moved | null> {
  const { part, parameters } = work.part(partId);
  const { recipe, additions } = part;
  const nudges = nudgesOf(work, partId);
  const answer = await kernelLine('movers').ask(api =>
    api.movers({ recipe, additions, parameters }, press, nudges),
  );
  if (!answer) return null;
  if (!answer.ok) throw new Error(answer.findings[0]?.message ?? 'The solid could not be built.');
  return { movers: answer.movers, untried: nudges.length - answer.tried };
}
