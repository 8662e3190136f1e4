import { BufferAttribute, BufferGeometry, EdgesGeometry } from 'three';
import { toCreasedNormals } from 'three/examples/jsm/utils/BufferGeometryUtils.js';
import { frameOf, lowestOf, type Pose, posed } from '../../core/print/pose';
import type { BuiltPart } from '../../core/shape/built-part';
import { trianglesOfMates } from '../../core/shape/checks/measure';
import { SAGITTA } from '../../core/shape/finish';
import { inkedEdges } from '../../core/shape/mesh/inked';
import { boundsOf, type TriangleMesh } from '../../core/shape/mesh/mesh';
import { dot, type Point3 } from '../../core/shape/vector';
import type { ShownSolid } from './solid-protocol';

/** Edges sharper than this are inked, and shading breaks there: degrees. */
const CREASE = 28;

/**
 * Three separate corners for each triangle, as the view needs them. @param order of the triangles; by default as they
 * are
 */
export function unshared({ positions, triangles }: TriangleMesh, order?: readonly number[]): Float32Array {
  const flat = new Float32Array(3 * triangles.length);
  for (let place = 0; place < triangles.length / 3; place++) {
    const t = order ? order[place]! : place;
    for (let corner = 0; corner < 3; corner++) {
      const v = 3 * triangles[3 * t + corner]!;
      for (let i = 0; i < 3; i++) flat[9 * place + 3 * corner + i] = positions[v + i]!;
    }
  }
  return flat;
}

/** A solid for the screen, in a pose on the bed. */
export function shownIn(part: BuiltPart, pose: Pose): ShownSolid {
  const solid = shown(part);
  const { x, y, up } = frameOf(pose);
  const rise = -lowestOf(part.mesh, up);
  const laid = (points: Float32Array, by: number) => {
    const turned = new Float32Array(points.length);
    for (let i = 0; i < points.length; i += 3) {
      const v: Point3 = [points[i]!, points[i + 1]!, points[i + 2]!];
      turned.set([dot(v, x), dot(v, y), dot(v, up) + by], i);
    }
    return turned;
  };
  return {
    ...solid,
    positions: laid(solid.positions, rise),
    normals: laid(solid.normals, 0),
    edges: laid(solid.edges, rise),
    bounds: boundsOf(posed(part.mesh, pose)),
  };
}

export function shown(part: BuiltPart): ShownSolid {
  const { mesh, surfaces } = part;
  const owner = trianglesOfMates(mesh, surfaces, SAGITTA.screen);
  const order = Array.from(owner.keys()).sort((a, b) => owner[a]! - owner[b]!);
  const flat = unshared(mesh, order);
  const groups: ShownSolid['groups'] = [];
  order.forEach((t, place) => {
    const mate = surfaces[owner[t]!]?.mate ?? null;
    const last = groups.at(-1);
    if (last && last.mate === mate) last.count += 3;
    else groups.push({ mate, start: 3 * place, count: 3 });
  });
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(flat, 3));
  const creased = toCreasedNormals(geometry, (CREASE * Math.PI) / 180);
  const sharp = new EdgesGeometry(geometry, CREASE).getAttribute('position').array as Float32Array;
  const edges = inkedEdges(sharp);
  return {
    positions: flat,
    normals: creased.getAttribute('normal').array as Float32Array,
    edges,
    groups,
    bounds: part.bounds,
    volume: part.volume,
  };
}
