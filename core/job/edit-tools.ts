import type { StandardWant } from '../fit/wants';
import type { Dimension, JobDocument, Want } from './document';
import { type Workshop, windowFor } from './workshop';

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

export function withPart(
  document: JobDocument,
  id: string,
  change: (p: JobDocument['parts'][number]) => JobDocument['parts'][number],
): JobDocument {
  if (!document.parts.some(p => p.id === id)) throw new EditRefused('That part is no longer there.');
  return { ...document, parts: document.parts.map(p => (p.id === id ? change(p) : p)) };
}

export const defaultWant = (name: StandardWant, workshop: Pick<Workshop, 'windows'>): Want => ({
  name,
  window: windowFor(workshop, name),
  prefer: 'none',
});
