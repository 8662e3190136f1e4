import type { Reading } from '../job/document';
import type { ScannedPlace } from '../job/scans';
import { formatPlain } from '../quantity/format';

interface Asked {
  id: string;
  at: string;
  /** mm or degrees, as scanned: the settled scale of the scan is applied where the reading is used. */
  value: number;
  /** Standard uncertainty. */
  u: number;
  unit?: 'mm' | 'deg';
  place: ScannedPlace;
}

/** A size from a scan as a reading. */
export const scannedReading = ({ id, at, value, u, unit = 'mm', place }: Asked): Reading => ({
  id,
  value: Number(value.toFixed(4)),
  text: `${formatPlain(value, 3)}, scanned`,
  unit,
  at,
  instrumentId: null,
  source: 'scan',
  via: 'import',
  u: Number(u.toFixed(5)),
  struck: null,
  scanned: place,
});
