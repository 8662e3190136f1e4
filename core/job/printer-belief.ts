import { biasAt, responseOf } from '../fit/calibrate';
import { type BiasBelief, beliefFor, type SurfaceKind } from '../fit/print-bias';
import type { Side } from '../fit/wants';
import type { Part } from './document';
import type { Calibration, Workshop } from './workshop';

export interface SourcedBelief extends BiasBelief {
  /** The calibration it comes from; null where it is the workshop's general belief. */
  calibration: Calibration | null;
}

/** The newest calibration of a part's printer with its plastic that has readings of this side. */
function calibrationFor(
  workshop: Workshop,
  part: Pick<Part, 'printerId' | 'materialId'>,
  side: Side,
): Calibration | null {
  return (
    (workshop.calibrations ?? [])
      .filter(
        c =>
          c.printerId === part.printerId &&
          c.materialId === part.materialId &&
          c.rows.some(r => r.side === side),
      )
      .sort((a, b) => b.at.localeCompare(a.at))[0] ?? null
  );
}

/** What is believed of a surface of this size before tries. Pieces lie flat: on its side a part is not calibrated. */
export function printerBelief(
  workshop: Workshop,
  part: Pick<Part, 'printerId' | 'materialId'>,
  side: Side,
  kind: SurfaceKind,
  size: number,
): SourcedBelief {
  const calibration = kind.endsWith('on-side') ? null : calibrationFor(workshop, part, side);
  const response = calibration && responseOf(calibration.rows.filter(r => r.side === side));
  return response
    ? { ...biasAt(response, size, side), calibration }
    : { ...beliefFor(workshop.belief, side, kind), calibration: null };
}
