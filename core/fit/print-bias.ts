import { type Side, USUAL_SIZE } from './wants';

/** Kinds of surface that printers treat differently: by side, form and pose. */
export const SURFACE_FORMS = ['round', 'flats'] as const;
export type SurfaceForm = (typeof SURFACE_FORMS)[number];
export type SurfaceKind = UprightKind | `${UprightKind}-on-side`;
type UprightKind = 'hole' | 'slot' | 'peg' | 'rib';

/**
 * The kind of surface as it lies on the bed. @param onSide laid over, so that its cross-section is built up of layers
 */
export function surfaceKind(side: Side, form: SurfaceForm, onSide: boolean): SurfaceKind {
  const upright = side === 'inside' ? (form === 'round' ? 'hole' : 'slot') : form === 'round' ? 'peg' : 'rib';
  return onSide ? `${upright}-on-side` : upright;
}

/**
 * What is believed of a printer before a job's own tries: how much less clearance a print has than its
 * model. A hole that prints 0.22 small has +0.22; an outside that prints 0.05 large +0.05.
 */
export interface BiasBelief {
  /** mm. */
  mean: number;
  /** Shared by all surfaces of this kind on this printer and material, mm. */
  sd: number;
}

export interface PrinterBelief {
  inside: BiasBelief;
  outside: BiasBelief;
  /** Print-to-print sd, mm. */
  repeatability: number;
}

/** An uncalibrated filament printer. Common practice, no source. */
export const PRACTICE_BELIEF: PrinterBelief = {
  inside: { mean: 0.22, sd: 0.14 },
  outside: { mean: 0.05, sd: 0.08 },
  repeatability: 0.04,
};

/** On its side a round surface shows layer steps: the uncertainty doubles. Common practice, no source. */
const ON_SIDE = 2;

export function beliefFor(belief: PrinterBelief, side: Side, kind: SurfaceKind): BiasBelief {
  const own = belief[side];
  return kind.endsWith('on-side') ? { mean: own.mean, sd: own.sd * ON_SIDE } : own;
}

/** Scale error of an axis that was never measured, sd, as a share. Common practice, no source. */
const AXIS_SHARE = 0.001;

/**
 * What a large print adds to the usual bias: its axes may be off, and it shows anything from none of its plastic's
 * shrinkage, where the settings compensate, to all of it. Both grow with the part beyond the usual size, as windows do.
 * @param size mm
 * @param shrinkage of the plastic, as a share
 * @returns how much smaller it prints, mm, with its sd
 */
export function growthOf(size: number, shrinkage: number): { smaller: number; sd: number } {
  const over = Math.max(0, size - USUAL_SIZE);
  return {
    smaller: (over * shrinkage) / 2,
    sd: over * Math.hypot(AXIS_SHARE, shrinkage / Math.sqrt(12)),
  };
}
