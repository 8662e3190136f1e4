import type { Finding } from '../findings/finding';
import { finding } from '../findings/finding';
import type { MateSurface } from '../mates';
import type { TriangleMesh } from '../mesh/mesh';
import { sectionAcross } from '../mesh/section';
import { moved } from '../vector';

const AROUND = 720;

/** The hand of the finished thread, and the hand that it must have. */
export function checkHand(mesh: TriangleMesh, surfaces: readonly MateSurface[]): Finding[] {
  return surfaces.flatMap((surface): Finding[] => {
    if (surface.kind !== 'thread' || !surface.hand) return [];
    const found = handOf(mesh, surface);
    if (found === null || found === surface.hand) return [];
    return [finding('hand', 'stop', { found, wanted: surface.hand })];
  });
}

/** Going up the axis, a right-hand thread turns counter-clockwise: how far its section turns shows its hand. */
export function handOf(mesh: TriangleMesh, surface: MateSurface): 'right' | 'left' | null {
  const step = Math.min(0.6, Math.max(0.12, surface.size / 100));
  const profile = (along: number) => {
    const at = moved(surface.at, surface.axis, along);
    const { loops, at: middle } = sectionAcross(mesh, at, surface.axis);
    const own = loops
      .filter(l => (surface.side === 'inside' ? l.area < 0 : l.area > 0))
      .map(l => ({
        l,
        reach: Math.max(...l.points.map(p => Math.hypot(p[0] - middle[0], p[1] - middle[1]))),
      }))
      .sort((a, b) => Math.abs(2 * a.reach - surface.size) - Math.abs(2 * b.reach - surface.size))[0];
    return own && radii(own.l.points, middle);
  };
  const [low, high] = [profile(-step / 2), profile(step / 2)];
  if (!low || !high) return null;
  let best = { shift: 0, off: Infinity };
  for (let shift = -AROUND / 5; shift <= AROUND / 5; shift++) {
    let off = 0;
    for (let i = 0; i < AROUND; i += 2) {
      const d = high[(i + shift + AROUND) % AROUND]! - low[i]!;
      off += d * d;
    }
    if (off < best.off) best = { shift, off };
  }
  if (best.shift === 0) return null;
  return best.shift > 0 ? 'right' : 'left';
}

/** The loop's distance from its centre, in even steps around. */
function radii(
  points: readonly (readonly [number, number])[],
  [x, y]: readonly [number, number],
): Float64Array {
  const found = new Float64Array(AROUND);
  const set = new Uint8Array(AROUND);
  for (let i = 0; i < points.length; i++) {
    const [a, b] = [points[i]!, points[(i + 1) % points.length]!];
    const from = Math.atan2(a[1] - y, a[0] - x);
    let turn = Math.atan2(b[1] - y, b[0] - x) - from;
    if (turn > Math.PI) turn -= 2 * Math.PI;
    if (turn < -Math.PI) turn += 2 * Math.PI;
    const pieces = Math.max(1, Math.ceil((Math.abs(turn) / (2 * Math.PI)) * AROUND * 1.5));
    for (let k = 0; k < pieces; k++) {
      const s = k / pieces;
      const [px, py] = [a[0] + s * (b[0] - a[0]) - x, a[1] + s * (b[1] - a[1]) - y];
      const slot = ((Math.round((Math.atan2(py, px) / (2 * Math.PI)) * AROUND) % AROUND) + AROUND) % AROUND;
      found[slot] = Math.hypot(px, py);
      set[slot] = 1;
    }
  }
  for (let i = 0; i < AROUND; i++) if (!set[i]) found[i] = found[(i + AROUND - 1) % AROUND]!;
  return found;
}
