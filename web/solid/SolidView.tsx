import { Canvas, type ThreeEvent, useThree } from '@react-three/fiber';
import { type ReactNode, type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import {
  BackSide,
  BufferAttribute,
  BufferGeometry,
  GridHelper,
  MeshBasicMaterial,
  Plane,
  Vector3,
} from 'three';
import type { Press } from '../../core/shape/additions/pressed';
import type { Place } from '../../core/shape/vector';
import { Button, MenuButton } from '../ui/controls';
import { colourNow, useThemeChange } from '../ui/use-theme-change';
import type { ShownChange, ShownSolid } from '../workers/solid-protocol';
import { ArrowView, type ShownArrow } from './arrow';
import { type Mark, MarkPoints, markAt, Reading } from './measuring';
import { type Numbered, NumberedView } from './numbered';
import { type Surroundings, SurroundingsView } from './surroundings';
import { type Look, Turntable } from './Turntable';
import { VIEWS, type ViewName } from './views';

interface Props {
  solid: ShownSolid;
  /** The mate that is highlighted. */
  lit: string | null;
  onPick?(mate: string): void;
  /** A face is being asked for: the next press answers with its place in words. */
  onFace?(press: Press): void;
  /** The words shown meanwhile. */
  says?: string;
  /** Additional keys next to its own. */
  tools?: ReactNode;
  /** Dimmed while newer numbers are being built. */
  busy: boolean;
  /** What grew and shrank since an earlier version: the part is then transparent. */
  change?: { grown: ShownChange | null; shrunk: ShownChange | null } | null;
  surroundings?: Surroundings | null;
  /** Places in colour, with their numbers. */
  numbered?: readonly Numbered[];
  /** Where the highlighted thing is. */
  arrow?: ShownArrow | null;
  /** Places that were pressed. */
  pressed?: readonly Place[];
  /** The initial side of view. */
  from?: ViewName;
}

/** The part in a paper-coloured room on a 10 mm grid: warm clay, ink edges, mating surfaces in the working blue. */
export default function SolidView({
  solid,
  lit,
  onPick,
  onFace,
  says = 'Press the face where it should sit.',
  tools,
  busy,
  change = null,
  surroundings = null,
  numbered = [],
  arrow = null,
  pressed = [],
  from,
}: Props) {
  /** The share of the part that is cut away from its front. */
  const [cut, setCut] = useState(0);
  const [look, setLook] = useState<Look | null>(from ? { from } : null);
  const [measuring, setMeasuring] = useState(false);
  const [marks, setMarks] = useState<Mark[]>([]);
  const neighbours = surroundings?.neighbours.length ?? 0;
  const [counted, setCounted] = useState(neighbours);
  if (counted !== neighbours) {
    setCounted(neighbours);
    // A new one appears beside the part, which may be out of view.
    if (neighbours > counted) setLook({ from: 'here', around: true });
  }
  // Marks belong to the solid on which they were made.
  const [markedOn, setMarkedOn] = useState(solid);
  if (markedOn !== solid) {
    setMarkedOn(solid);
    setMarks([]);
  }
  // The scene is rendered separately and later: a press must do what the words below it say now.
  const answers = useRef<Answers>({});
  answers.current = {
    onPick,
    onFace,
    onMark: measuring ? mark => setMarks(now => (now.length > 1 ? [mark] : [...now, mark])) : undefined,
  };
  return (
    <Room data-busy={busy ? '' : undefined}>
      <Canvas
        frameloop="demand"
        dpr={[1, 2]}
        camera={{ fov: 32, near: 1, far: 5000 }}
        onCreated={({ gl }) => {
          gl.localClippingEnabled = true;
        }}
        aria-label="The part as a solid; drag to turn it"
      >
        <Scene
          solid={solid}
          lit={lit}
          answers={answers}
          cut={cut}
          look={look}
          change={change}
          surroundings={surroundings}
          numbered={numbered}
          arrow={arrow}
          pressed={pressed}
          marks={marks}
        />
      </Canvas>
      <p>
        {onFace
          ? says
          : measuring
            ? marks.length === 0
              ? 'Press on the part: the wall there; press again: how far apart.'
              : ''
            : 'The bed is the grid, 10 mm a square. Drag to turn, scroll to come closer.'}
      </p>
      {measuring && marks.length > 0 ? <Reading marks={marks} /> : null}
      <Tools>
        <label>
          cut
          <input
            type="range"
            min={0}
            max={100}
            value={Math.round(100 * cut)}
            aria-label="Cut away from the front, %"
            onChange={event => setCut(Number(event.target.value) / 100)}
          />
        </label>
        <MenuButton label="Look from" items={SIDES} onChoose={from => setLook({ from })} />
        <Button $small $look="quiet" onPress={() => setLook({ from: 'here' })}>
          Whole part
        </Button>
        {neighbours > 0 ? (
          <Button $small $look="quiet" onPress={() => setLook({ from: 'here', around: true })}>
            All round it
          </Button>
        ) : null}
        <Button
          $small
          $look="quiet"
          aria-pressed={measuring}
          onPress={() => {
            setMeasuring(!measuring);
            setMarks([]);
          }}
        >
          {measuring ? 'Done measuring' : 'Measure'}
        </Button>
        {tools}
      </Tools>
    </Room>
  );
}

const SIDES = (Object.keys(VIEWS) as ViewName[]).map(id => ({ id, label: VIEWS[id].label }));

const Tools = styled.div`
  margin: 0 12px; min-height: 26px; display: flex; flex-wrap: wrap; align-items: center; gap: 0 4px;
  font-size: 12.5px; color: var(--soft);
  label { display: flex; align-items: center; gap: 6px; } input { width: 64px; accent-color: var(--blue); }
  button { font-size: 13px; min-height: 26px; padding: 0 6px; }
`;
const Room = styled.div`
  position: relative; height: 100%; background: var(--sheet); border-radius: 6px; overflow: hidden; display: flex; flex-direction: column;
  /* Nothing stands over the part's lower edge. */
  > :first-child { flex: 1 1 0 !important; min-height: 0; } > p { order: 2; }
  canvas { display: block; transition: opacity 0.15s; }
  &[data-busy] canvas { opacity: 0.72; }
  > p { margin: 0 12px 6px; min-height: 1.4em; font-size: 12.5px; color: var(--soft); }
`;

/** What a press on the part does. */
interface Answers extends Pick<Props, 'onPick' | 'onFace'> {
  onMark?: ((mark: Mark) => void) | undefined;
}

interface SceneProps extends Omit<Props, 'busy' | 'from' | 'onPick' | 'onFace'> {
  cut: number;
  look: Look | null;
  marks: readonly Mark[];
  answers: RefObject<Answers>;
}

function Scene({
  solid,
  lit,
  answers,
  cut,
  look,
  change,
  surroundings,
  numbered = [],
  arrow,
  pressed = [],
  marks,
}: SceneProps) {
  const colours = useColours();
  const invalidate = useThree(three => three.invalidate);
  const geometry = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(solid.positions, 3));
    made.setAttribute('normal', new BufferAttribute(solid.normals, 3));
    solid.groups.forEach((group, index) => {
      made.addGroup(group.start, group.count, index);
    });
    return made;
  }, [solid]);
  const edges = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(solid.edges, 3));
    return made;
  }, [solid]);
  useEffect(() => {
    invalidate();
    return () => {
      geometry.dispose();
      edges.dispose();
    };
  }, [geometry, edges, invalidate]);
  const { min, max } = solid.bounds;
  // Clipping is off while nothing is cut away: otherwise edges on the front face would flicker.
  const planes = useMemo(
    () => (cut > 0 ? [new Plane(new Vector3(0, 1, 0), -(min[1] + cut * (max[1] - min[1])))] : []),
    [cut, min, max],
  );
  useEffect(() => {
    if (planes) invalidate();
  }, [planes, invalidate]);
  const size = Math.max(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
  const centre: [number, number] = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  const squares = 2 * Math.ceil((1.6 * size) / 20 + 1);
  const backs = useMemo(
    () => new MeshBasicMaterial({ color: colours.cut, side: BackSide, clippingPlanes: planes }),
    [colours.cut, planes],
  );
  useEffect(() => () => backs.dispose(), [backs]);
  const grid = useMemo(
    () => new GridHelper(10 * squares, squares, colours.rule, colours.rule),
    [squares, colours.rule],
  );
  return (
    <>
      <color attach="background" args={[colours.sheet]} />
      <ambientLight intensity={1.7} />
      <directionalLight position={[60, -90, 140]} intensity={1.9} />
      <directionalLight position={[-80, 40, 60]} intensity={0.6} />
      {/* The grid helper lies in x–z; our bed is x–y. */}
      <primitive
        object={grid}
        rotation={[Math.PI / 2, 0, 0]}
        position={[10 * Math.round(centre[0] / 10), 10 * Math.round(centre[1] / 10), -0.05]}
      />
      {/* biome-ignore lint/a11y/noStaticElementInteractions: a body in the scene, not an element; the ledger is the keyboard's way */}
      <mesh
        geometry={geometry}
        onClick={event => {
          const { onPick, onFace, onMark } = answers.current;
          if (onFace) {
            if (event.delta < 3 && event.face) onFace(pressAt(event));
            return;
          }
          if (onMark) {
            // A click that ends a drag is not a click.
            if (event.delta < 3) onMark(markAt(event));
            return;
          }
          const mate = solid.groups[event.face?.materialIndex ?? -1]?.mate;
          if (mate) onPick?.(mate);
        }}
      >
        {solid.groups.map((group, index) => (
          <meshStandardMaterial
            key={index}
            attach={`material-${index}`}
            color={group.mate === null ? colours.clay : group.mate === lit ? colours.blue : colours.mate}
            roughness={0.85}
            transparent={Boolean(change)}
            opacity={change ? 0.4 : 1}
            depthWrite={!change}
            clippingPlanes={planes}
            polygonOffset
            polygonOffsetFactor={1}
            polygonOffsetUnits={1}
          />
        ))}
      </mesh>
      {planes.length > 0 ? (
        // Seen from inside, a wall is the cut face: flat, in the colour of cuts.
        <mesh geometry={geometry} material={backs} />
      ) : null}
      <lineSegments geometry={edges}>
        <lineBasicMaterial color={colours.ink} clippingPlanes={planes} />
      </lineSegments>
      {change?.grown ? (
        <Changed positions={change.grown.positions} colour={colours.grown} planes={planes} />
      ) : null}
      {change?.shrunk ? (
        <Changed positions={change.shrunk.positions} colour={colours.shrunk} planes={planes} />
      ) : null}
      {surroundings ? (
        <SurroundingsView
          what={surroundings}
          size={size}
          bounds={solid.bounds}
          geometry={geometry}
          colours={colours}
        />
      ) : null}
      <NumberedView places={numbered} size={size} colours={colours} />
      <MarkPoints places={marks.map(m => m.at)} size={size} colour={colours.blue} />
      <MarkPoints places={pressed.map(p => p.point)} size={1.6 * size} colour={colours.danger} />
      {arrow ? <ArrowView arrow={arrow} size={size} colour={colours.blue} on={colours.sheet} /> : null}
      <Turntable size={size} bounds={solid.bounds} around={surroundings?.neighbours ?? []} look={look} />
    </>
  );
}

function useColours() {
  useThemeChange();
  return {
    sheet: colourNow('sheet'),
    rule: colourNow('rule'),
    clay: colourNow('clay-lit'),
    blue: colourNow('blue'),
    mate: colourNow('blue-2'),
    cut: colourNow('loose-tint'),
    grown: colourNow('right'),
    shrunk: colourNow('loose'),
    ink: colourNow('ink'),
    soft: colourNow('soft'),
    danger: colourNow('danger'),
  };
}

/** What was added or removed. */
function Changed({
  positions,
  colour,
  planes,
}: {
  positions: Float32Array;
  colour: string;
  planes: Plane[];
}) {
  const geometry = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(positions, 3));
    made.computeVertexNormals();
    return made;
  }, [positions]);
  const { invalidate } = useThree();
  useEffect(() => {
    invalidate();
    return () => geometry.dispose();
  }, [geometry, invalidate]);
  return (
    <mesh geometry={geometry}>
      <meshStandardMaterial
        color={colour}
        roughness={0.85}
        clippingPlanes={planes}
        polygonOffset
        polygonOffsetFactor={-1}
        polygonOffsetUnits={-1}
      />
    </mesh>
  );
}

function pressAt({ point, face, ray }: ThreeEvent<MouseEvent>): Press {
  const plain = ({ x, y, z }: Vector3): Press['point'] => [x, y, z];
  return { point: plain(point), normal: plain(face!.normal), looks: plain(ray.direction) };
}
