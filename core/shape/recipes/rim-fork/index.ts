import { box, Draft } from '../../drawing/draft';
import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import { circle, Path } from '../../outline';
import type { Frame } from '../../vector';
import { defineRecipe, type KeysOf, type Measured, type Places, type ValuesOf } from '../define-recipe';
import { choice, length, Refusals, step } from '../fields';

const parameters = [
  choice('holds', 'It holds', { click: 'by clicking behind a bead', straight: 'by its arms alone' }),
  length('slot', 'Slot', [1, 120], 'bead.model'),
  length('mouth', 'Mouth', [0.6, 120], 'neck.model'),
  length('deep', 'Slot is deep', [3, 200], 'rim_depth'),
  length('arm', 'Arms', [1.2, 40], '3'),
  length('height', 'Height', [3, 200], '14'),
  length('base', 'Base thickness', [1.2, 60], '5'),
  length('screwHole', 'Screw hole in the base (0 is none)', [0, 20], '4.5'),
  length('lead', 'Lead-in at the mouth', [0.4, 30], '3', { group: 'more' }),
];

type P = ValuesOf<typeof parameters>;
type Mate = 'slot' | 'mouth';
type Drawn = keyof P | Mate;
type Asked = KeysOf<typeof guide>;

/**
 * A fork that clips onto a rim: two arms with a slot between, whose mouth is narrower so that it clicks over a bead, on
 * a base with a screw hole. One profile in (x, y) extruded upwards: the arms bend along the layers.
 */
const clicks = (p: P) => p.holds === 'click';

interface Sizes {
  slot: number;
  mouth: number;
  deep: number;
  arm: number;
  base: number;
  high: number;
  lead: number;
  screw: number;
}

function sizesOf(p: P): Sizes {
  return {
    slot: p.slot / 2,
    mouth: (clicks(p) ? p.mouth : p.slot) / 2,
    deep: p.deep,
    arm: p.arm,
    base: p.base,
    high: p.height,
    lead: p.lead,
    screw: p.screwHole / 2,
  };
}

/** How far the mouth is narrowed on each side, and the length of its 45° slope that holds the rim. */
const standsIn = (s: Sizes) => Math.max(0, s.slot - s.mouth);

function profileOf(s: Sizes): Outline {
  const out = s.slot + s.arm;
  const inn = standsIn(s);
  const top = s.base + s.deep;
  const crest = top - s.lead;
  const mouth = s.slot - inn;
  return new Path([-out, 0])
    .to([out, 0])
    .to([out, top])
    .to([mouth + s.lead * 0.6, top])
    .to([mouth, crest])
    .to([s.slot, crest - inn])
    .to([s.slot, s.base])
    .to([-s.slot, s.base])
    .to([-s.slot, crest - inn])
    .to([-mouth, crest])
    .to([-mouth - s.lead * 0.6, top])
    .to([-out, top])
    .close();
}

/** From the base's underside towards the slot. */
const under = (s: Sizes): Frame => ({ at: [0, 0, s.high / 2], x: [1, 0, 0], up: [0, 1, 0] });

function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const body = kernel.extrude(profileOf(s), 0, s.high);
  return s.screw > 0
    ? kernel.cut(body, kernel.extrude(circle([0, 0], s.screw), -1, s.base + 2, under(s)))
    : body;
}

function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const to = s.base + s.deep - s.lead - standsIn(s);
  const common = {
    kind: 'flats' as const,
    axis: [0, 0, 1] as const,
    across: [1, 0, 0] as const,
    from: 0,
    to: s.high,
  };
  const crest = s.base + s.deep - s.lead;
  return {
    slot: { ...common, at: [0, (s.base + to) / 2, s.high / 4] },
    mouth: clicks(p) ? { ...common, at: [0, crest, s.high / 4] } : null,
  };
}

function refuse(p: P) {
  const s = sizesOf(p);
  const inn = standsIn(s);
  return new Refusals<P>()
    .when(s.mouth <= 0.4, 'mouth', 'The mouth is closed: nothing goes in.', s.slot)
    .when(
      clicks(p) && s.mouth > s.slot - 0.05,
      'mouth',
      'The mouth is no narrower than the slot: nothing holds. Were the two readings swapped?',
      2 * s.slot - 0.4,
    )
    .when(
      s.deep < s.lead + inn + 1.5,
      'deep',
      'The slot is too shallow for its mouth: deeper, or a shorter lead-in.',
      s.lead + inn + 4,
    )
    .when(s.lead * 0.6 > s.arm - 0.4 + inn, 'lead', 'The lead-in takes the whole arm.', (s.arm + inn) * 1.2)
    .when(
      s.screw > 0 && s.high < 2 * s.screw + 2.4,
      'height',
      'The screw’s hole is wider than the fork is high.',
      2 * s.screw + 5,
    )
    .when(
      s.screw > 0 && s.slot + s.arm < s.screw + 1.2,
      'arm',
      'The screw’s hole is wider than the fork.',
      s.screw + 3,
    ).list;
}

function drawing(p: P) {
  const s = sizesOf(p);
  const draft = new Draft<Drawn>().cut(profileOf(s));
  const to = s.base + s.deep - s.lead - standsIn(s);
  draft.walls('slot', s.slot, [s.base, to]);
  const crest = s.base + s.deep - s.lead;
  if (clicks(p)) draft.walls('mouth', s.mouth, [crest - 0.3, crest + 0.3]);
  const gap = Math.max(5, s.slot);
  draft.across('slot', 'slot', [-s.slot, s.slot], s.base, -gap);
  if (clicks(p)) draft.across('mouth', 'mouth', [-s.mouth, s.mouth], crest, s.base + s.deep + gap);
  draft.up('deep', 'deep', s.slot + s.arm, [s.base, s.base + s.deep], s.slot + s.arm + gap);
  return draft.done('Cut through the fork, as it is printed');
}

function objectDrawing(measured: Measured<Asked>) {
  const bead = (measured.bead ?? 8) / 2;
  const neck = Math.min(bead - 0.3, (measured.neck ?? 6) / 2);
  const deep = measured.rim_depth ?? 16;
  const draft = new Draft<Asked>().cut([
    [-neck, 0],
    [neck, 0],
    [neck, deep * 0.4],
    [bead, deep * 0.4],
    [bead, deep],
    [-bead, deep],
    [-bead, deep * 0.4],
    [-neck, deep * 0.4],
  ]);
  draft.cut(box(-bead * 3, -6, bead * 3, 0));
  draft.walls('bead', bead, [deep * 0.4, deep]);
  draft.walls('neck', neck, [0, deep * 0.4]);
  draft.across('bead', 'rim', [-bead, bead], deep, deep + 6);
  draft.across('neck', 'below it', [-neck, neck], 0, -12);
  draft.up('rim_depth', 'depth', bead, [0, deep], bead * 3 + 5);
  return draft.done('Cut through the rim');
}

const guide = [
  step('bead', 'Rim, thickness', 'outside-jaws', 'At its thickest, which the slot must take.'),
  step('neck', 'Below the rim, thickness', 'jaw-tips', 'Where it is thinner again: the mouth closes there.', {
    needed: clicks,
  }),
  step('rim_depth', 'Rim, depth', 'step', 'How far the fork may go over it.'),
];

export const rimFork = defineRecipe({
  id: 'rim-fork',
  version: 1,
  family: 'mount',
  title: 'Fork for a rim',
  purpose: 'Clips over the rim of a bucket, a board or a shell and carries something on its base.',
  guide,
  mates: {
    slot: {
      name: 'Rim in the slot',
      dimension: 'bead',
      parameter: 'slot',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'snug',
      form: 'flats',
    },
    mouth: {
      name: 'Mouth behind the bead',
      dimension: 'neck',
      parameter: 'mouth',
      side: 'inside',
      want: 'click',
      flexibleWant: 'click',
      form: 'flats',
      active: clicks,
    },
  },
  parameters,
  shown: {
    mouth: clicks,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'the washing bucket’s rim',
    sizes: { bead: 8, neck: 6, rim_depth: 16 },
    parameters: {
      holds: 'click',
      slot: 8.5,
      mouth: 6.4,
      deep: 16,
      arm: 3,
      height: 14,
      base: 5,
      screwHole: 4.5,
      lead: 3,
    },
  },
});
