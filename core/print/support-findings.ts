import { type Finding, finding } from '../shape/findings/finding';
import type { PosePlan } from './plan';

/** A smaller area prints well on any printer, mm². */
const LEAST_AREA = 4;

/** What the supports of a part's pose do: on a surface that must fit they leave marks. */
export function supportFindings({
  supports: { area },
  mates,
}: Pick<PosePlan, 'supports' | 'mates'>): Finding[] {
  const on = mates.filter(m => m.supported).map(m => finding('supports-on-mate', 'warn', { name: m.name }));
  if (on.length > 0) return on;
  return area < LEAST_AREA ? [] : [finding('needs-supports', 'note', { area: Math.round(area) })];
}
