import { cross, type Frame } from '../vector';
import type { TriangleMesh } from './mesh';

/** Triangles drawn about z, stood in a frame. */
export function placedMesh({ positions: p, triangles }: TriangleMesh, { at, x, up }: Frame): TriangleMesh {
  const y = cross(up, x);
  const placed = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 3)
    for (let k = 0; k < 3; k++)
      placed[i + k] = at[k]! + p[i]! * x[k]! + p[i + 1]! * y[k]! + p[i + 2]! * up[k]!;
  return { positions: placed, triangles };
}
