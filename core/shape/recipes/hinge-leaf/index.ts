import { Draft } from '../../drawing/draft';
import type { Body, Frame, Outline, PartKernel } from '../../kernels/kernel';
import { circle, Path } from '../../outline';
import { PLATE, WALL } from '../advice';
import { length, Refusals, step } from '../fields';
import { lengthOf, type MateSurface, type Parameters, type Recipe } from '../recipe';

/**
 * A lug or hinge leaf: a plate on the bed, a barrel along its edge with a bore for the pin, and screw holes.
 * One profile pulled along the pin, which lies along y.
 */
interface Sizes {
  pin: number;
  barrel: number;
  plate: number;
  reach: number;
  long: number;
  axis: number;
  screw: number;
  holes: number;
}

function sizesOf(p: Parameters): Sizes {
  const pin = lengthOf(p, 'pinBore') / 2;
  const barrel = pin + lengthOf(p, 'wall');
  return {
    pin,
    barrel,
    plate: lengthOf(p, 'plate'),
    reach: lengthOf(p, 'reach'),
    long: lengthOf(p, 'length'),
    axis: barrel + lengthOf(p, 'rise'),
    screw: lengthOf(p, 'screwHole') / 2,
    holes: lengthOf(p, 'holes'),
  };
}

/** In (x, z): the barrel about x = 0 with its foot down to the bed, the plate off to the right. */
function profileOf(s: Sizes): Outline {
  return new Path([-s.barrel, 0])
    .to([s.reach, 0])
    .to([s.reach, s.plate])
    .to([s.barrel, s.plate])
    .to([s.barrel, s.axis])
    .arc([-s.barrel, s.axis], [0, s.axis + s.barrel])
    .close();
}

const ALONG: Frame = { at: [0, 0, 0], x: [1, 0, 0], up: [0, -1, 0] };

function holesAt(s: Sizes): [number, number][] {
  const x = (s.barrel + s.reach) / 2;
  return Array.from({ length: s.holes }, (_, i) => [x, s.long * ((i + 0.5) / s.holes - 0.5)]);
}

function solid(p: Parameters, kernel: PartKernel): Body {
  const s = sizesOf(p);
  let body = kernel.extrude(profileOf(s), -s.long / 2, s.long, ALONG);
  body = kernel.cut(body, kernel.extrude(circle([0, s.axis], s.pin), -s.long / 2 - 1, s.long + 2, ALONG));
  for (const at of holesAt(s)) body = kernel.cut(body, kernel.extrude(circle(at, s.screw), -1, s.plate + 2));
  return body;
}

function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  return [
    {
      mate: 'pin',
      side: 'inside',
      kind: 'round',
      size: 2 * s.pin,
      at: [0, 0, s.axis],
      axis: [0, 1, 0],
      from: -s.long / 2,
      to: s.long / 2,
    },
  ];
}

function refuse(p: Parameters) {
  const s = sizesOf(p);
  return new Refusals()
    .when(s.reach < s.barrel + 2, 'reach', 'The plate does not reach beyond the barrel.', s.barrel + 12)
    .when(
      s.holes > 0 && s.reach - s.barrel < 2 * s.screw + 2,
      'reach',
      'The screw holes do not fit on the plate: a longer plate.',
      s.barrel + 2 * s.screw + 4,
    )
    .when(
      s.holes > 0 && s.long / s.holes < 2 * s.screw + 1.5,
      'holes',
      'So many holes do not fit along the leaf: fewer, or a longer leaf.',
    )
    .when(
      s.axis < s.plate,
      'plate',
      'The plate is thicker than the pin is high: the barrel would sink into it.',
      s.axis - 0.2,
    ).list;
}

function drawing(p: Parameters) {
  const s = sizesOf(p);
  const draft = new Draft()
    .cut(profileOf(s))
    .edge(circle([0, s.axis], s.pin))
    .mateLoop('pin', circle([0, s.axis], s.pin));
  draft.across('pin', 'pin', [-s.pin, s.pin], s.axis, s.axis + s.barrel + 5, true);
  draft.across('reach', 'reach', [0, s.reach], 0, -6);
  draft.up('plate', 'plate', s.reach, [0, s.plate], s.reach + 5);
  return draft.done('From the end of the pin');
}

function objectDrawing(measured: Readonly<Record<string, number>>) {
  const pin = (measured.pin ?? 5) / 2;
  const wide = measured.between ?? 30;
  const draft = new Draft().cut(circle([0, 4 * pin], pin)).mateLoop('pin', circle([0, 4 * pin], pin));
  draft.across('pin', 'pin', [-pin, pin], 4 * pin, 7 * pin + 3, true);
  // From the side: the two lugs of the object with the gap that the leaf fills.
  const x = 8 * pin;
  for (const at of [x, x + wide + 5])
    draft.cut([
      [at, 0],
      [at + 5, 0],
      [at + 5, 8 * pin],
      [at, 8 * pin],
    ]);
  draft.across('between', 'between lugs', [x + 5, x + 5 + wide], 0, -6);
  const screw = (measured.screw ?? 4) / 2;
  const sx = x + wide + 18;
  draft.cut([
    [sx - screw, 0],
    [sx + screw, 0],
    [sx + screw, 14],
    [sx - screw, 14],
  ]);
  draft.across('screw', 'screw', [sx - screw, sx + screw], 14, 19, true);
  return draft.done('The pin, what it sits between, and the screw');
}

export const hingeLeaf: Recipe = {
  id: 'hinge-leaf',
  version: 1,
  family: 'replacement',
  title: 'Lug or hinge leaf',
  purpose: 'A barrel for a pin on a plate with screw holes: a new leaf for a hinge, or a lug that broke off.',
  guide: [
    step('pin', 'Pin, outside', 'outside-jaws', 'Where it is not worn; turn it between readings.', {
      critical: true,
    }),
    step('between', 'Room along the pin', 'inside-jaws', 'Between the lugs that the leaf goes between.'),
    step('screw', 'Screw, over its thread', 'outside-jaws', 'The screws you have.'),
  ],
  mates: [
    {
      id: 'pin',
      name: 'Barrel over pin',
      dimension: 'pin',
      parameter: 'pinBore',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'slide',
      lying: true,
      active: () => true,
    },
  ],
  parameters: [
    length('pinBore', 'Bore for the pin', [0.8, 80], 'pin.model'),
    length('length', 'Length along the pin', [3, 300], 'between - 0.4'),
    length('wall', 'Barrel wall', [0.8, 40], '2.4', { sensible: WALL }),
    length('reach', 'Plate reaches from the pin', [4, 300], '28'),
    length('plate', 'Plate thickness', [1, 40], '3', { sensible: PLATE }),
    length('holes', 'Screw holes', [0, 8], '2', { measure: 'count' }),
    length('screwHole', 'Screw hole', [0.8, 20], 'screw + 0.5'),
    length('rise', 'Pin higher above the plate by', [0, 80], '0', { group: 'more' }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks: () => [],
  demo: {
    name: 'a locker hinge',
    sizes: { pin: 5, between: 30, screw: 4 },
    parameters: {
      pinBore: 5.4,
      length: 29.6,
      wall: 2.4,
      reach: 28,
      plate: 3,
      holes: 2,
      screwHole: 4.5,
      rise: 0,
    },
  },
};
