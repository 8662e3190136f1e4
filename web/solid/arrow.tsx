import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import { CanvasTexture, Quaternion, Vector3 } from 'three';
import type { Point3 } from '../../core/shape/vector';
import { FONTS } from '../ui/theme';

/** A size on the solid, between two places, or the direction in which a place moves. */
export interface ShownArrow {
  from: Point3;
  to: Point3;
  /** Heads at both ends, or at the second alone. */
  heads: 'both' | 'one';
  label: string;
}

/** Text on the solid: height of the letters, pixels. */
const LETTERS = 40;
const UP = new Vector3(0, 1, 0);

/** Drawn on top of the part: it may be inside it. @param size of the part, mm */
export function ArrowView({
  arrow: { from, to, heads, label },
  size,
  colour,
  on,
}: {
  arrow: ShownArrow;
  size: number;
  colour: string;
  on: string;
}) {
  const { invalidate } = useThree();
  const words = useMemo(() => wordsOf(label, colour, on), [label, colour, on]);
  useEffect(() => {
    invalidate();
    return () => {
      words.texture.dispose();
    };
  }, [words, invalidate]);
  const along = new Vector3(...to).sub(new Vector3(...from));
  const length = along.length();
  // A head is never longer than its line.
  const head = Math.min(size / 22, length / 3);
  const way = along.clone().normalize();
  const ends = heads === 'both' ? ([1, -1] as const) : ([1] as const);
  const high = size / 10;
  const middle = new Vector3(...from).addScaledVector(along, heads === 'both' ? 0.5 : 1);
  // Beside the line, so that it covers nothing of it.
  middle.z += 1.4 * high;
  return (
    <>
      {/* Twice: first wider in the room’s own colour, so that it stands out from whatever is behind it. */}
      {[
        { wide: size / 130, shade: on, order: 3 },
        { wide: size / 320, shade: colour, order: 4 },
      ].map(({ wide, shade, order }) => (
        <group key={order}>
          <mesh
            position={new Vector3(...from).addScaledVector(along, 0.5)}
            quaternion={new Quaternion().setFromUnitVectors(UP, way)}
            renderOrder={order}
            raycast={() => {}}
          >
            <cylinderGeometry args={[wide, wide, length, 12]} />
            <meshBasicMaterial color={shade} depthTest={false} transparent />
          </mesh>
          {ends.map(end => (
            <mesh
              key={end}
              position={new Vector3(...(end > 0 ? to : from)).addScaledVector(way, (-end * head) / 2)}
              quaternion={new Quaternion().setFromUnitVectors(UP, way.clone().multiplyScalar(end))}
              renderOrder={order}
              raycast={() => {}}
            >
              <coneGeometry args={[head / 3 + wide, head, 16]} />
              <meshBasicMaterial color={shade} depthTest={false} transparent />
            </mesh>
          ))}
        </group>
      ))}
      <sprite position={middle} scale={[high * words.wide, high, 1]} renderOrder={4} raycast={() => {}}>
        <spriteMaterial map={words.texture} depthTest={false} transparent />
      </sprite>
    </>
  );
}

/** @returns its width divided by its height */
function wordsOf(label: string, colour: string, on: string): { texture: CanvasTexture; wide: number } {
  const canvas = document.createElement('canvas');
  const draw = canvas.getContext('2d');
  const font = `600 ${LETTERS}px ${FONTS.label}`;
  if (draw) {
    draw.font = font;
    canvas.width = Math.ceil(draw.measureText(label).width) + LETTERS;
    canvas.height = Math.ceil(1.5 * LETTERS);
    // Changing a canvas's size resets its font.
    draw.font = font;
    draw.fillStyle = on;
    draw.globalAlpha = 0.92;
    draw.fillRect(0, 0, canvas.width, canvas.height);
    draw.globalAlpha = 1;
    draw.fillStyle = colour;
    draw.textAlign = 'center';
    draw.textBaseline = 'middle';
    draw.fillText(label, canvas.width / 2, canvas.height / 2);
  }
  return { texture: new CanvasTexture(canvas), wide: canvas.width / canvas.height };
}
