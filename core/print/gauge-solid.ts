import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import type { Font } from 'opentype.js';
import { type TriangleMesh, weld } from '../shape/mesh/mesh';
import { textOutlines } from '../shape/text';
import { GAUGE, GAUGE_HEIGHT, type GaugeAsked, gaugeFoot } from './gauge';

/** Flats of a round gauge lie within this of its circle, mm: it must measure the size on it. */
const SAGITTA = 0.0025;
const TEXT = { height: 4, proud: 0.5 };
const INTO = 0.2;
/** The tongue reaches this far into the foot, mm; its figures are as far from its end. */
const JOINED = 2;
/** Its upper edge is chamfered, so that a part finds its way; the lower edge ends on the foot. mm */
const LEAD = 0.6;

/** The gauge on the bed, with its size raised on its foot. */
export function gaugeSolid(wasm: ManifoldToplevel, font: Font, asked: GaugeAsked): TriangleMesh {
  const held: { delete(): void }[] = [];
  const hold = <T extends { delete(): void }>(made: T): T => {
    held.push(made);
    return made;
  };
  const { side, form, size } = asked;
  const top = GAUGE_HEIGHT;
  const { width, depth } = gaugeFoot(asked);
  /** The cross-section grown by this all round, from one height to another; at the top as wide as `above` says. */
  const stands = (across: number, from: number, to: number, above = across): Manifold => {
    if (form === 'round') {
      const sides = Math.ceil(Math.PI / Math.acos(1 - SAGITTA / (across / 2)) / 4) * 4;
      return hold(
        hold(wasm.Manifold.cylinder(to - from, across / 2, above / 2, sides)).translate([0, 0, from]),
      );
    }
    const plane = hold(wasm.CrossSection.square([across, GAUGE.long], true));
    return hold(hold(plane.extrude(to - from, 0, 0, [above / across, 1])).translate([0, 0, from]));
  };
  try {
    const foot =
      form === 'round'
        ? stands(width, 0, GAUGE.foot.height)
        : hold(
            hold(wasm.Manifold.cube([width, depth, GAUGE.foot.height])).translate([
              -width / 2,
              -depth / 2,
              0,
            ]),
          );
    const label = hold(new wasm.CrossSection(textOutlines(size.toFixed(2), TEXT.height, font), 'NonZero'));
    const box = label.bounds();
    const wide = box.max[0] - box.min[0];
    // On a tongue towards the front: the foot's rim is too narrow for figures.
    const tongue = hold(
      hold(wasm.Manifold.cube([wide + 4, GAUGE.tongue + JOINED, GAUGE.foot.height])).translate([
        -(wide + 4) / 2,
        -depth / 2 - GAUGE.tongue,
        0,
      ]),
    );
    const figures = hold(
      hold(label.extrude(TEXT.proud + INTO)).translate([
        -(box.min[0] + box.max[0]) / 2,
        -depth / 2 - GAUGE.tongue + JOINED,
        GAUGE.foot.height - INTO,
      ]),
    );
    const base = [foot, tongue, figures];
    const edge = top - LEAD;
    let body: Manifold;
    if (side === 'outside') {
      const outside = [stands(size, 0, edge), stands(size, edge, top, size - 2 * LEAD)];
      const whole = hold(wasm.Manifold.union([...base, ...outside]));
      const inner = size - 2 * GAUGE.wall;
      // A thick gauge is hollow: it measures the same and prints faster.
      body =
        form === 'round' && inner > GAUGE.hollow ? hold(whole.subtract(stands(inner, -1, top + 1))) : whole;
    } else {
      const whole = hold(wasm.Manifold.union([...base, stands(size + 2 * GAUGE.wall, 0, top)]));
      // A hole goes through, for objects longer than the gauge; a gap is open at both ends.
      const hole = [
        form === 'round' ? stands(size, -1, edge) : gap(size, GAUGE.foot.height, edge),
        form === 'round'
          ? stands(size, edge, top + 0.001, size + 2 * LEAD)
          : gap(size, edge - 0.001, top + 1),
      ];
      body = hold(whole.subtract(hold(wasm.Manifold.union(hole))));
    }
    const { vertProperties, triVerts } = body.getMesh();
    return weld(vertProperties, triVerts);
  } finally {
    for (const thing of held) thing.delete();
  }

  /** Beyond both ends of the walls. */
  function gap(across: number, from: number, to: number): Manifold {
    return hold(
      hold(wasm.Manifold.cube([across, GAUGE.long + 2, to - from])).translate([
        -across / 2,
        -GAUGE.long / 2 - 1,
        from,
      ]),
    );
  }
}
