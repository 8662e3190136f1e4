import { box, Draft } from '../../drawing/draft';
import { circle, rectangle } from '../../outline';
import { type Measured, placed } from '../define-recipe';
import type { Asked } from './guide';
import type { P } from './parameters';
import { bothTips, hasRib, hasSocket, isBlade, isFork, type Mate, places, sizesOf } from './sizes';

type Drawn = keyof P | Mate;

export function drawing(p: P) {
  const s = sizesOf(p);
  const draft = new Draft<Drawn>();
  const wide = Math.max(s.head?.across ?? 0, 2 * s.shank.r, 2 * (s.step?.r ?? 0)) / 2;
  if (s.head) draft.edge(box(-s.head.across / 2, 0, s.head.across / 2, s.head.to));
  if (s.other) draft.edge(box(-s.other.thick / 2, 0, s.other.thick / 2, s.other.to));
  draft.edge(box(-s.shank.r, s.shank.from, s.shank.r, s.shank.to));
  const last = s.step ?? s.shank;
  if (s.step) draft.edge(box(-s.step.r, s.step.from, s.step.r, s.step.to));
  if (s.tip) draft.edge(box(-s.tip.thick / 2, s.tip.from, s.tip.thick / 2, s.tip.to));
  if (s.fork)
    for (const sign of [-1, 1])
      draft.edge(box((sign * s.fork.slot) / 2, s.fork.from, sign * last.r, s.fork.to));
  if (s.rib) draft.edge(box(-s.rib.wide / 2, s.rib.from, s.rib.wide / 2, s.rib.to));
  const half: Record<Mate, number> = {
    tip: (s.tip?.thick ?? 0) / 2,
    fork: (s.fork?.slot ?? 0) / 2,
    shank: s.shank.r,
    rib: (s.rib?.wide ?? 0) / 2,
    tipB: (s.other?.thick ?? 0) / 2,
    socket: (s.socket?.across ?? 0) / 2,
  };
  for (const [mate, { from, to }] of placed(places(p))) draft.walls(mate, half[mate], [from, to]);
  const gap = Math.max(5, wide / 2);
  if (s.tip) draft.across('tip', 'tip', [-s.tip.thick / 2, s.tip.thick / 2], s.top, s.top + gap);
  if (s.fork) draft.across('fork', 'slot', [-s.fork.slot / 2, s.fork.slot / 2], s.top, s.top + gap);
  if (s.other) draft.across('tipB', 'other tip', [-s.other.thick / 2, s.other.thick / 2], 0, -gap);
  if (s.socket) draft.across('socket', 'socket', [-s.socket.across / 2, s.socket.across / 2], 0, -2 * gap);
  if (s.rib) {
    const beside = -wide - gap;
    draft.along('rib', 'rib', [-s.rib.wide / 2, s.rib.from + 1], [s.rib.wide / 2, s.rib.from + 1]);
    draft.up('ribLength', 'rib', -s.rib.wide / 2, [s.rib.from, s.rib.to], beside);
  }
  draft.across('shank', 'shank', [-s.shank.r, s.shank.r], s.shank.from, s.other ? -2 * gap : -gap, true);
  draft.up('tipLength', 'tip', last.r, [last.to, s.top], wide + gap);
  draft.up('shankLength', 'shank', s.shank.r, [s.shank.from, s.shank.to], wide + gap);
  return draft.done('From the side of the blade, head down');
}

/** Both sides of something, about x. */
const sides = (
  draft: Draft<Asked>,
  key: Asked,
  [x, half]: readonly [number, number],
  [low, high]: readonly [number, number],
) => draft.mate(key, ...[-half, half].map(by => [[x + by, low] as const, [x + by, high] as const]));

export function objectDrawing(measured: Measured<Asked>, p: P) {
  const slot = (measured.slot ?? 5) / 2;
  const bore = Math.max(slot + 1, (measured.bore ?? 12) / 2);
  const deep = measured.slot_depth ?? 8;
  const draft = new Draft<Asked>();
  for (const sign of [-1, 1]) {
    draft.cut([
      [sign * bore, deep],
      [sign * (bore + 8), deep],
      [sign * (bore + 8), deep + 20],
      [sign * bore, deep + 20],
    ]);
    if (!isFork(p))
      draft.cut([
        [sign * slot, 0],
        [sign * (bore + 8), 0],
        [sign * (bore + 8), deep],
        [sign * slot, deep],
      ]);
  }
  draft.centre([0, -4], [0, deep + 24]);
  if (isFork(p)) {
    // The web that the fork goes over is at the bottom of the bore.
    const tang = (measured.tang ?? 4) / 2;
    draft.cut(box(-tang, 0, tang, deep));
    draft.walls('tang', tang, [0, deep]);
    draft.across('tang', 'flat', [-tang, tang], 0, -7);
  } else {
    draft.walls('slot', slot, [0, deep]);
    draft.across('slot', isBlade(p) ? 'slot' : 'flats', [-slot, slot], 0, -7);
  }
  draft.walls('bore', bore, [deep, deep + 20]);
  draft.across('bore', 'bore', [-bore, bore], deep + 20, deep + 27, true);
  draft.up('slot_depth', 'depth', bore + 8, [0, deep], bore + 14);
  let x = -bore - 26;
  if (isBlade(p)) {
    const long = (measured.slot_length ?? 9) / 2;
    draft.edge(circle([x, deep], bore)).edge(rectangle(x - long, deep - slot, x + long, deep + slot));
    draft.across('slot_length', 'long', [x - long, x + long], deep, deep - bore - 7);
    x -= 2 * bore + 20;
  }
  if (hasRib(p)) {
    const way = (measured.keyway ?? 3) / 2;
    draft.edge(circle([x, deep], bore)).edge(rectangle(x - way, deep + bore - 1, x + way, deep + bore + 3));
    sides(draft, 'keyway', [x, way], [deep + bore - 1, deep + bore + 3]);
    draft.across('keyway', 'keyway', [x - way, x + way], deep + bore + 3, deep + bore + 10);
  }
  let right = bore + 40;
  if (bothTips(p)) {
    const b = (measured.slot_b ?? 6) / 2;
    const long = p.headShape === 'blade' ? (measured.slot_b_length ?? 10) / 2 : b;
    draft
      .edge(circle([right, deep], long + 4))
      .edge(rectangle(right - b, deep - long, right + b, deep + long));
    sides(draft, 'slot_b', [right, b], [deep - long, deep + long]);
    draft.across('slot_b', 'other slot', [right - b, right + b], deep - long, deep - long - 12);
    if (p.headShape === 'blade')
      draft.up('slot_b_length', 'long', right + b, [deep - long, deep + long], right + long + 10);
    right += 2 * long + 40;
  }
  if (hasSocket(p)) {
    const a = (measured.spindle ?? 8) / 2;
    draft.cut(rectangle(right - a, deep - a, right + a, deep + a));
    sides(draft, 'spindle', [right, a], [deep - a, deep + a]);
    draft.across('spindle', 'spindle', [right - a, right + a], deep + a, deep + a + 8);
  }
  return draft.done('Cut through what it turns');
}
