import type { Version } from '../job/history';
import type { Pose } from '../print/pose';
import type { Addition } from '../shape/additions/addition';

/**
 * The other hand of a version: the same numbers with left and right swapped, so prints and tries of either teach both.
 * It also lies on the mirrored side.
 */
export const otherHandOf = ({
  additions,
  pose,
  ...version
}: Pick<Version, 'recipe' | 'parameters' | 'additions' | 'pose'>) => ({
  ...version,
  additions: changed(additions),
  pose: poseOfOther(pose),
});

/** Before it is split into pieces: each piece is mirrored on its own. */
function changed(additions: readonly Addition[]): Addition[] {
  const split = Math.min(...additions.filter(a => a.kind === 'split').map(a => a.order));
  const last = Math.max(0, ...additions.map(a => a.order));
  const before = Math.max(...additions.map(a => a.order).filter(order => order < split));
  const order = split === Infinity ? last + 1 : Number.isFinite(before) ? (before + split) / 2 : split - 1;
  const id = freeId(additions);
  return [...additions, { id, kind: 'other-hand', name: 'Other hand', order, on: true }];
}

function freeId(additions: readonly Addition[]): string {
  for (let n = 1; ; n++) {
    const id = `hand${n}`;
    if (additions.every(a => a.id !== id)) return id;
  }
}

export const poseOfOther = ({ down: [x, y, z], turn }: Pose): Pose => ({
  down: [-x || 0, y, z],
  turn: -turn || 0,
});
