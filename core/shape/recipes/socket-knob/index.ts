import { box, Draft } from '../../drawing/draft';
import type { Body, Frame, Outline, PartKernel, Point2 } from '../../kernels/kernel';
import { circle, flattened, Path, polygon } from '../../outline';
import { CHAMFER } from '../advice';
import { choice, flag, length, Refusals, step } from '../fields';
import { lengthOf, type MateSpec, type MateSurface, type Parameters, type Recipe } from '../recipe';

/**
 * A knob on a shaft or bolt head: its socket opens downwards on the bed and may go right through. The grip is
 * round or has lobes; a set screw may hold it. The axis is z.
 */
type Shape = 'hexagon' | 'square' | 'round' | 'dee' | 'two-flats' | 'key';
const shapeOf = (p: Parameters) => p.socket as Shape;
const isRound = (p: Parameters) => shapeOf(p) !== 'hexagon' && shapeOf(p) !== 'square';
const hasKey = (p: Parameters) => shapeOf(p) === 'key';
const hasFlats = (p: Parameters) => shapeOf(p) !== 'round' && !hasKey(p);
const hasFlutes = (p: Parameters) => p.grip === 'flutes';

interface Sizes {
  shape: Shape;
  flats: number;
  round: number;
  depth: number;
  through: boolean;
  grip: number;
  height: number;
  lobes: number;
  hub: number;
  flutes: { count: number; depth: number } | null;
  /** Slot for a key: its width, and how far its floor lies beyond the shaft. */
  key: { width: number; over: number } | null;
}

function sizesOf(p: Parameters): Sizes {
  return {
    shape: shapeOf(p),
    flats: hasFlats(p) ? lengthOf(p, 'socketFlats') : 0,
    round: isRound(p) ? lengthOf(p, 'socketRound') : 0,
    depth: lengthOf(p, 'socketDepth'),
    through: p.through === true,
    grip: lengthOf(p, 'gripDiameter') / 2,
    height: lengthOf(p, 'height'),
    lobes: p.grip === 'lobes' ? lengthOf(p, 'lobes') : 0,
    hub: p.grip === 'lobes' ? lengthOf(p, 'gripDiameter') * 0.36 : lengthOf(p, 'gripDiameter') / 2,
    flutes: hasFlutes(p) ? { count: lengthOf(p, 'flutes'), depth: lengthOf(p, 'fluteDepth') } : null,
    key: hasKey(p)
      ? { width: lengthOf(p, 'keyWidth'), over: lengthOf(p, 'overKey') - lengthOf(p, 'socketRound') }
      : null,
  };
}

/** Farthest corner of the socket from the axis. */
function reachOf({ shape, flats, round, key }: Sizes): number {
  if (key) return Math.hypot(round / 2 + key.over, key.width / 2);
  if (shape === 'hexagon') return flats / 2 / Math.cos(Math.PI / 6);
  if (shape === 'square') return flats / Math.SQRT2;
  return round / 2;
}

function socketOf(s: Sizes): Outline {
  switch (s.shape) {
    case 'hexagon':
      return polygon(6, s.flats);
    case 'square':
      return polygon(4, s.flats);
    case 'round':
      return circle([0, 0], s.round / 2);
    case 'key':
      return keyed(s.round / 2, s.key!);
    default:
      return flattened(s.round, s.flats, s.shape === 'two-flats');
  }
}

/** A bore with a slot for a key at the right: over all it is the bore and what the key stands out. */
function keyed(radius: number, { width, over }: NonNullable<Sizes['key']>): Outline {
  const half = width / 2;
  const mouth = Math.sqrt(Math.max(0, radius * radius - half * half));
  return new Path([mouth, half])
    .arc([mouth, -half], [-radius, 0])
    .to([radius + over, -half])
    .to([radius + over, half])
    .close();
}

/** Half of a flute's angle is a quarter of its share of the rim. */
function fluted(radius: number, { count, depth }: NonNullable<Sizes['flutes']>): Outline {
  const on = (r: number, turns: number): Point2 => {
    const a = (2 * Math.PI * turns) / count;
    return [r * Math.cos(a), r * Math.sin(a)];
  };
  const path = new Path(on(radius, 0.25));
  for (let i = 0; i < count; i++) {
    path.arc(on(radius, i + 0.75), on(radius, i + 0.5));
    path.arc(on(radius, i + 1.25), on(radius - depth, i + 1));
  }
  return path.close();
}

/** A circle, fluted or not, or lobes whose arcs bulge out between waists on the hub's circle. */
function gripOf(s: Sizes): Outline {
  if (s.flutes) return fluted(s.grip, s.flutes);
  if (s.lobes === 0) return circle([0, 0], s.grip);
  const at = (i: number, radius: number): Point2 => {
    const a = (Math.PI * i) / s.lobes;
    return [radius * Math.cos(a), radius * Math.sin(a)];
  };
  const path = new Path(at(-0.5, s.hub));
  for (let i = 0; i < s.lobes; i++) {
    // Out over the tip, then in through the waist.
    path.arc(at(2 * i + 0.5, s.hub), at(2 * i, s.grip));
    path.arc(at(2 * i + 1.5, s.hub), at(2 * i + 1, s.hub * 0.9));
  }
  return path.close();
}

/** Out along x, for the set screw. */
const SIDEWAYS: Frame = { at: [0, 0, 0], x: [0, 1, 0], up: [1, 0, 0] };

function solid(p: Parameters, kernel: PartKernel): Body {
  const s = sizesOf(p);
  let body = kernel.extrude(gripOf(s), 0, s.height);
  const deep = s.through ? s.height + 2 : s.depth + 1;
  body = kernel.cut(body, kernel.extrude(socketOf(s), -1, deep));
  const c = lengthOf(p, 'leadIn');
  if (c > 0) {
    // A cone at the mouth leads corners in.
    const r = reachOf(s);
    const cone = new Path([0, -1])
      .to([r + c + 1, -1])
      .to([r, c])
      .to([0, c])
      .close();
    body = kernel.cut(body, kernel.revolve(cone));
  }
  if (p.setScrew === true) {
    const z = lengthOf(p, 'screwHeight');
    const hole = circle([0, z], lengthOf(p, 'screwHole') / 2);
    body = kernel.cut(body, kernel.extrude(hole, 0, s.grip + 1, SIDEWAYS));
  }
  return body;
}

function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  const from = lengthOf(p, 'leadIn');
  const to = s.through ? s.height : s.depth;
  // Clear of the set screw's hole, which comes in from one side.
  const low =
    p.setScrew === true ? Math.max(from, lengthOf(p, 'screwHeight') + lengthOf(p, 'screwHole') / 2) : from;
  const z = (low + to) / 2;
  const common = { side: 'inside' as const, axis: [0, 0, 1] as const, from, to };
  const list: MateSurface[] = [];
  if (hasFlats(p)) {
    const flats = s.shape === 'hexagon' ? 6 : s.shape === 'square' ? 4 : 2;
    list.push({
      ...common,
      mate: 'flats',
      kind: 'flats',
      size: s.flats,
      at: [middleOf(s), 0, z],
      across: [1, 0, 0],
      flats,
    });
  }
  if (isRound(p))
    list.push(
      s.shape === 'round'
        ? { ...common, mate: 'shaft', kind: 'round', size: s.round, at: [0, 0, z] }
        : // Its round is open at the flats: measured across it, along them.
          { ...common, mate: 'shaft', kind: 'flats', size: s.round, at: [0, 0, z], across: [0, 1, 0] },
    );
  if (s.key)
    list.push({
      ...common,
      mate: 'key',
      kind: 'flats',
      size: s.key.width,
      at: [s.round / 2 + s.key.over / 2, 0, z],
      across: [0, 1, 0],
    });
  return list;
}

/** A D's flat and far side lie about a middle of their own. */
const middleOf = (s: Sizes) => (s.shape === 'dee' ? (s.flats - s.round) / 2 : 0);

function refuse(p: Parameters) {
  const s = sizesOf(p);
  const reach = reachOf(s);
  const waist = s.lobes > 0 ? s.hub * 0.9 : s.grip - (s.flutes?.depth ?? 0);
  const wall = waist - reach - lengthOf(p, 'leadIn');
  const refusals = new Refusals()
    .when(
      wall < 0.8,
      'gripDiameter',
      'The grip leaves no wall around the socket’s corners: make it larger.',
      (reach + lengthOf(p, 'leadIn') + 2 + (s.flutes?.depth ?? 0)) / (s.lobes > 0 ? 0.324 : 0.5),
    )
    .when(
      s.flutes !== null && s.flutes.depth > 1.2 * s.grip * Math.sin(Math.PI / 2 / s.flutes.count),
      'fluteDepth',
      'Flutes so deep and so near each other leave no ridge to hold: shallower, or fewer.',
      s.flutes ? 0.8 * s.grip * Math.sin(Math.PI / 2 / s.flutes.count) : undefined,
    )
    .when(
      s.key !== null && s.key.width > 0.7 * s.round,
      'keyWidth',
      'The key is as wide as the shaft: about a quarter of its diameter is usual.',
      s.round / 4,
    )
    .when(
      s.key !== null && (s.key.over < 0.3 || s.key.over > s.round / 2),
      'overKey',
      'Over the key a shaft measures a little more than its diameter. Was the key’s height typed?',
      1.1 * s.round,
    )
    .when(
      !s.through && s.depth > s.height - 0.6,
      'socketDepth',
      'The socket goes through the top: less deep, or say that it goes through.',
      s.height - 2,
    )
    .when(
      (s.through ? s.height : s.depth) < lengthOf(p, 'leadIn') + 1,
      s.through ? 'height' : 'socketDepth',
      'The socket is too shallow to hold.',
      lengthOf(p, 'leadIn') + 4,
    )
    .when(
      s.shape === 'dee' && (s.flats >= s.round - 0.1 || s.flats <= s.round / 2),
      'socketFlats',
      'A D’s flat lies between the shaft’s middle and its outside: from the flat to the far side, that is more than half of the diameter and less than all.',
      0.9 * s.round,
    )
    .when(
      s.shape === 'two-flats' && (s.flats >= s.round - 0.1 || s.flats < 0.3 * s.round),
      'socketFlats',
      'Across its two flats a shaft is less than its diameter, and more than a third.',
      0.8 * s.round,
    );
  if (p.setScrew === true) {
    const z = lengthOf(p, 'screwHeight');
    const r = lengthOf(p, 'screwHole') / 2;
    const top = s.through ? s.height : s.depth;
    refusals
      .when(
        z - r < lengthOf(p, 'leadIn') + 0.6 || z + r > top - 1,
        'screwHeight',
        'The set screw must meet the shaft inside the socket, clear of its mouth and its end.',
        top / 2,
      )
      .when(r > 0.35 * s.grip, 'screwHole', 'The set screw’s hole is too wide for this knob.', 0.5 * s.grip);
  }
  return refusals.list;
}

function drawing(p: Parameters) {
  const s = sizesOf(p);
  const draft = new Draft();
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

function objectDrawing(measured: Readonly<Record<string, number>>, p: Parameters) {
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
  const draft = new Draft().cut(outline);
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

const flatsMate: MateSpec = {
  id: 'flats',
  name: 'Socket over flats',
  dimension: 'flats',
  parameter: 'socketFlats',
  side: 'inside',
  want: 'snug',
  flexibleWant: 'snug',
  form: 'flats',
  active: hasFlats,
};

export const socketKnob: Recipe = {
  id: 'socket-knob',
  version: 2,
  family: 'replacement',
  title: 'Socket knob',
  purpose: 'Turns a shaft or a bolt head by hand: hexagon, square, D, two flats, round or with a key.',
  guide: [
    step(
      'flats',
      'Across the flats',
      'outside-jaws',
      'Flat on flat, not over the corners; each pair once. On a D from the flat to the far side.',
      { critical: true, needed: hasFlats },
    ),
    step('shaft', 'Shaft, diameter', 'outside-jaws', 'Over the round part; turn it between readings.', {
      critical: true,
      needed: isRound,
    }),
    step('key_width', 'Key, width', 'outside-jaws', 'The key itself, taken out if it comes out.', {
      critical: true,
      needed: hasKey,
    }),
    step(
      'over_key',
      'Over shaft and key',
      'outside-jaws',
      'From the far side of the shaft to the top of the key.',
      { needed: hasKey },
    ),
    step(
      'stub',
      'Length that stands out',
      'step',
      'From the end of the shaft to what the knob must not touch.',
    ),
  ],
  mates: [
    flatsMate,
    {
      id: 'shaft',
      name: 'Socket over shaft',
      dimension: 'shaft',
      parameter: 'socketRound',
      side: 'inside',
      want: 'snug',
      flexibleWant: 'snug',
      active: isRound,
    },
    {
      id: 'key',
      name: 'Key in its slot',
      dimension: 'key_width',
      parameter: 'keyWidth',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'snug',
      form: 'flats',
      active: hasKey,
    },
  ],
  parameters: [
    choice('socket', 'Socket', {
      hexagon: 'hexagon',
      square: 'square',
      round: 'round',
      dee: 'D, one flat',
      'two-flats': 'two flats',
      key: 'round with a key',
    }),
    length('socketFlats', 'Across its flats', [1, 120], 'flats.model', { shown: hasFlats }),
    length('socketRound', 'Across its round', [1, 120], 'shaft.model', { shown: isRound }),
    length('keyWidth', 'Slot for the key', [0.8, 60], 'key_width.model', { shown: hasKey }),
    length('overKey', 'From far side to slot’s floor', [1.5, 160], 'over_key + 0.4', { shown: hasKey }),
    flag('through', 'Goes right through', false),
    length('socketDepth', 'Socket depth', [1, 120], 'stub - 0.5', { shown: p => p.through !== true }),
    choice('grip', 'Grip', { lobes: 'with lobes', flutes: 'round, with flutes', round: 'round' }),
    length('gripDiameter', 'Grip, across', [6, 250], '44'),
    length('lobes', 'Lobes', [3, 12], '5', { measure: 'count', shown: p => p.grip === 'lobes' }),
    length('flutes', 'Flutes', [6, 48], '16', { measure: 'count', shown: hasFlutes }),
    length('fluteDepth', 'Flutes, depth', [0.3, 12], '1', { shown: hasFlutes }),
    length('height', 'Height', [2, 150], '14'),
    flag('setScrew', 'Set screw from the side', false),
    length('screwHole', 'Its hole', [1, 20], '2.5', { shown: p => p.setScrew === true }),
    length('screwHeight', 'Its height', [1, 140], 'socketDepth / 2', { shown: p => p.setScrew === true }),
    length('leadIn', 'Lead-in at the mouth', [0, 4], '0.6', { group: 'more', sensible: CHAMFER }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks: () => [],
  demo: {
    name: 'a foot-stretcher’s worn hexagon bolt',
    sizes: { flats: 13, shaft: 16, key_width: 5, over_key: 18, stub: 10 },
    parameters: {
      socket: 'hexagon',
      socketFlats: 13.3,
      socketRound: 16.3,
      keyWidth: 5.2,
      overKey: 18.4,
      through: false,
      socketDepth: 9.5,
      grip: 'lobes',
      gripDiameter: 50,
      lobes: 5,
      flutes: 16,
      fluteDepth: 1,
      height: 14,
      setScrew: false,
      screwHole: 2.5,
      screwHeight: 4.5,
      leadIn: 0.6,
    },
  },
};
