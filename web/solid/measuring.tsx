import type { ThreeEvent } from '@react-three/fiber';
import styled from 'styled-components';
import { type Mesh, Raycaster, Vector3 } from 'three';
import { formatLength } from '../../core/quantity/format';
import type { Point3 } from '../../core/shape/vector';
import { FONTS } from '../ui/theme';

/** A place on the part that was pressed, and the part's thickness there. mm */
export interface Mark {
  at: [number, number, number];
  /** Straight through to the far side; null when there is no far side. */
  wall: number | null;
}

/** A corner within this share of a triangle's longest side is meant. */
const CATCH = 0.06;

/** The pressed place, snapped to a nearby corner, and the wall behind it. */
export function markAt(event: ThreeEvent<MouseEvent>): Mark {
  const { face, point, object } = event;
  const mesh = object as Mesh;
  const corners = face ? [face.a, face.b, face.c].map(i => vertex(mesh, i)) : [];
  const longest = Math.max(...corners.map((c, i) => c.distanceTo(corners[(i + 1) % 3]!)), 0);
  const near = corners.map(c => ({ c, away: c.distanceTo(point) })).sort((a, b) => a.away - b.away)[0];
  const caught = near && near.away < CATCH * longest ? near.c : point;
  return { at: [caught.x, caught.y, caught.z], wall: face ? wallAt(mesh, point, face.normal) : null };
}

const vertex = (mesh: Mesh, i: number) =>
  new Vector3().fromBufferAttribute(mesh.geometry.getAttribute('position'), i);

/** From just inside straight on: the first face met from inside is the far side. */
function wallAt(mesh: Mesh, point: Vector3, normal: Vector3): number | null {
  const into = normal.clone().negate();
  const ray = new Raycaster(point.clone().addScaledVector(into, 1e-3), into);
  const through = ray
    .intersectObject(doubleSided(mesh))
    .find(hit => hit.face && hit.face.normal.dot(into) > 0);
  return through ? through.distance + 1e-3 : null;
}

/** The same triangles, met from either side. */
function doubleSided(mesh: Mesh): Mesh {
  const copy = mesh.clone();
  const materials = Array.isArray(mesh.material) ? mesh.material : [mesh.material];
  copy.material = materials.map(m => {
    const both = m.clone();
    both.side = 2;
    return both;
  });
  return copy;
}

export function MarkPoints({
  places,
  size,
  colour,
}: {
  places: readonly Point3[];
  size: number;
  colour: string;
}) {
  return (
    <>
      {places.map((at, i) => (
        <mesh key={i} position={[...at]} raycast={() => {}}>
          <sphereGeometry args={[size / 90, 12, 8]} />
          <meshBasicMaterial color={colour} depthTest={false} transparent />
        </mesh>
      ))}
    </>
  );
}

/** The measurement, in words and numbers. */
export function Reading({ marks }: { marks: readonly Mark[] }) {
  const [a, b] = marks;
  if (!a) return null;
  if (!b)
    return (
      <Tag data-testid="measured">
        {a.wall === null ? 'No far side there.' : <>wall {formatLength(a.wall)} mm</>} ·{' '}
        {formatLength(a.at[2])} mm over the bed
      </Tag>
    );
  const d = b.at.map((x, i) => x - a.at[i]!) as [number, number, number];
  return (
    <Tag data-testid="measured">
      apart <b>{formatLength(Math.hypot(...d))} mm</b> · across {formatLength(Math.abs(d[0]))} · deep{' '}
      {formatLength(Math.abs(d[1]))} · up {formatLength(Math.abs(d[2]))}
    </Tag>
  );
}
const Tag = styled.div`
  position: absolute; left: 12px; bottom: 8px; font: 13px ${FONTS.number}; background: var(--sheet); padding: 1px 4px; border-radius: 3px;
`;
