import { boundsOf, type TriangleMesh } from '../shape/mesh/mesh';
import { subdivided } from '../shape/mesh/subdivided';
import type { Point3 } from '../shape/vector';
import { aligned } from './align/align';
import { type Deviation, deviationOf } from './deviate';
import { posedMesh } from './prepare';
import { ScanSurface } from './scan-surface';

/**
 * The reverse: how far the part's surface is from the scan, where the scan saw it; above 0 the part is outside the
 * scan.
 */
export interface FromPart {
  /** The share of the part's surface that the scan saw. */
  seen: number;
  mean: number;
  p95: number;
}

/** A scan of a print compared with the part: aligned with it first, whatever way it was scanned. Lengths mm. */
export type AgainstPart =
  | { ok: true; deviation: Deviation; overlap: number; back: FromPart }
  | { ok: false; message: string };

/**
 * A part's flats have corners only at their edges: for alignment it needs some in between, spaced by this share of its
 * size.
 */
const BETWEEN = 0.012;
/** With a smaller share of the scan on the part it is another thing. */
const LEAST_OVERLAP = 0.5;

export function againstPart(
  part: TriangleMesh,
  scan: ScanSurface,
  progress: (share: number) => void = () => {},
): AgainstPart {
  const { min, max } = boundsOf(part);
  const size = Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
  const fine = new ScanSurface(subdivided(part, Math.max(scan.spacing, BETWEEN * size)));
  const found = aligned(fine, scan, { anyOfEqual: true });
  if (!found.ok || found.overlap < LEAST_OVERLAP)
    return {
      ok: false,
      message: `The scan does not lie on this part${found.ok ? ` (${(100 * found.overlap).toFixed(0)} % of it at best)` : ''}: is it a scan of its print, in the right unit?`,
    };
  progress(0.4);
  const laid = posedMesh(scan.mesh, found.pose);
  const deviation = deviationOf(part, laid, MOST_ASKED, share => progress(0.4 + 0.4 * share));
  const other = deviationOf(laid, fine.mesh, MOST_ASKED, share => progress(0.8 + 0.2 * share));
  return deviation && other
    ? { ok: true, deviation, overlap: found.overlap, back: fromPart(other, deviation.p95) }
    : { ok: false, message: 'Nothing of the scan lies near the part.' };
}

/** Farther away than nearly all of the scan is, the scan did not see that place of the part. */
const SEEN = 4;

function fromPart({ offs }: Deviation, p95: number): FromPart {
  const asked = offs.filter(off => !Number.isNaN(off));
  const near = asked.filter(off => Math.abs(off) <= SEEN * p95);
  return {
    seen: near.length / Math.max(1, asked.length),
    mean: near.reduce((sum, off) => sum + off, 0) / Math.max(1, near.length),
    p95: near.map(Math.abs).sort()[Math.floor(0.95 * near.length)] ?? 0,
  };
}

/** The most corners that are measured: more add nothing, and each takes time. */
const MOST_ASKED = 60_000;

/** A colour for each deviation: 0 white, outside towards orange, inside towards purple. @param most of the scale, mm */
export function deviationColour(off: number, most: number): Point3 {
  if (Number.isNaN(off)) return [0.62, 0.6, 0.56];
  const t = Math.max(-1, Math.min(1, off / most));
  const end: Point3 = t > 0 ? [0.85, 0.42, 0.05] : [0.42, 0.17, 0.55];
  const a = Math.abs(t);
  return [1 + a * (end[0] - 1), 1 + a * (end[1] - 1), 1 + a * (end[2] - 1)];
}
