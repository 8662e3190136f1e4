import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import { BufferAttribute, BufferGeometry, CanvasTexture, type ColorRepresentation, DoubleSide } from 'three';
import type { Point3 } from '../../core/shape/vector';
import { FONTS } from '../ui/theme';

/** A coloured place on the part, with its number in a list. */
export interface Numbered {
  number: number;
  /** Where the number stands. */
  at: Point3;
  /** Triangles, x, y, z of each corner; none where only the number is shown. */
  patch: Float32Array;
  /** Shown, but nothing can be done about it. */
  quiet: boolean;
}

/** How much shines through a wall, as a share. */
const SHINES = 0.35;
/** Of a number's disc, pixels. */
const DISC = 64;

export function NumberedView({
  places,
  size,
  colours,
}: {
  places: readonly Numbered[];
  size: number;
  colours: { danger: ColorRepresentation; soft: ColorRepresentation; sheet: ColorRepresentation };
}) {
  return (
    <>
      {places.map(place => (
        <Place
          key={place.number}
          place={place}
          size={size}
          colour={String(place.quiet ? colours.soft : colours.danger)}
          on={String(colours.sheet)}
        />
      ))}
    </>
  );
}

function Place({
  place: { number, at, patch },
  size,
  colour,
  on,
}: {
  place: Numbered;
  size: number;
  colour: string;
  on: string;
}) {
  const geometry = useMemo(() => {
    const made = new BufferGeometry();
    made.setAttribute('position', new BufferAttribute(patch, 3));
    return made;
  }, [patch]);
  const label = useMemo(() => labelOf(number, colour, on), [number, colour, on]);
  const { invalidate } = useThree();
  useEffect(() => {
    invalidate();
    return () => {
      geometry.dispose();
      label.dispose();
    };
  }, [geometry, label, invalidate]);
  return (
    <>
      <mesh geometry={geometry} raycast={() => {}}>
        <meshBasicMaterial color={colour} side={DoubleSide} />
      </mesh>
      {/* Behind a wall it shines through. */}
      <mesh geometry={geometry} raycast={() => {}} renderOrder={1}>
        <meshBasicMaterial
          color={colour}
          side={DoubleSide}
          transparent
          opacity={SHINES}
          depthTest={false}
          depthWrite={false}
        />
      </mesh>
      {/* A number is seen through the part: it may lie under it. */}
      <sprite position={[...at]} scale={[size / 9, size / 9, 1]} raycast={() => {}} renderOrder={2}>
        <spriteMaterial map={label} depthTest={false} transparent />
      </sprite>
    </>
  );
}

function labelOf(number: number, colour: string, on: string): CanvasTexture {
  const canvas = document.createElement('canvas');
  canvas.width = DISC;
  canvas.height = DISC;
  const draw = canvas.getContext('2d');
  if (draw) {
    draw.fillStyle = colour;
    draw.beginPath();
    draw.arc(DISC / 2, DISC / 2, DISC / 2 - 1, 0, 2 * Math.PI);
    draw.fill();
    draw.fillStyle = on;
    draw.font = `600 ${0.6 * DISC}px ${FONTS.text}`;
    draw.textAlign = 'center';
    draw.textBaseline = 'middle';
    draw.fillText(String(number), DISC / 2, 0.53 * DISC);
  }
  return new CanvasTexture(canvas);
}
