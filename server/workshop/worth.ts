import { group } from 'd3-array';
import { and, eq, gte, inArray, isNotNull, or, sql } from 'drizzle-orm';
import type { WorthAnswer } from '../../contract/worth';
import type { HistoryKindName } from '../../core/job/history';
import { type Moment, stageOfPath, stageOfRow } from '../../core/work/hours';
import { type InService, type Made, monthNames, monthsOf, type PrintOfMonth } from '../../core/work/months';
import type { Reader } from '../jobs/repository';
import { edits, history, jobs } from '../store/schema';

/** The number of months that are shown. */
const MONTHS = 12;

/** What was made in the last twelve months: read column by column, since a workshop has thousands of rows. */
export async function readWorth(db: Reader, now: Date): Promise<WorthAnswer> {
  const names = monthNames(now.toISOString(), MONTHS);
  const since = `${names[0]}-01T00:00:00.000Z`;
  const [prints, work, inService] = [
    await readPrints(db, since),
    await readWork(db, since),
    await readInService(db, since),
  ];
  return { months: monthsOf({ prints, work, inService }, names) };
}

const ofRow = <T>(path: string) => sql<T>`json_extract(${history.document}, ${path})`;

async function readPrints(db: Reader, since: string): Promise<PrintOfMonth[]> {
  const voided = db
    .select({ id: history.id })
    .from(history)
    .where(and(eq(history.kind, 'version'), isNotNull(ofRow('$.voided'))));
  const rows = await db
    .select({
      at: history.at,
      pieces: ofRow<number | null>('$.pieces'),
      failed: ofRow<string | null>('$.failed'),
      hours: ofRow<number | null>('$.hours'),
      grams: ofRow<number | null>('$.grams'),
      cost: ofRow<number | null>('$.cost'),
    })
    .from(history)
    .where(
      and(
        eq(history.kind, 'print'),
        gte(history.at, since),
        sql`${ofRow('$.voided')} is null`,
        sql`${ofRow('$.versionId')} not in ${voided}`,
      ),
    );
  return rows.map(row => ({ ...row, pieces: row.pieces ?? 1, failed: row.failed !== null }));
}

/** By job, what was done at it and when: within the period, or all of it where its hours were typed. */
async function readWork(db: Reader, since: string): Promise<Made['work']> {
  const typed = sql<number | null>`json_extract(${jobs.document}, '$.brief.ownHours')`;
  const hours = new Map(
    (await db.select({ id: jobs.id, hours: typed }).from(jobs).where(isNotNull(typed))).map(row => [
      row.id,
      row.hours,
    ]),
  );
  const ids = [...hours.keys()];
  const path = (i: 0 | 2) => sql<string | null>`json_extract(${edits.changes}, ${`$[0].path[${i}]`})`;
  const edited = await db
    .select({ job: edits.jobId, at: edits.at, root: path(0), of: path(2) })
    .from(edits)
    .where(or(gte(edits.at, since), inArray(edits.jobId, ids)));
  const written = await db
    .select({ job: history.jobId, at: history.at, kind: history.kind })
    .from(history)
    .where(or(gte(history.at, since), inArray(history.jobId, ids)));
  const all: (Moment & { job: string })[] = [
    ...edited.flatMap(({ job, at, root, of }) =>
      root === null ? [] : [{ job, at, stage: stageOfPath([root, '', ...(of === null ? [] : [of])]) }],
    ),
    ...written.map(({ job, at, kind }) => ({ job, at, stage: stageOfRow(kind as HistoryKindName) })),
  ];
  return [...group(all, m => m.job)].map(([job, moments]) => ({
    moments,
    typedHours: hours.get(job) ?? null,
  }));
}

async function readInService(db: Reader, since: string): Promise<InService[]> {
  const of = <T>(path: string) => sql<T>`json_extract(${jobs.document}, ${path})`;
  const rows = await db
    .select({
      since: of<string>('$.service.since'),
      price: of<number | null>('$.brief.priceToBuy'),
      wanted: of<number | null>('$.brief.quantity'),
    })
    .from(jobs)
    .where(gte(of('$.service.since'), since));
  return rows.map(({ since: at, price, wanted }) => ({
    since: at,
    price: price === null ? null : price * (wanted ?? 1),
  }));
}
