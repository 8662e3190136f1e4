import { Matrix, solve } from 'ml-matrix';
import { facing, type TriangleMesh } from '../mesh/mesh';
import { basisOf, cross, dot, inSpace, lengthOfVector, moved, type Point3, point3, scaled } from '../vector';

/**
 * The feature that a press meant: a flat face, or the axis of a round hole or boss. Lengths mm, directions of unit
 * length.
 */
export type Feature =
  | { kind: 'flat'; at: Point3; normal: Point3 }
  | { kind: 'round'; at: Point3; axis: Point3; diameter: number; inside: boolean };

/** Neighbours that turn by less are one flat, by more an edge: cosines of half a degree and of 32°. */
const FLAT = Math.cos((0.5 * Math.PI) / 180);
const EDGE = Math.cos((32 * Math.PI) / 180);
/** A wall leans from its axis by no more than this: sine. */
const LEANS = 0.02;
/** Corners of a round wall are this near to its circle, mm. */
const ROUND = 0.02;
/** A surface that turns about its axis by less than this is a rounding, as a share of a full turn. */
const LEAST_ARC = 0.3;
/** The directions of a wall are counted in this many parts of a full turn. */
const ARC_PARTS = 36;

/** The face around a place: a round wall that turns far enough is represented by its axis, all else is a flat. */
export function featureAt(mesh: TriangleMesh, triangle: number, point: Point3): Feature {
  const normal = normalOf(mesh, triangle);
  return roundAt(mesh, triangle, point, normal) ?? { kind: 'flat', at: point, normal };
}

function roundAt(mesh: TriangleMesh, triangle: number, point: Point3, normal: Point3): Feature | null {
  const beside = besideOf(mesh);
  const axis = axisNear(mesh, beside, triangle);
  if (!axis) return null;
  const { x, y } = basisOf(axis);
  const wall = grownOver(mesh, beside, triangle, axis);
  const corners = wall.flatMap(t => [0, 1, 2].map(c => cornerOf(mesh, t, c)));
  const circle = circleThrough(corners.map(v => [dot(v, x), dot(v, y)]));
  if (!circle || circle.form > ROUND) return null;
  const faced = new Set(
    wall.map(t => {
      const n = normalOf(mesh, t);
      const turn = Math.atan2(dot(n, y), dot(n, x)) / (2 * Math.PI);
      return Math.floor((turn + 1) * ARC_PARTS) % ARC_PARTS;
    }),
  );
  if (arcOf(faced) < LEAST_ARC) return null;
  const [a, b] = circle.middle;
  const at = inSpace({ at: scaled(axis, dot(point, axis)), x, up: axis }, [a, b, 0]);
  const inside = dot(normal, moved(point, at, -1)) < 0;
  return { kind: 'round', at, axis, diameter: 2 * circle.radius, inside };
}

/** The widest arc of directions that occur, as a share of a full turn: facets may be coarse. */
function arcOf(faced: ReadonlySet<number>): number {
  let [gap, widest] = [0, 0];
  // Twice round, so that a gap over the seam is found whole.
  for (let k = 0; k < 2 * ARC_PARTS; k++) {
    gap = faced.has(k % ARC_PARTS) ? 0 : gap + 1;
    widest = Math.max(widest, gap);
  }
  return 1 - widest / ARC_PARTS;
}

/** Triangles over each edge of a triangle. */
type Beside = (triangle: number) => number[];

function besideOf({ positions, triangles }: TriangleMesh): Beside {
  const edge = (a: number, b: number) => (a * positions.length) / 3 + b;
  const over = new Map<number, number>();
  const edgeOf = (t: number, c: number) =>
    [triangles[3 * t + c]!, triangles[3 * t + ((c + 1) % 3)]!] as const;
  for (let t = 0; t < triangles.length / 3; t++)
    for (let c = 0; c < 3; c++) over.set(edge(...edgeOf(t, c)), t);
  return t =>
    [0, 1, 2].flatMap(c => {
      const [a, b] = edgeOf(t, c);
      return over.get(edge(b, a)) ?? [];
    });
}

/** Along the edge over which the wall begins to bend; null where it is flat up to its edges. */
function axisNear(mesh: TriangleMesh, beside: Beside, triangle: number): Point3 | null {
  const normal = normalOf(mesh, triangle);
  const flat = spread([triangle], beside, t => dot(normalOf(mesh, t), normal) > FLAT);
  for (const t of flat)
    for (const other of beside(t)) {
      const n = normalOf(mesh, other);
      const turned = dot(n, normal);
      if (turned > FLAT || turned < EDGE) continue;
      const along = cross(normal, n);
      return scaled(along, 1 / lengthOfVector(along));
    }
  return null;
}

const grownOver = (mesh: TriangleMesh, beside: Beside, triangle: number, axis: Point3): number[] =>
  spread(
    [triangle],
    beside,
    (t, from) =>
      Math.abs(dot(normalOf(mesh, t), axis)) < LEANS && dot(normalOf(mesh, t), normalOf(mesh, from)) > EDGE,
  );

/** All connected triangles that are accepted, starting from some. */
function spread(
  from: readonly number[],
  beside: Beside,
  takes: (triangle: number, from: number) => boolean,
): number[] {
  const seen = new Set(from);
  const found = [...from];
  for (const t of found)
    for (const other of beside(t)) {
      if (seen.has(other) || !takes(other, t)) continue;
      seen.add(other);
      found.push(other);
    }
  return found;
}

/** Least squares (Kåsa): x² + y² = 2ax + 2by + c. @returns null where all points are on one line */
function circleThrough(
  points: readonly (readonly [number, number])[],
): { middle: readonly [number, number]; radius: number; form: number } | null {
  const [mx, my] = [0, 1].map(i => points.reduce((sum, p) => sum + p[i]!, 0) / points.length) as [
    number,
    number,
  ];
  const rows = points.map(([x, y]) => [2 * (x - mx), 2 * (y - my), 1]);
  const squares = points.map(([x, y]) => (x - mx) ** 2 + (y - my) ** 2);
  const [a, b, c] = solve(new Matrix(rows), Matrix.columnVector(squares), true).to1DArray() as [
    number,
    number,
    number,
  ];
  const radius = Math.sqrt(c + a * a + b * b);
  if (!Number.isFinite(radius)) return null;
  const middle = [a + mx, b + my] as const;
  const form = Math.max(
    ...points.map(([x, y]) => Math.abs(Math.hypot(x - middle[0], y - middle[1]) - radius)),
  );
  return { middle, radius, form };
}

const cornerOf = ({ positions, triangles }: TriangleMesh, t: number, corner: number): Point3 =>
  point3(i => positions[3 * triangles[3 * t + corner]! + i]!);

function normalOf(mesh: TriangleMesh, t: number): Point3 {
  const n = facing(mesh, t);
  return scaled(n, 1 / (lengthOfVector(n) || 1));
}
