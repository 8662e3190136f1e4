import ManifoldInit, { type Manifold } from 'manifold-3d';
import { type TriangleMesh, weld } from '../core/shape/mesh/mesh';

/** Objects with surfaces of known size, to be scanned. Lengths mm. */

const wasm = await ManifoldInit();
wasm.setup();
const { Manifold: M, CrossSection } = wasm;

const meshOf = (solid: Manifold): TriangleMesh => {
  const { vertProperties, triVerts } = solid.getMesh();
  return weld(vertProperties, triVerts);
};
const ROUND = 96;

/** A plate of 80 × 60 × 6 with four holes of 5.3 at 64 × 44, a boss of 31.7 × 24 with a cone of 26 to 24.4 over 22 in
 * it, a hexagon of 17 across its flats and 12 high, and half a ball of radius 12.6. */
export function proofBlock(): TriangleMesh {
  const plate = M.cube([80, 60, 6], true).translate([0, 0, 3]);
  const holes = [-32, 32].flatMap(x =>
    [-22, 22].map(y => M.cylinder(8, 2.65, 2.65, ROUND).translate([x, y, -1])),
  );
  const boss = M.cylinder(24, 15.85, 15.85, ROUND).translate([-13, 0, 6]);
  const cone = M.cylinder(22, 12.2, 13, ROUND).translate([-13, 0, 8]);
  const hexagon = new CrossSection([
    Array.from({ length: 6 }, (_, i): [number, number] => {
      const a = ((i + 0.5) * Math.PI) / 3;
      const r = 17 / Math.sqrt(3);
      return [r * Math.cos(a), r * Math.sin(a)];
    }),
  ])
    .extrude(12)
    .translate([20, 15, 6]);
  const ball = M.sphere(12.6, ROUND)
    .translate([20, -12, 6])
    .subtract(M.cube([60, 60, 30], true).translate([20, -12, -9]));
  return meshOf(M.union([plate, boss, hexagon, ball]).subtract(M.union([...holes, cone])));
}
