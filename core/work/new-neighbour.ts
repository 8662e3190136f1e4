import type { Brief, Neighbour } from '../job/document';
import type { Bounds } from '../shape/mesh/mesh';

/** Room around a neighbour until its maker says otherwise, mm. Common practice, no source. */
const USUAL_ROOM = 0.5;
/** A box to begin with, mm: what is there is measured by its maker. */
const USUAL_SIZE = 20;

/**
 * A new neighbour: a box to the right of the part, level with its underside. If the brief states its clearance, that is
 * its distance from the part's right side. `bounds` is the part's bounding box, null while there is no solid: the
 * distance is then from the part's zero.
 */
export function newNeighbour(
  id: string,
  said: Brief['obstacles'][number] | undefined,
  bounds: Bounds | null,
): Neighbour {
  const away = said?.clear ?? USUAL_SIZE;
  const [right, middle, under] = bounds
    ? [bounds.max[0], (bounds.min[1] + bounds.max[1]) / 2, bounds.min[2]]
    : [0, 0, 0];
  const within = (x: number) => Math.min(2000, Number(x.toFixed(2)));
  return {
    id,
    name: said?.words ?? 'neighbour',
    form: 'box',
    width: USUAL_SIZE,
    depth: USUAL_SIZE,
    height: USUAL_SIZE,
    x: within(right + away + USUAL_SIZE / 2),
    y: within(middle),
    z: within(under),
    room: Math.min(USUAL_ROOM, away),
  };
}
