import { ulid } from 'ulid';
import type { Reading } from '../../core/job/document';
import { formatPlain } from '../../core/quantity/format';
import type { ShownFinding } from '../workers/scan-protocol';

/** A size that was found on a scan, as a reading: the scan's own value and doubt. */
export function scanReading(scanId: string, finding: ShownFinding, size: ShownFinding['sizes'][0]): Reading {
  return {
    id: ulid(),
    value: Number(size.value.toFixed(4)),
    text: `${formatPlain(size.value, 3)}, scanned`,
    unit: size.kind === 'angle' ? 'deg' : 'mm',
    at: new Date().toISOString(),
    instrumentId: null,
    source: 'scan',
    via: 'import',
    u: Number(size.u.toFixed(5)),
    struck: null,
    scanned: { scan: scanId, kind: finding.kind, near: [...finding.placeAsCame] },
  };
}
