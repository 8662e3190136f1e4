import { z } from 'zod';
import { type Gauge, type GaugeSize, gauge, gaugeSize } from './gauge';
import type { RowKind, VoidableRow } from './kind';
import { type Ladder, type LadderTry, ladder, ladderTry } from './ladder';
import { type Look, look } from './look';
import { type Print, print } from './print';
import { type Remark, remark } from './remark';
import { type Rework, rework } from './rework';
import { type Start, start } from './start';
import { type Try, type TryMate, tryRow } from './try';
import { type Version, version } from './version';

/**
 * What was made and tried in a job: append-only rows of several kinds. All that is known of a kind is in its own
 * object; this is the only list that knows all of them. Each kind comes after those that its rows may be about.
 */
const KINDS = [
  version,
  start,
  print,
  tryRow,
  ladder,
  ladderTry,
  look,
  remark,
  rework,
  gauge,
  gaugeSize,
] as const;
type Kind = (typeof KINDS)[number];

/** All rows, list by list, oldest first. */
export type History = { [K in Kind as K['list']]: z.infer<K['schema']>[] };
type ListName = keyof History;

export type HistoryKindName = Kind['kind'];
export const HistoryKindName = z.enum(KINDS.map(k => k.kind));

/** A row with its kind, as it is stored. */
export type HistoryRow = {
  [K in Kind as K['kind']]: { kind: K['kind']; row: z.infer<K['schema']> };
}[HistoryKindName];

export type {
  Gauge,
  GaugeSize,
  Ladder,
  LadderTry,
  Look,
  Print,
  Remark,
  Rework,
  Start,
  Try,
  TryMate,
  Version,
};

/** The kinds as seen by code that treats all of them alike. */
const ALL: readonly RowKind<HistoryKindName, ListName, z.ZodType<VoidableRow>>[] = KINDS.map(
  k => k as RowKind<HistoryKindName, ListName, z.ZodType<VoidableRow>>,
);

type Lists = Record<ListName, VoidableRow[]>;
const lists = (rowsOf: (list: ListName) => VoidableRow[]): History =>
  Object.fromEntries(ALL.map(k => [k.list, rowsOf(k.list)])) as Lists as History;

export const emptyHistory = (): History => lists(() => []);

/** A list that did not exist when the history was written is empty. */
export const History = z.object(
  Object.fromEntries(ALL.map(k => [k.list, z.array(k.schema).default([])])) as {
    [K in Kind as K['list']]: z.ZodDefault<z.ZodArray<K['schema']>>;
  },
);

/** @throws ZodError for a row that does not match its kind */
export function historyOfRows(rows: readonly { kind: string; row: unknown }[]): History {
  return lists(list => {
    const kind = ALL.find(k => k.list === list)!;
    return rows.filter(r => r.kind === kind.kind).map(r => kind.schema.parse(r.row));
  });
}

/** Every row with its kind. */
export const rowsOf = (history: History): HistoryRow[] =>
  ALL.flatMap(k => history[k.list].map(row => ({ kind: k.kind, row }) as HistoryRow));

/** The rows that `keep` accepts; of rows that are about another row, those whose row was kept. */
function kept(
  history: History,
  keep: (row: VoidableRow) => boolean,
  roots: (row: VoidableRow) => boolean,
): History {
  const left: Lists = emptyHistory();
  for (const { list, about } of ALL) {
    const belongs = (row: VoidableRow) => {
      if (!about) return roots(row);
      const other = about(row);
      return left[other.list as ListName].some(r => r.id === other.id);
    };
    left[list] = history[list].filter((row: VoidableRow) => keep(row) && belongs(row));
  }
  return left as History;
}

/** For a job with several parts: the rows that belong to one of them. */
export const historyOf = (history: History, partId: string): History =>
  kept(
    history,
    () => true,
    row => (row as VoidableRow & { partId?: string }).partId === partId,
  );

/** What still counts: rows that are neither voided nor about a voided row. */
export const counting = (history: History): History =>
  kept(
    history,
    row => row.voided === null,
    () => true,
  );

/** The logbook: each row in words. */
export function logbook(history: History): { row: VoidableRow; kind: HistoryKindName; words: string }[] {
  return ALL.flatMap(k =>
    history[k.list].map((row: VoidableRow) => {
      const words = k.words(row, versionOf(history, k, row));
      return {
        row,
        kind: k.kind,
        words: row.voided === null ? words : `${words}; does not count: ${row.voided}`,
      };
    }),
  );
}

/** The number of the version that a row is about. */
function versionOf(history: History, kind: (typeof ALL)[number], row: VoidableRow): number | '?' {
  if (!kind.about) return (row as VoidableRow & { number?: number }).number ?? '?';
  const { list, id } = kind.about(row);
  const above = ALL.find(k => k.list === list)!;
  const about = history[above.list].find((r: VoidableRow) => r.id === id);
  return about ? versionOf(history, above, about) : '?';
}

/** The history with one more row. */
export function withRow(history: History, { kind, row }: HistoryRow): History {
  const { list } = ALL.find(k => k.kind === kind)!;
  return { ...history, [list]: [...history[list], row] };
}

/** The history with one row voided. */
export function withVoided(
  history: History,
  { kind, id, reason }: { kind: HistoryKindName; id: string; reason: string },
): History {
  const { list } = ALL.find(k => k.kind === kind)!;
  const rows = history[list].map((row: VoidableRow) => (row.id === id ? { ...row, voided: reason } : row));
  return { ...history, [list]: rows };
}

/**
 * The combined history of two copies of a job; a row that is voided in either is voided. Or why they cannot be
 * combined: two versions of one part, made separately, would have the same number.
 */
export function mergedHistory(ours: History, theirs: History): History | { clash: string } {
  const both = lists(list => {
    const other = theirs[list] as VoidableRow[];
    const kept = (ours[list] as VoidableRow[]).map(row => ({
      ...row,
      voided: row.voided ?? other.find(o => o.id === row.id)?.voided ?? null,
    }));
    const come = other.filter(o => kept.every(k => k.id !== o.id));
    return [...kept, ...come].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  });
  const name = (v: Version) => `${v.partId} ${v.number}`;
  const twice = both.versions.find((v, i) => both.versions.findIndex(o => name(o) === name(v)) !== i);
  if (twice) return { clash: `a version ${twice.number} was made here, and another one there` };
  return both;
}
