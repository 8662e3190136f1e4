import type { Scan, ScanStep } from '../job/scans';
import { joined, onlyTriangles, rootsOf, type TriangleMesh } from '../shape/mesh/mesh';
import type { Point3 } from '../shape/vector';
import { AT_REST, composed, type Pose, posed } from './align/pose';
import { filled } from './mend/fill';
import { reduced } from './mend/reduce';
import { smoothed } from './mend/smooth';
import { completed } from './symmetry';
import { SCAN_UNITS } from './unit';

/**
 * A scan ready for measuring: its file in mm, with the maker's steps applied in order.
 * @param others scans that are merged with it, themselves prepared, by their ids
 */
export function prepared(
  raw: TriangleMesh,
  { unit, steps }: Pick<Scan, 'unit' | 'steps'>,
  others: ReadonlyMap<string, TriangleMesh> = new Map(),
  told: (stepId: string, did: StepDid) => void = () => {},
): TriangleMesh {
  const factor = SCAN_UNITS[unit];
  const inMm = factor === 1 ? raw : { ...raw, positions: raw.positions.map(x => factor * x) };
  return steps.reduce((mesh, step) => stepped(mesh, step, others, did => told(step.id, did)), inMm);
}

/** The result of a step, for the maker: lengths mm. */
export type StepDid =
  | { kind: 'filled'; filled: number; left: number }
  | { kind: 'moved'; rms: number; most: number }
  | { kind: 'reduced'; off: number; left: number };

/** What all steps together do to a place, in mm. */
export const poseOf = (steps: readonly ScanStep[]): Pose =>
  steps.reduce<Pose>((pose, s) => (s.kind === 'put' ? composed(s, pose) : pose), AT_REST);

function stepped(
  mesh: TriangleMesh,
  step: ScanStep,
  others: ReadonlyMap<string, TriangleMesh>,
  told: (did: StepDid) => void,
): TriangleMesh {
  switch (step.kind) {
    case 'without-islands':
      return withoutIslands(mesh, step.share);
    case 'crop':
      return keptTriangles(mesh, v => {
        const p = cornerOf(mesh, v);
        return p.every((x, i) => x >= step.min[i as 0]! && x <= step.max[i as 0]!);
      });
    case 'put':
      return posedMesh(mesh, step);
    case 'merge': {
      const other = others.get(step.scan);
      return other ? joined([mesh, posedMesh(other, step)]) : mesh;
    }
    case 'fill': {
      const { mesh: whole, filled: closed, left } = filled(mesh, step.across);
      told({ kind: 'filled', filled: closed, left });
      return whole;
    }
    case 'smooth': {
      const { mesh: quiet, moved } = smoothed(mesh, step.rounds);
      told({ kind: 'moved', ...moved });
      return quiet;
    }
    case 'reduce': {
      if (mesh.triangles.length === 0) return mesh;
      const { mesh: fewer, off } = reduced(mesh, step.bound);
      told({ kind: 'reduced', off, left: fewer.triangles.length / mesh.triangles.length });
      return fewer;
    }
    case 'mirror':
      return completed(mesh, step);
  }
}

export function posedMesh(mesh: TriangleMesh, pose: Pose): TriangleMesh {
  const positions = new Float64Array(mesh.positions.length);
  for (let v = 0; v < positions.length / 3; v++) positions.set(posed(pose, cornerOf(mesh, v)), 3 * v);
  return { ...mesh, positions };
}

const cornerOf = ({ positions: p }: TriangleMesh, v: number): Point3 => [
  p[3 * v]!,
  p[3 * v + 1]!,
  p[3 * v + 2]!,
];

/** Without bodies that have fewer triangles than this share of the largest. */
export function withoutIslands(mesh: TriangleMesh, share: number): TriangleMesh {
  const roots = rootsOf(mesh.triangles, mesh.positions.length / 3);
  const counts = new Map<number, number>();
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const root = roots(mesh.triangles[t]!);
    counts.set(root, (counts.get(root) ?? 0) + 1);
  }
  const least = share * Math.max(0, ...counts.values());
  return keptTriangles(mesh, v => (counts.get(roots(v)) ?? 0) >= least);
}

/** Triangles with all corners kept; for a list of points, the points. */
function keptTriangles(mesh: TriangleMesh, keeps: (v: number) => boolean): TriangleMesh {
  const { positions, triangles } = mesh;
  const kept = Uint8Array.from({ length: positions.length / 3 }, (_, v) => (keeps(v) ? 1 : 0));
  if (triangles.length === 0)
    return { positions: positions.filter((_, i) => kept[Math.floor(i / 3)] === 1), triangles };
  const faces: number[] = [];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
    if (kept[a] && kept[b] && kept[c]) faces.push(a, b, c);
  }
  return onlyTriangles(mesh, faces);
}
