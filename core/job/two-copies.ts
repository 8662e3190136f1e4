import { diff, same } from './changes';
import { type Dimension, JobDocument, type Part } from './document';
import { type History, logbook, mergedHistory, rowsOf } from './history';

/** A job as it stands here, or as it is in a bundle. */
export interface Copy {
  document: JobDocument;
  history: History;
}

/** One thing that differs, and its words in either copy. */
export interface Difference {
  what: string;
  here: string;
  there: string;
}

const NOT_THERE = '–';

/** Where two copies of one job differ, thing by thing. */
export const differences = (here: Copy, there: Copy): Difference[] =>
  [
    ...plain('Title', here.document.title, there.document.title),
    ...plain('Object', here.document.object.name, there.document.object.name),
    ...plain('What it is for', here.document.brief.purpose, there.document.brief.purpose),
    ...byId(here.document.dimensions, there.document.dimensions, d => `Readings of “${d.label}”`, readingsOf),
    ...byId(
      here.document.mates,
      there.document.mates,
      m => `Fit of “${m.name}”`,
      m => (m.kind === 'fit' ? m.want.name : `${m.tolerance.min}…${m.tolerance.max}`),
    ),
    ...here.document.parts.flatMap(part => partDifferences(part, partOf(there, part.id))),
    ...there.document.parts.flatMap(part => (partOf(here, part.id) ? [] : partDifferences(undefined, part))),
    ...rest(here.document, there.document),
    ...made(here.history, there.history),
  ].filter(d => d.here !== d.there);

const plain = (what: string, here: string, there: string): Difference[] => [
  { what, here: here || NOT_THERE, there: there || NOT_THERE },
];

function byId<T extends { id: string }>(
  here: readonly T[],
  there: readonly T[],
  what: (item: T) => string,
  words: (item: T) => string,
): Difference[] {
  const said = (item: T | undefined) => (item ? words(item) : NOT_THERE);
  const onlyThere = there.filter(t => here.every(h => h.id !== t.id));
  return [
    ...here.map(h => ({ what: what(h), here: words(h), there: said(there.find(t => t.id === h.id)) })),
    ...onlyThere.map(t => ({ what: what(t), here: NOT_THERE, there: words(t) })),
  ];
}

const readingsOf = ({ readings }: Dimension): string =>
  readings.map(r => (r.struck === null ? r.text : `${r.text} (struck)`)).join(' · ') || 'none';

const partOf = (copy: Copy, id: string) => copy.document.parts.find(p => p.id === id);

function partDifferences(here: Part | undefined, there: Part | undefined): Difference[] {
  const name = (here ?? there)!.name;
  if (!here || !there)
    return [{ what: 'Part', here: here ? name : NOT_THERE, there: there ? name : NOT_THERE }];
  const numbers = [...new Set([...Object.keys(here.parameters), ...Object.keys(there.parameters)])];
  const number = (part: Part, key: string) => part.parameters[key]?.text ?? 'as proposed';
  const others = [
    ...new Set(diff(here, there).flatMap(c => (c.path[0] === 'parameters' ? [] : [c.path[0]!]))),
  ];
  return [
    ...numbers.map(key => ({
      what: `${name}: ${key}`,
      here: number(here, key),
      there: number(there, key),
    })),
    ...differ(others, key => `${name}: ${PART_WORDS[key] ?? key}`),
  ];
}

const PART_WORDS: Record<string, string> = {
  printerId: 'printer',
  materialId: 'plastic',
  keepOpen: 'what stays open',
  goesOn: 'the way on',
};

const REST: Partial<Record<keyof JobDocument, string>> = {
  brief: 'Brief',
  object: 'The object’s note and list',
  photos: 'Photos',
  models: 'Bodies from files',
  scans: 'Scans',
  traces: 'Traced photos',
  threads: 'Threads',
  service: 'Service notes',
};

/** A value too long for two columns is only named. */
function rest(here: JobDocument, there: JobDocument): Difference[] {
  const told = new Set(['object name', 'brief purpose']);
  const keys = diff(here, there)
    .filter(c => !told.has(c.path.slice(0, 2).join(' ')))
    .map(c => c.path[0]!);
  return differ(
    [...new Set(keys)].filter(k => k in REST),
    key => REST[key as keyof JobDocument]!,
  );
}

const differ = (keys: readonly string[], what: (key: string) => string): Difference[] =>
  keys.map(key => ({ what: what(key), here: 'as it is here', there: 'something else' }));

/** What was made and tried in one copy only, or is voided in one of them. */
function made(here: History, there: History): Difference[] {
  const lines = (history: History) => new Map(logbook(history).map(l => [l.row.id, l]));
  const [ours, theirs] = [lines(here), lines(there)];
  const ids = [...new Set([...ours.keys(), ...theirs.keys()])];
  return ids.map(id => {
    const at = (ours.get(id) ?? theirs.get(id))!.row.at.slice(0, 10);
    return {
      what: `Logbook, ${at}`,
      here: ours.get(id)?.words ?? NOT_THERE,
      there: theirs.get(id)?.words ?? NOT_THERE,
    };
  });
}

/** What nobody likes to make twice, by its id, with its value: readings, versions, prints, tries. */
function keptOf({ document, history }: Copy): Map<string, string> {
  const readings = document.dimensions.flatMap(d =>
    d.readings.map(r => [`${d.id} ${r.id}`, JSON.stringify(r)] as const),
  );
  const rows = rowsOf(history).map(({ kind, row }) => [`${kind} ${row.id}`, row.voided ?? ''] as const);
  return new Map([...readings, ...rows]);
}

/** How many readings, versions, prints and tries of one copy the other lacks, or has with another value. */
export function lostBy(copy: Copy, other: Copy): number {
  const there = keptOf(other);
  return [...keptOf(copy)].filter(([id, what]) => there.get(id) !== what).length;
}

/**
 * Both copies merged: readings, dimensions, photos, notes and everything that happened in either; where both give a
 * value and the values differ, ours. Or why they cannot be merged, in words.
 */
export function merged(ours: Copy, theirs: Copy): Copy | { clash: string } {
  const history = mergedHistory(ours.history, theirs.history);
  if ('clash' in history) return history;
  const [here, there] = [ours.document, theirs.document];
  const dimensions = union(here.dimensions, there.dimensions).map(d => {
    const other = there.dimensions.find(t => t.id === d.id);
    return other ? { ...d, readings: union(d.readings, other.readings) } : d;
  });
  const twice = dimensions.find((d, i) => dimensions.findIndex(o => o.name === d.name) !== i);
  if (twice) return { clash: `both have a dimension of their own that is called “${twice.name}”` };
  const document: JobDocument = {
    ...here,
    dimensions,
    photos: union(here.photos, there.photos),
    models: union(here.models, there.models),
    scans: union(here.scans, there.scans),
    ...(here.traces || there.traces ? { traces: union(here.traces ?? [], there.traces ?? []) } : {}),
    threads: union(here.threads, there.threads).filter(t => dimensions.some(d => d.id === t.diameter)),
    service: { ...here.service, notes: union(here.service.notes, there.service.notes) },
  };
  const strange = history.versions.find(v => document.parts.every(p => p.id !== v.partId));
  if (strange) return { clash: 'the bundle has a version of a part that was taken out here' };
  if (!JobDocument.safeParse(document).success)
    return { clash: 'together they are more than one job can hold' };
  return { document, history };
}

const union = <T extends { id: string }>(ours: readonly T[], theirs: readonly T[]): T[] => [
  ...ours,
  ...theirs.filter(t => ours.every(o => o.id !== t.id)),
];

export const sameCopy = (a: Copy, b: Copy): boolean =>
  same(a.document, b.document) && lostBy(a, b) === 0 && lostBy(b, a) === 0;
