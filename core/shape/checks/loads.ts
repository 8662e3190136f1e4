import { formatPlain } from '../../quantity/format';
import { type Finding, finding } from '../findings/finding';
import { facing, type TriangleMesh } from '../mesh/mesh';
import type { LoadResult, Weakest } from '../strength/loads';
import { proofLoad } from '../strength/proof';
import { dot } from '../vector';
import type { CheckContext } from './context';

/** An inner edge with a sharper angle than this concentrates stress, degrees. */
const SHARP = 40;
/** An edge this near to the weakest section is at its root, mm. */
const AT_ROOT = 2.2;

/** What the loads do to the finished solid, and what would help. */
export function checkLoads(
  mesh: TriangleMesh,
  results: readonly LoadResult[],
  context: CheckContext,
): Finding[] {
  return results.flatMap(result => {
    const asked = context.loads.find(l => l.id === result.id)!;
    const mark = { load: result.id };
    const { words } = asked;
    if (result.problem) return [finding('load-unknown', 'warn', { words, why: result.problem }, mark)];
    const { weakest } = result;
    if (!weakest || !context.strength) return [];
    const findings: Finding[] = [];
    const bears = 1 / weakest.use;
    const { margin, strength, mayHurt } = context;
    if (bears < margin.times)
      findings.push(
        finding(
          'too-weak',
          bears < 1 ? 'stop' : 'warn',
          {
            words,
            section: sectionInWords(weakest),
            bears,
            plastic: strength.name,
            wanted: margin.times,
            because: margin.why,
            helps: result.remedies[0]?.words ?? '',
          },
          mark,
        ),
      );
    if (mayHurt) {
      const load = proofLoad(asked, margin.times);
      findings.push(finding('proof-test', 'warn', { words, times: margin.times, load }, mark));
    }
    const sharp = sharpestRoot(mesh, weakest);
    if (sharp && bears < 2 * margin.times) {
      const level = bears < margin.times ? 'warn' : 'note';
      findings.push(finding('sharp-root', level, { words, length: sharp.length }, mark));
    }
    return findings;
  });
}

export function sectionInWords({ at, axis, area, stress, shear, betweenLayers, turning }: Weakest): string {
  const where =
    Math.abs(axis[2]) > 0.9
      ? `the section ${formatPlain(at[2], 1)} mm above the bed`
      : `the section at ${formatPlain(dot(at, axis), 1)} mm ${Math.abs(axis[0]) > 0.9 ? 'to the right' : 'to the back'}`;
  const what = turning
    ? `sheared by ${formatPlain(shear, 1)} MPa`
    : `stressed by ${formatPlain(stress, 1)} MPa`;
  return `${where}, of ${formatPlain(area, 0)} mm², ${what} ${betweenLayers ? 'across its layers' : 'along its layers'},`;
}

/** The longest sharp inner edge at the section. */
export function sharpestRoot(mesh: TriangleMesh, { at, axis, loops }: Weakest): { length: number } | null {
  const { positions: p, triangles } = mesh;
  const count = p.length / 3;
  const offset = dot(at, axis);
  const near = (v: number) =>
    Math.abs(p[3 * v]! * axis[0] + p[3 * v + 1]! * axis[1] + p[3 * v + 2]! * axis[2] - offset) < AT_ROOT;
  const beside = boxAround(loops);
  const first = new Map<number, number>();
  let length = 0;
  for (let t = 0; t < triangles.length / 3; t++)
    for (let e = 0; e < 3; e++) {
      const [a, b, c] = [0, 1, 2].map(i => triangles[3 * t + ((e + i) % 3)]!) as [number, number, number];
      if (!near(a) || !near(b)) continue;
      const other = first.get(b * count + a);
      if (other === undefined) {
        first.set(a * count + b, t);
        continue;
      }
      if (!beside(p, a) || !beside(p, b)) continue;
      const [n, m] = [facing(mesh, t), facing(mesh, other)];
      const cos = dot(n, m) / (Math.hypot(...n) * Math.hypot(...m) || 1);
      if (cos > Math.cos((SHARP * Math.PI) / 180)) continue;
      // Concave: this triangle's far corner is in front of the other one's plane.
      const out = [
        p[3 * c]! - p[3 * a]!,
        p[3 * c + 1]! - p[3 * a + 1]!,
        p[3 * c + 2]! - p[3 * a + 2]!,
      ] as const;
      if (dot(out, m) <= 1e-6) continue;
      length += Math.hypot(
        p[3 * b]! - p[3 * a]!,
        p[3 * b + 1]! - p[3 * a + 1]!,
        p[3 * b + 2]! - p[3 * a + 2]!,
      );
    }
  return length > 1.5 ? { length } : null;
}

/** Whether a vertex is within reach of the section's outline. */
function boxAround(loops: Weakest['loops']): (p: Float64Array, v: number) => boolean {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (const loop of loops)
    for (const q of loop)
      for (let i = 0; i < 3; i++) {
        low[i] = Math.min(low[i]!, q[i]! - AT_ROOT);
        high[i] = Math.max(high[i]!, q[i]! + AT_ROOT);
      }
  return (p, v) => [0, 1, 2].every(i => p[3 * v + i]! >= low[i]! && p[3 * v + i]! <= high[i]!);
}
