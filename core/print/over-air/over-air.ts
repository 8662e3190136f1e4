import type { BuiltPart } from '../../shape/built-part';
import { trianglesOfMates } from '../../shape/checks/measure';
import { SAGITTA } from '../../shape/finish';
import type { MateSurface } from '../../shape/mates';
import { boundsOf, facing, type TriangleMesh } from '../../shape/mesh/mesh';
import { type Columns, columnsOf, middleOfCell } from '../columns';
import { facesTo, facingsOf, hanging } from '../facings';
import { hangsOf, type SupportRules, steepest } from '../hangs';
import { AS_DRAWN, type Pose, posed } from '../pose';
import { inThreads } from '../supports';
import { islandsIn } from './islands';
import { type Region, regionsOf } from './regions';

/** What hangs over air in a part's pose: examined closely, once, for the chosen pose. Lengths mm. */

export interface OverAir extends Region {
  /** The surfaces that must fit and are in it, by their place in the list. */
  mates: number[];
  /** Two triangles for each of its cells, slightly below the surface, in the pose: x, y, z of each corner. */
  patch: Float32Array;
}

/** Finer than for choosing a pose: spans are reported to a few tenths. */
const CELLS_ACROSS = 300;
const [FINEST, COARSEST] = [0.2, 1];
/** Patches lie this far in front of the surface, so that they are visible. */
const IN_FRONT = 0.03;

/** The printing rules that matter for what hangs over air. */
export interface OverAirAsked {
  now: Pose;
  rules: SupportRules;
  /** Thickness of a layer, mm. */
  layer: number;
}

/** What hangs over air in a part, for the screen; a part in pieces is taken as its pieces lie. */
export function hangsOn(part: BuiltPart, { now, rules, layer }: OverAirAsked): OverAir[] {
  const inPieces = part.pieces.length > 0;
  const [mesh, pose] = inPieces ? [part.mesh, AS_DRAWN] : [part.whole, now];
  return overAirOf(mesh, pose, rules, layer, inPieces ? [] : part.surfaces, SAGITTA.screen);
}

/**
 * @param mesh as drawn
 * @param layer thickness of a layer: a smaller step is not an island
 * @param sagitta how far its triangles may be from the true surface
 */
export function overAirOf(
  mesh: TriangleMesh,
  pose: Pose,
  rules: SupportRules,
  layer: number,
  surfaces: readonly MateSurface[],
  sagitta: number,
): OverAir[] {
  const lies = posed(mesh, pose);
  const { min, max } = boundsOf(lies);
  const longest = Math.max(max[0] - min[0], max[1] - min[1]);
  const columns = columnsOf(lies, Math.min(COARSEST, Math.max(FINEST, longest / CELLS_ACROSS)));
  const inThread = inThreads(mesh, surfaces);
  const facings = facingsOf(mesh);
  const hangs = hangsOf(
    columns,
    hanging(facings, pose.down, steepest(rules), t => inThread[t] === 1),
    rules,
  );
  const islands = islandsIn(columns, 2 * layer, n => inThread[columns.triangle[n]!] === 1);
  const angleOf = (n: number) =>
    (Math.asin(Math.min(1, facesTo(facings, columns.triangle[n]!, pose.down))) * 180) / Math.PI;
  const owner = trianglesOfMates(mesh, surfaces, sagitta);
  return regionsOf(columns, hangs, islands, angleOf, rules).map(region => {
    const crossings = region.places.map(i => hangs.crossing[i]!);
    const mates = new Set(crossings.map(n => owner[columns.triangle[n]!]!));
    mates.delete(-1);
    return {
      ...region,
      mates: [...mates].sort((a, b) => a - b),
      patch: patchOf(
        columns,
        lies,
        region.places.map(i => [hangs.cell[i]!, hangs.crossing[i]!]),
      ),
    };
  });
}

/** Each cell as a square in the plane of the triangle that was met there, seen from below. */
function patchOf(
  columns: Columns,
  lies: TriangleMesh,
  places: readonly (readonly [cell: number, crossing: number])[],
): Float32Array {
  const half = columns.cell / 2;
  const corners = [
    [-half, -half],
    [-half, half],
    [half, half],
    [-half, -half],
    [half, half],
    [half, -half],
  ] as const;
  const patch = new Float32Array(18 * places.length);
  places.forEach(([cell, crossing], i) => {
    const [x, y] = middleOfCell(columns, cell);
    const n = facing(lies, columns.triangle[crossing]!);
    const z = columns.height[crossing]! - IN_FRONT;
    corners.forEach(([dx, dy], corner) => {
      patch.set([x + dx, y + dy, z - (n[0] * dx + n[1] * dy) / n[2]], 18 * i + 3 * corner);
    });
  });
  return patch;
}
