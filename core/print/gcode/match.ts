import { polygonHull } from 'd3-polygon';
import type { MeshKernel } from '../../shape/kernels/kernel';
import type { MateSurface } from '../../shape/mates';
import type { TriangleMesh } from '../../shape/mesh/mesh';
import type { Point3 } from '../../shape/vector';
import { dot } from '../../shape/vector';
import { waysDown } from '../candidates';
import { leastRectangle } from '../footprint';
import { AS_DRAWN, frameOf, isSameWay, posed } from '../pose';
import type { GcodeFile } from './file';
import { type Fitted, fitted, glanced, type Laid, laidOn, wallsOf } from './fit';
import type { Bed } from './on-bed';
import type { Thing } from './things';
import { turnsFor } from './turns';

/** Which version a sliced file is, how it lies, how large it is, and of which hand. Lengths mm, angles degrees. */

export interface Known {
  id: string;
  /** As drawn. */
  mesh: TriangleMesh;
  surfaces: readonly MateSurface[];
}

export interface Planned {
  id?: string;
  down?: Point3;
}

export interface Match extends Fitted {
  /** Null where several are as near as each other. */
  id: string | null;
  down: Point3;
  mirrored: boolean;
  copies: number;
  /** Height in the file over height of the version: told no finer than a layer. */
  tall: number;
  /** It is as high as its version is, within a layer. */
  whole: boolean;
}

/** Ways to lie that are looked at closely, by how well their sizes fit. */
const MOST_POSES = 5;
const MOST_TURNS = 3;
/** Three sizes may be so far from one scale, of their logarithm: a stretched part's. */
const SPREAD = 0.07;
/** Versions that are nearer to each other than this cannot be told apart. */
const NO_NEARER = 0.004;
/** The pose that was planned, else the drawn one, and the right hand are taken where no other fits clearly better. */
const [OTHER_WAY, MIRRORED] = [0.008, 0.012];
/** What is found and what belongs, at least, for a part to be known. */
const [LEAST_FOUND, LEAST_BELONGS] = [0.7, 0.75];

/** @returns null where the file is none of these */
export function matchOf(
  file: GcodeFile,
  bed: Bed,
  versions: readonly Known[],
  planned: Planned,
  kernel: Pick<MeshKernel, 'inset' | 'hull'>,
): Match | null {
  const [thing] = bed.things;
  if (!thing) return null;
  const laid = laidOn(file, thing, bed);
  const found = versions.flatMap(version => {
    const best = bestOf(version, thing, laid, bed, planned, kernel, file.endedWhole);
    return best ? [best] : [];
  });
  const known = found.filter(m => m.found >= LEAST_FOUND && m.belongs >= LEAST_BELONGS);
  known.sort((a, b) => a.cost - b.cost);
  const [first] = known;
  if (!first) return null;
  const equals = known.filter(m => m.cost - first.cost < NO_NEARER);
  const one = equals.find(m => m.id === planned.id) ?? (equals.length > 1 ? { ...first, id: null } : first);
  return { ...one, copies: bed.copies };
}

type PoseFound = { down: Point3; spread: number; scale: number; tall: number; whole: boolean };

function bestOf(
  version: Known,
  thing: Thing,
  laid: Laid,
  bed: Bed,
  planned: Planned,
  kernel: Pick<MeshKernel, 'inset' | 'hull'>,
  endedWhole: boolean,
): Match | null {
  const hull = kernel.hull(version.mesh);
  const poses = posesFor(version, hull, thing, bed, planned, endedWhole);
  let best: Match | null = null;
  for (const pose of poses) {
    const lies = posed(version.mesh, { down: pose.down, turn: 0 });
    const walls = wallsOf(lies, laid, pose, kernel);
    if (walls.count === 0) continue;
    const preferred = isSameWay(pose.down, planned.down ?? AS_DRAWN.down);
    for (const mirrored of [false, true]) {
      const starts = turnsFor(walls, laid, pose.scale, mirrored)
        .map(turn => ({ turn, mirrored, scale: pose.scale }))
        .map(start => ({ start, off: glanced(walls, laid, start) }))
        .sort((a, b) => a.off - b.off)
        .slice(0, MOST_TURNS);
      for (const { start } of starts) {
        const now = fitted(walls, laid, start);
        const cost = now.cost + (mirrored ? MIRRORED : 0) + (preferred ? 0 : OTHER_WAY) + 0.2 * pose.spread;
        if (!best || cost < best.cost)
          best = {
            ...now,
            cost,
            id: version.id,
            down: pose.down,
            mirrored,
            copies: bed.copies,
            tall: pose.tall,
            whole: pose.whole,
          };
      }
    }
  }
  return best;
}

/** Ways to lie whose three sizes fit the file's at one scale, the best first. */
function posesFor(
  version: Known,
  hull: TriangleMesh,
  thing: Thing,
  { layer, lineWidth }: Bed,
  planned: Planned,
  endedWhole: boolean,
): PoseFound[] {
  const rectangle = leastRectangle(thing.outline);
  const [long, wide] = [rectangle.length + lineWidth, rectangle.width + lineWidth];
  const high = thing.layers.at(-1)!.z;
  const ways = [...(planned.down ? [planned.down] : []), ...waysDown(hull, version.surfaces)];
  const looked = ways
    .filter((w, i) => ways.findIndex(v => isSameWay(v, w)) === i)
    .map((down): PoseFound => {
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
      const own = leastRectangle(polygonHull(points)?.reverse() ?? []);
      const scale = Math.sqrt((long * wide) / (own.length * own.width));
      const tall = high / (top - low);
      // Layers round the height up to a whole one.
      const offHeight = Math.max(0, Math.abs(Math.log(tall / scale)) - layer / high);
      const offWidth = Math.abs(Math.log(long / own.length / (wide / own.width)));
      const whole = tall / scale > 1 - 1.5 * (layer / high) - 0.02;
      // Of a file that was cut off the height says nothing.
      const spread = !endedWhole && !whole ? offWidth : Math.max(offHeight, offWidth);
      return { down, spread, scale, tall, whole };
    });
  const near = looked.filter(w => w.spread < SPREAD).sort((a, b) => a.spread - b.spread);
  // Nothing fits: it may be a file that ends too early.
  return (near.length > 0 ? near : looked.filter(w => !w.whole && w.spread < 3)).slice(0, MOST_POSES);
}
