import { and, desc, eq, sql } from 'drizzle-orm';
import { ulid } from 'ulid';
import type { JobView } from '../../contract/jobs';
import type { Print, Start, Version } from '../../core/job/history';
import { counting } from '../../core/job/history';
import { Print as PrintRow } from '../../core/job/history/print';
import type { Workshop } from '../../core/job/workshop';
import {
  machineOf,
  paceOfPrinter,
  rulesOf,
  settingsOf,
  type Takes,
  takesOf,
} from '../../core/print/of-printer';
import type { NotedPrint } from '../../core/print/pace';
import { condensed, type Estimate } from '../../core/print/time';
import { endedBy, hoursBetween } from '../../core/work/running';
import { HttpError, notFound } from '../errors';
import type { Solids } from '../solids/solids';
import type { SliceMade } from '../solids/tasks';
import { history } from '../store/schema';
import { sizesNote } from './file-names';
import type { Reader } from './repository';
import { filesOf, type Makers, versionName } from './versions';

export interface PrintWish {
  versionId: string;
  pieces: number;
  hours: number | null;
  grams: number | null;
  cost: number | null;
  note: string;
  spool?: Print['spool'];
  sliced?: Print['sliced'];
  photos?: Print['photos'];
  failed: Print['failed'];
  slice: Print['slice'];
  hand?: Print['hand'];
  finished?: Print['finished'];
}

/** A printer's pace is best judged from its latest prints. */
const MOST_NOTED = 8;
/** How many rows are searched for them. */
const MOST_READ = 60;

/** A phone's clock may differ from this one's by this, ms. */
const CLOCKS_APART = 10 * 60_000;

export const printerOf = ({ printerId }: Pick<Version, 'printerId'>, { printers }: Workshop) =>
  printers.find(p => p.id === printerId) ?? printers[0]!;

const materialOf = ({ materialId }: Pick<Version, 'materialId'>, { materials }: Workshop) =>
  materials.find(m => m.id === materialId) ?? materials[0]!;

/** Prints whose hours were noted, by printer, the latest first. */
export async function notedPrints(db: Reader): Promise<Record<string, NotedPrint[]>> {
  const rows = await db
    .select({ document: history.document })
    .from(history)
    .where(and(eq(history.kind, 'print'), sql`json_extract(${history.document}, '$.noted') = 1`))
    .orderBy(desc(history.at))
    .limit(MOST_READ);
  const noted: Record<string, NotedPrint[]> = {};
  for (const { document } of rows) {
    const { expected, hours, pieces, voided, failed, practice } = PrintRow.parse(JSON.parse(document));
    if (!expected || !hours || pieces > 1 || voided || failed || practice) continue;
    const own = noted[expected.printerId] ?? [];
    if (own.length < MOST_NOTED) own.push({ expected, took: 3600 * hours });
    noted[expected.printerId] = own;
  }
  return noted;
}

/** Time and plastic of a version in its pose, quality and printer; null where its solid cannot be built. */
export async function estimateOfVersion(
  version: Version,
  workshop: Workshop,
  solids: Solids,
  owner: string,
): Promise<Estimate | null> {
  const solid = await solids.built(version, { owner });
  if (!solid.ok) return null;
  const printer = printerOf(version, workshop);
  const asked = {
    solid,
    pose: version.pose,
    settings: settingsOf(printer, version.quality),
    machine: machineOf(printer),
    rules: rulesOf(printer),
  };
  return (await solids.pool.run('estimate', asked, { owner })).estimate;
}

/** A slice of a version that carries some of its mates. @throws HttpError where there is no such mate */
export async function sliceOfVersion(
  job: JobView,
  version: Version,
  mateIds: readonly string[],
  workshop: Workshop,
  solids: Solids,
): Promise<SliceMade> {
  const ids = [...new Set(mateIds)];
  const surfaces = ids.flatMap(id => version.mates.find(m => m.mateId === id)?.surface ?? []);
  if (surfaces.length < ids.length) throw notFound('That surface of the version');
  const solid = await solids.built(version, { owner: job.id });
  if (!solid.ok) return { ok: false, why: solid.findings[0]?.message ?? 'The solid could not be built.' };
  const printer = printerOf(version, workshop);
  const asked = {
    solid,
    surfaces,
    words: { name: `${versionName(job, version)}, slice`, note: sizesNote(version, workshop) },
    pose: version.pose,
    settings: settingsOf(printer, version.quality),
    machine: machineOf(printer),
  };
  return (await solids.pool.run('slice', asked, { owner: job.id })).slice;
}

/** Time and plastic of several pieces of a version, by what is known of its printer. */
export const takesOfVersion = (
  estimate: Estimate,
  version: Version,
  pieces: number,
  workshop: Workshop,
  noted: Readonly<Record<string, readonly NotedPrint[]>>,
): Takes => {
  const printer = printerOf(version, workshop);
  const pace = paceOfPrinter(printer, noted[printer.id] ?? []);
  return takesOf(estimate, pace, materialOf(version, workshop), pieces);
};

/** A print row: its files are those of its version; values that were not typed are the expected ones. */
export async function preparePrint(
  job: JobView,
  wish: PrintWish,
  practice: boolean,
  workshop: Workshop,
  { db, solids }: { db: Reader; solids: Solids },
): Promise<Print> {
  if (wish.finished && Date.parse(wish.finished) > Date.now() + CLOCKS_APART)
    throw new HttpError(
      400,
      'bad-input',
      'It cannot have come off the printer in the future: check the time.',
    );
  const { version, slice, estimate, takes } = await wished(job, wish, workshop, { db, solids });
  const before = job.history.prints.find(p => p.versionId === version.id);
  // The practice printer has its own pace.
  const hand = wish.hand ?? 'drawn';
  const start = practice ? null : endedBy(job.history, { ...wish, hand });
  const hours = wish.hours ?? hoursBetween(start, wish.finished ?? null);
  const grams = wish.grams ?? (takes && Number(takes.grams.toFixed(1)));
  const { pricePerKg } = materialOf(version, workshop);
  return {
    id: ulid(),
    at: new Date().toISOString(),
    voided: null,
    versionId: version.id,
    number: job.history.prints.length + 1,
    pieces: wish.pieces,
    hours: hours ?? (takes && Number(takes.hours.toFixed(2))),
    grams,
    cost: wish.cost ?? (grams === null ? null : Number(((grams / 1000) * pricePerKg).toFixed(2))),
    noted: hours !== null,
    expected: estimate && {
      printerId: printerOf(version, workshop).id,
      times: condensed(estimate.times),
      start: estimate.start,
    },
    note: wish.note,
    spool: wish.spool ?? '',
    sliced: wish.sliced ?? {},
    photos: wish.photos ?? [],
    failed: wish.failed,
    practice,
    slice: wish.slice,
    hand,
    ...(start ? { start: start.id } : {}),
    finished: wish.finished ?? null,
    // A version from before files were stored gets them with its first print.
    files:
      slice || wish.hand === 'other'
        ? {}
        : Object.keys(version.files).length > 0
          ? version.files
          : (before?.files ?? {}),
  };
}

/** What is to be printed, with time and plastic. @throws HttpError where there is no such version or slice */
async function wished(
  job: JobView,
  wish: Pick<Start, 'versionId' | 'pieces' | 'slice'>,
  workshop: Workshop,
  { db, solids }: { db: Reader; solids: Solids },
) {
  const version = counting(job.history).versions.find(v => v.id === wish.versionId);
  if (!version) throw notFound('That version');
  const slice = wish.slice === null ? null : await sliceOfVersion(job, version, wish.slice, workshop, solids);
  if (slice && !slice.ok) throw new HttpError(422, 'no-slice', slice.why);
  const estimate = slice ? slice.estimate : await estimateOfVersion(version, workshop, solids, job.id);
  const takes = estimate && takesOfVersion(estimate, version, wish.pieces, workshop, await notedPrints(db));
  return { version, slice, estimate, takes };
}

/** Starts a print on the printer. @throws HttpError where there is no such version or slice */
export async function prepareStart(
  job: JobView,
  wish: Pick<Start, 'versionId' | 'pieces' | 'hand' | 'slice'>,
  workshop: Workshop,
  { db, solids }: { db: Reader; solids: Solids },
): Promise<Start> {
  const { takes } = await wished(job, wish, workshop, { db, solids });
  return {
    ...wish,
    id: ulid(),
    at: new Date().toISOString(),
    voided: null,
    expectedHours: takes && Number(takes.hours.toFixed(2)),
  };
}

/**
 * Files of a version from before files were stored with it: made with its first print, or none where they cannot be.
 */
export async function printFiles(
  job: JobView,
  print: Print,
  workshop: Workshop,
  makers: Makers,
): Promise<Print['files']> {
  const version = job.history.versions.find(v => v.id === print.versionId);
  if (!version || print.slice !== null || print.hand === 'other' || Object.keys(print.files).length > 0)
    return print.files;
  try {
    return (await filesOf(job, version, workshop, makers, { owner: job.id })).files;
  } catch (error) {
    // It is printed: record it even if the solid cannot be built today.
    if (error instanceof HttpError) return {};
    throw error;
  }
}
