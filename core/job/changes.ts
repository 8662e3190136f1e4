/**
 * What an edit changed, value by value. The inverse of an edit is the same list with before and after exchanged.
 * Members of a list are addressed by their `id`, so that edits to two different readings never collide. An absent value
 * is `undefined` here and is left out in JSON.
 */
export interface Change {
  /** Keys from the root; `#id` is the list member with that id. */
  path: readonly string[];
  before?: unknown;
  after?: unknown;
  /** For a list member that was added or removed: its position. */
  index?: number;
}

type Json = unknown;
type Identified = { id: string };

/** Changes that lead from one document to another, in an order in which they can be applied. */
export function diff(before: Json, after: Json, path: readonly string[] = []): Change[] {
  if (same(before, after)) return [];
  if (isIdList(before) && isIdList(after)) {
    const gone = before.flatMap((item, index) =>
      after.some(a => a.id === item.id)
        ? []
        : [{ path: [...path, `#${item.id}`], before: item as Json, index }],
    );
    // Last first, so that the inverse puts them back first to last, each in its place.
    gone.reverse();
    const come = after.flatMap((item, index) =>
      before.some(b => b.id === item.id)
        ? []
        : [{ path: [...path, `#${item.id}`], after: item as Json, index }],
    );
    const kept = after.flatMap(item => {
      const old = before.find(b => b.id === item.id);
      return old ? diff(old, item, [...path, `#${item.id}`]) : [];
    });
    return [...gone, ...kept, ...come];
  }
  if (isRecord(before) && isRecord(after)) {
    const keys = new Set([...Object.keys(before), ...Object.keys(after)]);
    return [...keys].flatMap(key => diff(before[key], after[key], [...path, key]));
  }
  return [{ path, before, after }];
}

export type Applied = { ok: true; document: Json } | { ok: false; conflict: Change };

/** Applies changes, refusing when a value is no longer what the change expects to find. */
export function applyChanges(document: Json, changes: readonly Change[]): Applied {
  let result = document;
  for (const change of changes) {
    if (!same(valueAt(result, change.path), change.before)) return { ok: false, conflict: change };
    result = put(result, change.path, change);
  }
  return { ok: true, document: result };
}

export const invert = (changes: readonly Change[]): Change[] =>
  changes.map(({ path, before, after, index }) => ({ path, before: after, after: before, index })).reverse();

export function valueAt(document: Json, path: readonly string[]): Json {
  return path.reduce<Json>((value, key) => child(value, key), document);
}

function child(value: Json, key: string): Json {
  if (Array.isArray(value)) return value.find(item => key === `#${(item as Identified).id}`);
  return isRecord(value) ? value[key] : undefined;
}

function put(value: Json, path: readonly string[], change: Change): Json {
  const [key, ...rest] = path;
  if (key === undefined) return change.after;
  const next = put(child(value, key), rest, change);
  if (Array.isArray(value)) {
    const at = value.findIndex(item => key === `#${(item as Identified).id}`);
    if (next === undefined) return value.filter((_, i) => i !== at);
    if (at >= 0) return value.map((item, i) => (i === at ? next : item));
    const place = Math.min(change.index ?? value.length, value.length);
    return [...value.slice(0, place), next, ...value.slice(place)];
  }
  const copy: Record<string, Json> = { ...(value as Record<string, Json>) };
  if (next === undefined) delete copy[key];
  else copy[key] = next;
  return copy;
}

const isRecord = (value: Json): value is Record<string, Json> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A list is addressed by ids only when every member has one; an empty list counts as such. */
const isIdList = (value: Json): value is Identified[] =>
  Array.isArray(value) && value.every(item => isRecord(item) && typeof item.id === 'string');

export function same(a: Json, b: Json): boolean {
  if (Object.is(a, b)) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((item, i) => same(item, b[i]));
  if (isRecord(a) && isRecord(b)) {
    const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
    return [...keys].every(key => same(a[key], b[key]));
  }
  return false;
}
