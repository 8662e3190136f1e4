import { AdditionGone } from '../shape/additions/addition';
import { PlaceError } from '../shape/additions/place';
import type { BuiltPart } from '../shape/built-part';
import type { LoadAsked } from '../shape/checks/context';
import { SAGITTA } from '../shape/finish';
import type { Kernels } from '../shape/kernels/kernel';
import { type Load, loadOn } from '../shape/strength/loads';
import type { SupportRules } from './hangs';
import { type PlanMate, type PosePlan, planPoses } from './plan';
import { AS_DRAWN, isSameDirection, type Pose, posed } from './pose';
import type { Machine, PrintSettings } from './settings';
import { type Estimate, estimateOf, withSupports } from './time';

/** How a built part may be laid on the bed of its printer: what the Print stage asks for and shows. */

/** What decides the best pose besides the solid itself: plain data. */
export interface PosesAsked {
  mates: Readonly<Record<string, Omit<PlanMate, 'surface'>>>;
  bed: { width: number; depth: number; height: number };
  rules: SupportRules;
  settings: PrintSettings;
  machine: Machine;
  loads: readonly Pick<LoadAsked, 'kind' | 'amount' | 'towards' | 'at' | 'held'>[];
  strength: { along: number; across: number } | null;
  margin: number;
  now: Pose;
}

/** One pose, with its print time and plastic. */
export interface RankedPose {
  plan: PosePlan;
  estimate: Estimate;
}

/** How many are shown side by side. */
const MOST_SHOWN = 3;

/** The best few poses, and the current one. @param part built for the screen */
export function rankedPoses(
  part: Pick<BuiltPart, 'whole' | 'surfaces'>,
  asked: PosesAsked,
  kernels: Pick<Kernels, 'mesh'>,
): RankedPose[] {
  const { whole: mesh, surfaces } = part;
  const plans = planPoses({
    ...asked,
    mesh,
    hull: kernels.mesh.hull(mesh),
    mates: surfaces.flatMap(surface => {
      const mate = asked.mates[surface.mate];
      return mate ? [{ surface, ...mate }] : [];
    }),
    loads: asked.loads.flatMap((load): Load[] => {
      try {
        return [loadOn(mesh, surfaces, load)];
      } catch (error) {
        // A load that cannot be placed is reported by its check.
        if (error instanceof RangeError || error instanceof PlaceError || error instanceof AdditionGone)
          return [];
        throw error;
      }
    }),
    sagitta: SAGITTA.screen,
  });
  // The current pose and the drawn one are always among them, so that the maker can go back.
  const kept = ({ pose }: PosePlan) =>
    isSameDirection(pose.down, asked.now.down) || isSameDirection(pose.down, AS_DRAWN.down);
  const late = plans.slice(MOST_SHOWN).filter(kept).length;
  const shown = plans.filter((p, i) => i < MOST_SHOWN - late || kept(p));
  return shown.map(plan => ({
    plan,
    estimate: withSupports(
      estimateOf(posed(mesh, plan.pose), asked.settings, asked.machine, kernels.mesh),
      plan.supports.volume,
      asked.settings,
      asked.machine,
    ),
  }));
}
