import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import type { Font } from 'opentype.js';
import type { Side } from '../fit/wants';
import { type TriangleMesh, weld } from '../shape/mesh/mesh';
import { textOutlines } from '../shape/text';
import { RUNG, rungRing, TONGUE } from './ladder';

/** Flats of a ring lie within this of its circle, mm: it must measure the size on it. */
const SAGITTA = 0.0025;
const TEXT = { height: 4, proud: 0.5 };
const INTO = 0.2;

/** One rung: a ring on the bed with its number, counted from 1, on a tongue towards the front. */
export function rungSolid(
  wasm: ManifoldToplevel,
  font: Font,
  side: Side,
  size: number,
  number: number,
): TriangleMesh {
  const held: { delete(): void }[] = [];
  const hold = <T extends { delete(): void }>(made: T): T => {
    held.push(made);
    return made;
  };
  try {
    const { inner, outer } = rungRing(side, size);
    const sides = Math.ceil(Math.PI / Math.acos(1 - SAGITTA / (outer / 2)) / 4) * 4;
    const upright = (diameter: number, height: number, z: number): Manifold =>
      hold(hold(wasm.Manifold.cylinder(height, diameter / 2, diameter / 2, sides)).translate([0, 0, z]));
    // It begins under the ring, so that both are one body; away from a bore or an outside that must fit.
    const reach = side === 'inside' ? outer / 2 - RUNG.wall / 2 : outer / 2 - RUNG.wall;
    const tongue = hold(
      hold(wasm.Manifold.cube([TONGUE.width, outer / 2 - reach + TONGUE.length, TONGUE.height])).translate([
        -TONGUE.width / 2,
        -outer / 2 - TONGUE.length,
        0,
      ]),
    );
    const plane = hold(new wasm.CrossSection(textOutlines(String(number), TEXT.height, font), 'NonZero'));
    const figure = hold(
      hold(plane.extrude(TEXT.proud + INTO)).translate([
        0,
        -outer / 2 - TONGUE.length / 2,
        TONGUE.height - INTO,
      ]),
    );
    const body = hold(wasm.Manifold.union([upright(outer, RUNG.height, 0), tongue, figure]));
    const ring = inner > 0 ? hold(body.subtract(upright(inner, RUNG.height + 2, -1))) : body;
    const { vertProperties, triVerts } = ring.getMesh();
    return weld(vertProperties, triVerts);
  } finally {
    for (const thing of held) thing.delete();
  }
}

/** The rungs side by side, with gaps between them. */
export function ladderSolids(
  wasm: ManifoldToplevel,
  font: Font,
  side: Side,
  sizes: readonly number[],
): TriangleMesh[] {
  let x = 0;
  return sizes.map((size, i) => {
    const { outer } = rungRing(side, size);
    const mesh = rungSolid(wasm, font, side, size, i + 1);
    const at = x + outer / 2;
    x += outer + RUNG.gap;
    const positions = mesh.positions.map((v, k) => (k % 3 === 0 ? v + at : v));
    return { positions, triangles: mesh.triangles };
  });
}
