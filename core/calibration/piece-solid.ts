import type { CrossSection, Manifold, ManifoldToplevel } from 'manifold-3d';
import type { Font } from 'opentype.js';
import type { DrawPoint } from '../shape/drawing/drawing';
import { type TriangleMesh, weld } from '../shape/mesh/mesh';
import { textOutlines } from '../shape/text';
import { FEATURES, type Feature, FRONT_AT, PLATE, plateOutlines } from './piece';

/** Sides of a round feature: at 20 mm its flats lie 0.0014 mm from the circle. */
const SIDES = 192;
/** Bodies overlap by this, so that no two faces lie in one plane. */
const INTO = 0.2;

/** The piece as one closed solid on the bed at z = 0, front edge at y = 0. @param font for the raised sizes */
export function pieceSolid(wasm: ManifoldToplevel, font: Font): TriangleMesh {
  const held: { delete(): void }[] = [];
  const hold = <T extends { delete(): void }>(made: T): T => {
    held.push(made);
    return made;
  };
  const pulled = (loops: DrawPoint[][], z: number, height: number, rule?: 'NonZero'): Manifold => {
    const plane: CrossSection = hold(
      new wasm.CrossSection(
        loops.map(l => l.map(([x, y]) => [x, y] as [number, number])),
        rule ?? 'Positive',
      ),
    );
    return hold(hold(plane.extrude(height)).translate([0, 0, z]));
  };
  /** The feature's outline, larger by `more` all round. */
  const plan = (f: Feature, more = 0): DrawPoint[] => {
    if (f.centre) return circle(f.centre, f.size / 2 + more);
    const [x0, y0, x1, y1] = f.box!;
    return [
      [x0 - more, y0 - more],
      [x1 + more, y0 - more],
      [x1 + more, y1 + more],
      [x0 - more, y1 + more],
    ];
  };
  try {
    const { foot, deck } = plateOutlines();
    const { thickness, relief, proud, text } = PLATE;
    const solids = [pulled([foot], 0, PLATE.foot), pulled([deck], 0, thickness)];
    const cuts: Manifold[] = [];
    for (const f of FEATURES) {
      if (f.kind === 'hole' || f.kind === 'slot') {
        cuts.push(pulled([plan(f)], -1, thickness + 2), pulled([plan(f, relief)], -1, 1 + PLATE.foot));
      } else if (f.text) {
        const top = f.kind === 'height' ? f.size : thickness + proud;
        solids.push(pulled([plan(f)], thickness - INTO, top - thickness + INTO));
      }
    }
    const written = [
      ...FEATURES.filter(f => f.text).map(f => ({ words: String(f.size), at: f.text! })),
      { words: 'FRONT', at: FRONT_AT },
    ];
    for (const { words, at } of written) {
      const loops = textOutlines(words, text.height, font).map(l =>
        l.map(([x, y]): DrawPoint => [x + at[0], y + at[1]]),
      );
      solids.push(pulled(loops, thickness - INTO, text.proud + INTO, 'NonZero'));
    }
    const plate = hold(wasm.Manifold.union(solids));
    const piece = hold(plate.subtract(hold(wasm.Manifold.union(cuts))));
    const { vertProperties, triVerts } = piece.getMesh();
    return weld(vertProperties, triVerts);
  } finally {
    for (const thing of held) thing.delete();
  }
}

function circle([x, y]: DrawPoint, radius: number): DrawPoint[] {
  return Array.from({ length: SIDES }, (_, i) => {
    const a = (2 * Math.PI * (i + 0.5)) / SIDES;
    return [x + radius * Math.cos(a), y + radius * Math.sin(a)];
  });
}
