import { boundsOf, facing, type TriangleMesh } from '../shape/mesh/mesh';
import { rayTreeOf } from '../shape/mesh/rays';
import { weighedQuantile } from './quantile';

/** How far a scan is from a model with which it is aligned: above 0 outside the model. Lengths mm. */
export interface Deviation {
  mean: number;
  rms: number;
  /** 95 % of the surface is nearer than this, on either side. */
  p95: number;
  /** The greatest distance, on either side. */
  max: number;
  /** Area of the scan that was compared, mm². */
  area: number;
  /** At each corner of the scan; NaN where the model is too far away to be its counterpart. */
  offs: Float32Array;
}

/** Anything farther away than this share of the model's size does not belong to it: a table, a hand. */
const MEANT = 0.15;

/**
 * @param corners the most corners of the scan that are measured; of more, an even selection @param progress called with
 * a share of 0 to 1
 */
export function deviationOf(
  model: TriangleMesh,
  scan: TriangleMesh,
  corners = Infinity,
  progress: (share: number) => void = () => {},
): Deviation | null {
  const { positions: p, triangles } = scan;
  const count = p.length / 3;
  const tree = rayTreeOf(model);
  const { min, max: top } = boundsOf(model);
  const most = MEANT * Math.hypot(top[0] - min[0], top[1] - min[1], top[2] - min[2]);
  const area = new Float64Array(count);
  for (let t = 0; t < triangles.length / 3; t++) {
    const size = Math.hypot(...facing(scan, t)) / 6;
    for (let e = 0; e < 3; e++) area[triangles[3 * t + e]!]! += size;
  }
  const offs = new Float32Array(count).fill(Number.NaN);
  const step = Math.max(1, Math.floor(count / corners));
  const found: { off: number; area: number }[] = [];
  for (let v = 0; v < count; v += step) {
    if (v % (5000 * step) === 0) progress(v / count);
    const near = tree.nearest([p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!], most);
    if (!near) continue;
    const off = near.ahead < 0 ? -near.distance : near.distance;
    offs[v] = off;
    // Points alone have no area: each counts equally.
    found.push({ off, area: triangles.length > 0 ? area[v]! * step : 1 });
  }
  const whole = found.reduce((sum, f) => sum + f.area, 0);
  if (!(whole > 0)) return null;
  const mean = found.reduce((sum, f) => sum + f.off * f.area, 0) / whole;
  const rms = Math.sqrt(found.reduce((sum, f) => sum + f.off ** 2 * f.area, 0) / whole);
  const sizes = found.map(f => ({ value: Math.abs(f.off), weight: f.area }));
  const p95 = weighedQuantile(sizes, 0.95) ?? 0;
  const max = sizes.reduce((most, s) => Math.max(most, s.value), 0);
  return { mean, rms, p95, max, area: triangles.length > 0 ? whole : 0, offs };
}
