import { box, Draft } from '../../drawing/draft';
import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import { circle, Path } from '../../outline';
import type { Frame } from '../../vector';
import { defineRecipe, type KeysOf, type Measured, type Places, type ValuesOf } from '../define-recipe';
import { length, Refusals, step } from '../fields';

const parameters = [
  length('pilot', 'Hole for the screw', [0.8, 20], 'screw.model'),
  length('pitch', 'Apart', [20, 400], 'apart'),
  length('clear', 'Room for the fingers', [8, 120], '28'),
  length('bar', 'Bar thickness', [4, 60], '12'),
  length('foot', 'Feet, thickness', [5, 60], 'max(14; pilot * 2 + 4)'),
  length('depth', 'Depth', [5, 80], 'max(16; pilot * 2 + 4)'),
  length('pilotDepth', 'Hole is deep', [4, 150], '16', { group: 'more' }),
];

type P = ValuesOf<typeof parameters>;
type Mate = 'pilot';
type Drawn = keyof P | Mate;
type Asked = KeysOf<typeof guide>;

/**
 * A handle between two screws: two feet and a bar, one profile in (x, z) extruded along y. It lies on its side on the
 * bed, so that a pull runs along its layers; screws come in from the undersides of the feet.
 */
interface Sizes {
  apart: number;
  foot: number;
  clear: number;
  bar: number;
  deep: number;
  pilot: number;
  pilotDepth: number;
}

function sizesOf(p: P): Sizes {
  return {
    apart: p.pitch,
    foot: p.foot,
    clear: p.clear,
    bar: p.bar,
    deep: p.depth,
    pilot: p.pilot / 2,
    pilotDepth: p.pilotDepth,
  };
}

/** As printed: x along the handle, y from the undersides of the feet up to the bar. Round where a hand grips. */
function profileOf(s: Sizes): Outline {
  const half = s.apart / 2;
  const out = half + s.foot / 2;
  const inn = half - s.foot / 2;
  const top = s.clear + s.bar;
  const r = Math.min(s.bar, s.foot) * 0.9;
  const k = r * (1 - Math.SQRT1_2);
  const q = Math.min(s.clear, inn) * 0.4;
  const kq = q * (1 - Math.SQRT1_2);
  return new Path([-out, 0])
    .to([-inn, 0])
    .to([-inn, s.clear - q])
    .arc([-inn + q, s.clear], [-inn + kq, s.clear - kq])
    .to([inn - q, s.clear])
    .arc([inn, s.clear - q], [inn - kq, s.clear - kq])
    .to([inn, 0])
    .to([out, 0])
    .to([out, top - r])
    .arc([out - r, top], [out - k, top - k])
    .to([-out + r, top])
    .arc([-out, top - r], [-out + k, top - k])
    .close();
}

/** Into a foot from its underside. */
const under = (x: number, s: Sizes): Frame => ({ at: [x, 0, s.deep / 2], x: [1, 0, 0], up: [0, 1, 0] });

function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  let body = kernel.extrude(profileOf(s), 0, s.deep);
  for (const sign of [-1, 1])
    body = kernel.cut(
      body,
      kernel.extrude(circle([0, 0], s.pilot), -1, s.pilotDepth + 1, under((sign * s.apart) / 2, s)),
    );
  return body;
}

function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  return {
    pilot: {
      kind: 'round',
      at: [-s.apart / 2, s.pilotDepth / 2, s.deep / 2],
      axis: [0, 1, 0],
      from: 0,
      to: s.pilotDepth,
    },
  };
}

function refuse(p: P) {
  const s = sizesOf(p);
  return new Refusals<P>()
    .when(
      s.apart < s.foot + 8,
      'pitch',
      'The feet leave no room between them: a distance measured as a radius?',
      s.foot + 40,
    )
    .when(
      s.pilot > Math.min(s.foot, s.deep) / 2 - 1.2,
      'pilot',
      'The screw’s hole leaves no wall in the foot: a thicker foot, or a smaller screw.',
      Math.min(s.foot, s.deep) - 4,
    )
    .when(
      s.pilotDepth > s.clear + s.bar - 1.2,
      'pilotDepth',
      'The screw’s hole comes out of the top.',
      s.clear + s.bar - 3,
    ).list;
}

function drawing(p: P) {
  const s = sizesOf(p);
  const draft = new Draft<Drawn>().edge(profileOf(s));
  for (const sign of [-1, 1]) {
    const x = (sign * s.apart) / 2;
    draft.mate('pilot', [
      [x - s.pilot, 0],
      [x - s.pilot, s.pilotDepth],
      [x + s.pilot, s.pilotDepth],
      [x + s.pilot, 0],
    ]);
  }
  draft.across('pilot', 'hole', [-s.apart / 2 - s.pilot, -s.apart / 2 + s.pilot], 0, -6, true);
  draft.across('pitch', 'apart', [-s.apart / 2, s.apart / 2], 0, -14);
  draft.up('clear', 'room', s.apart / 2 - s.foot / 2, [0, s.clear], s.apart / 2 + s.foot / 2 + 6);
  return draft.done('From the side, feet down');
}

function objectDrawing(measured: Measured<Asked>) {
  const r = (measured.screw ?? 4) / 2;
  const apart = measured.apart ?? 96;
  const draft = new Draft<Asked>().cut(box(-apart / 2 - 16, -8, apart / 2 + 16, 0));
  for (const sign of [-1, 1]) draft.cut(box((sign * apart) / 2 - r, -8, (sign * apart) / 2 + r, 14));
  draft.mate(
    'screw',
    [
      [-apart / 2 - r, 0],
      [-apart / 2 - r, 14],
    ],
    [
      [-apart / 2 + r, 0],
      [-apart / 2 + r, 14],
    ],
  );
  draft.across('screw', 'screw', [-apart / 2 - r, -apart / 2 + r], 14, 20, true);
  draft.across('apart', 'apart', [-apart / 2, apart / 2], -8, -14);
  return draft.done('The door or lid with its two screws');
}

const guide = [
  step(
    'screw',
    'Screw, over its thread',
    'outside-jaws',
    'The screws you have; they cut their own way into the feet.',
  ),
  step(
    'apart',
    'Screws, apart',
    'span',
    'Centre to centre: inside edge to inside edge and outside to outside, halved.',
  ),
];

export const screwHandle = defineRecipe({
  id: 'screw-handle',
  version: 1,
  family: 'replacement',
  title: 'Handle between two screws',
  purpose: 'A bar handle for a door, a lid or a drawer whose two screw holes are there already.',
  guide,
  mates: {
    pilot: {
      name: 'Screw in the foot',
      dimension: 'screw',
      parameter: 'pilot',
      side: 'inside',
      want: 'insert',
      flexibleWant: 'insert',
    },
  },
  parameters,
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'the oar rack’s drawer',
    sizes: { screw: 4, apart: 96 },
    parameters: { pilot: 3.4, pitch: 96, clear: 28, bar: 12, foot: 14, depth: 16, pilotDepth: 16 },
  },
});
