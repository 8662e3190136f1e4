import { z } from 'zod';
import { longName } from '../../shape/additions/with-additions';
import { type JobDocument, Model } from '../document';
import { Id } from '../fields';
import { defineEdit } from './define';
import { EditRefused } from './tools';

/** Edits of the bodies from files that a job's parts are kept clear of. */

function requireModel(document: JobDocument, id: string): void {
  if (!document.models.some(m => m.id === id)) throw new EditRefused('That body is no longer there.');
}

/** The name of what is kept clear of it. */
function userOf(document: JobDocument, id: string): string | undefined {
  for (const part of document.parts) {
    const neighbour = part.neighbours.find(n => n.form === 'model' && n.model === id);
    if (neighbour) return neighbour.name;
    const addition = part.additions.find(
      a => a.kind === 'keep-clear' && part.parameters[longName(a, 'model')]?.text === id,
    );
    if (addition) return addition.name;
    if (Object.values(part.parameters).some(e => e.text === id)) return part.name;
  }
  return undefined;
}

export const addModel = defineEdit(z.object({ kind: z.literal('add-model'), model: Model }), {
  apply(document, { model }) {
    if (document.models.some(m => m.id === model.id)) throw new EditRefused('This body is already there.');
    return { ...document, models: [...document.models, model] };
  },
  words: ({ model }) => `Took in the body ${model.label}`,
});

export const changeModel = defineEdit(
  z.object({
    kind: z.literal('model'),
    modelId: Id,
    change: Model.pick({ label: true, factor: true }).partial(),
  }),
  {
    apply(document, { modelId, change }) {
      requireModel(document, modelId);
      const models = document.models.map(m => (m.id === modelId ? { ...m, ...change } : m));
      return { ...document, models };
    },
    words: ({ change }) => (change.factor === undefined ? 'Named a body' : 'Said a body’s unit'),
  },
);

export const removeModel = defineEdit(z.object({ kind: z.literal('remove-model'), modelId: Id }), {
  apply(document, { modelId }) {
    requireModel(document, modelId);
    const user = userOf(document, modelId);
    if (user) throw new EditRefused(`“${user}” uses it: choose another form there first.`);
    return { ...document, models: document.models.filter(m => m.id !== modelId) };
  },
  words: () => 'Removed a body',
});
