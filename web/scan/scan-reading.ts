import { ulid } from 'ulid';
import type { Reading } from '../../core/job/document';
import { scannedReading } from '../../core/scan/scanned-reading';
import type { ShownFinding } from '../workers/scan-protocol';

/** A size that was found on a scan, as a reading: the scan's own value and uncertainty. */
export const scanReading = (scan: string, finding: ShownFinding, size: ShownFinding['sizes'][0]): Reading =>
  scannedReading({
    id: ulid(),
    at: new Date().toISOString(),
    value: size.value,
    u: size.u,
    unit: size.kind === 'angle' ? 'deg' : 'mm',
    place: { scan, kind: finding.kind, near: [...finding.placeAsCame] },
  });
