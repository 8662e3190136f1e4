import { Draft } from '../../drawing/draft';
import { type DrawPoint, mirrored } from '../../drawing/drawing';
import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import { Path, pointsOf, polyline } from '../../outline';
import type { Frame } from '../../vector';
import { CHAMFER } from '../advice';
import {
  defineRecipe,
  type KeysOf,
  type Measured,
  type Places,
  type SurfacePlace,
  type ValuesOf,
} from '../define-recipe';
import { choice, flag, length, Refusals, step } from '../fields';

const parameters = [
  choice('style', 'It is', { bush: 'a bush in a seat', spacer: 'a spacer on a shaft' }),
  length('boreDiameter', 'Bore', [0.8, 300], 'shaft.model'),
  length('outsideDiameter', 'Outside', [2, 320], 'seat.model'),
  length('spacerDiameter', 'Outside', [2, 320], 'boreDiameter + 8'),
  length('length', 'Length at the axis', [0.8, 300], 'gap - 0.2'),
  length('endAngle', 'End slopes by', [0, 40], '0', { measure: 'angle' }),
  flag('flange', 'Flange', false),
  length('flangeWidth', 'Flange stands out by', [0.5, 60], '2'),
  length('flangeThickness', 'Flange thickness', [0.6, 40], '1.6'),
  length('leadIn', 'Chamfers', [0, 4], '0.4', {
    group: 'more',
    sensible: CHAMFER,
    defaultFor: p =>
      `min(0.4; max(0; (${p.style === 'spacer' ? 'spacerDiameter' : 'outsideDiameter'} - boreDiameter) / 6))`,
  }),
];

type P = ValuesOf<typeof parameters>;
type Mate = 'bore' | 'outside';
type Drawn = keyof P | Mate;
type Asked = KeysOf<typeof guide>;

/**
 * A bush between a shaft and its seat, a spacer on a shaft, or either with its end cut at an angle. It stands on the
 * bed, flange down; the axis is z.
 */
const isBush = (p: P) => p.style === 'bush';
const hasFlange = (p: P) => p.flange;

interface Sizes {
  bore: number;
  outside: number;
  /** At the axis. */
  length: number;
  flange: { radius: number; thickness: number } | null;
  leadIn: number;
  /** Rise of the end per mm across. */
  slope: number;
}

function sizesOf(p: P): Sizes {
  const outside = (isBush(p) ? p.outsideDiameter : p.spacerDiameter) / 2;
  return {
    bore: p.boreDiameter / 2,
    outside,
    length: p.length,
    flange: hasFlange(p) ? { radius: outside + p.flangeWidth, thickness: p.flangeThickness } : null,
    leadIn: p.leadIn,
    slope: Math.tan((p.endAngle * Math.PI) / 180),
  };
}

/** Half of the section, (radius, height); the sloping end is cut afterwards. */
function outlineOf({ bore, outside, length: long, flange, leadIn, slope }: Sizes): Outline {
  const top = long + slope * outside;
  const c = leadIn;
  const path = new Path([bore + c, 0]);
  if (flange)
    path.to([flange.radius, 0]).to([flange.radius, flange.thickness]).to([outside, flange.thickness]);
  else path.to([outside - c, 0]).to([outside, c]);
  // A sloping end removes the upper chamfers too.
  if (slope > 0) path.to([outside, top]).to([bore, top]);
  else
    path
      .to([outside, top - c])
      .to([outside - c, top])
      .to([bore + c, top])
      .to([bore, top - c]);
  return path.to([bore, c]).close();
}

/** Along −y, so that its own y is up. */
const ACROSS: Frame = { at: [0, 0, 0], x: [1, 0, 0], up: [0, -1, 0] };

function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const body = kernel.revolve(outlineOf(s));
  if (s.slope === 0) return body;
  const reach = (s.flange?.radius ?? s.outside) + 1;
  const top = s.length + s.slope * reach + 1;
  const wedge = polyline([
    [-reach, s.length - s.slope * reach],
    [reach, s.length + s.slope * reach],
    [reach, top],
    [-reach, top],
  ]);
  return kernel.cut(body, kernel.extrude(wedge, -reach, 2 * reach, ACROSS));
}

/** Where a section across the axis shows whole rings: above the flange, below the lower side of a slope. */
function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const from = Math.max(s.leadIn, s.flange?.thickness ?? 0);
  const to = s.slope > 0 ? s.length - s.slope * s.outside : s.length - s.leadIn;
  const ring: SurfacePlace = { kind: 'round', axis: [0, 0, 1], from, to, at: [0, 0, (from + to) / 2] };
  return { bore: ring, outside: isBush(p) ? ring : null };
}

function refuse(p: P) {
  const s = sizesOf(p);
  const wall = s.outside - s.bore;
  const low = s.length - s.slope * s.outside - (s.flange?.thickness ?? 0);
  return new Refusals<P>()
    .when(
      wall < 0.4,
      isBush(p) ? 'outsideDiameter' : 'spacerDiameter',
      'No wall is left between bore and outside. Was a radius typed for a diameter?',
      2 * s.bore + 2.4,
    )
    .when(
      s.leadIn > wall / 2 - 0.15,
      'leadIn',
      'The chamfers meet in the wall: make them smaller.',
      Math.max(0, Math.floor(5 * wall - 2) / 10),
    )
    .when(
      low < 2 * s.leadIn + 0.6,
      s.slope > 0 ? 'endAngle' : s.flange ? 'flangeThickness' : 'length',
      s.slope > 0
        ? 'The sloping end runs into the foot: a smaller angle, or a longer bush.'
        : 'Too little height is left beside flange and chamfers.',
    ).list;
}

function drawing(p: P) {
  const s = sizesOf(p);
  const half = pointsOf(outlineOf(s)).slice(0, -1);
  const cutOff = ([x, z]: DrawPoint, sign: number): DrawPoint => [
    x,
    Math.min(z, s.length + sign * s.slope * x),
  ];
  const draft = new Draft<Drawn>();
  draft.cut(half.map(q => cutOff(q, 1)));
  draft.cut(mirrored(half.map(q => cutOff(q, -1))));
  const top = s.length + s.slope * s.outside;
  draft.centre([0, -3], [0, top + 3]);
  const rim = s.flange?.radius ?? s.outside;
  const gap = Math.max(4, rim / 3);
  const { bore, outside } = places(p);
  const ring = (mate: Mate, r: number, { from, to, at }: SurfacePlace, line: number) =>
    draft.walls(mate, r, [from, to]).across(mate, mate, [-r, r], at[2], line, true);
  ring('bore', s.bore, bore!, -gap);
  if (outside) ring('outside', s.outside, outside, -2 * gap);
  draft.up('length', 'length', -s.outside, [0, s.length - s.slope * s.outside], -rim - 0.8 * gap);
  return draft.done('Cut through the bush, as it stands on the bed');
}

function objectDrawing(measured: Measured<Asked>, p: P) {
  const shaft = (measured.shaft ?? 8) / 2;
  const seat = Math.max(shaft + 1, (measured.seat ?? 2 * shaft + 6) / 2);
  const gap = measured.gap ?? 12;
  const draft = new Draft<Asked>();
  const outer = seat + 5;
  draft.cut([
    [-shaft, -6],
    [shaft, -6],
    [shaft, gap + 6],
    [-shaft, gap + 6],
  ]);
  if (isBush(p))
    for (const sign of [-1, 1])
      draft.cut([
        [sign * seat, 0],
        [sign * outer, 0],
        [sign * outer, gap],
        [sign * seat, gap],
      ]);
  else
    for (const y of [-5, gap])
      for (const sign of [-1, 1])
        draft.cut([
          [sign * shaft, y],
          [sign * outer, y],
          [sign * outer, y + 5],
          [sign * shaft, y + 5],
        ]);
  draft.centre([0, -9], [0, gap + 9]);
  draft.walls('shaft', shaft, [0, gap]);
  draft.across('shaft', 'shaft', [-shaft, shaft], gap + 6, gap + 10, true);
  if (isBush(p)) {
    draft.walls('seat', seat, [0, gap]);
    draft.across('seat', 'seat', [-seat, seat], 0, -10, true);
  }
  draft.up('gap', isBush(p) ? 'depth' : 'gap', -outer, [0, gap], -outer - 4);
  return draft.done('Cut through shaft and seat');
}

const guide = [
  step(
    'shaft',
    'Shaft, outside',
    'outside-jaws',
    'Where the bush will run, not where the old one has worn it. Turn it between readings.',
  ),
  step(
    'seat',
    'Seat, inside',
    'inside-jaws',
    'The hole the bush is pushed into; rock the jaws and keep the largest.',
    { needed: isBush },
  ),
  step('gap', 'Depth of the seat, or the gap', 'depth-rod', 'How long the bush may be: from face to face.'),
];

export const bush = defineRecipe({
  id: 'bush',
  version: 1,
  family: 'replacement',
  title: 'Bush, spacer or angled wedge',
  purpose: 'Sits on a shaft or bolt: in a worn seat, between two parts, or with its end at an angle.',
  guide,
  mates: {
    bore: {
      name: 'Bore over shaft',
      dimension: 'shaft',
      parameter: 'boreDiameter',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'slide',
    },
    outside: {
      name: 'Bush in its seat',
      dimension: 'seat',
      parameter: 'outsideDiameter',
      side: 'outside',
      want: 'press',
      flexibleWant: 'press',
      active: isBush,
    },
  },
  parameters,
  shown: {
    outsideDiameter: isBush,
    spacerDiameter: p => !isBush(p),
    flangeWidth: hasFlange,
    flangeThickness: hasFlange,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'a seat wheel’s axle',
    sizes: { shaft: 8, seat: 14, gap: 12 },
    parameters: {
      style: 'bush',
      boreDiameter: 8.45,
      outsideDiameter: 13.95,
      spacerDiameter: 16,
      length: 11.8,
      endAngle: 0,
      flange: false,
      flangeWidth: 2,
      flangeThickness: 1.6,
      leadIn: 0.4,
    },
  },
});
