import { Draft } from '../../drawing/draft';
import { mirrored } from '../../drawing/drawing';
import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import { Path, pointsOf } from '../../outline';
import { CHAMFER } from '../advice';
import {
  defineRecipe,
  type KeysOf,
  type Measured,
  type Places,
  type SurfacePlace,
  type ValuesOf,
} from '../define-recipe';
import { length, Refusals, step } from '../fields';

const parameters = [
  length('sleeveDiameter', 'Sleeve, outside', [3, 300], 'bore.model'),
  length('rodBore', 'Bore for the rod', [1, 290], 'rod.model'),
  length('length', 'Length in the bore', [2, 300], 'bore_depth - 1'),
  length('rodDepth', 'Rod goes in by', [2, 400], 'length'),
  length('through', 'Way through below it (0 is closed)', [0, 280], '0'),
  length('collarWidth', 'Collar stands out by', [0.5, 60], '3', { group: 'more' }),
  length('collarHeight', 'Collar height', [0.6, 60], '3', { group: 'more' }),
  length('leadIn', 'Chamfers', [0, 4], 'min(0.6; max(0; (sleeveDiameter - rodBore) / 8))', {
    group: 'more',
    sensible: CHAMFER,
  }),
];

type P = ValuesOf<typeof parameters>;
type Mate = 'sleeve' | 'rod';
type Drawn = keyof P | Mate;
type Asked = KeysOf<typeof guide>;

/** A sleeve that fills a bore down to a thinner rod, with a collar that stops it. Collar down on the bed. */
interface Sizes {
  rod: number;
  bore: number;
  collar: number;
  collarHeight: number;
  total: number;
  /** The depth of the rod's bore from the top; below it the passage is narrower, or equally wide. */
  depth: number;
  through: number;
  chamfer: number;
}

function sizesOf(p: P): Sizes {
  const bore = p.sleeveDiameter / 2;
  const collarHeight = p.collarHeight;
  const total = collarHeight + p.length;
  return {
    rod: p.rodBore / 2,
    bore,
    collar: bore + p.collarWidth,
    collarHeight,
    total,
    depth: p.rodDepth,
    through: p.through / 2,
    chamfer: p.leadIn,
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

const solid = (p: P, kernel: PartKernel): Body => kernel.revolve(outlineOf(sizesOf(p)));

function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const to = s.total - s.chamfer;
  const ring = (from: number): SurfacePlace => ({
    kind: 'round',
    axis: [0, 0, 1],
    from,
    to,
    at: [0, 0, (from + to) / 2],
  });
  return { sleeve: ring(s.collarHeight), rod: ring(s.total - s.depth) };
}

function refuse(p: P) {
  const s = sizesOf(p);
  const wall = s.bore - s.rod;
  return new Refusals<P>()
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

function drawing(p: P) {
  const s = sizesOf(p);
  const half = pointsOf(outlineOf(s)).slice(0, -1);
  const gap = Math.max(4, s.collar / 3);
  const draft = new Draft<Drawn>()
    .cut(half)
    .cut(mirrored(half))
    .centre([0, -3], [0, s.total + 3]);
  const { sleeve, rod } = places(p);
  draft.walls('sleeve', s.bore, [sleeve!.from, sleeve!.to]).walls('rod', s.rod, [rod!.from, rod!.to]);
  draft.across('sleeve', 'in the bore', [-s.bore, s.bore], s.collarHeight + 1, -gap, true);
  draft.across('rod', 'on the rod', [-s.rod, s.rod], s.total, s.total + gap, true);
  draft.up('length', 'length', -s.collar, [s.collarHeight, s.total], -s.collar - gap);
  return draft.done('Cut through the sleeve, collar down');
}

function objectDrawing(measured: Measured<Asked>) {
  const rod = (measured.rod ?? 12) / 2;
  const bore = Math.max(rod + 1, (measured.bore ?? 20) / 2);
  const deep = measured.bore_depth ?? 25;
  const draft = new Draft<Asked>();
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

const guide = [
  step('bore', 'Bore, inside', 'inside-jaws', 'As deep as the jaws reach; rock them and keep the largest.'),
  step('rod', 'Rod, outside', 'outside-jaws', 'Where it will sit in the sleeve; turn it between readings.'),
  step('bore_depth', 'Bore, depth', 'depth-rod', 'From its mouth to what the sleeve must not touch.', {
    bounds: 'length',
  }),
];

export const steppedSleeve = defineRecipe({
  id: 'stepped-sleeve',
  version: 1,
  family: 'adapter',
  title: 'Stepped sleeve',
  purpose: 'Fills a bore that is too wide for a rod, with a collar that keeps it from slipping in.',
  guide,
  mates: {
    sleeve: {
      name: 'Sleeve in the bore',
      dimension: 'bore',
      parameter: 'sleeveDiameter',
      side: 'outside',
      want: 'snug',
      flexibleWant: 'press',
    },
    rod: {
      name: 'Rod in the sleeve',
      dimension: 'rod',
      parameter: 'rodBore',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'slide',
    },
  },
  parameters,
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
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
});
