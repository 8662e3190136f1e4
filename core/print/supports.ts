import type { MateSurface } from '../shape/mates';
import type { TriangleMesh } from '../shape/mesh/mesh';
import type { Point3 } from '../shape/vector';
import { dot } from '../shape/vector';
import { columnsOf } from './columns';
import { facingsOf, hanging } from './facings';
import { type SupportRules, type Supports, steepest, supportsOf } from './hangs';
import { type Pose, posed } from './pose';

/** What needs support in a pose. Lengths mm. @param mesh as drawn */
export function supportsIn(
  mesh: TriangleMesh,
  pose: Pose,
  rules: SupportRules,
  surfaces: readonly MateSurface[],
): Supports {
  const inThread = inThreads(mesh, surfaces);
  const hangs = hanging(facingsOf(mesh), pose.down, steepest(rules), t => inThread[t] === 1);
  return supportsOf(columnsOf(posed(mesh, pose)), hangs, rules);
}

/** A thread's ends run out beside its ridges and grooves, mm. */
const RUN_OUT = 0.3;

/** Triangles between the ridges and grooves of a thread: their flanks never count as overhangs. */
export function inThreads(
  { positions: p, triangles }: TriangleMesh,
  surfaces: readonly MateSurface[],
): Uint8Array {
  const within = new Uint8Array(triangles.length / 3);
  for (const { kind, at, axis, size, core } of surfaces) {
    if (kind !== 'thread') continue;
    const [inner, outer] = [(core ?? size) / 2 - RUN_OUT, size / 2 + RUN_OUT];
    for (let t = 0; t < within.length; t++) {
      const v = 3 * triangles[3 * t]!;
      const off: Point3 = [p[v]! - at[0], p[v + 1]! - at[1], p[v + 2]! - at[2]];
      const along = dot(off, axis);
      const r2 = dot(off, off) - along * along;
      if (r2 > inner * inner && r2 < outer * outer) within[t] = 1;
    }
  }
  return within;
}
