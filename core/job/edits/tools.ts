import type { StandardWant } from '../../fit/wants';
import type { Dimension, JobDocument, Part, Want } from '../document';
import { type Workshop, windowFor } from '../workshop';

/** What edits of several subjects share. */

/** The edit makes no sense on this document; the message is for the maker. */
export class EditRefused extends Error {
  override name = 'EditRefused';
}

export function requireDimension(document: JobDocument, id: string): Dimension {
  const found = document.dimensions.find(d => d.id === id);
  if (!found) throw new EditRefused('That dimension is no longer there.');
  return found;
}

export function withDimension(
  document: JobDocument,
  id: string,
  change: (d: Dimension) => Dimension,
): JobDocument {
  requireDimension(document, id);
  return { ...document, dimensions: document.dimensions.map(d => (d.id === id ? change(d) : d)) };
}

export function requirePart(document: JobDocument, id: string): Part {
  const found = document.parts.find(p => p.id === id);
  if (!found) throw new EditRefused('That part is no longer there.');
  return found;
}

export function withPart(document: JobDocument, id: string, change: (p: Part) => Part): JobDocument {
  requirePart(document, id);
  return { ...document, parts: document.parts.map(p => (p.id === id ? change(p) : p)) };
}

export const defaultWant = (name: StandardWant, workshop: Pick<Workshop, 'windows'>): Want => ({
  name,
  window: windowFor(workshop, name),
  prefer: 'none',
});

/** Names for the words about an edit; the document is the one before it. */
export const nameOf = {
  dimension: (document: JobDocument, id: string) =>
    document.dimensions.find(d => d.id === id)?.label ?? 'a dimension',
  thread: (document: JobDocument, id: string) => document.threads.find(t => t.id === id)?.label ?? 'a thread',
  part: (document: JobDocument, id: string) => document.parts.find(p => p.id === id)?.name ?? 'a part',
  mate: (document: JobDocument, id: string) => document.mates.find(m => m.id === id)?.name ?? 'a mate',
};
