import { group } from 'd3-array';
import { and, eq, gte, isNotNull, sql } from 'drizzle-orm';
import type { WorthAnswer } from '../../contract/worth';
import type { HistoryKindName } from '../../core/job/history';
import { type Moment, stageOfPath, stageOfRow } from '../../core/work/hours';
import { type InService, monthNames, monthsOf, type PrintOfMonth } from '../../core/work/months';
import type { Reader } from '../jobs/repository';
import { edits, history, jobs } from '../store/schema';

/** So many months are looked back at. */
const MONTHS = 12;

/** What was made in the last twelve months: read column by column, since a workshop has thousands of rows. */
export async function readWorth(db: Reader, now: Date): Promise<WorthAnswer> {
  const names = monthNames(now.toISOString(), MONTHS);
  const since = `${names[0]}-01T00:00:00.000Z`;
  const [prints, moments, inService] = [
    await readPrints(db, since),
    await readAllMoments(db, since),
    await readInService(db, since),
  ];
  return { months: monthsOf({ prints, moments, inService }, names) };
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

/** By job, what was done at it and when. */
async function readAllMoments(db: Reader, since: string): Promise<Moment[][]> {
  const path = (i: 0 | 2) => sql<string | null>`json_extract(${edits.changes}, ${`$[0].path[${i}]`})`;
  const edited = await db
    .select({ job: edits.jobId, at: edits.at, root: path(0), of: path(2) })
    .from(edits)
    .where(gte(edits.at, since));
  const written = await db
    .select({ job: history.jobId, at: history.at, kind: history.kind })
    .from(history)
    .where(gte(history.at, since));
  const all = [
    ...edited.flatMap(({ job, at, root, of }) =>
      root === null ? [] : [{ job, at, stage: stageOfPath([root, '', ...(of === null ? [] : [of])]) }],
    ),
    ...written.map(({ job, at, kind }) => ({ job, at, stage: stageOfRow(kind as HistoryKindName) })),
  ];
  return [...group(all, m => m.job).values()];
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
