import { boundsOf, facing, joined, onlyTriangles, type TriangleMesh } from '../shape/mesh/mesh';
import { placedMesh } from '../shape/mesh/placed';
import { RayTree } from '../shape/mesh/rays';
import { subdivided } from '../shape/mesh/subdivided';
import { basisOf, dot, lengthOfVector, moved, type Point3, point3, scaled } from '../shape/vector';
import { lathe } from './lathe';
import { gauss, seeded } from './random';

/** A simulated handheld scanner, with all the errors that such scans have. Lengths mm. */
export interface ScannerSettings {
  /** Distance between neighbouring corners. */
  spacing: number;
  /** Scatter along the surface's normal, sd. */
  noise: number;
  /** Height of a smooth warp: views that drifted against each other. */
  warp: number;
  /** Scanned size over true size. */
  scale: number;
  /** The directions from which the scanner looked, seen from the object's middle. */
  views: readonly Point3[];
  /** Small floating bodies. */
  islands: number;
  /** Dark or shiny places that it cannot see. */
  dropouts: readonly { at: Point3; radius: number }[];
  /** Pegs that were put into holes, or markers on the surface, so that the scan shows where they are. */
  pegs: readonly Peg[];
  seed: number;
}

/** Round, standing out of the object in a direction. */
export interface Peg {
  at: Point3;
  up: Point3;
  diameter: number;
  height: number;
}

/** All round and from above, as a maker walks round a table. Common practice, no source. */
export const ROUND_A_TABLE: readonly Point3[] = [0, 45, 90, 135, 180, 225, 270, 315]
  .map((a): Point3 => [Math.cos((a * Math.PI) / 180), Math.sin((a * Math.PI) / 180), 0.6])
  .concat([[0, 0, 1]]);
export const ALL_ROUND: readonly Point3[] = ROUND_A_TABLE.concat(
  ROUND_A_TABLE.map(([x, y, z]): Point3 => [x, y, -z]),
);

export const GOOD_SCANNER: ScannerSettings = {
  spacing: 0.5,
  noise: 0.04,
  warp: 0.05,
  scale: 1,
  views: ALL_ROUND,
  islands: 0,
  dropouts: [],
  pegs: [],
  seed: 1,
};

/** A surface turned farther away than this is not seen, degrees. Common practice, no source. */
const GRAZING = 72;
/** A view ray starts this far off the surface, in spacings, so that it does not meet that surface. */
const CLEAR = 0.7;

/** A peg reaches this far into the object, mm: no scanner sees inside. */
const INTO = 2;

function pegOf({ at, up, diameter, height }: Peg): TriangleMesh {
  const r = diameter / 2;
  const solid = lathe(
    [
      [1e-3, -INTO],
      [r, -INTO],
      [r, height],
      [1e-3, height],
    ],
    64,
  );
  return placedMesh(solid, { at, x: basisOf(up).x, up });
}

/** @param plain closed, with corners in their true places */
export function scannedBy(plain: TriangleMesh, settings: Partial<ScannerSettings> = {}): TriangleMesh {
  const s = { ...GOOD_SCANNER, ...settings };
  const object = s.pegs.length > 0 ? joined([plain, ...s.pegs.map(pegOf)]) : plain;
  const random = seeded(s.seed);
  const { min, max } = boundsOf(object);
  const size = Math.hypot(...point3(i => max[i] - min[i]));
  const middle = point3(i => (min[i] + max[i]) / 2);
  const fine = thinned(subdivided(object, s.spacing), s.spacing);
  const corners = fine.positions.length / 3;
  const { normals } = fine;
  const tree = new RayTree(fine);
  const eyes = s.views.map(v => moved(middle, scaled(v, 1 / lengthOfVector(v)), 4 * size));
  const seen = new Uint8Array(corners);
  const positions = new Float64Array(fine.positions.length);
  const waves = Array.from({ length: 4 }, () => ({
    way: point3(() => ((2 * random() - 1) * 2 * Math.PI) / size),
    phase: 2 * Math.PI * random(),
    along: point3(() => 2 * random() - 1),
  }));
  const limit = Math.cos((GRAZING * Math.PI) / 180);
  for (let v = 0; v < corners; v++) {
    const p = point3(i => fine.positions[3 * v + i]!);
    const n = point3(i => normals[3 * v + i]!);
    const hidden = s.dropouts.some(d => lengthOfVector(moved(p, d.at, -1)) < d.radius);
    if (!hidden)
      for (const eye of eyes) {
        const to = moved(eye, p, -1);
        const far = lengthOfVector(to);
        const way = scaled(to, 1 / far);
        if (dot(way, n) < limit) continue;
        if (!tree.firstHit(moved(p, n, CLEAR * s.spacing), way)) {
          seen[v] = 1;
          break;
        }
      }
    const drift = waves.map(w => s.warp * Math.sin(dot(w.way, p) + w.phase));
    const off = gauss(random, 0, s.noise);
    const put = point3(i => p[i] + off * n[i] + waves.reduce((sum, w, k) => sum + drift[k]! * w.along[i], 0));
    for (let i = 0; i < 3; i++) positions[3 * v + i] = s.scale * put[i as 0]!;
  }
  const triangles: number[] = [];
  for (let t = 0; t < fine.triangles.length; t += 3) {
    const [a, b, c] = [fine.triangles[t]!, fine.triangles[t + 1]!, fine.triangles[t + 2]!];
    if (seen[a] && seen[b] && seen[c]) triangles.push(a, b, c);
  }
  const specks = Array.from({ length: s.islands }, () => speckNear(middle, size, s.spacing, random));
  return joined([onlyTriangles({ positions, triangles: fine.triangles }, triangles), ...specks]);
}

function speckNear(middle: Point3, size: number, spacing: number, random: () => number): TriangleMesh {
  const at = point3(i => middle[i] + (random() - 0.5) * size);
  const corner = () => at.map(x => x + (random() - 0.5) * 3 * spacing);
  return {
    positions: Float64Array.from([corner(), corner(), corner(), corner()].flat()),
    triangles: Uint32Array.of(0, 1, 2, 1, 3, 2),
  };
}

function normalsOf(mesh: TriangleMesh): Float64Array {
  const normals = new Float64Array(mesh.positions.length);
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    const n = facing(mesh, t);
    for (let e = 0; e < 3; e++)
      for (let i = 0; i < 3; i++) normals[3 * mesh.triangles[3 * t + e]! + i]! += n[i]!;
  }
  for (let v = 0; v < normals.length; v += 3) {
    const long = Math.hypot(normals[v]!, normals[v + 1]!, normals[v + 2]!) || 1;
    for (let i = 0; i < 3; i++) normals[v + i]! /= long;
  }
  return normals;
}

/** One corner for each cell of a grid, at its true place: evenly spread with slightly blunt edges, as in real scans. */
function thinned(mesh: TriangleMesh, cell: number): TriangleMesh & { normals: Float64Array } {
  const { positions: p } = mesh;
  const normals = normalsOf(mesh);
  const at = new Map<number, number>();
  const kept: number[] = [];
  const renamed = new Uint32Array(p.length / 3);
  for (let v = 0; v < renamed.length; v++) {
    // The two sides of a thin wall stay separate: their normals differ.
    let key = 0;
    for (let i = 0; i < 3; i++) key = key * 2 ** 14 + Math.floor(p[3 * v + i]! / cell) + 2 ** 13;
    for (let i = 0; i < 3; i++) key = key * 3 + Math.round(0.8 * normals[3 * v + i]!) + 1;
    let one = at.get(key);
    if (one === undefined) {
      one = kept.length;
      kept.push(v);
      at.set(key, one);
    }
    renamed[v] = one;
  }
  const pick = (from: ArrayLike<number>) =>
    Float64Array.from(kept.flatMap(v => [0, 1, 2].map(i => from[3 * v + i]!)));
  const triangles: number[] = [];
  const known = new Set<number>();
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map(e => renamed[mesh.triangles[t + e]!]!) as [number, number, number];
    if (a === b || b === c || c === a) continue;
    const [low, , high] = [a, b, c].sort((x, y) => x - y) as [number, number, number];
    const key = (low * kept.length + high) * 64 + ((a + b + c) % 64);
    if (known.has(key)) continue;
    known.add(key);
    triangles.push(a, b, c);
  }
  return { positions: pick(p), normals: pick(normals), triangles: Uint32Array.from(triangles) };
}
