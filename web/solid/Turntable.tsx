import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useRef } from 'react';
import { type PerspectiveCamera, Vector3 } from 'three';
import type { NeighbourAsked } from '../../core/shape/checks/context';
import type { Bounds } from '../../core/shape/mesh/mesh';
import { useOrbit } from './use-orbit';
import { boundsWith, directionOf, distanceFor, middleOf, type ViewName } from './views';

/**
 * A request to the view: another side, or the whole part again from the current side. A new object is a new request.
 */
export interface Look {
  from: ViewName | 'here';
  /** With its neighbours. */
  around?: boolean;
}

/** Orbits around the part; the view is reset when the part first appears or changes its size completely. */
export function Turntable({
  size,
  bounds,
  around,
  look,
}: {
  size: number;
  bounds: Bounds;
  /** The part's neighbours. */
  around: readonly NeighbourAsked[];
  look: Look | null;
}) {
  const { camera, gl, invalidate } = useThree();
  const controls = useOrbit();
  const framed = useRef({ size: 0, x: 0, y: 0 });
  const looked = useRef<Look>(null);
  const seenFrom = useRef<Look['from']>('corner');
  useEffect(() => {
    const middle = middleOf(bounds);
    const before = framed.current;
    const grown = Math.abs(Math.log(size / (before.size || 1e-9))) >= 0.4;
    const gone = Math.hypot(middle.x - before.x, middle.y - before.y) > 0.5 * size;
    const asked = look !== looked.current ? look : null;
    if (!controls.current || !(grown || gone || asked)) return;
    framed.current = { size, x: middle.x, y: middle.y };
    looked.current = look;
    const shown = asked?.around ? boundsWith(bounds, around) : bounds;
    const target = middleOf(shown);
    seenFrom.current = asked?.from ?? 'corner';
    const from =
      asked?.from === 'here'
        ? new Vector3().subVectors(camera.position, controls.current.target).normalize()
        : directionOf(asked?.from ?? 'corner');
    camera.position.copy(target).addScaledVector(from, distanceFor(shown, from, camera as PerspectiveCamera));
    (camera as PerspectiveCamera).updateProjectionMatrix();
    controls.current.target.copy(target);
    controls.current.update();
    // A press before the next frame refers to what this view shows.
    camera.updateMatrixWorld();
    invalidate();
  }, [camera, controls, size, bounds, around, look, invalidate]);
  useFrame(() => {
    controls.current?.update();
    // Programs that press wait for this: a canvas that has drawn nothing yet has no place to press.
    if (framed.current.size > 0 && gl.domElement.dataset.drawn !== seenFrom.current)
      requestAnimationFrame(() => {
        gl.domElement.dataset.drawn = seenFrom.current;
      });
  });
  return null;
}
