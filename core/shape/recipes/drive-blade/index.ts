import { box, Draft } from '../../drawing/draft';
import type { Body, PartKernel } from '../../kernels/kernel';
import { circle, Path, polygon, rectangle } from '../../outline';
import { choice, length, Refusals, step } from '../fields';
import { lengthOf, type MateSurface, type Parameters, type Recipe } from '../recipe';

/**
 * A drive key: a blade or a square at the top end that goes into what turns, a round shank that runs in a bore,
 * and a head that is turned, by hand or with a spanner. Stands on its head; the axis is z.
 */
const isBlade = (p: Parameters) => p.tip === 'blade';

interface Sizes {
  thick: number;
  wide: number;
  tip: number;
  shank: number;
  shankLength: number;
  head: number;
  headHeight: number;
  hex: boolean;
}

function sizesOf(p: Parameters): Sizes {
  const thick = lengthOf(p, 'thickness');
  return {
    thick,
    wide: isBlade(p) ? lengthOf(p, 'bladeWidth') : thick,
    tip: lengthOf(p, 'tipLength'),
    shank: lengthOf(p, 'shank') / 2,
    shankLength: lengthOf(p, 'shankLength'),
    head: lengthOf(p, 'head'),
    headHeight: lengthOf(p, 'headHeight'),
    hex: p.headShape === 'hexagon',
  };
}

const INTO = 0.5;

function solid(p: Parameters, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const head = kernel.extrude(s.hex ? polygon(6, s.head) : circle([0, 0], s.head / 2), 0, s.headHeight);
  const to = s.headHeight + s.shankLength;
  // A cone at the root of the shank: where a turning load would crack a sharp corner.
  const rib = Math.min(s.head / 2 - s.shank, s.shankLength) * 0.5;
  const shank = new Path([0, s.headHeight - INTO])
    .to([s.shank + rib, s.headHeight - INTO])
    .to([s.shank + rib, s.headHeight])
    .to([s.shank, s.headHeight + rib])
    .to([s.shank, to])
    .to([0, to])
    .close();
  const tip = kernel.extrude(
    rectangle(-s.wide / 2, -s.thick / 2, s.wide / 2, s.thick / 2),
    to - INTO,
    s.tip + INTO,
  );
  return kernel.fuse(kernel.fuse(head, kernel.revolve(shank)), tip);
}

function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  const root = s.headHeight + Math.min(s.head / 2 - s.shank, s.shankLength) * 0.5;
  const to = s.headHeight + s.shankLength;
  return [
    {
      mate: 'tip',
      side: 'outside',
      kind: 'flats',
      size: s.thick,
      at: [0, 0, to + s.tip / 2],
      axis: [0, 0, 1],
      across: [0, 1, 0],
      flats: isBlade(p) ? 2 : 4,
      from: to,
      to: to + s.tip,
    },
    {
      mate: 'shank',
      side: 'outside',
      kind: 'round',
      size: 2 * s.shank,
      at: [0, 0, (root + to) / 2],
      axis: [0, 0, 1],
      from: root,
      to,
    },
  ];
}

/** A most, to the hundredth: rounded up it would be refused again. */
const floored = (x: number) => Math.floor(100 * x) / 100;

function refuse(p: Parameters) {
  const s = sizesOf(p);
  const reach = Math.hypot(s.wide, s.thick) / 2;
  return new Refusals()
    .when(
      reach > s.shank + 1e-9,
      isBlade(p) ? 'bladeWidth' : 'thickness',
      'The tip’s corners stand out beyond the shank and would not pass its bore.',
      isBlade(p)
        ? floored(Math.sqrt(Math.max(0, 4 * s.shank ** 2 - s.thick ** 2)))
        : floored(s.shank * Math.SQRT2),
    )
    .when(
      isBlade(p) && s.wide < s.thick,
      'bladeWidth',
      'The blade is thicker than wide: were the two readings swapped?',
      2 * s.thick,
    )
    .when(s.head / 2 < s.shank + 0.6, 'head', 'The head must be wider than the shank.', 2 * s.shank + 6).list;
}

function drawing(p: Parameters) {
  const s = sizesOf(p);
  const to = s.headHeight + s.shankLength;
  const draft = new Draft()
    .edge(box(-s.head / 2, 0, s.head / 2, s.headHeight))
    .edge(box(-s.shank, s.headHeight, s.shank, to))
    .edge(box(-s.thick / 2, to, s.thick / 2, to + s.tip));
  for (const m of surfaces(p)) draft.walls(m.mate, m.size / 2, [m.from, m.to]);
  const gap = Math.max(5, s.head / 4);
  draft.across('tip', 'tip', [-s.thick / 2, s.thick / 2], to + s.tip, to + s.tip + gap);
  draft.across('shank', 'shank', [-s.shank, s.shank], s.headHeight, -gap, true);
  draft.up('tipLength', 'tip', s.thick / 2, [to, to + s.tip], s.head / 2 + gap);
  draft.up('shankLength', 'shank', s.shank, [s.headHeight, to], s.head / 2 + gap);
  return draft.done('From the side of the blade, head down');
}

function objectDrawing(measured: Readonly<Record<string, number>>, p: Parameters) {
  const slot = (measured.slot ?? 5) / 2;
  const bore = Math.max(slot + 1, (measured.bore ?? 12) / 2);
  const deep = measured.slot_depth ?? 8;
  const draft = new Draft();
  for (const sign of [-1, 1]) {
    draft.cut([
      [sign * bore, deep],
      [sign * (bore + 8), deep],
      [sign * (bore + 8), deep + 20],
      [sign * bore, deep + 20],
    ]);
    draft.cut([
      [sign * slot, 0],
      [sign * (bore + 8), 0],
      [sign * (bore + 8), deep],
      [sign * slot, deep],
    ]);
  }
  draft.centre([0, -4], [0, deep + 24]);
  draft.walls('slot', slot, [0, deep]);
  draft.walls('bore', bore, [deep, deep + 20]);
  draft.across('slot', isBlade(p) ? 'slot' : 'square', [-slot, slot], 0, -7);
  draft.across('bore', 'bore', [-bore, bore], deep + 20, deep + 27, true);
  draft.up('slot_depth', 'depth', bore + 8, [0, deep], bore + 14);
  if (isBlade(p)) {
    const long = (measured.slot_length ?? 9) / 2;
    const x = -bore - 26;
    draft.edge(circle([x, deep], bore)).edge(rectangle(x - long, deep - slot, x + long, deep + slot));
    draft.across('slot_length', 'long', [x - long, x + long], deep, deep - bore - 7);
  }
  return draft.done('Cut through what it turns');
}

export const driveBlade: Recipe = {
  id: 'drive-blade',
  version: 1,
  family: 'replacement',
  title: 'Drive key or blade',
  purpose:
    'Turns a slot or a square deep in a bore: a blade, a shank that runs in the bore, a head to turn it by.',
  guide: [
    step(
      'slot',
      'Slot or square, width',
      'inside-jaws',
      'The tips of the inside jaws, deep in it: slots are worn at their mouths.',
      { critical: true },
    ),
    step('slot_length', 'Slot, length', 'inside-jaws', 'The long way.', { needed: isBlade }),
    step('bore', 'Bore, inside', 'inside-jaws', 'In which the shank runs; the largest of several readings.', {
      critical: true,
    }),
    step('slot_depth', 'Slot, depth', 'depth-rod', 'From its rim to its bottom.'),
  ],
  mates: [
    {
      id: 'tip',
      name: 'Tip in its slot',
      dimension: 'slot',
      parameter: 'thickness',
      side: 'outside',
      want: 'snug',
      flexibleWant: 'snug',
      form: 'flats',
      active: () => true,
    },
    {
      id: 'shank',
      name: 'Shank in the bore',
      dimension: 'bore',
      parameter: 'shank',
      side: 'outside',
      want: 'slide',
      flexibleWant: 'slide',
      active: () => true,
    },
  ],
  parameters: [
    choice('tip', 'Its tip is', { blade: 'a blade', square: 'a square' }),
    length('thickness', 'Tip, thickness', [1, 80], 'slot.model'),
    length('bladeWidth', 'Blade, width', [1.5, 120], 'slot_length - 0.4', { shown: isBlade }),
    length('tipLength', 'Tip, length', [1, 120], 'slot_depth - 0.5'),
    length('shank', 'Shank, across', [2, 150], 'bore.model'),
    length('shankLength', 'Shank, length', [2, 250], '25'),
    choice('headShape', 'Head', { hexagon: 'hexagon, for a spanner', round: 'round' }),
    length('head', 'Head, across', [5, 200], '24'),
    length('headHeight', 'Head, height', [2, 100], '10'),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks: () => [],
  demo: {
    name: 'the folding rack’s height crank',
    sizes: { slot: 5, slot_length: 9, bore: 12, slot_depth: 8 },
    parameters: {
      tip: 'blade',
      thickness: 4.85,
      bladeWidth: 8.6,
      tipLength: 7.5,
      shank: 11.6,
      shankLength: 25,
      headShape: 'hexagon',
      head: 24,
      headHeight: 10,
    },
  },
};
