import type { NextMate } from './next';
import { type Sense, type SignedKind, type SignedUnit, unitOfKind } from './signed';

/**
 * A signed mate is far off when it is this far outside its tolerance: the scale for completely wrong beliefs. Practice.
 */
const LEAST_BEYOND: Record<SignedUnit, number> = { mm: 0.25, deg: 1 };

/** A signed mate in the form that the learning engine takes: how far off it is becomes a clearance of either sign. */
export function signedNext(mate: {
  id: string;
  kind: SignedKind;
  group: string;
  target: { value: number; u: number };
  tolerance: { min: number; max: number };
  sense: Sense;
  rate: number;
  number?: string;
  name?: string;
  own?: number;
}): NextMate {
  const { id, name, group, own, number, rate, target, tolerance, sense } = mate;
  const unit = unitOfKind(mate.kind);
  const beyond = Math.max(LEAST_BEYOND[unit], tolerance.max - tolerance.min);
  return {
    id,
    name,
    group,
    own,
    number,
    rate,
    side: 'inside',
    reading: target,
    scale: { ...tolerance, beyond },
    signed: { sense, unit },
  };
}
