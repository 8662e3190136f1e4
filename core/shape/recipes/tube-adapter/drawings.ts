import { Draft } from '../../drawing/draft';
import { type Drawing, type DrawPoint, mirrored } from '../../drawing/drawing';
import { pointsOf } from '../../outline';
import { BED, bentFrame, type Frame } from '../../vector';
import { type Measured, placed } from '../define-recipe';
import type { Asked } from './guide';
import { ENDS, low, MEASURED_AS, type P } from './parameters';
import { endProfile, is, type Kind, kindOf, mateAt, mouthFrame, type Run, runOf, sizesOf } from './sizes';
import { type Mate, places, straightOutline } from './solid';

const endOf = (mate: Mate) => (mate.endsWith('A') ? 'A' : 'B');

export function drawing(p: P): Drawing<keyof P> {
  return is.bent(p) ? bentDrawing(p) : straightDrawing(p);
}

function straightDrawing(p: P): Drawing<keyof P> {
  const s = sizesOf(p);
  const half = pointsOf(straightOutline(s)).slice(0, -1);
  const total = s.A.length + s.middle + s.B.length;
  const rim = Math.max(s.A.outer, s.B.outer);
  const draft = new Draft<keyof P>()
    .cut(half)
    .cut(mirrored(half))
    .centre([0, -3], [0, total + 3]);
  const gap = Math.max(4, rim / 3);
  const seen = { A: 0, B: 0 };
  for (const [mate, { from, to, at }] of placed(places(p))) {
    const r = p[mate] / 2;
    const end = endOf(mate);
    const line = gap * (1 + 0.7 * seen[end]++);
    const e = s[end];
    const height = (z: number) => (end === 'A' ? z : total - z);
    const wall = [from, to].map((z): DrawPoint => [e.taper > 0 ? mateAt(e, height(z)) : r, z]);
    draft.mate(
      mate,
      wall,
      wall.map(([x, z]): DrawPoint => [-x, z]),
    );
    draft.across(mate, mate.slice(0, -1), [-r, r], at[2], end === 'A' ? -line : total + line, true);
  }
  draft.up(is.flange(p) ? 'flangeThickness' : 'lengthA', 'end A', -rim, [0, s.A.length], -rim - gap);
  draft.up('lengthB', 'end B', -rim, [total - s.B.length, total], -rim - gap);
  return draft.done('Cut through the adapter, end A down');
}

/** In the plane of the bend: (x, z). */
function bentDrawing(p: P): Drawing<keyof P> {
  const s = sizesOf(p);
  const run = runOf(p, s);
  const mouth = mouthFrame(s, run);
  const draft = new Draft<keyof P>();
  for (const [end, frame] of [
    ['A', BED],
    ['B', mouth],
  ] as const) {
    const { outside, inside } = endProfile(s[end], s, run, end);
    const wall = [...outside, ...inside.toReversed()];
    for (const sign of [-1, 1]) draft.cut(wall.map(q => inPlane(frame, sign * q[0], q[1])));
  }
  for (const piece of run.pieces)
    for (const sign of [-1, 1]) {
      const edge = (r: number) => pieceEdge(piece, run, sign * r);
      draft.cut([...edge(run.tube), ...edge(s.bore).toReversed()]);
    }
  for (const [mate, { from, to, at }] of placed(places(p))) {
    const e = s[endOf(mate)];
    const frame = endOf(mate) === 'A' ? BED : mouth;
    const z = (at[0] - frame.at[0]) * frame.up[0] + (at[2] - frame.at[2]) * frame.up[2];
    const half = (to - from) / 2;
    // A tapered end is drawn along its whole length, wherever its diameter applies.
    const [first, last] = e.taper > 0 ? [s.chamfer, e.length - s.chamfer] : [z - half, z + half];
    const radius = (height: number) => (e.taper > 0 ? mateAt(e, height) : p[mate] / 2);
    draft.mate(mate, ...[-1, 1].map(sign => [first!, last!].map(h => inPlane(frame, sign * radius(h), h))));
    const side = (sign: number) => inPlane(frame, (sign * p[mate]) / 2, z);
    draft.along(mate, mate.slice(0, -1), side(-1), side(1), true);
  }
  const far = inPlane(mouth, 0, 0);
  if (is.offset(p)) draft.across('offset', 'apart', [0, far[0]], far[1], -Math.max(4, s.A.outer / 3));
  draft.centre([0, -3], [0, s.A.length + run.reach.A]);
  return draft.done('Cut through the adapter, end A down');
}

/** In the plane of the bend. */
const inPlane = ({ at, x, up }: Frame, r: number, z: number): DrawPoint => [
  at[0] + r * x[0] + z * up[0],
  at[2] + r * x[2] + z * up[2],
];

function pieceEdge(piece: Run['pieces'][number], run: Run, r: number): DrawPoint[] {
  if ('straight' in piece) return [inPlane(piece.frame, r, 0), inPlane(piece.frame, r, piece.straight)];
  return Array.from({ length: 13 }, (_, i) =>
    inPlane(bentFrame(piece.frame, run.radius, (piece.turn * i) / 12), r, 0),
  );
}

const EXAMPLE: Record<Kind, number> = { over: 32, into: 25, barb: 25, flange: 60 };

export function objectDrawing(measured: Measured<Asked>, p: P): Drawing<Asked> {
  const draft = new Draft<Asked>();
  const far = 30;
  for (const end of ENDS) {
    const kind = kindOf(p, end);
    const key = kind === 'flange' ? 'bolt_circle' : (`${MEASURED_AS[kind]}_${low(end)}` as const);
    const r = (measured[key] ?? EXAMPLE[kind]) / 2;
    const y0 = end === 'A' ? -far : 10;
    const y1 = y0 + far - 10;
    // What goes into it is drawn as a wall around, what it goes over as a tube.
    const [r0, r1] = kind === 'over' ? [r - 2, r] : [r, r + 2];
    for (const sign of [-1, 1])
      draft.cut([
        [sign * r0, y0],
        [sign * r1, y0],
        [sign * r1, y1],
        [sign * r0, y1],
      ]);
    draft.walls(key, r, [y0, y1]);
    const words = kind === 'flange' ? 'screws' : kind === 'over' ? 'outside' : 'inside';
    draft.across(
      key,
      `${end}, ${words}`,
      [-r, r],
      end === 'A' ? y0 : y1,
      end === 'A' ? y0 - 6 : y1 + 6,
      true,
    );
    if (is.coned(end)(p) && (kind === 'over' || kind === 'into'))
      conedDrawing(draft, measured, kind, end, r, [y0, y1]);
    if (is.click(end)(p)) {
      const groove = (measured[`groove_${low(end)}` as const] ?? 2 * r - 1.6) / 2;
      const at = (y0 + y1) / 2;
      draft.walls(`groove_${low(end)}`, groove, [at - 1, at + 1]);
      draft.across(
        `groove_${low(end)}`,
        'groove',
        [-groove, groove],
        at,
        end === 'A' ? y0 - 11 : y1 + 11,
        true,
      );
    }
  }
  draft.centre([0, -far - 4], [0, far + 4]);
  return draft.done('Cut through the two things to be joined');
}

/** The second diameter of a taper, and its distance from the first. */
function conedDrawing(
  draft: Draft<Asked>,
  measured: Measured<Asked>,
  kind: 'over' | 'into',
  end: (typeof ENDS)[number],
  r: number,
  [y0, y1]: readonly [number, number],
): void {
  const key = `${MEASURED_AS[kind]}_far_${low(end)}` as const;
  const far = (measured[key] ?? (kind === 'over' ? 2 * r + 0.6 : 2 * r - 0.6)) / 2;
  const [near, deep] = end === 'A' ? [y0, y1 - 4] : [y1, y0 + 4];
  draft.walls(key, far, [deep - 1, deep + 1]);
  draft.across(key, 'second', [-far, far], deep, end === 'A' ? y0 - 12 : y1 + 12, true);
  draft.up(`apart_${low(end)}`, 'apart', r + 2, [Math.min(near, deep), Math.max(near, deep)], r + 10);
}
