import { z } from 'zod';
import { Dimension, type JobDocument, MeasuredThread } from '../document';
import { Id } from '../fields';
import { defineEdit } from './define';
import { withNewDimension, withoutDimension } from './dimensions';
import { EditRefused, nameOf, requireDimension } from './tools';

/** Edits of the threads that were measured on the object. */

function requireThread(document: JobDocument, id: string): MeasuredThread {
  const found = document.threads.find(t => t.id === id);
  if (!found) throw new EditRefused('That thread is no longer there.');
  return found;
}

const dimensionIds = ({ diameter, span, ridgeHeight, ridgeWidth }: MeasuredThread): string[] =>
  [diameter, span, ridgeHeight, ridgeWidth].flatMap(id => (id === null ? [] : [id]));

export const addThread = defineEdit(
  z.object({
    kind: z.literal('add-thread'),
    thread: MeasuredThread,
    dimensions: z.array(Dimension).min(2).max(4),
  }),
  {
    apply(document, { thread, dimensions }) {
      if (document.threads.some(t => t.id === thread.id))
        throw new EditRefused('This thread is already there.');
      const next = dimensions.reduce(withNewDimension, document);
      for (const id of dimensionIds(thread)) requireDimension(next, id);
      return { ...next, threads: [...next.threads, thread] };
    },
    words: ({ thread }) => `Added the thread ${thread.label}`,
  },
);

export const thread = defineEdit(
  z.object({
    kind: z.literal('thread'),
    threadId: Id,
    change: MeasuredThread.pick({
      label: true,
      turns: true,
      hand: true,
      taper: true,
      starts: true,
      crest: true,
      standard: true,
    }).partial(),
  }),
  {
    apply(document, { threadId, change }) {
      requireThread(document, threadId);
      const threads = document.threads.map(t => (t.id === threadId ? { ...t, ...change } : t));
      return { ...document, threads };
    },
    words({ threadId, change }, document) {
      const name = nameOf.thread(document, threadId);
      if (!change.standard) return `Described ${name}`;
      return `Took ${name} for ${change.standard === 'odd' ? 'an odd thread' : change.standard}`;
    },
  },
);

export const removeThread = defineEdit(z.object({ kind: z.literal('remove-thread'), threadId: Id }), {
  apply(document, { threadId }) {
    const gone = requireThread(document, threadId);
    const without = { ...document, threads: document.threads.filter(t => t.id !== gone.id) };
    return dimensionIds(gone).reduce(withoutDimension, without);
  },
  words: ({ threadId }, document) => `Removed ${nameOf.thread(document, threadId)}`,
});
