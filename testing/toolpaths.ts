import type { ManifoldToplevel, CrossSection as Plane } from 'manifold-3d';
import ManifoldInit from 'manifold-3d';
import type { Machine, PrintSettings } from '../core/print/settings';
import type { TriangleMesh } from '../core/shape/mesh/mesh';

/**
 * A small slicing program of the tests' own: real passes, skins, infill and travels, planned exactly. It shares no
 * line with what it judges. Lengths mm, speeds mm/s.
 */

export type Role = 'outer' | 'inner' | 'skin' | 'infill' | 'support' | 'skirt';
type Point = [number, number];

export interface ToolPath {
  role: Role;
  /** Ends where it began where it is closed. */
  points: Point[];
}

export interface ToolLayer {
  z: number;
  height: number;
  paths: ToolPath[];
}

/** Narrower than this there is no sparse infill, mm. */
const NARROW = 1.2;

let wasm: ManifoldToplevel | undefined;

async function started(): Promise<ManifoldToplevel> {
  if (!wasm) {
    wasm = await ManifoldInit();
    wasm.setup();
  }
  return wasm;
}

const closed = (points: readonly (readonly number[])[]): Point[] => {
  const all = points.map(([x, y]): Point => [x!, y!]);
  return [...all, all[0]!];
};

/** @param mesh as it lies on the bed */
export async function toolpathsOf(mesh: TriangleMesh, s: PrintSettings): Promise<ToolLayer[]> {
  const { Manifold, Mesh } = await started();
  const solid = new Manifold(
    new Mesh({ numProp: 3, vertProperties: Float32Array.from(mesh.positions), triVerts: mesh.triangles }),
  );
  const top = solid.boundingBox().max[2]!;
  const count = 1 + Math.max(0, Math.ceil((top - s.firstLayer) / s.layer - 1e-6));
  const topOf = (k: number) => s.firstLayer + k * s.layer;
  const planes: Plane[] = Array.from({ length: count }, (_, k) => {
    const middle = k === 0 ? s.firstLayer / 2 : topOf(k) - s.layer / 2;
    return solid.slice(Math.min(middle, top - 1e-4));
  });
  const layers = planes.map((plane, k): ToolLayer => {
    const paths: ToolPath[] = [];
    let rest = plane;
    for (let i = 0; i < s.walls; i++) {
      const [wide, gaps] = parted(rest, s.lineWidth);
      paths.push(...gaps);
      for (const loop of wide.offset(-s.lineWidth / 2, 'Miter', 2).toPolygons())
        paths.push({ role: i === 0 ? 'outer' : 'inner', points: closed(loop) });
      rest = wide.offset(-s.lineWidth, 'Miter', 2);
    }
    const [wide, gaps] = parted(rest, s.lineWidth);
    paths.push(...gaps);
    rest = wide;
    // Sparse where there is plastic all the way above and below.
    let sparse: Plane | null = rest;
    for (let i = 1; i <= s.top && sparse; i++)
      sparse = k + i < count ? sparse.intersect(planes[k + i]!) : null;
    for (let i = 1; i <= s.bottom && sparse; i++)
      sparse = k - i >= 0 ? sparse.intersect(planes[k - i]!) : null;
    // A narrow strip is solid anyway.
    const broad = sparse?.offset(-NARROW / 2, 'Miter', 2).offset(NARROW / 2, 'Miter', 2);
    if (sparse && broad) sparse = sparse.intersect(broad);
    const skin = sparse ? rest.subtract(sparse) : rest;
    const angle = k % 2 === 0 ? Math.PI / 4 : -Math.PI / 4;
    paths.push(...lines(skin, s.lineWidth, angle, 'skin'));
    if (sparse && s.infill > 0) paths.push(...lines(sparse, s.lineWidth / s.infill, angle, 'infill'));
    return { z: topOf(k), height: k === 0 ? s.firstLayer : s.layer, paths };
  });
  for (const plane of planes) plane.delete();
  solid.delete();
  return layers;
}

/** What is wide enough for a line, and one pass along each gap that is not. */
function parted(plane: Plane, lineWidth: number): [Plane, ToolPath[]] {
  const half = 0.45 * lineWidth;
  const wide = plane.offset(-half, 'Miter', 2).offset(half, 'Miter', 2).simplify(0.005);
  const gaps = plane
    .subtract(wide)
    .decompose()
    .flatMap((gap): ToolPath[] => {
      const loops = gap.toPolygons();
      if (loops.length === 0) return [];
      const way = closed(loops.sort((a, b) => b.length - a.length)[0]!);
      const round = gap.toPolygons().reduce((sum, l) => sum + lengthOf(closed(l)), 0);
      // Slivers beside corners are nobody's gap.
      if ((2 * gap.area()) / round < 0.25 * lineWidth) return [];
      return [
        { role: 'inner', points: loops.length > 1 ? way : way.slice(0, Math.ceil(way.length / 2) + 1) },
      ];
    });
  return [wide, gaps];
}

const lengthOf = (points: readonly Point[]): number =>
  points.reduce(
    (sum, p, i) => (i === 0 ? 0 : sum + Math.hypot(p[0] - points[i - 1]![0], p[1] - points[i - 1]![1])),
    0,
  );

/** Lines across a region, there and back, linked where the next begins near by. */
function lines(plane: Plane, spacing: number, angle: number, role: Role): ToolPath[] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const loops = plane.toPolygons().map(l => l.map(([x, y]): Point => [c * x! + s * y!, -s * x! + c * y!]));
  if (loops.length === 0) return [];
  const ys = loops.flat().map(p => p[1]);
  const back = ([x, y]: Point): Point => [c * x - s * y, s * x + c * y];
  const paths: ToolPath[] = [];
  let open: ToolPath[] = [];
  let flip = false;
  for (let y = Math.ceil(Math.min(...ys) / spacing) * spacing; y < Math.max(...ys); y += spacing) {
    const xs: number[] = [];
    for (const loop of loops)
      loop.forEach((a, i) => {
        const b = loop[(i + 1) % loop.length]!;
        if (a[1] > y !== b[1] > y) xs.push(a[0] + ((y - a[1]) / (b[1] - a[1])) * (b[0] - a[0]));
      });
    xs.sort((a, b) => a - b);
    const pieces: [Point, Point][] = [];
    for (let i = 0; i + 1 < xs.length; i += 2)
      if (xs[i + 1]! - xs[i]! > 0.2) pieces.push([back([xs[i]!, y]), back([xs[i + 1]!, y])]);
    if (flip) pieces.reverse();
    const grown: ToolPath[] = [];
    for (const [from, to] of pieces) {
      const way: Point[] = flip ? [to, from] : [from, to];
      // The line before it that ends beside where this one begins goes on with it.
      const before = open.find(p => {
        const end = p.points.at(-1)!;
        return Math.hypot(end[0] - way[0]![0], end[1] - way[0]![1]) < 3 * spacing;
      });
      if (before) before.points.push(...way);
      else paths.push({ role, points: way });
      grown.push(before ?? paths.at(-1)!);
    }
    open = grown;
    flip = !flip;
  }
  return paths;
}

/** Seconds, planned move by move over a whole layer: full look-ahead, junction speeds, trapezoids. */
export function exactSeconds(layers: readonly ToolLayer[], m: Machine): number {
  let total = 60 * m.start;
  let at: Point = [0, 0];
  layers.forEach((layer, k) => {
    const moves: { to: Point; speed: number }[] = [];
    let stops = 0;
    let length = 0;
    for (const { role, points } of layer.paths) {
      const usual = {
        outer: m.outer,
        inner: m.inner,
        skin: m.skin,
        infill: m.infill,
        support: m.infill,
        skirt: m.outer,
      }[role];
      moves.push({ to: points[0]!, speed: m.travel });
      stops++;
      for (let i = 1; i < points.length; i++) {
        length += Math.hypot(points[i]![0] - points[i - 1]![0], points[i]![1] - points[i - 1]![1]);
        moves.push({ to: points[i]!, speed: k === 0 ? Math.min(usual, m.first) : usual });
      }
    }
    const moving = plannedSeconds(at, moves, m) + stops * m.retraction;
    at = moves.at(-1)?.to ?? at;
    total += Math.max(moving, Math.min(m.leastLayer, length / m.slowest));
  });
  return total;
}

function plannedSeconds(start: Point, moves: readonly { to: Point; speed: number }[], m: Machine): number {
  const steps: { x: number; y: number; long: number; v: number }[] = [];
  let from = start;
  for (const { to, speed } of moves) {
    const [x, y] = [to[0] - from[0], to[1] - from[1]];
    const long = Math.hypot(x, y);
    from = to;
    if (long > 1e-6) steps.push({ x: x / long, y: y / long, long, v: speed });
  }
  const n = steps.length;
  const entry = new Float64Array(n + 1);
  for (let i = 1; i < n; i++) {
    const [a, b] = [steps[i - 1]!, steps[i]!];
    const cosine = -(a.x * b.x + a.y * b.y);
    const half = Math.sqrt((1 - cosine) / 2);
    const corner = half > 0.99995 ? Infinity : Math.sqrt((m.acceleration * m.deviation * half) / (1 - half));
    entry[i] = Math.min(a.v, b.v, corner);
  }
  for (let i = n - 1; i >= 0; i--)
    entry[i] = Math.min(entry[i]!, Math.sqrt(entry[i + 1]! ** 2 + 2 * m.acceleration * steps[i]!.long));
  let seconds = 0;
  for (let i = 0; i < n; i++) {
    const { long, v } = steps[i]!;
    const v0 = entry[i]!;
    const v1 = Math.min(entry[i + 1]!, Math.sqrt(v0 * v0 + 2 * m.acceleration * long));
    entry[i + 1] = v1;
    const peak = Math.min(v, Math.sqrt((2 * m.acceleration * long + v0 * v0 + v1 * v1) / 2));
    const ramp = (2 * peak * peak - v0 * v0 - v1 * v1) / (2 * m.acceleration);
    seconds += (2 * peak - v0 - v1) / m.acceleration + Math.max(0, long - ramp) / Math.max(peak, 1e-6);
  }
  return seconds;
}

/** Laid down, mm³. */
export const exactPlastic = (layers: readonly ToolLayer[], lineWidth: number): number =>
  layers.reduce(
    (sum, { height, paths }) =>
      sum + height * lineWidth * paths.reduce((long, { points }) => long + lengthOf(points), 0),
    0,
  );
