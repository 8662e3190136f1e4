import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import { BufferAttribute, BufferGeometry, EdgesGeometry } from 'three';
import { colourNow, useThemeChange } from '../ui/use-theme-change';
import type { ShownAssembly } from '../workers/solid-protocol';
import { boxAfter, offsetsFor } from './assembly-offsets';
import { useOrbit } from './use-orbit';

/** Several parts in one room, each in its own shade of the same clay. */
export default function AssemblyView({
  assembly,
  view,
}: {
  assembly: ShownAssembly;
  view: 'together' | 'exploded' | 'apart';
}) {
  useThemeChange();
  const offsets = useMemo(() => offsetsFor(assembly, view), [assembly, view]);
  const shades = [colourNow('clay-lit'), colourNow('blue-2'), colourNow('loose-tint'), colourNow('right')];
  return (
    <Canvas
      frameloop="demand"
      dpr={[1, 2]}
      camera={{ fov: 32, near: 1, far: 8000 }}
      aria-label="All parts as solids; drag to turn them"
    >
      <color attach="background" args={[colourNow('sheet')]} />
      <ambientLight intensity={1.7} />
      <directionalLight position={[60, -90, 140]} intensity={1.9} />
      <directionalLight position={[-80, 40, 60]} intensity={0.6} />
      {assembly.parts.map((part, i) => (
        <Body
          key={part.id}
          positions={part.positions}
          at={offsets[i]!}
          colour={shades[i % shades.length]!}
          through={view === 'together' && part.off.some(x => x !== 0)}
        />
      ))}
      <Camera box={boxAfter(assembly, offsets)} />
    </Canvas>
  );
}

function Body({
  positions,
  at,
  colour,
  through,
}: {
  positions: Float32Array;
  at: readonly [number, number, number];
  colour: string;
  /** Transparent, so that what it sits on is visible. */
  through: boolean;
}) {
  const { geometry, edges } = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(positions, 3));
    made.computeVertexNormals();
    return { geometry: made, edges: new EdgesGeometry(made, 28) };
  }, [positions]);
  const { invalidate } = useThree();
  useEffect(() => {
    invalidate();
    return () => {
      geometry.dispose();
      edges.dispose();
    };
  }, [geometry, edges, invalidate]);
  useEffect(() => {
    if (at) invalidate();
  }, [at, invalidate]);
  return (
    <group position={[...at]}>
      <mesh geometry={geometry}>
        <meshStandardMaterial
          color={colour}
          roughness={0.85}
          flatShading
          transparent={through}
          opacity={through ? 0.55 : 1}
          depthWrite={!through}
        />
      </mesh>
      <lineSegments geometry={edges}>
        <lineBasicMaterial color={colourNow('ink')} />
      </lineSegments>
    </group>
  );
}

function Camera({ box: [min, max] }: { box: [number[], number[]] }) {
  const { camera, invalidate } = useThree();
  const controls = useOrbit();
  useEffect(() => {
    const middle = [0, 1, 2].map(i => (min[i]! + max[i]!) / 2) as [number, number, number];
    const far = 1.7 * Math.hypot(...[0, 1, 2].map(i => max[i]! - min[i]!));
    camera.position.set(middle[0] + 0.45 * far, middle[1] - 0.72 * far, middle[2] + 0.5 * far);
    controls.current?.target.set(...middle);
    controls.current?.update();
    invalidate();
  }, [camera, controls, invalidate, min, max]);
  return null;
}
