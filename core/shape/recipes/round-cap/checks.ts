import { rootStrain } from '../../../fit/click';
import type { CheckContext } from '../../checks/context';
import { measureMates } from '../../checks/measure';
import { type Finding, finding } from '../../findings/finding';
import type { MateSurface } from '../../mates';
import { loopNear, sectionAtZ } from '../../mesh/section';
import type { BuiltSolid } from '../recipe';
import { has, type P } from './parameters';
import { places, sizesOf } from './solid';

/**
 * The lip must pass the rim before it drops into its groove: the ring is stretched by
 * (rim − lip) / lip, both measured on the finished triangles.
 */
export function checkLip(p: P, solid: BuiltSolid, context: CheckContext): Finding[] {
  if (!has.ridge(p)) return [];
  const inward = has.lip(p);
  const surface = ridgeSurface(p, inward);
  // The lip passes something soft: nothing of ours is strained.
  if (
    context.ledger[inward ? 'lip' : 'bead']?.theirsGives ||
    context.ledger[inward ? 'skirt' : 'plug']?.theirsGives
  )
    return [];
  const passed = context.measured[inward ? 'rim' : 'bore'];
  if (surface.parted && !has.lipSlots(p)) return checkFingers(p, solid, context, inward);
  const found = surface.parted
    ? measureMates(solid.mesh, [surface])[0]!.size
    : loopNear(sectionAtZ(solid.mesh, surface.at[2]), [0, 0], surface.size, surface.side)?.diameter;
  if (passed === undefined || !found || !Number.isFinite(found)) return [];
  const strain = inward ? passed / found - 1 : 1 - passed / found;
  if (strain <= context.strainLimit) return [];
  const limit = inward ? passed / (1 + context.strainLimit) : passed / (1 - context.strainLimit);
  return [
    finding(
      'lip-strain',
      'stop',
      {
        passing: inward ? 'rim' : 'bore',
        how: inward ? 'stretches' : 'squeezes',
        strain,
        limit: context.strainLimit,
        lip: limit,
      },
      { parameter: inward ? 'lipDiameter' : 'beadDiameter' },
    ),
  ];
}

const ridgeSurface = (p: P, inward: boolean): MateSurface =>
  inward
    ? { ...places(p).lip!, mate: 'lip', side: 'inside', size: p.lipDiameter }
    : { ...places(p).bead!, mate: 'bead', side: 'outside', size: p.beadDiameter };

/** Slots divide the wall into fingers that bend at the floor of the slots; only the lip has to move aside. */
function checkFingers(p: P, solid: BuiltSolid, context: CheckContext, inward: boolean): Finding[] {
  const s = sizesOf(p);
  const passed = context.measured[inward ? 'rim' : 'bore'];
  const surface = ridgeSurface(p, inward);
  const { size } = measureMates(solid.mesh, [surface])[0]!;
  if (passed === undefined || !Number.isFinite(size) || !s.slots || !s.ridge) return [];
  const wall = inward ? s.skirt! : s.plug!;
  const aside = Math.abs(passed - size) / 2;
  const beam = {
    length: (s.ridge.low + s.ridge.high) / 2 - s.slots.from,
    thickness: wall.outer - wall.inner,
    width: 1,
    shape: 'straight' as const,
  };
  const strain = rootStrain(beam, aside);
  if (strain <= context.strainLimit) return [];
  const longer = beam.length * (Math.sqrt(strain / context.strainLimit) - 1);
  return [
    finding(
      'finger-strain',
      'stop',
      { passing: inward ? 'rim' : 'bore', strain, limit: context.strainLimit, deeper: longer },
      { parameter: 'slotDepth' },
    ),
  ];
}
