import { polygonHull } from 'd3-polygon';
import type { MateSurface } from '../../shape/mates';
import type { TriangleMesh } from '../../shape/mesh/mesh';
import type { Point3 } from '../../shape/vector';
import { dot } from '../../shape/vector';
import { waysDown } from '../candidates';
import { leastRectangle } from '../footprint';
import { frameOf, isSameDirection } from '../pose';
import type { Bed } from './on-bed';
import type { Thing } from './things';

/** Poses in which a version may lie in a file, by its three dimensions. Lengths mm. */

/** How many poses are examined closely, those whose dimensions fit best. */
const MOST_POSES = 5;
/** Three dimensions may differ from a single scale by this, of their logarithm: for a stretched part. */
const SPREAD = 0.07;
/** A pose whose dimensions fit worse than the best one's by this is not examined, of the logarithm. */
const WORSE = 0.02;
/** A height that is off by more than a layer plus this, of its logarithm, is stretched. */
const OFF_HEIGHT = 0.004;

export interface PoseFound {
  down: Point3;
  spread: number;
  scale: number;
  tall: number;
  /** The scale upwards: that of the outline, unless the height is off by more than a layer. */
  upright: number;
  /** How many layers it is off from its expected height. */
  layersOff: number;
  whole: boolean;
}

interface Body {
  /** Its convex hull, as drawn. */
  hull: TriangleMesh;
  surfaces: readonly Pick<MateSurface, 'axis'>[];
}

/** Length, width and height of the version in that pose. */
interface Lying {
  down: Point3;
  long: number;
  wide: number;
  high: number;
}

function lyingPoses({ hull, surfaces }: Body, planned: Point3 | undefined): Lying[] {
  const ways = [...(planned ? [planned] : []), ...waysDown(hull, surfaces)];
  return ways
    .filter((w, i) => ways.findIndex(v => isSameDirection(v, w)) === i)
    .map(down => {
      const { x, y, up } = frameOf({ down, turn: 0 });
      const { positions: p } = hull;
      const points: [number, number][] = [];
      let [low, top] = [Infinity, -Infinity];
      for (let i = 0; i < p.length; i += 3) {
        const q: Point3 = [p[i]!, p[i + 1]!, p[i + 2]!];
        points.push([dot(q, x), dot(q, y)]);
        const h = dot(q, up);
        low = Math.min(low, h);
        top = Math.max(top, h);
      }
      const { length, width } = leastRectangle(polygonHull(points)?.reverse() ?? []);
      return { down, long: length, wide: width, high: top - low };
    });
}

/** The thing's own three dimensions, over the outer edges of its lines. */
function sizesOf(thing: Thing, { lineWidth }: Bed): [long: number, wide: number, high: number] {
  const { length, width } = leastRectangle(thing.outline);
  return [length + lineWidth, width + lineWidth, thing.layers.at(-1)!.z];
}

/** Poses whose three dimensions fit the file's at one scale, the best first. */
export function posesFor(
  body: Body,
  thing: Thing,
  bed: Bed,
  planned: Point3 | undefined,
  endedWhole: boolean,
): PoseFound[] {
  const [long, wide, high] = sizesOf(thing, bed);
  const { layer } = bed;
  const looked = lyingPoses(body, planned).map((own): PoseFound => {
    const scale = Math.sqrt((long * wide) / (own.long * own.wide));
    const tall = high / own.high;
    // Layers round the height up to a whole number.
    const offHeight = Math.max(0, Math.abs(Math.log(tall / scale)) - layer / high);
    const offWidth = Math.abs(Math.log(long / own.long / (wide / own.wide)));
    const whole = tall / scale > 1 - 1.5 * (layer / high) - 0.02;
    // In a file that was cut off the height means nothing.
    const spread = !endedWhole && !whole ? offWidth : Math.max(offHeight, offWidth);
    const upright = uprightScale({ tall, whole }, scale, layer / high);
    const { firstLayer } = bed;
    const should = firstLayer + Math.ceil((scale * own.high - firstLayer) / layer - 0.02) * layer;
    const layersOff = whole ? Math.round(Math.abs(high - should) / layer) : 0;
    return { down: own.down, spread, scale, tall, upright, whole, layersOff };
  });
  const near = looked.filter(w => w.spread < SPREAD).sort((a, b) => a.spread - b.spread);
  if (near.length > 0) return near.filter(w => w.spread < near[0]!.spread + WORSE).slice(0, MOST_POSES);
  // Nothing fits: the file may end too early.
  return looked
    .filter(w => !w.whole)
    .map(w => ({ ...w, spread: SPREAD, upright: w.scale }))
    .slice(0, MOST_POSES);
}

/** @param grain a layer divided by the height */
export const uprightScale = (
  { tall, whole }: Pick<PoseFound, 'tall' | 'whole'>,
  scale: number,
  grain: number,
): number => (whole && Math.abs(Math.log(tall / scale)) > grain + OFF_HEIGHT ? tall : scale);

/** Wrong units: inches, centimetres or metres read as millimetres, and the reverse. */
const UNITS = [25.4, 1 / 25.4, 10, 1 / 10, 1000, 1 / 1000];
/** A dimension fits a wrong unit within this share, plus this many line widths or layer heights. */
const [UNIT_SHARE, LINES] = [0.05, 2];

/** The wrong unit by which a version's dimensions become the thing's; null where there is none. */
export function unitSlip(body: Body, thing: Thing, bed: Bed): { down: Point3; scale: number } | null {
  const [long, wide, high] = sizesOf(thing, bed);
  const like = (is: number, should: number, grain: number) =>
    Math.abs(is - should) < UNIT_SHARE * should + LINES * grain;
  for (const scale of UNITS)
    for (const own of lyingPoses(body, undefined)) {
      // Nothing can be told about a thing no larger than a line.
      if (scale * own.long < 1.2 * bed.lineWidth) continue;
      const fits =
        like(long, scale * own.long, bed.lineWidth) &&
        like(wide, scale * own.wide, bed.lineWidth) &&
        like(high, scale * own.high, bed.layer);
      if (fits) return { down: own.down, scale };
    }
  return null;
}
