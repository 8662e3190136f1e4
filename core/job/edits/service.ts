import { z } from 'zod';
import { Id } from '../document';
import { defineEdit } from './define';
import { EditRefused } from './tools';

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
