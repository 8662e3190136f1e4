import { z } from 'zod';
import { Addition } from '../shape/additions/addition';
import { softSideOf } from '../shape/mates';
import { recipeById } from '../shape/recipes';
import { same } from './changes';
import { derivedProblem, usersOf } from './derived';
import {
  Brief,
  Derived,
  Dimension,
  Id,
  JobDocument,
  Mark,
  MateSide,
  MeasuredThread,
  Model,
  ParameterText,
  Part,
  Photo,
  Pose,
  Reading,
  Want,
} from './document';
import { defaultWant, EditRefused, requireDimension, withPart } from './edit-tools';
import { changedModel, withModel, withoutModel } from './model-edits';
import { withNewPart } from './new-job';
import {
  changedAddition,
  mateWith,
  movedAddition,
  withAddition,
  withFit,
  withoutAddition,
  withoutPart,
} from './part-edits';
import { recipeOf } from './parts';
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
    goneAt: z.iso.datetime().nullable().optional(),
    toRead: JobDocument.shape.object.shape.toRead.optional(),
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
  z.object({
    kind: z.literal('add-readings'),
    readings: z
      .array(z.object({ dimensionId: Id, reading: Reading }))
      .min(1, 'There is no reading in it.')
      .max(2000, 'At most 2000 readings at once.'),
  }),
  z.object({ kind: z.literal('add-dimension'), dimension: Dimension }),
  z.object({
    kind: z.literal('describe-dimension'),
    dimensionId: Id,
    label: Dimension.shape.label.optional(),
    critical: z.boolean().optional(),
    note: z.string().max(4000).optional(),
    mark: Mark.nullable().optional(),
    correctJaws: z.boolean().optional(),
  }),
  z.object({ kind: z.literal('derive'), dimensionId: Id, derived: Derived.nullable() }),
  z.object({ kind: z.literal('remove-dimension'), dimensionId: Id }),
  z.object({
    kind: z.literal('add-thread'),
    thread: MeasuredThread,
    dimensions: z.array(Dimension).min(2).max(4),
  }),
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
  z.object({ kind: z.literal('remove-thread'), threadId: Id }),
  z.object({ kind: z.literal('add-photo'), photo: Photo }),
  z.object({ kind: z.literal('label-photo'), photoId: Id, label: Photo.shape.label }),
  z.object({ kind: z.literal('remove-photo'), photoId: Id }),
  z.object({ kind: z.literal('add-model'), model: Model }),
  z.object({
    kind: z.literal('model'),
    modelId: Id,
    change: Model.pick({ label: true, factor: true }).partial(),
  }),
  z.object({ kind: z.literal('remove-model'), modelId: Id }),
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
    expression: ParameterText.nullable(),
  }),
  z.object({
    kind: z.literal('add-addition'),
    partId: Id,
    addition: Addition.omit({ order: true, fits: true }),
  }),
  z.object({
    kind: z.literal('addition'),
    partId: Id,
    additionId: Addition.shape.id,
    change: Addition.pick({ name: true, on: true }).partial(),
  }),
  z.object({
    kind: z.literal('move-addition'),
    partId: Id,
    additionId: Addition.shape.id,
    by: z.union([z.literal(-1), z.literal(1)]),
  }),
  z.object({ kind: z.literal('remove-addition'), partId: Id, additionId: Addition.shape.id }),
  z.object({
    kind: z.literal('addition-fits'),
    partId: Id,
    additionId: Addition.shape.id,
    /** The object's dimension; null where it is to fit nothing any more. */
    dimensionId: Id.nullable(),
  }),
  z.object({
    kind: z.literal('add-part'),
    id: Id,
    name: Part.shape.name,
    recipe: z.string().max(60),
    /** Whether it is measured where the other parts are. */
    share: z.boolean(),
  }),
  z.object({ kind: z.literal('rename-part'), partId: Id, name: Part.shape.name }),
  z.object({ kind: z.literal('remove-part'), partId: Id }),
  z.object({ kind: z.literal('mate-with'), mateId: Id, other: MateSide }),
  z.object({ kind: z.literal('part-loads'), partId: Id, loads: Part.shape.loads }),
  z.object({ kind: z.literal('part-neighbours'), partId: Id, neighbours: Part.shape.neighbours }),
  z.object({ kind: z.literal('goes-on'), partId: Id, goesOn: Part.shape.goesOn }),
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

/** @throws EditRefused when it names what is not there, ZodError when the result breaks a bound */
export function applyEdit(
  document: JobDocument,
  edit: Edit,
  workshop: Pick<Workshop, 'materials' | 'printers' | 'windows'>,
): JobDocument {
  return JobDocument.parse(edited(document, edit, workshop));
}

function edited(
  document: JobDocument,
  edit: Edit,
  workshop: Pick<Workshop, 'materials' | 'printers' | 'windows'>,
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
      return withReading(document, edit.dimensionId, edit.reading);
    case 'add-readings':
      return edit.readings.reduce((next, r) => withReading(next, r.dimensionId, r.reading), document);
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
      return withNewDimension(document, edit.dimension);
    case 'describe-dimension': {
      const { kind: _, dimensionId, mark, ...patch } = edit;
      if (mark && mark.on !== 'drawing' && !document.photos.some(p => p.id === mark.on))
        throw new EditRefused('That photo is no longer there.');
      return withDimension(document, dimensionId, d => {
        if (d.guide && patch.label !== undefined) throw new EditRefused('The recipe names this dimension.');
        const { mark: before, ...rest } = { ...d, ...patch };
        const after = mark === undefined ? before : (mark ?? undefined);
        return after ? { ...rest, mark: after } : rest;
      });
    }
    case 'derive':
      return withDimension(document, edit.dimensionId, d => {
        const { derived: _, ...rest } = d;
        if (!edit.derived) return rest;
        const problem = derivedProblem(d, edit.derived, document);
        if (problem) throw new EditRefused(problem.message);
        return { ...rest, derived: edit.derived };
      });
    case 'remove-dimension':
      return withoutDimension(document, edit.dimensionId);
    case 'add-thread':
      return withThread(document, edit.thread, edit.dimensions);
    case 'thread':
      requireThread(document, edit.threadId);
      return {
        ...document,
        threads: document.threads.map(t => (t.id === edit.threadId ? { ...t, ...edit.change } : t)),
      };
    case 'remove-thread': {
      const thread = requireThread(document, edit.threadId);
      const without = { ...document, threads: document.threads.filter(t => t.id !== thread.id) };
      return [thread.diameter, thread.span, thread.ridgeHeight, thread.ridgeWidth].reduce(
        (next, id) => (id === null ? next : withoutDimension(next, id)),
        without,
      );
    }
    case 'add-photo':
      if (document.photos.some(p => p.id === edit.photo.id))
        throw new EditRefused('This photo is already there.');
      return { ...document, photos: [...document.photos, edit.photo] };
    case 'label-photo':
      requirePhoto(document, edit.photoId);
      return {
        ...document,
        photos: document.photos.map(p => (p.id === edit.photoId ? { ...p, label: edit.label } : p)),
      };
    case 'remove-photo':
      requirePhoto(document, edit.photoId);
      return {
        ...document,
        photos: document.photos.filter(p => p.id !== edit.photoId),
        // Marks on it go with it.
        dimensions: document.dimensions.map(d => {
          if (d.mark?.on !== edit.photoId) return d;
          const { mark: _, ...rest } = d;
          return rest;
        }),
      };
    case 'add-model':
      return withModel(document, edit.model);
    case 'model':
      return changedModel(document, edit.modelId, edit.change);
    case 'remove-model':
      return withoutModel(document, edit.modelId);
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
    case 'add-addition':
      return withAddition(document, edit);
    case 'addition':
      return changedAddition(document, edit.partId, edit.additionId, a => ({ ...a, ...edit.change }));
    case 'move-addition':
      return movedAddition(document, edit.partId, edit.additionId, edit.by);
    case 'remove-addition':
      return withoutAddition(document, edit.partId, edit.additionId);
    case 'addition-fits':
      return withFit(document, edit, workshop);
    case 'add-part':
      if (document.parts.some(p => p.id === edit.id)) throw new EditRefused('This part is already there.');
      if (!recipeById(edit.recipe))
        throw new EditRefused(`There is no recipe “${edit.recipe}”: choose one from the list.`);
      return withNewPart(document, edit, workshop);
    case 'rename-part':
      return withPart(document, edit.partId, part => ({ ...part, name: edit.name }));
    case 'remove-part':
      return withoutPart(document, edit.partId);
    case 'mate-with':
      return mateWith(document, edit.mateId, edit.other);
    case 'part-loads':
      return withPart(document, edit.partId, part => ({ ...part, loads: edit.loads }));
    case 'part-neighbours':
      return withPart(document, edit.partId, part => ({ ...part, neighbours: edit.neighbours }));
    case 'goes-on':
      return withPart(document, edit.partId, part => ({ ...part, goesOn: edit.goesOn }));
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

function withReading(document: JobDocument, dimensionId: string, reading: Reading): JobDocument {
  return withDimension(document, dimensionId, d => {
    if (d.readings.some(r => r.id === reading.id)) throw new EditRefused('This reading is already there.');
    if (reading.value <= 0) throw new EditRefused('A size is above 0: take the reading again.');
    return { ...d, readings: [...d.readings, reading] };
  });
}

function withNewDimension(document: JobDocument, dimension: Dimension): JobDocument {
  if (document.dimensions.some(d => d.name === dimension.name || d.id === dimension.id)) {
    throw new EditRefused(`There is a dimension “${dimension.name}” already: take another name.`);
  }
  const problem = dimension.derived ? derivedProblem(dimension, dimension.derived, document) : null;
  if (problem) throw new EditRefused(problem.message);
  return { ...document, dimensions: [...document.dimensions, dimension] };
}

function withoutDimension(document: JobDocument, id: string): JobDocument {
  if (requireDimension(document, id).guide) {
    throw new EditRefused('The recipe needs this dimension: only your own can be removed.');
  }
  const users = usersOf(id, document);
  if (users.length > 0) {
    throw new EditRefused(`“${users[0]}” is made from it: work that out another way first.`);
  }
  return { ...document, dimensions: document.dimensions.filter(d => d.id !== id) };
}

function withThread(document: JobDocument, thread: MeasuredThread, dimensions: Dimension[]): JobDocument {
  if (document.threads.some(t => t.id === thread.id)) throw new EditRefused('This thread is already there.');
  const next = dimensions.reduce(withNewDimension, document);
  for (const id of [thread.diameter, thread.span, thread.ridgeHeight, thread.ridgeWidth]) {
    if (id !== null) requireDimension(next, id);
  }
  return { ...next, threads: [...next.threads, thread] };
}

function requireThread(document: JobDocument, id: string): MeasuredThread {
  const found = document.threads.find(t => t.id === id);
  if (!found) throw new EditRefused('That thread is no longer there.');
  return found;
}

function requirePhoto(document: JobDocument, id: string): void {
  if (!document.photos.some(p => p.id === id)) throw new EditRefused('That photo is no longer there.');
}

function withDimension(document: JobDocument, id: string, change: (d: Dimension) => Dimension): JobDocument {
  requireDimension(document, id);
  return { ...document, dimensions: document.dimensions.map(d => (d.id === id ? change(d) : d)) };
}

function requireReading(dimension: Dimension, id: string): void {
  if (!dimension.readings.some(r => r.id === id)) throw new EditRefused('That reading is no longer there.');
}

function withParameter(document: JobDocument, edit: Extract<Edit, { kind: 'parameter' }>): JobDocument {
  return withPart(document, edit.partId, part => {
    const spec = recipeOf(part).parameters.find(p => p.name === edit.name);
    if (!spec) throw new EditRefused(`This part has no parameter “${edit.name}”.`);
    const { [edit.name]: _, ...rest } = part.parameters;
    return { ...part, parameters: edit.expression ? { ...rest, [edit.name]: edit.expression } : rest };
  });
}

/** Going from stiff to flexible plastic, or back, changes the wants nobody has touched. */
function withMaterial(
  document: JobDocument,
  partId: string,
  materialId: string,
  workshop: Pick<Workshop, 'materials' | 'windows'>,
): JobDocument {
  const material = workshop.materials.find(m => m.id === materialId);
  if (!material) throw new EditRefused('That material is no longer in the workshop.');
  const changed = withPart(document, partId, part => ({ ...part, materialId }));
  const recipe = recipeOf(changed.parts.find(p => p.id === partId)!);
  return {
    ...changed,
    mates: changed.mates.map(mate => {
      const spec = mate.ours.part === partId ? recipe.mates.find(m => m.id === mate.ours.surface) : undefined;
      if (!spec) return mate;
      const untouched =
        same(mate.want, defaultWant(spec.want, workshop)) ||
        same(mate.want, defaultWant(spec.flexibleWant, workshop));
      return untouched
        ? {
            ...mate,
            want: defaultWant(material.flexible ? spec.flexibleWant : spec.want, workshop),
            soft: softSideOf(spec, material.flexible),
          }
        : mate;
    }),
  };
}
