import { type Finding, finding } from '../findings/finding';
import type { MateSurface } from '../mates';
import { boundsOf, type TriangleMesh } from '../mesh/mesh';
import type { Recipe } from '../recipes/recipe';
import type { CheckContext } from './context';

/** A part this many times larger than everything that was read of the object has the wrong unit. */
const FAR_LARGER = 18;
const FAR_SMALLER = 1 / 12;
/** How close to half or double a reading a size must be to count as such, as a share. */
const SAME = 0.004;

/** The finished part's extents against the readings of the object. */
export function checkSize(
  mesh: TriangleMesh,
  surfaces: readonly MateSurface[],
  context: Pick<CheckContext, 'measured' | 'ledger'>,
  guide: Recipe['guide'] = [],
): Finding[] {
  const { min, max } = boundsOf(mesh);
  const sizes = [0, 1, 2].map(i => max[i]! - min[i]!);
  const readings = Object.values(context.measured).filter(v => v > 0);
  const findings: Finding[] = [];
  const largest = Math.max(...sizes);
  if (readings.length > 0) {
    const read = Math.max(...readings);
    const [x, y, z] = sizes as [number, number, number];
    if (largest > FAR_LARGER * read)
      findings.push(finding('unit-slip', 'warn', { x, y, z, read, than: 'larger' }));
    else if (largest < FAR_SMALLER * read && Object.keys(context.ledger).length > 0)
      findings.push(finding('unit-slip', 'warn', { x, y, z, read, than: 'smaller' }));
  }
  for (const surface of surfaces) {
    const asked = context.ledger[surface.mate];
    if (!asked || surface.kind === 'girth') continue;
    // A part around a surface is larger than it, in at least one of the two directions across it.
    const across = sizes.filter((_, i) => Math.abs(surface.axis[i]!) < 0.9);
    if (across.length > 0 && Math.max(...across) < asked.model * (surface.side === 'inside' ? 1 : 0.98))
      findings.push(
        finding('smaller-than-mate', 'stop', { across: Math.max(...across), model: asked.model }),
      );
  }
  return [...findings, ...twiceTheHeight(sizes[2]!, context, guide)];
}

/** “Half-width extruded both ways”: a height that is exactly twice, or half, a height that was read. */
function twiceTheHeight(
  height: number,
  { measured }: Pick<CheckContext, 'measured'>,
  guide: Recipe['guide'],
): Finding[] {
  const heights = guide.flatMap(({ key, kind }): [string, number][] => {
    const value = measured[key];
    return value !== undefined && (kind === 'depth' || kind === 'step') ? [[key, value]] : [];
  });
  const near = (value: number, target: number) => Math.abs(value / target - 1) < SAME;
  if (heights.some(([, v]) => near(height, v))) return [];
  const slip = heights.find(([, v]) => v > 1 && (near(height, 2 * v) || near(height, v / 2)));
  if (!slip) return [];
  const [key, value] = slip;
  return [finding('half-or-double', 'note', { height, what: key.replaceAll('_', ' '), read: value })];
}
