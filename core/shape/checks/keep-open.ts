import { type Finding, finding } from '../findings/finding';
import type { MeshKernel } from '../kernels/kernel';
import { type Bounds, boundsOf, type TriangleMesh, volumeOf } from '../mesh/mesh';
import { AXIS_OF, boxMesh, isUpper } from '../sides';
import type { OpenZoneAsked } from './context';

/** Touching is not a collision, mm³. */
const TOUCH = 0.5;

/**
 * The space of a zone: along the edge from its end, and inwards from the side to its stated depth; over the whole part
 * in the third direction. Lengths mm. @param beyond how far it extends out of the side
 */
export function zoneBox(zone: OpenZoneAsked, { min, max }: Bounds, beyond = 0): Bounds {
  const [across, along] = [AXIS_OF[zone.edge], AXIS_OF[zone.end]];
  const low = [...min] as [number, number, number];
  const high = [...max] as [number, number, number];
  if (isUpper(zone.edge)) {
    low[across] = max[across] - zone.deep;
    high[across] = max[across] + beyond;
  } else {
    low[across] = min[across] - beyond;
    high[across] = min[across] + zone.deep;
  }
  if (isUpper(zone.end)) {
    low[along] = max[along] - zone.to;
    high[along] = max[along] - zone.from;
  } else {
    low[along] = min[along] + zone.from;
    high[along] = min[along] + zone.to;
  }
  return { min: low, max: high };
}

/** What must stay open and is not; a zone that misses the part, or has no length, gets a finding. */
export function checkKeepOpen(
  mesh: TriangleMesh,
  zones: readonly OpenZoneAsked[],
  kernel: MeshKernel,
): Finding[] {
  if (zones.length === 0) return [];
  const bounds = boundsOf(mesh);
  return zones.flatMap((zone): Finding[] => {
    const { name, from, to, edge, end } = zone;
    const mark = { neighbour: zone.id };
    const along = AXIS_OF[end];
    const long = bounds.max[along] - bounds.min[along];
    if (to <= from || from >= long) return [finding('zone-nowhere', 'warn', { name, long }, mark)];
    const common = kernel.common(mesh, boxMesh(zoneBox(zone, bounds, 1)));
    const filled = common ? volumeOf(common) : 0;
    if (filled <= TOUCH) return [];
    return [finding('zone-closed', 'stop', { name, from, to, edge, end, filled }, mark)];
  });
}
