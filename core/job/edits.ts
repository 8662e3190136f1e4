import { z } from 'zod';
import { DEFAULT_WINDOWS, type StandardWant } from '../fit/wants';
import { recipeById } from '../shape/recipes';
import { same } from './changes';
import { Brief, Dimension, Expression, Id, JobDocument, Pose, Reading, Want } from './document';
import type { Workshop } from './workshop';

/**
 * Named commands that change a job. Each is a pure function of the document; its inverse is found by
 * comparing before and after (changes.ts).
 */
const title = z.string().trim().min(1, 'Give the job a name.').max(300, 'At most 300 characters.');

export const Edit = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('rename'), title }),
  z.object({
    kind: z.literal('describe-object'),
    name: z.string().trim().max(300).optional(),
    note: z.string().max(4000).optional(),
    leaves: z.boolean().optional(),
  }),
  z.object({ kind: z.literal('brief'), brief: Brief.partial() }),
  z.object({ kind: z.literal('add-reading'), dimensionId: Id, reading: Reading }),
  z.object({ kind: z.literal('take-back-reading'), dimensionId: Id, readingId: Id }),
  z.object({
    kind: z.literal('strike-reading'),
    dimensionId: Id,
    readingId: Id,
    reason: z.string().trim().min(1, 'Say why.').max(300).nullable(),
  }),
  z.object({ kind: z.literal('add-dimension'), dimension: Dimension }),
  z.object({ kind: z.literal('note-dimension'), dimensionId: Id, note: z.string().max(4000) }),
  z.object({ kind: z.literal('remove-dimension'), dimensionId: Id }),
  z.object({
    kind: z.literal('want'),
    mateId: Id,
    want: Want,
    soft: z.enum(['none', 'ours', 'theirs']).optional(),
  }),
  z.object({
    kind: z.literal('parameter'),
    partId: Id,
    name: z.string().max(40),
    expression: Expression.nullable(),
  }),
  z.object({ kind: z.literal('material'), partId: Id, materialId: Id }),
  z.object({ kind: z.literal('printer'), partId: Id, printerId: Id }),
  z.object({ kind: z.literal('pose'), partId: Id, pose: Pose }),
  z.object({ kind: z.literal('in-service'), since: z.iso.datetime().nullable() }),
  z.object({
    kind: z.literal('service-note'),
    id: Id,
    at: z.iso.datetime(),
    words: z.string().trim().min(1, 'Write how it holds.').max(4000),
  }),
]);
export type Edit = z.infer<typeof Edit>;

/** The edit makes no sense on this document; the message is for the maker. */
export class EditRefused extends Error {
  override name = 'EditRefused';
}

/** @throws EditRefused when it names what is not there, ZodError when the result breaks a bound */
export function applyEdit(
  document: JobDocument,
  edit: Edit,
  workshop: Pick<Workshop, 'materials' | 'printers'>,
): JobDocument {
  return JobDocument.parse(edited(document, edit, workshop));
}

function edited(
  document: JobDocument,
  edit: Edit,
  workshop: Pick<Workshop, 'materials' | 'printers'>,
): JobDocument {
  switch (edit.kind) {
    case 'rename':
      return { ...document, title: edit.title };
    case 'describe-object': {
      const { kind: _, ...patch } = edit;
      return { ...document, object: { ...document.object, ...patch } };
    }
    case 'brief':
      return { ...document, brief: { ...document.brief, ...edit.brief } };
    case 'add-reading':
      return withDimension(document, edit.dimensionId, d => {
        if (d.readings.some(r => r.id === edit.reading.id))
          throw new EditRefused('This reading is already there.');
        if (edit.reading.value <= 0) throw new EditRefused('A size is above 0: take the reading again.');
        return { ...d, readings: [...d.readings, edit.reading] };
      });
    case 'take-back-reading':
      return withDimension(document, edit.dimensionId, d => {
        requireReading(d, edit.readingId);
        return { ...d, readings: d.readings.filter(r => r.id !== edit.readingId) };
      });
    case 'strike-reading':
      return withDimension(document, edit.dimensionId, d => {
        requireReading(d, edit.readingId);
        return {
          ...d,
          readings: d.readings.map(r => (r.id === edit.readingId ? { ...r, struck: edit.reason } : r)),
        };
      });
    case 'add-dimension':
      if (document.dimensions.some(d => d.name === edit.dimension.name || d.id === edit.dimension.id)) {
        throw new EditRefused(`There is a dimension “${edit.dimension.name}” already: take another name.`);
      }
      return { ...document, dimensions: [...document.dimensions, edit.dimension] };
    case 'note-dimension':
      return withDimension(document, edit.dimensionId, d => ({ ...d, note: edit.note }));
    case 'remove-dimension':
      if (requireDimension(document, edit.dimensionId).guide) {
        throw new EditRefused('The recipe needs this dimension: only your own can be removed.');
      }
      return { ...document, dimensions: document.dimensions.filter(d => d.id !== edit.dimensionId) };
    case 'want': {
      if (!document.mates.some(m => m.id === edit.mateId))
        throw new EditRefused('That mate is no longer there.');
      return {
        ...document,
        mates: document.mates.map(m =>
          m.id === edit.mateId ? { ...m, want: edit.want, soft: edit.soft ?? softFor(m.soft, edit.want) } : m,
        ),
      };
    }
    case 'parameter':
      return withParameter(document, edit);
    case 'material':
      return withMaterial(document, edit.partId, edit.materialId, workshop);
    case 'printer':
      if (!workshop.printers.some(p => p.id === edit.printerId))
        throw new EditRefused('That printer is no longer in the workshop.');
      return withPart(document, edit.partId, part => ({ ...part, printerId: edit.printerId }));
    case 'pose':
      return withPart(document, edit.partId, part => ({ ...part, pose: edit.pose }));
    case 'in-service':
      return { ...document, service: { ...document.service, since: edit.since } };
    case 'service-note':
      if (document.service.notes.some(n => n.id === edit.id))
        throw new EditRefused('This note is already there.');
      return {
        ...document,
        service: {
          ...document.service,
          notes: [...document.service.notes, { id: edit.id, at: edit.at, words: edit.words }],
        },
      };
  }
}

/** A strain window needs an elastic side; a clearance window leaves things as they were. */
const softFor = (soft: 'none' | 'ours' | 'theirs', want: Want) =>
  want.window.unit === 'strain' && soft === 'none' ? 'ours' : soft;

function withDimension(document: JobDocument, id: string, change: (d: Dimension) => Dimension): JobDocument {
  requireDimension(document, id);
  return { ...document, dimensions: document.dimensions.map(d => (d.id === id ? change(d) : d)) };
}

function requireDimension(document: JobDocument, id: string): Dimension {
  const found = document.dimensions.find(d => d.id === id);
  if (!found) throw new EditRefused('That dimension is no longer there.');
  return found;
}

function requireReading(dimension: Dimension, id: string): void {
  if (!dimension.readings.some(r => r.id === id)) throw new EditRefused('That reading is no longer there.');
}

function withPart(
  document: JobDocument,
  id: string,
  change: (p: JobDocument['parts'][number]) => JobDocument['parts'][number],
): JobDocument {
  if (!document.parts.some(p => p.id === id)) throw new EditRefused('That part is no longer there.');
  return { ...document, parts: document.parts.map(p => (p.id === id ? change(p) : p)) };
}

function withParameter(document: JobDocument, edit: Extract<Edit, { kind: 'parameter' }>): JobDocument {
  return withPart(document, edit.partId, part => {
    const spec = recipeById(part.recipe)?.parameters.find(p => p.name === edit.name);
    if (!spec) throw new EditRefused(`This recipe has no parameter “${edit.name}”.`);
    const { [edit.name]: _, ...rest } = part.parameters;
    return { ...part, parameters: edit.expression ? { ...rest, [edit.name]: edit.expression } : rest };
  });
}

/** Going from stiff to flexible plastic, or back, changes the wants nobody has touched. */
function withMaterial(
  document: JobDocument,
  partId: string,
  materialId: string,
  workshop: Pick<Workshop, 'materials'>,
): JobDocument {
  const material = workshop.materials.find(m => m.id === materialId);
  if (!material) throw new EditRefused('That material is no longer in the workshop.');
  const changed = withPart(document, partId, part => ({ ...part, materialId }));
  const recipe = recipeById(changed.parts.find(p => p.id === partId)!.recipe);
  return {
    ...changed,
    mates: changed.mates.map(mate => {
      const spec =
        mate.ours.part === partId ? recipe?.mates.find(m => m.id === mate.ours.surface) : undefined;
      if (!spec) return mate;
      const untouched =
        same(mate.want, defaultWant(spec.want)) || same(mate.want, defaultWant(spec.flexibleWant));
      return untouched
        ? {
            ...mate,
            want: defaultWant(material.flexible ? spec.flexibleWant : spec.want),
            soft: material.flexible ? 'ours' : 'none',
          }
        : mate;
    }),
  };
}

export const defaultWant = (name: StandardWant): Want => ({
  name,
  window: DEFAULT_WINDOWS[name],
  prefer: 'none',
});
