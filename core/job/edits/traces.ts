import { z } from 'zod';
import type { JobDocument } from '../document';
import { Id } from '../fields';
import { Refusal } from '../scans';
import { Trace } from '../traces';
import { defineEdit } from './define';
import { EditRefused } from './tools';

/** Edits of the pictures that are traced, and of how each is read. */

const tracesOf = (document: JobDocument): readonly Trace[] => document.traces ?? [];

function requireTrace(document: JobDocument, id: string): Trace {
  const trace = tracesOf(document).find(t => t.id === id);
  if (!trace) throw new EditRefused('That traced photo is no longer there.');
  return trace;
}

export const addTrace = defineEdit(z.object({ kind: z.literal('add-trace'), trace: Trace }), {
  apply(document, { trace }) {
    if (tracesOf(document).some(t => t.id === trace.id))
      throw new EditRefused('This photo is already being traced.');
    if (!document.photos.some(p => p.id === trace.photo))
      throw new EditRefused('The photo to be traced is not in this job: add it first.');
    return { ...document, traces: [...tracesOf(document), trace] };
  },
  words: ({ trace }) => `Took in ${trace.label} to be traced`,
});

export const changeTrace = defineEdit(
  z.object({
    kind: z.literal('trace'),
    traceId: Id,
    change: Trace.pick({
      label: true,
      by: true,
      thickness: true,
      broken: true,
      tolerance: true,
      strokes: true,
      tidy: true,
      parting: true,
    })
      .partial()
      .extend({
        inside: Trace.shape.inside.unwrap().nullable().optional(),
        trust: Trace.shape.trust.unwrap().nullable().optional(),
        refused: Refusal.nullable().optional(),
      }),
  }),
  {
    apply(document, { traceId, change: { trust, refused, inside, ...change } }) {
      requireTrace(document, traceId);
      const traces = tracesOf(document).map(t => {
        if (t.id !== traceId) return t;
        const { trust: before, refused: was, inside: within, ...rest } = { ...t, ...change };
        const why = refused === undefined ? was : (refused ?? undefined);
        // When it is scaled in another way, its size must be checked again.
        const kept = change.by === undefined ? before : undefined;
        const now = trust === undefined ? kept : (trust ?? undefined);
        const at = inside === undefined ? within : (inside ?? undefined);
        return {
          ...rest,
          ...(at ? { inside: at } : {}),
          ...(now ? { trust: now } : {}),
          ...(why ? { refused: why } : {}),
        };
      });
      return { ...document, traces };
    },
    words({ traceId, change }, document) {
      const name = tracesOf(document).find(t => t.id === traceId)?.label ?? 'a photo';
      if (change.refused !== undefined)
        return change.refused === null ? `Used ${name} again` : `Left out ${name}`;
      if (change.trust) return `Settled how large ${name} is`;
      if (change.trust === null) return `Reopened how large ${name} is`;
      if (change.strokes) return `Said what is the object in ${name}`;
      if (change.parting) return `Changed lines and arcs of ${name}`;
      if (change.tidy) return `Tidied the outline of ${name}`;
      if (change.inside !== undefined) return `Pointed at the object in ${name}`;
      if (change.label) return `Named the traced photo ${name}`;
      return `Said how ${name} is to be read`;
    },
  },
);

export const removeTrace = defineEdit(z.object({ kind: z.literal('remove-trace'), traceId: Id }), {
  apply(document, { traceId }) {
    requireTrace(document, traceId);
    const user = document.dimensions.find(d =>
      d.readings.some(r => r.traced?.trace === traceId && r.struck === null),
    );
    if (user) throw new EditRefused(`${user.label} was read off it: strike or take back that reading first.`);
    return { ...document, traces: tracesOf(document).filter(t => t.id !== traceId) };
  },
  words: ({ traceId }, document) =>
    `Removed the traced photo ${tracesOf(document).find(t => t.id === traceId)?.label ?? ''}`.trim(),
});
