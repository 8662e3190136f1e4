import { loopCircle, sectionAcross } from '../mesh/section';
import { choice, length } from '../recipes/fields';
import { lengthOf, type ParameterSpec, type Parameters } from '../recipes/parameters';
import type { Frame } from '../vector';
import { point3 } from '../vector';
import { AdditionGone, type Site } from './addition';

/** A wall counts as round where its section is out of round by no more than this, mm. */
const ROUND = 0.15;

const lies =
  (...ways: string[]) =>
  (p: Parameters) =>
    ways.includes(String(p.along));

/** For additions around an axis of the part: the direction and the position of the axis. */
export const axisFields: readonly ParameterSpec[] = [
  choice('along', 'Its axis runs', { z: 'up', x: 'left to right', y: 'front to back' }, { group: 'more' }),
  length('x', 'Axis, to the right', [-400, 400], '0', { group: 'more', shown: lies('z', 'y') }),
  length('y', 'Axis, to the back', [-400, 400], '0', { group: 'more', shown: lies('z', 'x') }),
  length('h', 'Axis, above the bed', [-400, 400], '0', { group: 'more', shown: lies('x', 'y') }),
];

/** The axis, with its origin where the part's own coordinate along it is 0. */
export function axisOf(p: Parameters): Frame {
  const [x, y, h] = [lengthOf(p, 'x'), lengthOf(p, 'y'), lengthOf(p, 'h')];
  if (p.along === 'x') return { at: [0, y, h], x: [0, 1, 0], up: [1, 0, 0] };
  if (p.along === 'y') return { at: [x, 0, h], x: [1, 0, 0], up: [0, 1, 0] };
  return { at: [x, y, 0], x: [1, 0, 0], up: [0, 0, 1] };
}

/**
 * Radius of the round wall at a place along the axis: the outermost one, or the innermost bore.
 * @throws AdditionGone where there is none
 */
export function radiusAt(site: Site, axis: Frame, along: number, inside: boolean, parameter: string): number {
  const point = point3(i => axis.at[i] + along * axis.up[i]);
  const { loops, at } = sectionAcross(site.mesh(), point, axis.up);
  const circles = loops
    .filter(l => l.area < 0 === inside)
    .map(l => loopCircle(l, at))
    .filter(c => c.form < ROUND)
    .sort((a, b) => (inside ? a.diameter - b.diameter : b.diameter - a.diameter));
  const found = circles[0];
  if (!found)
    throw new AdditionGone(
      `${axis.up[2] === 1 ? `At ${Number(along.toFixed(2))} mm above the bed` : `At ${Number(along.toFixed(2))} mm along its axis`} the part has no round ${inside ? 'bore' : 'outside'} about this axis. Choose another height or axis, or cut a shape into a face instead.`,
      parameter,
    );
  // Corners of the triangles lie on the true wall, the flats between them nearer to the axis.
  return found.diameter / 2 + (inside ? found.form : 0);
}
