import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import {
  ArrowHelper,
  BufferAttribute,
  BufferGeometry,
  type Color,
  type ColorRepresentation,
  EdgesGeometry,
  type LineBasicMaterial,
  type Material,
  Vector3,
} from 'three';
import type { CheckContext, NeighbourAsked, OpenZoneAsked } from '../../core/shape/checks/context';
import { zoneBox } from '../../core/shape/checks/keep-open';
import { legsOf, neighbourMesh } from '../../core/shape/checks/where-it-goes';
import type { Models } from '../../core/shape/kernels/kernel';
import type { Bounds, TriangleMesh } from '../../core/shape/mesh/mesh';
import { boxMesh } from '../../core/shape/sides';
import type { LoadResult } from '../../core/shape/strength/loads';
import { useModels } from './use-models';

/** What is shown around the part: its neighbours, its path, its loads and where it would fail. */
export interface Surroundings {
  neighbours: readonly (NeighbourAsked & { hit: boolean })[];
  keepOpen: readonly (OpenZoneAsked & { hit: boolean })[];
  goesOn: CheckContext['goesOn'];
  loads: readonly LoadResult[];
}

interface Colours {
  ink: ColorRepresentation;
  soft: ColorRepresentation;
  danger: ColorRepresentation;
  blue: ColorRepresentation;
}

export function SurroundingsView({
  what,
  size,
  bounds,
  geometry,
  colours,
}: {
  what: Surroundings;
  size: number;
  bounds: Bounds;
  /** The part once more, at the start of its path. */
  geometry: BufferGeometry;
  colours: Colours;
}) {
  const { invalidate } = useThree();
  const models = useModels(what.neighbours);
  useEffect(() => {
    // A body from a file arrives later than the rest.
    if (what && models) invalidate();
  }, [what, models, invalidate]);
  const legs = what.goesOn ? legsOf(what.goesOn) : [];
  return (
    <>
      {what.neighbours.map(n => (
        <NeighbourBody key={n.id} of={n} models={models} colours={colours} />
      ))}
      {what.keepOpen.map(zone => (
        <ZoneBody key={zone.id} of={zone} bounds={bounds} colours={colours} />
      ))}
      {legs.map(({ from }, i) => (
        <mesh key={i} geometry={geometry} position={[...from]}>
          <meshBasicMaterial color={colours.soft} transparent opacity={0.12} depthWrite={false} />
        </mesh>
      ))}
      {what.loads.map(result => (
        <LoadMarks key={result.id} result={result} size={size} colours={colours} />
      ))}
    </>
  );
}

function NeighbourBody({
  of,
  models,
  colours,
}: {
  of: NeighbourAsked & { hit: boolean };
  models: Models;
  colours: Colours;
}) {
  // The body itself, without its clearance.
  const mesh = useMemo(() => neighbourMesh({ ...of, room: 0 }, null, models), [of, models]);
  return mesh ? <Ghost mesh={mesh} colour={of.hit ? colours.danger : colours.soft} /> : null;
}

/** How far a zone is drawn out of its side, mm. */
const ZONE_OUT = 6;

function ZoneBody({
  of,
  bounds,
  colours,
}: {
  of: OpenZoneAsked & { hit: boolean };
  bounds: Bounds;
  colours: Colours;
}) {
  const mesh = useMemo(() => (of.to > of.from ? boxMesh(zoneBox(of, bounds, ZONE_OUT)) : null), [of, bounds]);
  return mesh ? <Ghost mesh={mesh} colour={of.hit ? colours.danger : colours.blue} /> : null;
}

/** A body other than the part: transparent, with its edges. */
function Ghost({ mesh, colour }: { mesh: TriangleMesh; colour: ColorRepresentation }) {
  const { body, edges } = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(Float32Array.from(mesh.positions), 3));
    made.setIndex(Array.from(mesh.triangles));
    return { body: made, edges: new EdgesGeometry(made, 30) };
  }, [mesh]);
  useEffect(
    () => () => {
      body.dispose();
      edges.dispose();
    },
    [body, edges],
  );
  return (
    <>
      <mesh geometry={body}>
        <meshBasicMaterial color={colour} transparent opacity={0.18} depthWrite={false} />
      </mesh>
      <lineSegments geometry={edges}>
        <lineBasicMaterial color={colour} />
      </lineSegments>
    </>
  );
}

/** An arrow where the load acts, and the section that fails first, visible through the part. */
function LoadMarks({ result, size, colours }: { result: LoadResult; size: number; colours: Colours }) {
  const { load, weakest } = result;
  const arrow = useMemo(() => {
    if (!load) return null;
    const turning = load.force.every(x => x === 0);
    const way = new Vector3(...(turning ? load.turn : load.force)).normalize();
    const long = 0.35 * size;
    // It ends where it acts, like a push.
    const from = new Vector3(...load.at).addScaledVector(way, turning ? 0 : -long);
    const made = new ArrowHelper(way, from, long, colours.danger as Color, 0.3 * long, 0.18 * long);
    for (const m of [made.line.material, made.cone.material] as (Material | Material[])[]) {
      const material = m as LineBasicMaterial;
      material.depthTest = false;
      material.transparent = true;
    }
    return made;
  }, [load, size, colours.danger]);
  const section = useMemo(() => {
    const made = new BufferGeometry();
    const points = (weakest?.loops ?? []).flatMap(loop =>
      loop.flatMap((p, i) => [...p, ...loop[(i + 1) % loop.length]!]),
    );
    made.setAttribute('position', new BufferAttribute(Float32Array.from(points), 3));
    return made;
  }, [weakest]);
  useEffect(
    () => () => {
      arrow?.dispose();
      section.dispose();
    },
    [arrow, section],
  );
  return (
    <>
      {arrow ? <primitive object={arrow} renderOrder={5} /> : null}
      <lineSegments geometry={section} renderOrder={4}>
        <lineBasicMaterial color={colours.danger} depthTest={false} transparent />
      </lineSegments>
    </>
  );
}
