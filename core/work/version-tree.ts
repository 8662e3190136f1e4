import type { Part } from '../job/document';
import type { Version } from '../job/history';

/** Versions and their ancestry: a maker may continue from an earlier version, which makes branches. */

export interface Grown {
  version: Version;
  /** The version that it was made from; null for the first. */
  from: Version | null;
  /** Each branch has a lane of its own; the first is 0. */
  lane: number;
}

/**
 * The version that the next one will be made from: the one the maker went back to, unless a newer one was made since.
 */
export function baseOf({ base }: Pick<Part, 'base'>, versions: readonly Version[]): Version | null {
  const newest = versions.at(-1) ?? null;
  const wanted = base && base.over === newest?.id ? versions.find(v => v.id === base.version) : undefined;
  return wanted ?? newest;
}

/** @param versions of one part, oldest first */
export function grown(versions: readonly Version[]): Grown[] {
  const all: Grown[] = [];
  const gone = new Set<string>();
  let lanes = 0;
  for (const version of versions) {
    // A version made before ancestry was recorded continues from the one before it; so does one whose own ancestor is
    // voided.
    const from = all.find(g => g.version.id === version.follows) ?? all.at(-1);
    const lane = from === undefined || gone.has(from.version.id) ? lanes++ : from.lane;
    if (from) gone.add(from.version.id);
    all.push({ version, from: from?.version ?? null, lane });
  }
  return all;
}
