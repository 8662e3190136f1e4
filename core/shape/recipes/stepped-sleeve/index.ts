import { Draft } from '../../drawing/draft';
import { mirrored } from '../../drawing/drawing';
import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import type { MateSurface } from '../../mates';
import { Path, pointsOf } from '../../outline';
import { CHAMFER } from '../advice';
import { length, Refusals, step } from '../fields';
import { lengthOf, type Parameters } from '../parameters';
import type { Recipe } from '../recipe';

/** A sleeve that fills a bore down to a thinner rod, with a collar that stops it. Collar down on the bed. */
interface Sizes {
  rod: number;
  bore: number;
  collar: number;
  collarHeight: number;
  total: number;
  /** The rod's bore goes so deep from the top; below it the way is narrower, or as wide. */
  depth: number;
  through: number;
  chamfer: number;
}

function sizesOf(p: Parameters): Sizes {
  const bore = lengthOf(p, 'sleeveDiameter') / 2;
  const collarHeight = lengthOf(p, 'collarHeight');
  const total = collarHeight + lengthOf(p, 'length');
  return {
    rod: lengthOf(p, 'rodBore') / 2,
    bore,
    collar: bore + lengthOf(p, 'collarWidth'),
    collarHeight,
    total,
    depth: lengthOf(p, 'rodDepth'),
    through: lengthOf(p, 'through') / 2,
    chamfer: lengthOf(p, 'leadIn'),
  };
}

function outlineOf(s: Sizes): Outline {
  const c = s.chamfer;
  const floor = s.total - s.depth;
  const path = new Path([s.through, 0])
    .to([s.collar, 0])
    .to([s.collar, s.collarHeight])
    .to([s.bore, s.collarHeight])
    .to([s.bore, s.total - c])
    .to([s.bore - c, s.total])
    .to([s.rod + c, s.total])
    .to([s.rod, s.total - c]);
  path.to([s.rod, floor]).to([s.through, floor]);
  return path.close();
}

const solid = (p: Parameters, kernel: PartKernel): Body => kernel.revolve(outlineOf(sizesOf(p)));

function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  const common = { kind: 'round' as const, axis: [0, 0, 1] as const };
  const to = s.total - s.chamfer;
  const ring = (mate: string, side: 'inside' | 'outside', size: number, from: number): MateSurface => ({
    ...common,
    mate,
    side,
    size,
    from,
    to,
    at: [0, 0, (from + to) / 2],
  });
  return [
    ring('sleeve', 'outside', 2 * s.bore, s.collarHeight),
    ring('rod', 'inside', 2 * s.rod, s.total - s.depth),
  ];
}

function refuse(p: Parameters) {
  const s = sizesOf(p);
  const wall = s.bore - s.rod;
  return new Refusals()
    .when(
      wall < 0.4,
      'sleeveDiameter',
      'No wall is left between rod and bore. Was a radius typed for a diameter?',
      2 * s.rod + 2.4,
    )
    .when(
      s.chamfer > wall / 2 - 0.15,
      'leadIn',
      'The chamfers meet in the wall: make them smaller.',
      Math.max(0, Math.floor(5 * wall - 2) / 10),
    )
    .when(
      s.depth > s.total - 0.6,
      'rodDepth',
      'The rod’s bore goes through the collar: less deep, or a thicker collar.',
      s.total - 1.2,
    )
    .when(s.depth < s.chamfer + 1, 'rodDepth', 'The rod’s bore is too shallow to hold it.', s.chamfer + 4)
    .when(
      s.total - s.collarHeight < s.chamfer + 1,
      'length',
      'The sleeve is too short to hold.',
      s.chamfer + 4,
    )
    .when(
      s.through > s.rod,
      'through',
      'The way through is wider than the rod’s bore: the rod finds no stop.',
      2 * s.rod - 2,
    )
    .when(s.through < 0, 'through', 'A way through is 0 or more.').list;
}

function drawing(p: Parameters) {
  const s = sizesOf(p);
  const half = pointsOf(outlineOf(s)).slice(0, -1);
  const gap = Math.max(4, s.collar / 3);
  const draft = new Draft()
    .cut(half)
    .cut(mirrored(half))
    .centre([0, -3], [0, s.total + 3]);
  for (const m of surfaces(p)) {
    const r = m.size / 2;
    draft.walls(m.mate, r, [m.from, m.to]);
  }
  draft.across('sleeve', 'in the bore', [-s.bore, s.bore], s.collarHeight + 1, -gap, true);
  draft.across('rod', 'on the rod', [-s.rod, s.rod], s.total, s.total + gap, true);
  draft.up('length', 'length', -s.collar, [s.collarHeight, s.total], -s.collar - gap);
  return draft.done('Cut through the sleeve, collar down');
}

function objectDrawing(measured: Readonly<Record<string, number>>) {
  const rod = (measured.rod ?? 12) / 2;
  const bore = Math.max(rod + 1, (measured.bore ?? 20) / 2);
  const deep = measured.bore_depth ?? 25;
  const draft = new Draft();
  for (const sign of [-1, 1])
    draft.cut([
      [sign * bore, 0],
      [sign * (bore + 4), 0],
      [sign * (bore + 4), deep],
      [sign * bore, deep],
    ]);
  draft.cut([
    [-rod, deep * 0.3],
    [rod, deep * 0.3],
    [rod, deep + 14],
    [-rod, deep + 14],
  ]);
  draft.centre([0, -4], [0, deep + 18]);
  draft.walls('bore', bore, [0, deep]);
  draft.walls('rod', rod, [deep, deep + 14]);
  draft.across('bore', 'bore', [-bore, bore], 0, -6, true);
  draft.across('rod', 'rod', [-rod, rod], deep + 14, deep + 19, true);
  draft.up('bore_depth', 'depth', -bore - 4, [0, deep], -bore - 9);
  return draft.done('Cut through bore and rod');
}

export const steppedSleeve: Recipe = {
  id: 'stepped-sleeve',
  version: 1,
  family: 'adapter',
  title: 'Stepped sleeve',
  purpose: 'Fills a bore that is too wide for a rod, with a collar that keeps it from slipping in.',
  guide: [
    step(
      'bore',
      'Bore, inside',
      'inside-jaws',
      'As deep as the jaws reach; rock them and keep the largest.',
      { critical: true },
    ),
    step(
      'rod',
      'Rod, outside',
      'outside-jaws',
      'Where it will sit in the sleeve; turn it between readings.',
      { critical: true },
    ),
    step('bore_depth', 'Bore, depth', 'depth-rod', 'From its mouth to what the sleeve must not touch.'),
  ],
  mates: [
    {
      id: 'sleeve',
      name: 'Sleeve in the bore',
      dimension: 'bore',
      parameter: 'sleeveDiameter',
      side: 'outside',
      want: 'snug',
      flexibleWant: 'press',
      active: () => true,
    },
    {
      id: 'rod',
      name: 'Rod in the sleeve',
      dimension: 'rod',
      parameter: 'rodBore',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'slide',
      active: () => true,
    },
  ],
  parameters: [
    length('sleeveDiameter', 'Sleeve, outside', [3, 300], 'bore.model'),
    length('rodBore', 'Bore for the rod', [1, 290], 'rod.model'),
    length('length', 'Length in the bore', [2, 300], 'bore_depth - 1'),
    length('rodDepth', 'Rod goes in by', [2, 400], 'length'),
    length('through', 'Way through below it (0 is closed)', [0, 280], '0'),
    length('collarWidth', 'Collar stands out by', [0.5, 60], '3', { group: 'more' }),
    length('collarHeight', 'Collar height', [0.6, 60], '3', { group: 'more' }),
    length('leadIn', 'Chamfers', [0, 4], '0.6', { group: 'more', sensible: CHAMFER }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks: () => [],
  demo: {
    name: 'a boom end and its pin',
    sizes: { bore: 20, rod: 12, bore_depth: 25 },
    parameters: {
      sleeveDiameter: 19.85,
      rodBore: 12.5,
      length: 24,
      rodDepth: 24,
      through: 0,
      collarWidth: 3,
      collarHeight: 3,
      leadIn: 0.6,
    },
  },
};
