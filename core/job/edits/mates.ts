import { z } from 'zod';
import { Id, type JobDocument, type Mate, MateSide, Want } from '../document';
import { recipeOf } from '../parts';
import { defineEdit } from './define';
import { EditRefused, nameOf, requireDimension } from './tools';

/** Edits of how the surfaces should feel, and of what goes with what. */

function requireMate(document: JobDocument, id: string): Mate {
  const found = document.mates.find(m => m.id === id);
  if (!found) throw new EditRefused('That mate is no longer there.');
  return found;
}

const withMate = (document: JobDocument, id: string, change: (m: Mate) => Mate): JobDocument => ({
  ...document,
  mates: document.mates.map(m => (m.id === id ? change(m) : m)),
});

/** A strain window needs an elastic side; a clearance window leaves things as they were. */
const softFor = (soft: Mate['soft'], want: Want) =>
  want.window.unit === 'strain' && soft === 'none' ? 'ours' : soft;

export const want = defineEdit(
  z.object({
    kind: z.literal('want'),
    mateId: Id,
    want: Want,
    soft: z.enum(['none', 'ours', 'theirs']).optional(),
  }),
  {
    apply(document, edit) {
      requireMate(document, edit.mateId);
      return withMate(document, edit.mateId, m => ({
        ...m,
        want: edit.want,
        soft: edit.soft ?? softFor(m.soft, edit.want),
      }));
    },
    words: (edit, document) => `${nameOf.mate(document, edit.mateId)} shall be ${edit.want.name}`,
  },
);

const mateOfSurface = (document: JobDocument, part: string, surface: string): Mate | undefined =>
  document.mates.find(m => m.ours.part === part && m.ours.surface === surface);

/** Refuses a partner that has no such surface, has the same side, or leads back to where it began. */
function requirePartner(
  document: JobDocument,
  mate: Mate,
  other: Extract<Mate['other'], { of: 'part' }>,
): void {
  const part = document.parts.find(p => p.id === other.part);
  const surface = part && recipeOf(part).mates.find(m => m.id === other.surface);
  if (!part || !surface) throw new EditRefused('That part has no such surface.');
  if (part.id === mate.ours.part) throw new EditRefused('A part cannot go on itself: choose another part.');
  if (surface.side === mate.side)
    throw new EditRefused(
      `Both are ${mate.side === 'inside' ? 'holes' : 'outsides'}: one of the two must go into the other.`,
    );
  const seen = new Set([mate.id]);
  for (let next: Mate | undefined = mateOfSurface(document, other.part, other.surface); next; ) {
    if (seen.has(next.id))
      throw new EditRefused('That goes round in a circle: one of them must fit the object.');
    seen.add(next.id);
    const beyond: Mate['other'] = next.other;
    next = beyond.of === 'part' ? mateOfSurface(document, beyond.part, beyond.surface) : undefined;
  }
}

/** What a mate's other side is: the object, or another of our parts. */
export const mateWith = defineEdit(z.object({ kind: z.literal('mate-with'), mateId: Id, other: MateSide }), {
  apply(document, { mateId, other }) {
    const mate = requireMate(document, mateId);
    if (other.of === 'object') requireDimension(document, other.dimension);
    else requirePartner(document, mate, other);
    return withMate(document, mateId, m => ({ ...m, other }));
  },
  words: ({ mateId, other }, document) =>
    `${nameOf.mate(document, mateId)} goes with ${other.of === 'part' ? nameOf.part(document, other.part) : 'the object'}`,
});
