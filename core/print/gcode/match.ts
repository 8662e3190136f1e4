import type { MeshKernel } from '../../shape/kernels/kernel';
import type { MateSurface } from '../../shape/mates';
import type { TriangleMesh } from '../../shape/mesh/mesh';
import type { Point3 } from '../../shape/vector';
import { AS_DRAWN, isSameDirection, posed } from '../pose';
import type { GcodeFile } from './file';
import { type Fitted, fitted, glanced, type Laid, laidOn, wallsOf } from './fit';
import type { Bed } from './on-bed';
import { posesFor, uprightScale } from './poses';
import type { Thing } from './things';
import { turnsFor } from './turns';

/** Which version a sliced file is, how it lies, its scale, and its hand. Lengths mm, angles degrees. */

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
  /** Null where several are equally near. */
  id: string | null;
  down: Point3;
  mirrored: boolean;
  copies: number;
  /** Its scale upwards, known no more finely than a layer. */
  upright: number;
  /** It is as high as its version is, within a layer. */
  whole: boolean;
}

const MOST_TURNS = 3;
/** Versions closer to each other than this cannot be told apart. */
const NO_NEARER = 0.004;
/** The planned pose, otherwise the drawn one, and the right hand are preferred unless another fits clearly better. */
const [OTHER_WAY, MIRRORED] = [0.008, 0.012];
/** A layer more or less than the height needs. */
const LAYER_OFF = 0.02;
/** The least shares, found and belonging, by which a part is recognised. */
const [LEAST_FOUND, LEAST_BELONGS] = [0.7, 0.75];

/** @returns null where the file is none of these versions */
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
  const isPreferred = (down: Point3) => isSameDirection(down, planned.down ?? AS_DRAWN.down);
  const poses = posesFor({ hull, surfaces: version.surfaces }, thing, bed, planned.down, endedWhole).sort(
    (a, b) => Number(isPreferred(b.down)) - Number(isPreferred(a.down)),
  );
  let best: Match | null = null;
  for (const pose of poses) {
    const aside = isPreferred(pose.down) ? 0 : OTHER_WAY;
    // No fit can be better than the one that was found.
    if (best && best.cost <= aside) continue;
    const lies = posed(version.mesh, { down: pose.down, turn: 0 });
    const walls = wallsOf(lies, laid, pose, kernel);
    if (walls.count === 0) continue;
    for (const mirrored of [false, true]) {
      const least = aside + (mirrored ? MIRRORED : 0);
      if (best && best.cost <= least) continue;
      const starts = turnsFor(walls.levels, pose.scale, mirrored)
        .map(turn => ({ turn, mirrored, scale: pose.scale }))
        .map(start => ({ start, off: glanced(walls, laid, start) }))
        .sort((a, b) => a.off - b.off)
        .slice(0, MOST_TURNS);
      for (const { start } of starts) {
        if (best && best.cost <= least) break;
        const now = fitted(walls, laid, start);
        const grain = bed.layer / thing.layers.at(-1)!.z;
        const cost = now.cost + least + 0.2 * pose.spread + LAYER_OFF * Math.min(5, pose.layersOff);
        if (!best || cost < best.cost)
          best = {
            ...now,
            cost,
            id: version.id,
            down: pose.down,
            mirrored,
            copies: bed.copies,
            upright: uprightScale(pose, now.scale, grain),
            whole: pose.whole,
          };
      }
    }
  }
  return best;
}
