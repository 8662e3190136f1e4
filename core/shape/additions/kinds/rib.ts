import type { Outline } from '../../kernels/kernel';
import { polyline } from '../../outline';
import { choice, length } from '../../recipes/fields';
import { lengthOf } from '../../recipes/parameters';
import type { Frame, Point3 } from '../../vector';
import { cross } from '../../vector';
import { AdditionGone, type AdditionKind } from '../addition';
import { copies, FROM_MIDDLE, place, position, turning } from '../fields';
import { depthBelow, framesOf, INTO, joinedTo, seatAt, throughAll } from '../tools';

/** A thin web that stiffens a wall or a foot. */
export const rib: AdditionKind = {
  kind: 'rib',
  title: 'Rib',
  purpose: 'A web on a face, straight or running out to nothing, that keeps a wall or an arm from bending.',
  short: 'rib',
  parameters: [
    place('top'),
    length('long', 'Long on the face', [1, 400], '20'),
    length('rise', 'Stands out by', [0.5, 400], '8'),
    length('thick', 'Thick', [0.4, 60], '1.6'),
    choice('form', 'Form', {
      gusset: 'high at its left end, running out to the right',
      level: 'level',
    }),
    ...position(),
    turning(),
    ...copies(),
  ],
  fresh: FROM_MIDDLE,
  fit: { parameter: () => null, side: () => 'outside', form: () => 'flats' },
  refuse: () => [],
  apply(site, p) {
    const kernel = site.kernels.part;
    const [long, rise, thick] = [lengthOf(p, 'long'), lengthOf(p, 'rise'), lengthOf(p, 'thick')];
    const foot: Outline = polyline([
      [-long / 2, -thick / 2],
      [long / 2, -thick / 2],
      [long / 2, thick / 2],
      [-long / 2, thick / 2],
    ]);
    const tools = framesOf(seatAt(site, p), p).map(f => {
      const below = depthBelow(site.mesh(), f, foot, Math.max(5, throughAll(site) / 3));
      if (!below) throw new AdditionGone('It stands beside the part: move it, or choose another face.', 'x');
      const sunk = below.depth + INTO;
      const least = p.form === 'gusset' ? 0.4 : rise;
      const side = polyline([
        [-long / 2, -sunk],
        [long / 2, -sunk],
        [long / 2, least],
        [-long / 2, rise],
      ]);
      return kernel.extrude(side, -thick / 2, thick, onEdge(f));
    });
    return { body: joinedTo(kernel, site.body, tools) };
  },
};

/** Drawn in (along the face, up from it). */
function onEdge({ at, x, up }: Frame): Frame {
  const y = cross(up, x);
  const back: Point3 = [-y[0], -y[1], -y[2]];
  return { at, x, up: back };
}
