import { comesOut, TOUCHES } from '../comes-out';
import { demoBody } from '../demo-bodies';
import { type Finding, finding } from '../findings/finding';
import type { TriangleMesh } from '../mesh/mesh';
import type { Point3 } from '../vector';

/**
 * For a part that follows an object: which object, and whether they come apart. @param by the object's place relative
 * to the part, mm
 */
export function checkFollows(
  part: TriangleMesh,
  reference: string,
  object: TriangleMesh | undefined,
  by: Point3,
): Finding[] {
  const found: Finding[] = [finding('step-without-object', 'note', {})];
  if (demoBody(reference)) found.push(finding('stands-in', 'stop', {}, { parameter: 'object' }));
  if (!object) return found;
  const placed = { positions: object.positions.map((x, i) => x + by[i % 3]!), triangles: object.triangles };
  const out = comesOut(part, placed);
  if (out.heldAt) {
    const [x, y, z] = out.heldAt;
    found.push(finding('held-in', 'stop', { x, y, z }));
  } else found.push(finding('comes-out', 'note', { followed: out.followed, room: out.leastRoom }));
  if (out.leastRoom < -TOUCHES) {
    const [x, y, z] = out.at;
    found.push(finding('goes-not-in', 'stop', { by: -out.leastRoom, x, y, z }));
  }
  return found;
}
