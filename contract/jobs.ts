import { z } from 'zod';
import { JobDocument, Photo } from '../core/job/document';
import { Edit } from '../core/job/edits';
import { Id, MOST_PIECES } from '../core/job/fields';
import { History, HistoryKindName } from '../core/job/history';
import { GaugeSize } from '../core/job/history/gauge';
import { LadderTry } from '../core/job/history/ladder';
import { Look } from '../core/job/history/look';
import { Print } from '../core/job/history/print';
import { Remark } from '../core/job/history/remark';
import { Rework } from '../core/job/history/rework';
import { Try, TryMate } from '../core/job/history/try';
import { Version } from '../core/job/history/version';
import { Scan } from '../core/job/scans';
import { STAGES } from '../core/work/stages';

export const CreateJob = z.object({
  title: z.string().trim().min(1, 'Give the job a name.').max(300, 'At most 300 characters.'),
  recipe: z.string().max(60),
  object: z.string().trim().max(300, 'At most 300 characters.').optional(),
  materialId: Id.optional(),
});

/** A job made from another one, for another object. */
export const MakeAgain = CreateJob.pick({ title: true, object: true });

/** What an undo or redo would do, for its button. */
const Reversible = z.object({ editId: z.string(), words: z.string() }).nullable();

export const JobView = z.object({
  id: Id,
  /** On the tag. */
  number: z.number().int(),
  revision: z.number().int(),
  createdAt: z.string(),
  updatedAt: z.string(),
  document: JobDocument,
  history: History,
});
export const JobAnswer = JobView.extend({ undo: Reversible, redo: Reversible });

/** A new row of the history, with its kind. */
const AddedRow = z.object({
  kind: HistoryKindName,
  row: z.object({ id: Id }).loose(),
});

/** What a request changed in a job: the window already has the rest. */
export const JobChange = z.object({
  revision: z.number().int(),
  updatedAt: z.string(),
  /** Values of the document, in the order in which they are applied. */
  changes: z.array(
    z.object({
      path: z.array(z.string()).readonly(),
      before: z.unknown().optional(),
      after: z.unknown().optional(),
      index: z.number().int().optional(),
    }),
  ),
  added: z.array(AddedRow),
  voided: z.object({ kind: HistoryKindName, id: Id, reason: z.string() }).nullable(),
  undo: Reversible,
  redo: Reversible,
});

export const EditRequest = z.object({
  /** The revision that the maker saw. */
  revision: z.number().int(),
  edit: Edit,
});
export const UndoRequest = z.object({ editId: z.string() });

export const Activity = z.object({
  id: z.string(),
  at: z.string(),
  kind: z.string(),
  words: z.string(),
});

/** Minutes that the maker spent at each stage. */
export const HoursAnswer = z.object({ minutes: z.record(z.enum(STAGES), z.number()) });
export type HoursAnswer = z.infer<typeof HoursAnswer>;

export const PhotoAnswer = z.object({ photo: Photo, revision: z.number().int() });
export const ScanAnswer = z.object({ scan: Scan, revision: z.number().int() });

/** Both sides of an edit that came too late. */
export const Conflict = z.object({
  current: JobAnswer,
  /** What was done meanwhile, in words. */
  theirs: z.array(z.string()),
  yours: z.string(),
});

export const MakeVersion = z.object({
  revision: z.number().int(),
  partId: Id,
  accepted: Version.shape.accepted.default([]),
  /** The id under which its steps are reported and by which it is cancelled. */
  buildId: z.string().max(40).optional(),
});
export const RecordPrint = z.object({
  versionId: Id,
  pieces: Print.shape.pieces,
  hours: Print.shape.hours.default(null),
  grams: Print.shape.grams.default(null),
  cost: Print.shape.cost.default(null),
  note: z.string().max(2000).default(''),
  spool: Print.shape.spool,
  sliced: Print.shape.sliced,
  photos: Print.shape.photos,
  failed: Print.shape.failed,
  slice: Print.shape.slice,
  hand: Print.shape.hand,
  finished: Print.shape.finished,
});
export const RecordStart = RecordPrint.pick({ versionId: true, pieces: true, hand: true, slice: true });
export const RecordTry = z
  .object({
    printId: Id,
    mates: z.record(Id, TryMate),
    happened: Try.shape.happened,
    photos: Try.shape.photos,
    by: Try.shape.by,
    note: z.string().max(2000).default(''),
  })
  .refine(t => Object.keys(t.mates).length + t.happened.length > 0, {
    message: 'Say how at least one surface feels, or what happened.',
    path: ['mates'],
  });
export const RecordRemark = Remark.omit({ id: true, at: true, voided: true });
export const RecordRework = Rework.omit({ id: true, at: true, voided: true });
export const RecordLook = Look.omit({ id: true, at: true, voided: true });
export const MakeLadder = z.object({ mateId: Id, partId: Id });
export const MakeGauge = MakeLadder;
export const RecordGaugeSize = GaugeSize.omit({ id: true, at: true, voided: true });
export const RecordLadderTry = z.object({
  ladderId: Id,
  verdicts: LadderTry.shape.verdicts.refine(v => v.some(x => x !== null), 'Say how at least one ring feels.'),
});
export const VoidRow = z.object({
  kind: HistoryKindName,
  id: Id,
  reason: z.string().trim().min(1, 'Say why it does not count.').max(300, 'At most 300 characters.'),
});

export type JobView = z.infer<typeof JobView>;
export type JobAnswer = z.infer<typeof JobAnswer>;
export type Conflict = z.infer<typeof Conflict>;
export type PhotoAnswer = z.infer<typeof PhotoAnswer>;
export type ScanAnswer = z.infer<typeof ScanAnswer>;
export type Activity = z.infer<typeof Activity>;
export type JobChange = z.infer<typeof JobChange>;
export { Print, Try, Version };

/** How a number of pieces fits onto a bed. */
/** Several pieces of a version: beds, and time and plastic where its solid can be built. */
export const Batch = z.object({
  onOneBed: z.number().int(),
  beds: z.number().int(),
  hours: z.number(),
  grams: z.number(),
  cost: z.number(),
});
export type Batch = z.infer<typeof Batch>;
/** How many of them: part of a query. */
export const PiecesAsked = z.object({ pieces: z.coerce.number().int().min(1).max(MOST_PIECES) });
