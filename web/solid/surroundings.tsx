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
import type { CheckContext, NeighbourAsked } from '../../core/shape/checks/context';
import { legsOf, neighbourMesh } from '../../core/shape/checks/where-it-goes';
import type { Models } from '../../core/shape/kernels/kernel';
import type { LoadResult } from '../../core/shape/strength/loads';
import { useModels } from './use-models';

/** What is shown around the part: its neighbours, the way it goes on, its loads and where it would give way. */
export interface Surroundings {
  neighbours: readonly (NeighbourAsked & { hit: boolean })[];
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
  geometry,
  colours,
}: {
  what: Surroundings;
  size: number;
  /** The part's own, shown once more where it comes from. */
  geometry: BufferGeometry;
  colours: Colours;
}) {
  const { invalidate } = useThree();
  const models = useModels(what.neighbours);
  useEffect(() => {
    // A body from a file comes later than the rest.
    if (what && models) invalidate();
  }, [what, models, invalidate]);
  const legs = what.goesOn ? legsOf(what.goesOn) : [];
  return (
    <>
      {what.neighbours.map(n => (
        <NeighbourBody key={n.id} of={n} models={models} colours={colours} />
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
  const { body, edges } = useMemo(() => {
    // As it is, without the room that it needs.
    const made = new BufferGeometry();
    const mesh = neighbourMesh({ ...of, room: 0 }, null, models);
    if (!mesh) return { body: made, edges: new BufferGeometry() };
    const { positions, triangles } = mesh;
    made.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3));
    made.setIndex(Array.from(triangles));
    return { body: made, edges: new EdgesGeometry(made, 30) };
  }, [of, models]);
  useEffect(
    () => () => {
      body.dispose();
      edges.dispose();
    },
    [body, edges],
  );
  const colour = of.hit ? colours.danger : colours.soft;
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

/** An arrow where the load acts, and the section that gives way first, drawn through the part. */
function LoadMarks({ result, size, colours }: { result: LoadResult; size: number; colours: Colours }) {
  const { load, weakest } = result;
  const arrow = useMemo(() => {
    if (!load) return null;
    const turning = load.force.every(x => x === 0);
    const way = new Vector3(...(turning ? load.turn : load.force)).normalize();
    const long = 0.35 * size;
    // It ends where it acts, as a push does.
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
