import { distance2 } from '../vector';
import { crossings, settledPieces } from './joints';
import { laidAs, likeliest, missedOn, ownOf, type Parted, type Piece, type Run } from './pieces';

/**
 * Corrections of the lines and arcs of a measured line by the maker: another look at the object shows what points do
 * not always show. Each returns null where the line does not allow it.
 */

/** How a piece, or the corner between two, is changed. */
export const REPARTINGS = ['line', 'arc', 'cut', 'join', 'round', 'out'] as const;
export type Reparting = (typeof REPARTINGS)[number];

/** A piece has at least this many points. */
const LEAST = 5;
/** When a corner replaces a piece, it must be within this many lengths of that piece. */
const MEETS = 4;

type Pieced = Parted & { pieces: readonly Piece[] };

/** Divided without specks, so that each piece is one that is shown; null for a circle. */
export const piecedOf = (parted: Parted): Pieced | null =>
  parted.pieces === 'circle' ? null : { ...parted, pieces: settledPieces(parted.pieces, parted) };

/** Makes one piece a line, or an arc. */
export function asKind({ pieces, ...line }: Pieced, i: number, kind: Piece['kind']): Parted | null {
  const piece = laidAs(line.points, runOf(pieces[i]!), kind);
  return piece.kind === kind ? { ...line, pieces: pieces.with(i, piece) } : null;
}

/** Cuts a piece into two, which meet at one of its points. */
export function cutAt({ pieces, ...line }: Pieced, i: number, at: number): Parted | null {
  const piece = pieces[i]!;
  if (at - piece.from < LEAST || piece.to - at < LEAST) return null;
  const halves = [
    { ...begun(piece), to: at },
    { from: at, to: piece.to },
  ].map(run => likeliest(line.points, run, line.tolerance));
  return { ...line, pieces: pieces.toSpliced(i, 1, ...halves) };
}

/** Joins a piece with the next one. */
export function joined({ pieces, ...line }: Pieced, i: number): Parted | null {
  const [one, two] = [pieces[i], pieces[i + 1]];
  if (!one || !two) return null;
  if (pieces.length === 2 && line.closed) return { ...line, pieces: 'circle' };
  const both = likeliest(line.points, { ...begun(one), to: two.to }, line.tolerance);
  return { ...line, pieces: pieces.toSpliced(i, 2, both) };
}

/** Removes a piece: its neighbours meet in a corner. */
export function takenOut({ pieces, ...line }: Pieced, i: number): Parted | null {
  const [before, out, after] = [pieces[i - 1], pieces[i], pieces[i + 1]];
  if (!before || !out || !after) return null;
  const middle = Math.round((out.from + out.to) / 2);
  const { points } = line;
  const far = MEETS * distance2(points[out.from]!, points[out.to]!);
  if (!crossings(before, after).some(p => distance2(p, points[middle]!) < far)) return null;
  // The points of the removed piece say nothing about its neighbours.
  const one = laidAs(points, { ...begun(before), to: middle, own: ownOf(before) }, before.kind);
  const two = laidAs(points, { from: middle, to: after.to, own: ownOf(after), meets: true }, after.kind);
  return { ...line, pieces: pieces.toSpliced(i - 1, 3, one, two) };
}

/** Makes the corner between a piece and the next one a rounding, as wide as its points say. */
export function rounded({ pieces, ...line }: Pieced, i: number): Parted | null {
  const [one, two] = [pieces[i], pieces[i + 1]];
  if (!one || !two) return null;
  const at = one.to;
  const most = Math.min(Math.floor((at - one.from) / 2), Math.floor((two.to - at) / 2));
  const missed = missedOn(line.points);
  let best: { wide: number; off: number } | null = null;
  for (let wide = 3; wide <= most; wide++) {
    const off =
      missed({ from: one.from, to: at - wide }, one.kind) +
      missed({ from: at - wide, to: at + wide }, 'arc') +
      missed({ from: at + wide, to: two.to }, two.kind);
    if (!best || off < best.off) best = { wide, off };
  }
  if (!best) return null;
  const [from, to] = [at - best.wide, at + best.wide];
  const arc = laidAs(line.points, { from, to }, 'arc');
  if (arc.kind !== 'arc') return null;
  const parts = [
    laidAs(line.points, { ...begun(one), to: from }, one.kind),
    arc,
    laidAs(line.points, { from: to, to: two.to }, two.kind),
  ];
  return { ...line, pieces: pieces.toSpliced(i, 2, ...parts) };
}

/** Where a piece begins, and how. */
const begun = ({ from, meets }: Piece): Omit<Run, 'to'> => ({ from, ...(meets ? { meets } : {}) });
const runOf = (piece: Piece): Run => ({
  ...begun(piece),
  to: piece.to,
  ...(piece.own ? { own: piece.own } : {}),
});
