import { KernelError } from '../../kernels/kernel';
import { rectangle, slot as slotOutline } from '../../outline';
import { flag, length, Refusals } from '../../recipes/fields';
import { lengthOf } from '../../recipes/parameters';
import type { AdditionKind } from '../addition';
import { copies, FROM_MIDDLE, place, position, turning } from '../fields';
import { onSeat } from '../place';
import { ABOVE, cutFrom, framesOf, seatAt, surfaceOf, throughAll } from '../tools';

/** A long hole. */
export const slot: AdditionKind = {
  kind: 'slot',
  title: 'Slot',
  purpose: 'A long hole: for a screw that may shift, a strap, a blade.',
  short: 'slot',
  parameters: [
    place('top'),
    length('long', 'Long, over all', [0.5, 400], '14'),
    length('width', 'Wide', [0.3, 200], '4.5'),
    flag('square', 'Square ends', false, { group: 'more' }),
    flag('through', 'Right through', true),
    length('deep', 'Deep', [0.1, 400], '3', { shown: p => p.through === false }),
    ...position(),
    turning(),
    ...copies(),
  ],
  // Side by side: end to end they would run into each other.
  fresh: { runs: 'up', ...FROM_MIDDLE },
  fit: { parameter: () => 'width', side: () => 'inside', form: () => 'flats' },
  refuse: p =>
    new Refusals().when(
      lengthOf(p, 'long') < lengthOf(p, 'width'),
      'long',
      'A slot is at least as long as it is wide.',
      lengthOf(p, 'width'),
    ).list,
  apply(site, p) {
    const kernel = site.kernels.part;
    const frames = framesOf(seatAt(site, p), p);
    const [long, width] = [lengthOf(p, 'long'), lengthOf(p, 'width')];
    const drawn =
      p.square === true
        ? rectangle(-long / 2, -width / 2, long / 2, width / 2)
        : slotOutline([0, 0], long, width);
    const deep = p.through === true ? throughAll(site) : lengthOf(p, 'deep');
    const [first] = frames;
    return {
      body: cutFrom(
        kernel,
        site.body,
        frames.map(f => kernel.extrude(drawn, -deep, deep + ABOVE, f)),
      ),
      // Its width is measured across its length.
      surface: surfaceOf(onSeat(first!, [0, 0], 90), 'inside', { kind: 'flats', size: width }, [
        -Math.min(deep, 2),
        0,
      ]),
    };
  },
};

/** Two slits with a bridge between them, for a cable tie. */
export const tie: AdditionKind = {
  kind: 'tie',
  title: 'Zip-tie slot',
  purpose:
    'Two slits that meet below the face: a cable tie goes in at one and out at the other, under a bridge.',
  short: 'tie',
  parameters: [
    place('top'),
    length('width', 'Tie is wide', [1, 30], '4.8'),
    length('thick', 'Tie is thick', [0.5, 8], '1.4'),
    length('bridge', 'Bridge between the slits', [1.5, 100], '6'),
    length('over', 'Bridge is thick', [0.8, 60], '2'),
    length('room', 'Room around the tie, whole width', [0, 3], '0.6', { group: 'more' }),
    ...position(),
    turning(),
    ...copies(),
  ],
  fresh: { runs: 'up', ...FROM_MIDDLE },
  refuse: () => [],
  apply(site, p) {
    const kernel = site.kernels.part;
    const room = lengthOf(p, 'room');
    const [wide, thick] = [lengthOf(p, 'width') + room, lengthOf(p, 'thick') + room];
    const [bridge, over] = [lengthOf(p, 'bridge'), lengthOf(p, 'over')];
    const reach = bridge / 2 + thick;
    const tools = framesOf(seatAt(site, p), p).flatMap(f => [
      kernel.extrude(
        rectangle(-reach, -wide / 2, -bridge / 2, wide / 2),
        -over - thick,
        over + thick + ABOVE,
        f,
      ),
      kernel.extrude(
        rectangle(bridge / 2, -wide / 2, reach, wide / 2),
        -over - thick,
        over + thick + ABOVE,
        f,
      ),
      // The tunnel reaches into both slits, so that no two faces coincide.
      kernel.extrude(
        rectangle(-bridge / 2 - thick / 2, -wide / 2 + 0.01, bridge / 2 + thick / 2, wide / 2 - 0.01),
        -over - thick + 0.01,
        thick - 0.02,
        f,
      ),
    ]);
    const { min, max } = site.bounds();
    if (over + thick > Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]))
      throw new KernelError('The tie would run below the part: make the bridge thinner');
    return { body: cutFrom(kernel, site.body, tools) };
  },
};
