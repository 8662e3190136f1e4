import { Draft } from '../../drawing/draft';
import { circle, pointsOf, rectangle } from '../../outline';
import type { Measured } from '../define-recipe';
import type { Asked } from './guide';
import type { P } from './parameters';
import { type Mate, OVER, onPosts, profileOf, type Sizes, sizesOf } from './sizes';

type Drawn = keyof P | Mate;

export function drawing(p: P) {
  const s = sizesOf(p);
  const draft = new Draft<Drawn>().ghost(circle([0, 0], s.radius)).cut(profileOf(s));
  const y = s.seat + s.edge / 2;
  draft.mate(
    'tube',
    pointsOf(circle([0, 0], s.radius)).filter(q => q[1] <= s.seat + 0.01),
  );
  draft.walls('board', s.board, [s.seat, s.seat + s.edge]);
  if (s.posts) posts(draft, s, s.posts);
  else
    draft.mate(
      'edge',
      [
        [s.board - OVER, s.seat],
        [s.board, s.seat],
      ],
      [
        [s.board - OVER, s.seat + s.edge],
        [s.board, s.seat + s.edge],
      ],
    );
  draft.across('tube', 'tube', [-s.radius, s.radius], 0, -s.radius - 6, true);
  draft.across('board', 'board', [-s.board, s.board], y, s.radius + 6);
  if (!s.posts) draft.up('edge', 'edge', s.board, [s.seat, s.seat + s.edge], s.radius + 6);
  return draft.done('Across the tube');
}

/** The posts with their holes, in section. */
function posts(draft: Draft<Drawn>, s: Sizes, { radius, pilot, at }: NonNullable<Sizes['posts']>): void {
  const [x] = at.at(-1)!;
  for (const sign of [-1, 1]) {
    const middle = sign * x;
    for (const [from, to] of [
      [-radius, -pilot],
      [pilot, radius],
    ] as const)
      draft.cut(rectangle(middle + from, s.well, middle + to, s.seat));
    draft.mate(
      'pilot',
      [
        [middle - pilot, s.well + 0.4],
        [middle - pilot, s.seat],
      ],
      [
        [middle + pilot, s.well + 0.4],
        [middle + pilot, s.seat],
      ],
    );
  }
  draft.across('pilot', 'screw', [x - pilot, x + pilot], s.seat, s.radius + 14, true);
}

export function objectDrawing(measured: Measured<Asked>, p: P) {
  const r = (measured.tube ?? 44) / 2;
  const w = (measured.board_width ?? 32) / 2;
  const t = measured.board_thickness ?? 1.6;
  const draft = new Draft<Asked>()
    .cut(circle([0, 0], r + 2))
    .edge(circle([0, 0], r))
    .cut(rectangle(-w, -4, w, -4 + t));
  draft.mateLoop('tube', circle([0, 0], r));
  draft.walls('board_width', w, [-4, -4 + t]);
  draft.across('tube', 'tube', [-r, r], 0, r + 8, true);
  draft.across('board_width', 'board', [-w, w], -4, -r - 8);
  draft.up('board_thickness', 'thick', w, [-4, -4 + t], r + 8);
  const x = r + 60;
  const long = measured.board_length ?? 70;
  draft.edge(rectangle(x, -r, x + 2 * w, -r + long));
  draft.up('board_length', 'length', x + 2 * w, [-r, -r + long], x + 2 * w + 6);
  if (onPosts(p)) {
    const [a, l] = [(measured.holes_across ?? 20) / 2, (measured.holes_along ?? 44) / 2];
    const [mx, my] = [x + w, -r + long / 2];
    const hole = (measured.board_screw ?? 2.5) / 2;
    for (const sx of [-1, 1]) for (const sy of [-1, 1]) draft.edge(circle([mx + sx * a, my + sy * l], hole));
    draft.across('holes_across', 'holes', [mx - a, mx + a], my + l, -r + long + 8);
    draft.up('holes_along', 'holes', mx + a, [my - l, my + l], x + 2 * w + 20);
    // One of its screws, beside the board.
    const sx = x + 2 * w + 40;
    draft.cut(rectangle(sx - hole, 0, sx + hole, 10));
    draft.across('board_screw', 'screw', [sx - hole, sx + hole], 10, 16, true);
  }
  return draft.done('Tube and board from the end, and the board from above');
}
