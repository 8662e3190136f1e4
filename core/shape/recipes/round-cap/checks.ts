import { formatPercent, formatPlain } from '../../../quantity/format';
import { loopNear, sectionAtZ } from '../../mesh/section';
import type { BuiltSolid, CheckContext, Finding, Parameters } from '../recipe';
import { has } from './parameters';
import { mateSurfaces } from './solid';

/**
 * The lip must pass the rim before it drops into its groove: the ring is stretched by
 * (rim − lip) / lip, both measured on the finished triangles.
 */
export function checkLip(p: Parameters, solid: BuiltSolid, context: CheckContext): Finding[] {
  if (!has.ridge(p)) return [];
  const inward = has.lip(p);
  const surface = mateSurfaces(p).find(s => s.mate === (inward ? 'lip' : 'bead'))!;
  const passed = context.measured[inward ? 'rim' : 'bore'];
  const found = loopNear(sectionAtZ(solid.mesh, surface.at[2]), [0, 0], surface.size, surface.side);
  if (passed === undefined || !found) return [];
  const strain = inward ? passed / found.diameter - 1 : 1 - passed / found.diameter;
  if (strain <= context.strainLimit) return [];
  const limit = inward ? passed / (1 + context.strainLimit) : passed / (1 - context.strainLimit);
  return [
    {
      code: 'lip-strain',
      level: 'stop',
      parameter: inward ? 'lipDiameter' : 'beadDiameter',
      message: `Passing the ${inward ? 'rim' : 'bore'} ${inward ? 'stretches' : 'squeezes'} the lip by ${formatPercent(strain)}; this plastic bears ${formatPercent(context.strainLimit)}. Take a lip of ${formatPlain(limit)} mm, or a flexible plastic.`,
    },
  ];
}
