import { box, Draft } from '../../drawing/draft';
import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import { circle, Path, pointsOf } from '../../outline';
import type { Frame } from '../../vector';
import { WALL } from '../advice';
import { defineRecipe, type KeysOf, type Measured, type Places, type ValuesOf } from '../define-recipe';
import { choice, length, Refusals, step } from '../fields';

const parameters = [
  choice('style', 'The tube', {
    snap: 'snaps in',
    half: 'lies in half a shell',
    clamp: 'is clamped by a bolt',
  }),
  length('bore', 'Bore', [3, 250], 'tube.model'),
  length('wall', 'Arms', [1, 20], '2.4', { sensible: WALL }),
  length('length', 'Length along the tube', [4, 250], '12', {
    defaultFor: p => `max(12; ${p.style === 'clamp' ? 'boltHole' : 'screwHole'} + 4)`,
  }),
  length('foot', 'Foot thickness', [1.2, 40], '3'),
  length('ears', 'Foot beside the arms', [0, 60], 'screwHole + 5'),
  length('screwHole', 'Screw hole (0 is none)', [0, 20], 'screw + 0.5'),
  length('slit', 'Slit', [0.4, 30], '2'),
  length('boltHole', 'Bolt through the ears, hole', [1, 20], 'screw + 0.5'),
  length('earThickness', 'Ears, each', [1.2, 30], 'min(5; (bore + 2 * wall) * 0.3)'),
  length('stand', 'Tube stands off the foot by', [0, 60], '0.5', { group: 'more' }),
];

type P = ValuesOf<typeof parameters>;
type Mate = 'bore';
type Drawn = keyof P | Mate;
type Asked = KeysOf<typeof guide>;

/**
 * Holds a tube on a wall or a board: a clip whose arms close beyond the middle so that the tube snaps in, a saddle that
 * lies over it, or a clamp whose slit is drawn together by a bolt. One profile extruded along the tube; the foot is on
 * the bed, the tube along y.
 */
interface Sizes {
  radius: number;
  wall: number;
  /** Height of the tube's axis over the foot's underside. */
  axis: number;
  foot: number;
  halfWidth: number;
  /** Half of the mouth, from straight up, radians. */
  mouth: number;
  long: number;
  screw: number;
  /** Half of the slit, ears beside it, and the bolt through them. */
  clamp?: { slit: number; thick: number; high: number; bolt: number };
}

/** Half a shell closes slightly beyond the middle, so that the tube's own width is inside it. */
const ANGLE: Record<string, number> = { snap: 55, half: 84, clamp: 0 };
const isClamp = (p: P) => p.style === 'clamp';

function sizesOf(p: P): Sizes {
  const radius = p.bore / 2;
  const foot = p.foot;
  return {
    radius,
    wall: p.wall,
    axis: foot + p.stand + radius,
    foot,
    halfWidth: radius + p.wall + p.ears,
    mouth: (ANGLE[p.style]! * Math.PI) / 180,
    long: p.length,
    screw: p.screwHole / 2,
    ...(isClamp(p)
      ? {
          clamp: {
            slit: p.slit / 2,
            thick: p.earThickness,
            high: p.boltHole + 2 * EAR_EDGE,
            bolt: p.boltHole / 2,
          },
        }
      : {}),
  };
}

/** What remains of an ear above and below its bolt, mm. */
const EAR_EDGE = 2.4;
const boltAt = (s: Sizes) => s.axis + s.radius + s.wall + s.clamp!.high / 2;

/** In (x, z), from the foot's left corner round under, over the arms and back inside the bore. */
function profileOf(s: Sizes): Outline {
  const outer = s.radius + s.wall;
  const at = (radius: number, angle: number): [number, number] => [
    radius * Math.sin(angle),
    s.axis + radius * Math.cos(angle),
  ];
  // Where the outside of an arm meets the foot's top.
  const below = Math.max(-1, Math.min(1, (s.foot - s.axis) / outer));
  const land = Math.acos(below);
  if (s.clamp) return clampOutline(s, land, at);
  const middle = (s.mouth + land) / 2;
  return new Path([-s.halfWidth, 0])
    .to([s.halfWidth, 0])
    .to([s.halfWidth, s.foot])
    .to(at(outer, land))
    .arc(at(outer, s.mouth), at(outer, middle))
    .to(at(s.radius, s.mouth))
    .arc(at(s.radius, -s.mouth), at(s.radius, Math.PI))
    .to(at(outer, -s.mouth))
    .arc(at(outer, -land), at(outer, -middle))
    .to([-s.halfWidth, s.foot])
    .close();
}

/** Up the outside of one ear, down the slit, round the bore below and up the slit again. */
function clampOutline(
  s: Sizes,
  land: number,
  at: (radius: number, angle: number) => [number, number],
): Outline {
  const outer = s.radius + s.wall;
  const { slit, thick, high } = s.clamp!;
  const [ear, mouth] = [Math.asin((slit + thick) / outer), Math.asin(slit / s.radius)];
  const top = s.axis + outer + high;
  const middle = (ear + land) / 2;
  return new Path([-s.halfWidth, 0])
    .to([s.halfWidth, 0])
    .to([s.halfWidth, s.foot])
    .to(at(outer, land))
    .arc(at(outer, ear), at(outer, middle))
    .to([slit + thick, top])
    .to([slit, top])
    .to(at(s.radius, mouth))
    .arc(at(s.radius, -mouth), at(s.radius, Math.PI))
    .to([-slit, top])
    .to([-slit - thick, top])
    .to(at(outer, -ear))
    .arc(at(outer, -land), at(outer, -middle))
    .to([-s.halfWidth, s.foot])
    .close();
}

/** Towards the right, its own y up. */
const ACROSS: Frame = { at: [0, 0, 0], x: [0, 1, 0], up: [1, 0, 0] };

/** Its own y is up, and it is extruded towards the front. */
const ALONG: Frame = { at: [0, 0, 0], x: [1, 0, 0], up: [0, -1, 0] };

function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  let body = kernel.extrude(profileOf(s), -s.long / 2, s.long, ALONG);
  if (s.screw > 0) {
    for (const sign of [-1, 1])
      body = kernel.cut(body, kernel.extrude(circle([sign * earMiddle(s), 0], s.screw), -1, s.foot + 2));
  }
  if (s.clamp) {
    const reach = s.clamp.slit + s.clamp.thick + 1;
    const hole = circle([0, boltAt(s)], s.clamp.bolt);
    body = kernel.cut(body, kernel.extrude(hole, -reach, 2 * reach, ACROSS));
  }
  return body;
}

/** The middle of the part of the foot that the arms do not cover. */
function earMiddle(s: Sizes): number {
  const outer = s.radius + s.wall;
  const drop = s.axis - s.foot;
  const armAt = drop >= outer ? 0 : Math.sqrt(outer ** 2 - drop ** 2);
  return (Math.max(armAt, drop > 0 ? outer : 0) + s.halfWidth) / 2;
}

function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  return {
    bore: {
      kind: 'flats',
      at: [0, -s.long / 4, s.axis],
      axis: [0, 1, 0],
      across: [1, 0, 0],
      from: -s.long / 2,
      to: s.long / 2,
    },
  };
}

function refuse(p: P) {
  const s = sizesOf(p);
  const outer = s.radius + s.wall;
  const { clamp } = s;
  return new Refusals<P>()
    .when(
      clamp !== undefined && clamp.slit > 0.5 * s.radius,
      'slit',
      'The slit is half as wide as the tube: nothing is left to clamp.',
      s.radius / 4,
    )
    .when(
      clamp !== undefined && clamp.slit + clamp.thick > 0.7 * outer,
      'earThickness',
      'The ears are as wide as the ring: make them thinner.',
      clamp && Math.max(1, 0.6 * outer - clamp.slit),
    )
    .when(
      clamp !== undefined && s.long < 2 * clamp.bolt + 2,
      'length',
      'The bolt’s hole is wider than the clamp is long.',
      clamp && 2 * clamp.bolt + 6,
    )
    .when(s.axis - s.radius - s.foot < -s.foot + 0.8, 'foot', 'The bore cuts through the foot.', 2)
    .when(
      s.screw > 0 && s.halfWidth - outer < 2 * s.screw + 2,
      'ears',
      'The screw’s hole does not fit beside the clip: a wider foot.',
      2 * s.screw + 3,
    )
    .when(
      s.screw > 0 && s.long < 2 * s.screw + 2,
      'length',
      'The screw’s hole is wider than the clip is long.',
      2 * s.screw + 6,
    )
    .when(
      s.axis >= s.foot + outer - 0.3,
      'stand',
      'The bore stands off so far that the arms do not meet the foot: nearer, or a thicker foot.',
      Math.max(0.1, s.wall - 0.8),
    ).list;
}

function drawing(p: P) {
  const s = sizesOf(p);
  const draft = new Draft<Drawn>().cut(profileOf(s));
  const open = s.clamp ? Math.asin(Math.min(1, s.clamp.slit / s.radius)) : s.mouth;
  const ring = pointsOf(circle([0, s.axis], s.radius)).filter(
    ([x, y]) => Math.abs(Math.atan2(x, y - s.axis)) >= open - 0.05,
  );
  if (s.clamp) {
    const { slit, thick, bolt } = s.clamp;
    for (const sign of [-1, 1])
      draft.edge(box(sign * slit, boltAt(s) - bolt, sign * (slit + thick), boltAt(s) + bolt));
  }
  // From one lip round below to the other.
  draft.mate(
    'bore',
    ring.toSorted((a, b) => turned(a) - turned(b)),
  );
  draft.across(
    'bore',
    'tube',
    [-s.radius, s.radius],
    s.axis,
    s.axis + s.radius + s.wall + (s.clamp?.high ?? 0) + 5,
    true,
  );
  draft.across('as-drawn', 'foot', [-s.halfWidth, s.halfWidth], 0, -6);
  draft.up('as-drawn', 'axis', s.halfWidth, [0, s.axis], s.halfWidth + 6);
  return draft.done('From the end of the tube');

  function turned([x, y]: readonly [number, number]) {
    return (Math.atan2(x, y - s.axis) + 2 * Math.PI) % (2 * Math.PI);
  }
}

function objectDrawing(measured: Measured<Asked>) {
  const r = (measured.tube ?? 25) / 2;
  const screw = (measured.screw ?? 4) / 2;
  const draft = new Draft<Asked>().cut(circle([0, r], r));
  draft.cut(box(-2 * r, -6, 2 * r, -2));
  draft.mateLoop('tube', circle([0, r], r));
  draft.across('tube', 'tube', [-r, r], r, 2 * r + 5, true);
  draft.cut(box(2.6 * r - screw, -2, 2.6 * r + screw, 14));
  draft.across('screw', 'screw', [2.6 * r - screw, 2.6 * r + screw], 14, 19, true);
  return draft.done('The tube from its end, and the screw');
}

const guide = [
  step('tube', 'Tube, outside', 'outside-jaws', 'Where the clip will sit; turn it between readings.'),
  step('screw', 'Screw, over its thread', 'outside-jaws', 'The screw you have; its hole is made for it.', {
    critical: true,
  }),
];

export const tubeClip = defineRecipe({
  id: 'tube-clip',
  version: 2,
  family: 'mount',
  title: 'Tube clip, saddle or clamp',
  purpose: 'Holds a tube, rod or hose on a wall or board: it snaps in, lies in half a shell, or is clamped.',
  guide,
  mates: {
    bore: {
      name: 'Tube in the clip',
      dimension: 'tube',
      parameter: 'bore',
      side: 'inside',
      want: 'snug',
      flexibleWant: 'snug',
      form: 'flats',
    },
  },
  parameters,
  shown: {
    slit: isClamp,
    boltHole: isClamp,
    earThickness: isClamp,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'a boathook’s shaft',
    sizes: { tube: 25, screw: 4 },
    parameters: {
      style: 'snap',
      bore: 25.2,
      wall: 2.4,
      length: 12,
      foot: 3,
      ears: 9.5,
      screwHole: 4.5,
      slit: 2,
      boltHole: 4.5,
      earThickness: 5,
      stand: 0.5,
    },
  },
});
