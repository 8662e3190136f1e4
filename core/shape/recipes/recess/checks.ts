import { ScanSurface } from '../../../scan/scan-surface';
import { undercutOf } from '../../../scan/undercut';
import type { CheckContext } from '../../checks/context';
import { checkFollows } from '../../checks/follows-object';
import { type Finding, finding } from '../../findings/finding';
import type { Models } from '../../kernels/kernel';
import type { TriangleMesh } from '../../mesh/mesh';
import { subdivided } from '../../mesh/subdivided';
import { Recent } from '../../recent';
import type { BuiltSolid } from '../recipe';
import type { P } from './parameters';
import { type Sizes, sizesOf } from './sizes';

/** A smaller undercut is the scan's own roughness, mm. */
const ROUGH = 0.3;
/** Such a small share of what is in the recess is the scan's ragged edge. */
const SPECKS = 0.005;

export function checks(p: P, { mesh }: BuiltSolid, _context: CheckContext, models?: Models): Finding[] {
  const s = sizesOf(p, models);
  const found = checkFollows(mesh, p.object, s?.object.mesh, [0, 0, s?.under ?? 0]);
  if (!s) return found;
  const under = undercutBelow(p, s);
  if (under.maxDepth > ROUGH && under.fraction > SPECKS)
    found.push(
      finding(
        'undercut',
        under.fraction > 0.1 ? 'warn' : 'note',
        { area: under.area / 100, share: under.fraction, depth: under.maxDepth },
        { parameter: 'lies' },
      ),
    );
  return found;
}

const before = new Recent<{ area: number; fraction: number; maxDepth: number }>(8);

/** Edges of an object are sampled no longer than this share of it. */
const FINE = 60;

/** Only what is inside the recess. */
function undercutBelow(p: P, { object }: Sizes) {
  const key = `${object.key} ${p.sunk}`;
  const known = before.get(key);
  if (known) return known;
  // A body from a file may have few triangles: they are subdivided for sampling.
  const fine = subdivided(object.mesh, Math.max(...object.size) / FINE);
  const { area, fraction, maxDepth } = undercutOf(new ScanSurface(below(fine, p.sunk)), [0, 0, 1]);
  const found = { area, fraction, maxDepth };
  before.put(key, found);
  return found;
}

function below({ positions, triangles }: TriangleMesh, height: number): TriangleMesh {
  const kept: number[] = [];
  for (let t = 0; t < triangles.length; t += 3) {
    const three = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
    if (three.every(v => positions[3 * v + 2]! <= height)) kept.push(...three);
  }
  return { positions, triangles: Uint32Array.from(kept) };
}
