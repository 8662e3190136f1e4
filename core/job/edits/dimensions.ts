import { z } from 'zod';
import { derivedProblem, usersOf } from '../derived';
import { Derived, Dimension, type JobDocument, Mark } from '../document';
import { Id, Note } from '../fields';
import { defineEdit } from './define';
import { EditRefused, nameOf, requireDimension, withDimension } from './tools';

/** Edits of the maker's own dimensions, and of how a dimension is described and derived. */

export function withNewDimension(document: JobDocument, dimension: Dimension): JobDocument {
  if (document.dimensions.some(d => d.name === dimension.name || d.id === dimension.id))
    throw new EditRefused(`There is a dimension “${dimension.name}” already: take another name.`);
  const problem = dimension.derived ? derivedProblem(dimension, dimension.derived, document) : null;
  if (problem) throw new EditRefused(problem.message);
  return { ...document, dimensions: [...document.dimensions, dimension] };
}

export function withoutDimension(document: JobDocument, id: string): JobDocument {
  if (requireDimension(document, id).guide)
    throw new EditRefused('The recipe needs this dimension: only your own can be removed.');
  const [user] = usersOf(id, document);
  if (user) throw new EditRefused(`“${user}” is made from it: work that out another way first.`);
  return { ...document, dimensions: document.dimensions.filter(d => d.id !== id) };
}

export const addDimension = defineEdit(z.object({ kind: z.literal('add-dimension'), dimension: Dimension }), {
  apply: (document, { dimension }) => withNewDimension(document, dimension),
  words: ({ dimension }) => `Added the dimension ${dimension.label}`,
});

export const describeDimension = defineEdit(
  z.object({
    kind: z.literal('describe-dimension'),
    dimensionId: Id,
    label: Dimension.shape.label.optional(),
    critical: z.boolean().optional(),
    note: Note.optional(),
    mark: Mark.nullable().optional(),
    correctJaws: z.boolean().optional(),
  }),
  {
    apply(document, { kind: _, dimensionId, mark, ...patch }) {
      if (mark && mark.on !== 'drawing' && !document.photos.some(p => p.id === mark.on))
        throw new EditRefused('That photo is no longer there.');
      return withDimension(document, dimensionId, d => {
        if (d.guide && patch.label !== undefined) throw new EditRefused('The recipe names this dimension.');
        const { mark: before, ...rest } = { ...d, ...patch };
        const after = mark === undefined ? before : (mark ?? undefined);
        return after ? { ...rest, mark: after } : rest;
      });
    },
    words({ dimensionId, correctJaws }, document) {
      const where = nameOf.dimension(document, dimensionId);
      if (correctJaws === undefined) return `Described ${where}`;
      return `${correctJaws ? 'Corrected' : 'Left'} the inside jaws on ${where}`;
    },
  },
);

export const derive = defineEdit(
  z.object({ kind: z.literal('derive'), dimensionId: Id, derived: Derived.nullable() }),
  {
    apply: (document, { dimensionId, derived }) =>
      withDimension(document, dimensionId, d => {
        const { derived: _, ...rest } = d;
        if (!derived) return rest;
        const problem = derivedProblem(d, derived, document);
        if (problem) throw new EditRefused(problem.message);
        return { ...rest, derived };
      }),
    words: ({ dimensionId, derived }, document) =>
      `Let ${nameOf.dimension(document, dimensionId)} be ${derived ? 'worked out' : 'read again'}`,
  },
);

export const removeDimension = defineEdit(
  z.object({ kind: z.literal('remove-dimension'), dimensionId: Id }),
  {
    apply: (document, { dimensionId }) => withoutDimension(document, dimensionId),
    words: ({ dimensionId }, document) => `Removed ${nameOf.dimension(document, dimensionId)}`,
  },
);
