import { z } from 'zod';
import { Brief, JobDocument } from '../document';
import { Note, Title } from '../fields';
import { defineEdit } from './define';

/** Edits of what the job is about and what it must do. */

export const rename = defineEdit(z.object({ kind: z.literal('rename'), title: Title }), {
  apply: (document, { title }) => ({ ...document, title }),
  words: ({ title }) => `Renamed to “${title}”`,
});

export const describeObject = defineEdit(
  z.object({
    kind: z.literal('describe-object'),
    name: JobDocument.shape.object.shape.name.optional(),
    note: Note.optional(),
    leaves: z.boolean().optional(),
    goneAt: z.iso.datetime().nullable().optional(),
    toRead: JobDocument.shape.object.shape.toRead.optional(),
  }),
  {
    apply: (document, { kind: _, ...patch }) => ({
      ...document,
      object: { ...document.object, ...patch },
    }),
    words: () => 'Described the object',
  },
);

export const brief = defineEdit(z.object({ kind: z.literal('brief'), brief: Brief.partial() }), {
  apply: (document, edit) => ({ ...document, brief: { ...document.brief, ...edit.brief } }),
  words: () => 'Changed the brief',
});

/** Takes the job off the rack, or hangs it up again. */
export const putAway = defineEdit(
  z.object({ kind: z.literal('put-away'), away: JobDocument.shape.away.unwrap().nullable() }),
  {
    apply(document, { away }) {
      const { away: _, ...rest } = document;
      return away === null ? rest : { ...rest, away };
    },
    words: ({ away }) =>
      away === null
        ? 'Hung it on the rack again'
        : { archived: 'Put it away', recipe: 'Kept it as a recipe', removed: 'Removed it from the rack' }[
            away.how
          ],
  },
);

export const inService = defineEdit(
  z.object({ kind: z.literal('in-service'), since: z.iso.datetime().nullable() }),
  {
    apply: (document, { since }) => ({ ...document, service: { ...document.service, since } }),
    words: ({ since }) => (since ? 'Put it in service' : 'Took it out of service'),
  },
);
