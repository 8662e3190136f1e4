import { type Curve, curvesOf, pointAt } from './curve';
import type { DrawPoint } from './drawing/drawing';
import type { Outline, OutlineEdge } from './kernels/kernel';
import type { Point2 } from './vector';

/** Closed plane outlines, mm: built step by step, or from the shapes that most parts use. */
export class Path {
  private readonly edges: OutlineEdge[] = [];
  private last: Point2;
  constructor(private readonly start: Point2) {
    this.last = start;
  }
  to(point: Point2): this {
    // An edge of zero length is left out: the kernel does not accept it.
    if (apart(this.last, point)) this.edges.push({ to: point });
    this.last = point;
    return this;
  }
  arc(point: Point2, via: Point2): this {
    if (apart(this.last, point)) this.edges.push({ to: point, via });
    this.last = point;
    return this;
  }
  close(): Outline {
    this.to(this.start);
    return { start: this.start, edges: this.edges };
  }
}

const apart = (a: Point2, b: Point2) => Math.hypot(a[0] - b[0], a[1] - b[1]) > 1e-6;

export function polyline(points: readonly Point2[]): Outline {
  const path = new Path(points[0]!);
  for (const p of points.slice(1)) path.to(p);
  return path.close();
}

export function circle([x, y]: Point2, radius: number): Outline {
  return new Path([x - radius, y])
    .arc([x + radius, y], [x, y - radius])
    .arc([x - radius, y], [x, y + radius])
    .close();
}

/** Round corners of `radius`; none where it is 0. */
export function rectangle(x0: number, y0: number, x1: number, y1: number, radius = 0): Outline {
  const r = Math.min(radius, (x1 - x0) / 2, (y1 - y0) / 2);
  const k = r * (1 - Math.SQRT1_2);
  if (r <= 1e-6)
    return polyline([
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ]);
  return new Path([x0 + r, y0])
    .to([x1 - r, y0])
    .arc([x1, y0 + r], [x1 - k, y0 + k])
    .to([x1, y1 - r])
    .arc([x1 - r, y1], [x1 - k, y1 - k])
    .to([x0 + r, y1])
    .arc([x0, y1 - r], [x0 + k, y1 - k])
    .to([x0, y0 + r])
    .arc([x0 + r, y0], [x0 + k, y0 + k])
    .close();
}

/** A slot with round ends, its length over all along x. */
export const slot = ([x, y]: Point2, length: number, width: number): Outline =>
  length - width < 1e-6
    ? circle([x, y], width / 2)
    : rectangle(x - length / 2, y - width / 2, x + length / 2, y + width / 2, width / 2);

/** A regular polygon by its width across flats, one flat upright at the right: corners are derived. */
export function polygon(sides: number, flats: number): Outline {
  const corner = flats / 2 / Math.cos(Math.PI / sides);
  return polyline(
    Array.from({ length: sides }, (_, i): Point2 => {
      const a = ((2 * i + 1) * Math.PI) / sides;
      return [corner * Math.cos(a), corner * Math.sin(a)];
    }),
  );
}

/** A circle cut by one flat (a D) or two opposite ones, upright in x. @param flat across the flat(s) */
export function flattened(diameter: number, flat: number, both: boolean): Outline {
  const r = diameter / 2;
  // A D is measured from its flat to the far side of the circle.
  const right = both ? flat / 2 : flat - r;
  const y = Math.sqrt(Math.max(0, r * r - right * right));
  if (both)
    return new Path([right, -y])
      .to([right, y])
      .arc([-right, y], [0, r])
      .to([-right, -y])
      .arc([right, -y], [0, -r])
      .close();
  return new Path([right, -y]).to([right, y]).arc([right, -y], [-r, 0]).close();
}

/** An outline as points; arcs in twelve pieces, enough at any size on a screen. */
export function pointsOf(outline: Outline): DrawPoint[] {
  const pieces = (c: Curve) => (c.arc ? ARC_PIECES : 1);
  return [
    outline.start,
    ...curvesOf(outline).flatMap(c =>
      Array.from({ length: pieces(c) }, (_, i) => pointAt(c, (i + 1) / pieces(c))),
    ),
  ];
}
/** Number of pieces for a half circle: no corner is visible on screen, nor in a drawing file. */
const ARC_PIECES = 36;
