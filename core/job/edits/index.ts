import { z } from 'zod';
import { same } from '../changes';
import { JobDocument } from '../document';
import {
  addAddition,
  additionFits,
  changeAddition,
  copyAddition,
  moveAddition,
  placeAddition,
  removeAddition,
} from './additions';
import type { EditKind, EditSchema, EditWorkshop } from './define';
import { brief, describeObject, inService, putAway, rename } from './describing';
import { addDimension, derive, describeDimension, removeDimension } from './dimensions';
import { addMate, changeMate, dropMate, mateWith, proposeMate, want } from './mates';
import { addModel, changeModel, removeModel } from './models';
import {
  addPart,
  backTo,
  changeRecipe,
  goesOn,
  material,
  parameter,
  partKeepOpen,
  partLoads,
  partNeighbours,
  pose,
  printer,
  quality,
  removePart,
  renamePart,
} from './parts';
import { addPhoto, labelPhoto, removePhoto } from './photos';
import { addReading, addReadings, strikeReading, takeBackReading } from './readings';
import { addScan, changeScan, removeScan } from './scans';
import { lookAgain, serviceNote } from './service';
import { addThread, removeThread, thread } from './threads';
import { addTrace, changeTrace, removeTrace } from './traces';

/** Every kind of edit. An edit's schema, effect, inverse and words are in its own object. */
export const EDITS = [
  rename,
  describeObject,
  brief,
  addReading,
  takeBackReading,
  strikeReading,
  addReadings,
  addDimension,
  describeDimension,
  derive,
  removeDimension,
  addThread,
  thread,
  removeThread,
  addPhoto,
  labelPhoto,
  removePhoto,
  addModel,
  changeModel,
  removeModel,
  addScan,
  changeScan,
  removeScan,
  addTrace,
  changeTrace,
  removeTrace,
  want,
  parameter,
  addAddition,
  copyAddition,
  changeAddition,
  moveAddition,
  placeAddition,
  removeAddition,
  additionFits,
  addPart,
  changeRecipe,
  backTo,
  renamePart,
  removePart,
  mateWith,
  addMate,
  changeMate,
  dropMate,
  proposeMate,
  partLoads,
  partNeighbours,
  partKeepOpen,
  goesOn,
  material,
  printer,
  pose,
  quality,
  putAway,
  inService,
  lookAgain,
  serviceNote,
] as const;

type Schema = (typeof EDITS)[number]['schema'];

const [first, ...more] = EDITS.map((e): Schema => e.schema);
export const Edit = z.discriminatedUnion('kind', [first!, ...more]);
export type Edit = z.infer<Schema>;

type AnyEdit = EditKind<EditSchema>;
const byKind = new Map(EDITS.map(e => [e.schema.shape.kind.value as string, e as AnyEdit]));

/** @throws RangeError for a kind that is not in the list; `Edit.parse` never lets one through */
export function editKind(edit: Pick<Edit, 'kind'>): AnyEdit {
  const found = byKind.get(edit.kind);
  if (!found) throw new RangeError(`There is no edit “${edit.kind}”.`);
  return found;
}

/**
 * The document after an edit, validated once.
 * @throws EditRefused when it names something that does not exist, ZodError when the result breaks a bound
 */
export const applyEdit = (document: JobDocument, edit: Edit, workshop: EditWorkshop): JobDocument =>
  JobDocument.parse(editKind(edit).apply(document, edit, workshop));

export const wordsFor = (edit: Edit, document: JobDocument): string => editKind(edit).words(edit, document);

/** Whether the document already has what the edit would do: it may have been saved although no answer came back. */
export function isThere(document: JobDocument, edit: Edit, workshop: EditWorkshop): boolean {
  const kind = editKind(edit);
  if (kind.isThere) return kind.isThere(document, edit);
  return same(kind.apply(document, edit, workshop), document);
}
