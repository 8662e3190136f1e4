import type { Outline } from '../../kernels/kernel';
import { Path } from '../../outline';
import type { Frame, Point2 } from '../../vector';
import type { Places } from '../define-recipe';
import type { P } from './parameters';

/**
 * A tray that carries a circuit board inside a tube: part of a round bar with a well under the board, whose edges sit
 * in two rails, or which is screwed on posts. One profile across the tube, extruded along it. It stands on its end on
 * the bed; the tube's axis is z, and the board faces y. Lengths mm.
 */
export const onRails = (p: P) => p.holds !== 'posts';
export const onPosts = (p: P) => p.holds === 'posts';

export interface Sizes {
  radius: number;
  /** Half the width between the sides, or between the floors of the rails' slots. */
  board: number;
  edge: number;
  /** Height of the board's underside above the tube's axis; below it is negative. */
  seat: number;
  rail: number;
  /** Bottom of the well under the board. */
  well: number;
  long: number;
  endWall: number;
  /** Half of the opening in the end wall. */
  opening: number;
  posts: { radius: number; pilot: number; at: Point2[] } | null;
  /** A tongue to pull it out, at the end away from the end wall. */
  tab: { half: number; long: number; thick: number; hole: number } | null;
  /** Cable slots through the floor. */
  slots: { half: number; long: number; at: number[] } | null;
}

/** How far the rails reach over the board's edges. */
export const OVER = 1.2;
/** Of the pull tab. */
const TAB_THICK = 2.6;

export function sizesOf(p: P): Sizes {
  const radius = p.outside / 2;
  const seat = -p.below;
  const long = p.length;
  const endWall = p.endWall;
  const [across, along] = [p.postsAcross / 2, p.postsAlong / 2];
  const middle = (endWall + long) / 2;
  const count = p.slots;
  const inner = long - endWall;
  return {
    radius,
    board: p.boardSlot / 2,
    edge: p.edgeSlot,
    seat,
    rail: p.rail,
    // Posts have the height that is asked for; on rails the well is at least slightly below the board.
    well: onPosts(p) ? seat - p.postHeight : Math.min(seat - 0.6, p.floor - radius),
    long,
    endWall,
    opening: p.pull / 2,
    posts: onPosts(p)
      ? {
          radius: p.post / 2,
          pilot: p.pilot / 2,
          at: [-1, 1].flatMap(sx => [-1, 1].map((sz): Point2 => [sx * across, middle + sz * along])),
        }
      : null,
    tab: p.tab ? { half: p.tabWidth / 2, long: p.tabLength, thick: TAB_THICK, hole: p.tabWidth / 4 } : null,
    slots:
      count > 0
        ? {
            half: p.slotWidth / 2,
            long: p.slotLength,
            at: Array.from({ length: count }, (_, i) => endWall + (inner * (i + 0.5)) / count),
          }
        : null,
  };
}

/** The chord of the bar at this height. */
export const chordAt = ({ radius }: Sizes, y: number) => Math.sqrt(Math.max(0, radius ** 2 - y ** 2));
export const topOf = (s: Sizes) => s.seat + s.edge + s.rail;
/** Half the width of the well. */
export const innerOf = (s: Sizes) => (s.posts ? s.board : s.board - OVER);

/** Across the tube: the bar below, cut flat under the board, and a rail or a wall at each side. */
export function profileOf(s: Sizes): Outline {
  const top = topOf(s);
  const x = chordAt(s, top);
  const inner = innerOf(s);
  const path = new Path([-x, top]).arc([x, top], [0, -s.radius]).to([inner, top]);
  if (!s.posts)
    path
      .to([inner, s.seat + s.edge])
      .to([s.board, s.seat + s.edge])
      .to([s.board, s.seat])
      .to([inner, s.seat]);
  path.to([inner, s.well]).to([-inner, s.well]);
  if (!s.posts)
    path
      .to([-inner, s.seat])
      .to([-s.board, s.seat])
      .to([-s.board, s.seat + s.edge])
      .to([-inner, s.seat + s.edge]);
  return path.to([-inner, top]).close();
}

/** On the well's bottom, looking at the board. */
export const postFrame = (s: Sizes, [x, z]: Point2): Frame => ({
  at: [x, s.well, z],
  x: [1, 0, 0],
  up: [0, 1, 0],
});

export type Mate = 'tube' | 'board' | 'edge' | 'pilot';

export function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const z = (s.endWall + s.long) / 2;
  const extent = { axis: [0, 0, 1] as const, from: s.endWall, to: s.long };
  const common = { ...extent, kind: 'flats' as const };
  const y = s.seat + s.edge / 2;
  // A section between posts and slots, if there are any.
  const clear = s.long - 0.4;
  const at = s.posts || s.slots ? clear : z;
  return {
    // Round where it meets the tube, though no full circle of it exists.
    tube: { ...extent, from: 0, kind: 'round', at: [0, 0, at] },
    board: { ...common, at: [0, y, at], across: [1, 0, 0] },
    edge: s.posts ? null : { ...common, at: [s.board - OVER / 2, y, at], across: [0, 1, 0] },
    pilot: s.posts && {
      kind: 'round',
      at: [s.posts.at[0]![0], (s.well + s.seat) / 2, s.posts.at[0]![1]],
      axis: [0, 1, 0],
      from: s.well,
      to: s.seat,
    },
  };
}
