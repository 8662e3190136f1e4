import type { Part } from '../job/document';
import type { Version } from '../job/history';

/** Versions as they came out of each other: a maker may go on from an earlier one, and then there are branches. */

export interface Grown {
  version: Version;
  /** The one that it goes on from; null for the first. */
  from: Version | null;
  /** Each branch has a lane of its own; the first is 0. */
  lane: number;
}

/** The version that the next one goes on from: the one that the maker went back to, while no newer one was made since. */
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
    // A version from before this was kept goes on from the one before it; one whose own does not count any more, too.
    const from = all.find(g => g.version.id === version.follows) ?? all.at(-1);
    const lane = from === undefined || gone.has(from.version.id) ? lanes++ : from.lane;
    if (from) gone.add(from.version.id);
    all.push({ version, from: from?.version ?? null, lane });
  }
  return all;
}
