import { Path, polyline } from '../../outline';
import { choice, length, Refusals } from '../../recipes/fields';
import { lengthOf, type Parameters } from '../../recipes/parameters';
import { cross } from '../../vector';
import { AdditionGone, type AdditionKind, type Site } from '../addition';
import { axisFields, axisOf, radiusAt } from '../axis';
import { place } from '../fields';
import { placeInWords, seatOf } from '../place';
import { cutFrom, placeOf } from '../tools';

const onFace = (p: Parameters) => p.which === 'face';
const onWall = (p: Parameters) => !onFace(p);
/** Distance between a tool's face and the face it cuts along, mm: booleans fail on two coplanar faces. */
const OFF = 0.002;

/** A face or a round wall that is made to lean, so that the part comes out of what holds it. */
export const draft: AdditionKind = {
  kind: 'draft',
  title: 'Draft',
  purpose: 'A face or a round wall leans a little, so that the part goes in, and comes out again.',
  short: 'draft',
  parameters: [
    choice('which', 'It leans', { face: 'one flat face', outside: 'the round outside', bore: 'the bore' }),
    place('right', 'The face', onFace),
    length('low', 'From, along the axis', [-400, 400], '0', { shown: onWall }),
    length('high', 'To, along the axis', [-400, 400], '10', { shown: onWall }),
    choice('keeps', 'Its size stays at', { low: 'its lower end', high: 'its upper end' }),
    length('angle', 'Leans by', [0.1, 45], '2', { measure: 'angle' }),
    ...axisFields.map(spec => ({
      ...spec,
      shown: (p: Parameters) => onWall(p) && (spec.shown?.(p) ?? true),
    })),
  ],
  refuse: p =>
    new Refusals().when(
      onWall(p) && lengthOf(p, 'high') <= lengthOf(p, 'low'),
      'high',
      'It ends above where it begins: give the higher number here.',
    ).list,
  apply: (site, p) => (onFace(p) ? leaning(site, p) : coned(site, p)),
};

/** A wedge off a flat: nothing at the end that keeps its size, most at the other end. */
function leaning(site: Site, p: Parameters) {
  const kernel = site.kernels.part;
  const where = placeOf(site, p);
  const { frame, flat } = seatOf(site.mesh(), where, 'face');
  if (!flat)
    throw new AdditionGone(`There is no flat face at ${placeInWords(where)}: choose another.`, 'place');
  const [wide, high] = flat.size;
  const deep = high * Math.tan((lengthOf(p, 'angle') * Math.PI) / 180);
  const keeps = p.keeps === 'high' ? high / 2 : -high / 2;
  // Drawn in (up the face, out of it), extruded along its width.
  const wedge = polyline(
    p.keeps === 'high'
      ? [
          [keeps, OFF],
          [-keeps - OFF, OFF],
          [-keeps - OFF, -deep],
        ]
      : [
          [keeps, OFF],
          [-keeps + OFF, -deep],
          [-keeps + OFF, OFF],
        ],
  );
  const y = cross(frame.up, frame.x);
  const tool = kernel.extrude(wedge, -wide / 2 - OFF, wide + 2 * OFF, {
    at: frame.at,
    x: y,
    up: cross(y, frame.up),
  });
  return { body: cutFrom(kernel, site.body, [tool]) };
}

/** A cone off a round outside, or out of a bore. */
function coned(site: Site, p: Parameters) {
  const kernel = site.kernels.part;
  const axis = axisOf(p);
  const bore = p.which === 'bore';
  const [low, high] = [lengthOf(p, 'low'), lengthOf(p, 'high')];
  const keeps = p.keeps === 'high' ? high : low;
  const other = p.keeps === 'high' ? low : high;
  const radius = radiusAt(site, axis, (low + high) / 2, bore, 'low');
  const deep = (high - low) * Math.tan((lengthOf(p, 'angle') * Math.PI) / 180);
  if (!bore && deep > radius - 0.5)
    throw new AdditionGone('So much draft leaves a point: a smaller angle, or a shorter wall.', 'angle');
  const way = bore ? 1 : -1;
  // Starts in the air beside the wall, so that it removes all of it.
  const air = bore ? Math.max(0, radius - 1) : radius + 1;
  const cone = new Path([air, keeps])
    .to([radius, keeps])
    .to([radius + way * deep, other])
    .to([air, other])
    .close();
  return { body: cutFrom(kernel, site.body, [kernel.revolve(cone, axis)]) };
}
