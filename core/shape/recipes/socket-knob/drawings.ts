import { box, Draft } from '../../drawing/draft';
import { circle, flattened, polygon } from '../../outline';
import type { Measured } from '../define-recipe';
import type { Asked } from './guide';
import type { P } from './parameters';
import { gripOf, hasFlats, hasKey, isRound, middleOf, reachOf, shapeOf, sizesOf, socketOf } from './sizes';
import type { Mate } from './solid';

type Drawn = keyof P | Mate;

export function drawing(p: P) {
  const s = sizesOf(p);
  const draft = new Draft<Drawn>();
  // From below, where the socket opens.
  draft.edge(gripOf(s));
  if (hasFlats(p)) draft.mateLoop('flats', socketOf(s));
  if (isRound(p)) draft.mateLoop('shaft', socketOf(s));
  if (s.key) {
    const [near, far] = [s.round / 2, s.round / 2 + s.key.over];
    for (const sign of [-1, 1])
      draft.mate('key', [
        [near, (sign * s.key.width) / 2],
        [far, (sign * s.key.width) / 2],
      ]);
    draft.up('key', 'key', far, [-s.key.width / 2, s.key.width / 2], s.grip + Math.max(4, s.grip / 3) / 2);
  }
  const gap = Math.max(4, s.grip / 3);
  const m = middleOf(s);
  if (hasFlats(p)) draft.across('flats', 'flats', [m - s.flats / 2, m + s.flats / 2], 0, -s.grip - gap);
  if (isRound(p)) draft.up('shaft', 'round', -s.grip * 0.2, [-s.round / 2, s.round / 2], -s.grip - gap);
  draft.across('gripDiameter', 'grip', [-s.grip, s.grip], 0, s.grip + gap, true);
  // Beside it, the section's heights.
  const x = s.grip * 2.4;
  const r = reachOf(s);
  const deep = s.through ? s.height : s.depth;
  draft
    .cut(box(x - s.grip, -s.height / 2, x - r, s.height / 2))
    .cut(box(x + r, -s.height / 2, x + s.grip, s.height / 2));
  if (!s.through) draft.cut(box(x - r, -s.height / 2 + deep, x + r, s.height / 2));
  draft.up('height', 'height', x + s.grip, [-s.height / 2, s.height / 2], x + s.grip + gap);
  return draft.done('From below, and cut through');
}

export function objectDrawing(measured: Measured<Asked>, p: P) {
  const shape = shapeOf(p);
  const flats = measured.flats ?? 13;
  const round = Math.max(measured.shaft ?? 16, flats * 1.05);
  const outline =
    shape === 'hexagon'
      ? polygon(6, flats)
      : shape === 'square'
        ? polygon(4, flats)
        : shape === 'round' || shape === 'key'
          ? circle([0, 0], (measured.shaft ?? 16) / 2)
          : flattened(round, flats, shape === 'two-flats');
  const reach = Math.max(flats, isRound(p) ? round : flats) * 0.6;
  const draft = new Draft<Asked>().cut(outline);
  if (hasFlats(p)) {
    draft.mateLoop('flats', outline);
    const m = shape === 'dee' ? (flats - round) / 2 : 0;
    draft.across('flats', 'across flats', [m - flats / 2, m + flats / 2], 0, -reach - 5);
  }
  if (isRound(p)) {
    const r = (hasFlats(p) ? round : (measured.shaft ?? 16)) / 2;
    draft.mateLoop('shaft', outline);
    draft.up('shaft', 'diameter', 0, [-r, r], -reach - 5);
  }
  if (hasKey(p)) {
    const r = (measured.shaft ?? 16) / 2;
    const half = (measured.key_width ?? 5) / 2;
    const top = (measured.over_key ?? 2 * r + 2) - r;
    draft.cut(box(r * 0.6, -half, top, half));
    draft.up('key_width', 'key', top, [-half, half], top + 5);
    draft.across('over_key', 'over all', [-r, top], 0, reach + 5);
  }
  const x = reach * 2.6;
  const stub = measured.stub ?? 10;
  draft.cut(box(x - reach * 0.7, 0, x + reach * 0.7, stub));
  draft.up('stub', 'length', x + reach * 0.7, [0, stub], x + reach * 0.7 + 5);
  return draft.done('The shaft from its end, and from the side');
}
