import { useThree } from '@react-three/fiber';
import { useEffect, useRef } from 'react';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';

/** The pointer turns the view about its target; the bed stays level. */
export function useOrbit() {
  const { camera, gl, invalidate } = useThree();
  const controls = useRef<OrbitControls>(null);
  useEffect(() => {
    camera.up.set(0, 0, 1);
    const made = new OrbitControls(camera, gl.domElement);
    made.addEventListener('change', () => invalidate());
    controls.current = made;
    return () => made.dispose();
  }, [camera, gl, invalidate]);
  return controls;
}
