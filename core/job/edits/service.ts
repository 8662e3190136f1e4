import { z } from 'zod';
import { Id } from '../fields';
import { defineEdit } from './define';
import { EditRefused } from './tools';

/** When to look at it again; null follows the brief. */
export const lookAgain = defineEdit(
  z.object({ kind: z.literal('look-again'), at: z.iso.datetime().nullable() }),
  {
    apply(document, { at }) {
      const { lookAt: _, ...service } = document.service;
      return { ...document, service: at === null ? service : { ...service, lookAt: at } };
    },
    words: ({ at }) =>
      at === null ? 'Follows the brief for the next look' : `Look again on ${at.slice(0, 10)}`,
  },
);

export const serviceNote = defineEdit(
  z.object({
    kind: z.literal('service-note'),
    id: Id,
    at: z.iso.datetime(),
    words: z.string().trim().min(1, 'Write how it holds.').max(4000),
  }),
  {
    apply(document, { id, at, words }) {
      const { service } = document;
      if (service.notes.some(n => n.id === id)) throw new EditRefused('This note is already there.');
      return { ...document, service: { ...service, notes: [...service.notes, { id, at, words }] } };
    },
    words: () => 'Noted how it holds',
    isThere: (document, { id }) => document.service.notes.some(n => n.id === id),
  },
);
