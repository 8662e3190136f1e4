import { Canvas, useThree } from '@react-three/fiber';
import { type ReactNode, type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { BufferAttribute, BufferGeometry, Color, DoubleSide } from 'three';
import type { Point3 } from '../../core/shape/vector';
import { type Look, Turntable } from '../solid/Turntable';
import { VIEWS, type ViewName } from '../solid/views';
import { Button, MenuButton } from '../ui/controls';
import { colourNow, useThemeChange } from '../ui/use-theme-change';
import type { ShownScan } from '../workers/scan-protocol';

export interface Painted {
  /** Corners of the scan as shown. */
  corners: Uint32Array;
  look: 'known' | 'lit';
}

interface Props {
  scan: ShownScan;
  painted: readonly Painted[];
  /** A colour for each corner, red, green, blue, 0 to 1: instead of the highlights. */
  colours?: Float32Array | null;
  /** Lines of a section, x, y, z in sequence. */
  lines: readonly Float32Array[];
  onPress?(at: Point3): void;
  says: string;
  tools?: ReactNode;
}

const NONE: never[] = [];
const SIDES = (Object.keys(VIEWS) as ViewName[]).map(id => ({ id, label: VIEWS[id].label }));

/** A scan in the same room as a part: clay, with the found surfaces in blue. */
export default function ScanView({ scan, painted, colours = null, lines, onPress, says, tools }: Props) {
  const [look, setLook] = useState<Look | null>(null);
  // The scene is rendered separately and later: a press must do what the words below it say now.
  const answer = useRef(onPress);
  answer.current = onPress;
  return (
    <Room>
      <Canvas
        frameloop="demand"
        dpr={[1, 2]}
        camera={{ fov: 32, near: 0.5, far: 20_000 }}
        aria-label="The scan; drag to turn it"
      >
        <Scene scan={scan} painted={painted} colours={colours} lines={lines} answer={answer} look={look} />
      </Canvas>
      <Tools>
        {tools}
        <MenuButton label="Look from" items={SIDES} onChoose={from => setLook({ from })} />
        <Button $small $look="quiet" onPress={() => setLook({ from: 'here' })}>
          Whole scan
        </Button>
      </Tools>
      <p>{says}</p>
    </Room>
  );
}

function Scene({
  scan,
  painted,
  colours: own = null,
  lines,
  answer,
  look,
}: Omit<Props, 'says' | 'tools' | 'onPress'> & {
  look: Look | null;
  answer: RefObject<Props['onPress']>;
}) {
  useThemeChange();
  const colours = {
    sheet: colourNow('sheet'),
    clay: colourNow('clay-lit'),
    known: colourNow('blue-3'),
    lit: colourNow('blue'),
    line: colourNow('tight'),
    soft: colourNow('soft'),
  };
  const invalidate = useThree(three => three.invalidate);
  const geometry = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(scan.positions, 3));
    made.setAttribute('normal', new BufferAttribute(scan.normals, 3));
    if (scan.triangles.length > 0) made.setIndex(new BufferAttribute(scan.triangles, 1));
    made.setAttribute('color', new BufferAttribute(new Float32Array(scan.positions.length), 3));
    return made;
  }, [scan]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const { clay, known, lit } = colours;
  useEffect(() => {
    const attribute = geometry.getAttribute('color') as BufferAttribute;
    const paint = attribute.array as Float32Array;
    if (own) {
      paint.set(own);
      attribute.needsUpdate = true;
      invalidate();
      return;
    }
    const base = new Color(clay);
    for (let i = 0; i < paint.length; i += 3) paint.set([base.r, base.g, base.b], i);
    for (const { corners, look: how } of [...painted].sort(
      (a, b) => (a.look === 'lit' ? 1 : 0) - (b.look === 'lit' ? 1 : 0),
    )) {
      const colour = new Color(how === 'lit' ? lit : known);
      for (const v of corners) paint.set([colour.r, colour.g, colour.b], 3 * v);
    }
    attribute.needsUpdate = true;
    invalidate();
  }, [geometry, painted, own, clay, known, lit, invalidate]);
  const { min, max } = scan.bounds;
  const size = Math.max(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
  return (
    <>
      <color attach="background" args={[colours.sheet]} />
      <ambientLight intensity={1.5} />
      <directionalLight position={[60, -90, 140]} intensity={1.9} />
      <directionalLight position={[-80, 40, -60]} intensity={0.8} />
      {scan.hasSurface ? (
        // biome-ignore lint/a11y/noStaticElementInteractions: a body in the scene, not an element; the list is the keyboard's way
        <mesh
          geometry={geometry}
          onClick={event => {
            // A click that ends a drag is not a click.
            if (event.delta < 3) answer.current?.(event.point.toArray());
          }}
        >
          <meshStandardMaterial vertexColors roughness={0.85} side={DoubleSide} />
        </mesh>
      ) : (
        <points geometry={geometry}>
          <pointsMaterial color={colours.soft} size={2} sizeAttenuation={false} />
        </points>
      )}
      {lines.map((line, i) => (
        <SectionLine key={i} line={line} colour={colours.line} />
      ))}
      <Turntable size={size} bounds={scan.bounds} around={NONE} look={look} />
    </>
  );
}

function SectionLine({ line, colour }: { line: Float32Array; colour: string }) {
  const geometry = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(line, 3));
    return made;
  }, [line]);
  const invalidate = useThree(three => three.invalidate);
  useEffect(() => {
    invalidate();
    return () => geometry.dispose();
  }, [geometry, invalidate]);
  return (
    // The scan is transparent then: most of a section is inside it.
    <lineLoop geometry={geometry} renderOrder={2}>
      <lineBasicMaterial color={colour} depthTest={false} transparent />
    </lineLoop>
  );
}

const Room = styled.div`
  position: relative; height: 100%; background: var(--sheet); border-radius: 6px; overflow: hidden; display: flex; flex-direction: column;
  > :first-child { flex: 1 1 0 !important; min-height: 0; }
  canvas { display: block; }
  > p { margin: 0 12px 6px; min-height: 1.4em; font-size: 12.5px; color: var(--soft); }
`;
const Tools = styled.div`
  margin: 0 12px; min-height: 26px; display: flex; flex-wrap: wrap; align-items: center; gap: 0 4px; font-size: 12.5px; color: var(--soft);
  button { font-size: 13px; min-height: 26px; padding: 0 6px; }
`;
