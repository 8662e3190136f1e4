import type { Pose } from '../../core/print/pose';
import type { Solids } from '../solids/solids';
import type { KeptSolid, PlateBed } from '../solids/tasks';

export interface PartOnBed {
  name: string;
  solid: KeptSolid;
  pose: Pose;
  pieces: number;
}

/** Parts side by side as one 3MF; null where they do not all fit on one bed. */
export async function fileOnOneBed(
  parts: readonly PartOnBed[],
  bed: PlateBed,
  words: { title: string; note: string },
  { pool }: Solids,
  owner: string,
): Promise<Uint8Array | null> {
  const bodies = parts.map(({ name, pieces, solid, pose }) => ({
    name,
    pieces,
    of: { kind: 'part' as const, solid, pose },
  }));
  const made = await pool.run('plate', { bodies, bed, file: { bed: 0, ...words } }, { owner });
  return made.beds.length === 1 && made.left.every(n => n === 0) ? made.file : null;
}
