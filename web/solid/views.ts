import { Box3, Vector3 } from 'three';
import type { NeighbourAsked } from '../../core/shape/checks/context';
import type { Bounds } from '../../core/shape/mesh/mesh';

/**
 * Directions from which a part can be viewed, in the words of its faces; from the middle outwards. Straight from above
 * and below is tilted slightly to the front, so that the front stays at the lower edge of the view.
 */
export const VIEWS = {
  corner: { label: 'the corner', from: [0.45, -0.72, 0.62] },
  front: { label: 'the front', from: [0, -1, 0] },
  right: { label: 'the right', from: [1, 0, 0] },
  back: { label: 'the back', from: [0, 1, 0] },
  left: { label: 'the left', from: [-1, 0, 0] },
  above: { label: 'above', from: [0, -0.001, 1] },
  below: { label: 'below', from: [0, -0.001, -1] },
  underCorner: { label: 'the corner below', from: [0.45, -0.72, -0.62] },
} as const satisfies Readonly<Record<string, { label: string; from: readonly number[] }>>;
export type ViewName = keyof typeof VIEWS;

/** How much of the view a part may fill: sizes and keys cover the rest. */
const FILLS = 0.8;

/**
 * Distance of the camera from the part's middle at which every corner of its bounding box is in view, mm. `from` points
 * from the middle to the camera; `fov` is the vertical opening of the view in degrees, `aspect` its width over its
 * height.
 */
export function distanceFor(
  { min, max }: Bounds,
  from: Vector3,
  { fov, aspect }: { fov: number; aspect: number },
): number {
  const middle = middleOf({ min, max });
  const right = new Vector3(0, 0, 1).cross(from).normalize();
  const up = from.clone().cross(right);
  const high = Math.tan((fov * Math.PI) / 360) * FILLS;
  const wide = high * aspect;
  let far = 0;
  for (let i = 0; i < 8; i++) {
    const corner = new Vector3((i & 1 ? max : min)[0], (i & 2 ? max : min)[1], (i & 4 ? max : min)[2]).sub(
      middle,
    );
    const near = corner.dot(from);
    far = Math.max(far, near + Math.abs(corner.dot(right)) / wide, near + Math.abs(corner.dot(up)) / high);
  }
  return far;
}

export const middleOf = ({ min, max }: Bounds): Vector3 =>
  new Vector3().addVectors(new Vector3(...min), new Vector3(...max)).multiplyScalar(0.5);

export const directionOf = (view: ViewName): Vector3 => new Vector3(...VIEWS[view].from).normalize();

/**
 * The box around the part and its neighbours. A body from a file counts by the middle of its underside: its size
 * arrives later.
 */
export function boundsWith(
  { min, max }: Bounds,
  neighbours: readonly Pick<NeighbourAsked, 'form' | 'x' | 'y' | 'z' | 'width' | 'depth' | 'height'>[],
): Bounds {
  const box = new Box3(new Vector3(...min), new Vector3(...max));
  for (const { form, x, y, z, width, depth, height } of neighbours) {
    const [w, d, h] = form === 'model' ? [0, 0, 0] : [width / 2, depth / 2, height];
    box.expandByPoint(new Vector3(x - w, y - d, z)).expandByPoint(new Vector3(x + w, y + d, z + h));
  }
  return { min: box.min.toArray(), max: box.max.toArray() };
}
