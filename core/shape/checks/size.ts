import { formatPlain } from '../../quantity/format';
import type { Finding } from '../findings/finding';
import type { MateSurface } from '../mates';
import { boundsOf, type TriangleMesh } from '../mesh/mesh';
import type { Recipe } from '../recipes/recipe';
import type { CheckContext } from './context';

/** A part so many times larger than all that was read of the object is a slip of the unit, not a design. */
const FAR_LARGER = 18;
const FAR_SMALLER = 1 / 12;
/** Whole and half of a reading are told apart by this share. */
const SAME = 0.004;

/** The finished part's own extents against what was read of the object. */
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
    const most = Math.max(...readings);
    const words = `The part is ${sizes.map(s => formatPlain(s, 1)).join(' × ')} mm, and nothing read of the object is`;
    if (largest > FAR_LARGER * most)
      findings.push({
        code: 'unit-slip',
        level: 'warn',
        message: `${words} more than ${formatPlain(most, 1)} mm. Was a reading in inches taken as millimetres? Look at the readings and the numbers once more.`,
      });
    else if (largest < FAR_SMALLER * most && Object.keys(context.ledger).length > 0)
      findings.push({
        code: 'unit-slip',
        level: 'warn',
        message: `${words} so small: the largest is ${formatPlain(most, 1)} mm. Were inches and millimetres mixed up?`,
      });
  }
  for (const surface of surfaces) {
    const asked = context.ledger[surface.mate];
    if (!asked || surface.kind === 'girth') continue;
    // What is round a surface is larger than it, across at least one of its two ways.
    const across = sizes.filter((_, i) => Math.abs(surface.axis[i]!) < 0.9);
    if (across.length > 0 && Math.max(...across) < asked.model * (surface.side === 'inside' ? 1 : 0.98))
      findings.push({
        code: 'smaller-than-mate',
        level: 'stop',
        message: `The part is ${formatPlain(Math.max(...across))} mm across, less than the ${formatPlain(asked.model)} mm of the surface that must fit: that surface is not whole. Look at what was cut away.`,
      });
  }
  return [...findings, ...twiceTheHeight(sizes[2]!, context, guide)];
}

/** “Half-width extruded both ways”: a height that is just twice, or half, a height that was read. */
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
  const times = height > value ? 'twice' : 'half';
  return [
    {
      code: 'half-or-double',
      level: 'note',
      message: `The part is ${formatPlain(height)} mm high, just ${times} what was read as “${key.replaceAll('_', ' ')}” (${formatPlain(value)} mm). If that is chance, leave it; a height drawn to both sides of the middle comes out double.`,
    },
  ];
}
