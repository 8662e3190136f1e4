import ManifoldInit, { type Manifold } from 'manifold-3d';
import { type TriangleMesh, weld } from '../core/shape/mesh/mesh';

/** Objects with surfaces of known size, for scanning. Lengths mm. */

const wasm = await ManifoldInit();
wasm.setup();
const { Manifold: M, CrossSection } = wasm;

const meshOf = (solid: Manifold): TriangleMesh => {
  const { vertProperties, triVerts } = solid.getMesh();
  return weld(vertProperties, triVerts);
};
const ROUND = 96;

/**
 * A plate of 80 × 60 × 6 with four holes of 5.3 at 64 × 44, a boss of 31.7 × 24 with a cone of 26 to 24.4 over 22 in
 * it, a hexagon of 17 across its flats and 12 high, and half a ball of radius 12.6.
 */
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

/** A plate of 90 × 70 × 10 with a hexagon socket of 13 across flats, a slot of 8 × 24, six holes of 4.5 on a circle of 32,
 * an octagon of 20 and 14 high, a cone of 30 to 14 over 18, and a peg of 6 and 12 high. */
export function secondBlock(): TriangleMesh {
  const prism = (sides: number, flats: number, height: number) =>
    new CrossSection([
      Array.from({ length: sides }, (_, i): [number, number] => {
        const a = ((i + 0.5) * 2 * Math.PI) / sides;
        const r = flats / 2 / Math.cos(Math.PI / sides);
        return [r * Math.cos(a), r * Math.sin(a)];
      }),
    ]).extrude(height);
  const plate = M.cube([90, 70, 10], true).translate([0, 0, 5]);
  const socket = prism(6, 13, 20).translate([-28, 20, 3]);
  const slot = M.union([
    M.cube([16, 8, 20], true),
    M.cylinder(20, 4, 4, ROUND, true).translate([-8, 0, 0]),
    M.cylinder(20, 4, 4, ROUND, true).translate([8, 0, 0]),
  ]).translate([5, 24, 5]);
  const holes = Array.from({ length: 6 }, (_, i) => {
    const a = (i * Math.PI) / 3;
    return M.cylinder(12, 2.25, 2.25, ROUND).translate([-20 + 16 * Math.cos(a), -12 + 16 * Math.sin(a), -1]);
  });
  const octagon = prism(8, 20, 14).translate([30, -20, 10]);
  const cone = M.cylinder(18, 15, 7, ROUND)
    .translate([24, 12, 10])
    .subtract(M.cube([90, 20, 60], true).translate([0, 34.9 + 10, 20]));
  const peg = M.cylinder(12, 3, 3, ROUND).translate([-38, -28, 10]);
  return meshOf(M.union([plate, octagon, cone, peg]).subtract(M.union([socket, slot, ...holes])));
}

const knob = (radius: number, at: [number, number, number]) =>
  M.sphere(radius, ROUND).scale([1, 1, 0.8]).translate(at);

/** A lever, bent up and down, the same left and right of y = 0. */
export function lever(): TriangleMesh {
  const [a, b, c] = [knob(15, [0, 0, 0]), knob(9, [40, 0, 6]), knob(12, [90, 0, -4])];
  return meshOf(M.union([M.hull([a, b]), M.hull([b, c])]));
}

/** A grip, bent and thick at one end, 128 × 32 × 24: hulls of flattened balls. */
export function grip(): TriangleMesh {
  const [a, b, c, d] = [
    knob(15, [0, 0, 0]),
    knob(11, [40, 2, 3]),
    knob(13, [85, -4, 0]),
    knob(8, [105, -8, -2]),
  ];
  return meshOf(M.union([M.hull([a, b]), M.hull([b, c]), M.hull([c, d])]));
}

/**
 * A stem of 12 with a cap of 30 on it, 6 thick, 24 high: lying on its cap nothing holds it, on its stem the cap does.
 */
export const mushroom = (): TriangleMesh =>
  meshOf(M.cylinder(24, 6, 6, ROUND).add(M.cylinder(6, 15, 15, ROUND).translate([0, 0, 18])));
