import { curvesOf, outlineOfCurves } from '../shape/curve';
import type { Outline } from '../shape/kernels/kernel';
import { outlineOfText } from '../shape/outline-text';
import type { Point2 } from '../shape/vector';

/** A flat thing for photos, seen from above, y up; lengths mm. */
export interface FlatThing {
  outer: string;
  holes: readonly { at: Point2; diameter: number }[];
}

/** Placed on the sheet: turned by degrees, moved, and with y down as on the sheet. */
export function laid({ outer, holes }: FlatThing, turn: number, at: Point2): Outline[] {
  const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  const place = ([x, y]: Point2): Point2 => [at[0] + c * x - s * y, -(at[1] + s * x + c * y)];
  const lines = [
    outlineOfText(outer),
    ...holes.map(({ at: [x, y], diameter }) => {
      const r = diameter / 2;
      const arc = { centre: [x, y] as Point2, radius: r, turn: 1 as const };
      return outlineOfCurves([
        { from: [x + r, y], to: [x - r, y], arc },
        { from: [x - r, y], to: [x + r, y], arc },
      ]);
    }),
  ];
  return lines.map(o =>
    outlineOfCurves(
      curvesOf(o).map(({ from, to, arc }) => ({
        from: place(from),
        to: place(to),
        ...(arc
          ? {
              arc: { ...arc, centre: place(arc.centre), turn: arc.turn === 1 ? (-1 as const) : (1 as const) },
            }
          : {}),
      })),
    ),
  );
}
