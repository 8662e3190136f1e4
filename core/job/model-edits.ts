import { longName } from '../shape/additions/with-additions';
import type { JobDocument, Model } from './document';
import { EditRefused } from './edit-tools';

/** Edits of the bodies from files that a job's parts are kept clear of. */

export function withModel(document: JobDocument, model: Model): JobDocument {
  if (document.models.some(m => m.id === model.id)) throw new EditRefused('This body is already there.');
  return { ...document, models: [...document.models, model] };
}

export function changedModel(document: JobDocument, id: string, change: Partial<Model>): JobDocument {
  requireModel(document, id);
  return { ...document, models: document.models.map(m => (m.id === id ? { ...m, ...change } : m)) };
}

export function withoutModel(document: JobDocument, id: string): JobDocument {
  requireModel(document, id);
  const user = userOf(document, id);
  if (user) throw new EditRefused(`“${user}” uses it: choose another form there first.`);
  return { ...document, models: document.models.filter(m => m.id !== id) };
}

function requireModel(document: JobDocument, id: string): void {
  if (!document.models.some(m => m.id === id)) throw new EditRefused('That body is no longer there.');
}

/** What keeps clear of it, by its name. */
function userOf(document: JobDocument, id: string): string | undefined {
  for (const part of document.parts) {
    const neighbour = part.neighbours.find(n => n.form === 'model' && n.model === id);
    if (neighbour) return neighbour.name;
    const addition = part.additions.find(
      a => a.kind === 'keep-clear' && part.parameters[longName(a, 'model')]?.text === id,
    );
    if (addition) return addition.name;
  }
  return undefined;
}
