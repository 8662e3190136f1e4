import { useState } from 'react';
import type { Scan } from '../../../../core/job/scans';
import { formatPlain } from '../../../../core/quantity/format';
import { nearStandard } from '../../../../core/shelf/search';
import { UNCHECKED_SCALE } from '../../../../core/work/dimension';
import { scanReading } from '../../../scan/scan-reading';
import { Button, Select } from '../../../ui/controls';
import { Notice, Row } from '../../../ui/layout';
import type { ShownFinding } from '../../../workers/scan-protocol';
import { shelfReading } from '../shelf-reading';
import { TakeReadingDialog } from '../TakeReadingDialog';
import { sizeWords } from './FindingsList';

/** A size of a feature on the scan becomes a reading. */
export function TakeDialog({
  scan,
  finding,
  onClose,
}: {
  scan: Scan;
  finding: ShownFinding;
  onClose(): void;
}) {
  const [of, setOf] = useState(finding.sizes[0]!.of);
  const size = finding.sizes.find(s => s.of === of)!;
  const { kind } = size;
  // Never silently: the maker confirms that it is that feature.
  const near =
    kind === 'outside' || kind === 'inside'
      ? nearStandard(
          size.value * (scan.trust?.factor ?? 1),
          2 * Math.hypot(size.u, size.value * (scan.trust?.u ?? UNCHECKED_SCALE)),
          kind,
        )
      : [];
  return (
    <TakeReadingDialog
      title={finding.title}
      kind={kind}
      off="scan"
      reading={() => scanReading(scan.id, finding, size)}
      size={
        finding.sizes.length > 1 ? (
          <Select
            label="Which size"
            value={of}
            options={finding.sizes.map(s => ({ value: s.of, label: sizeWords(s, scan) }))}
            onChange={setOf}
          />
        ) : (
          <p>
            <b className="number">{sizeWords(size, scan)}</b>
          </p>
        )
      }
      note={read =>
        read ? (
          <Notice level="note">
            It was read with calipers too: those count, and the scan’s size tells how large the scan is.
          </Notice>
        ) : scan.trust ? null : (
          <Notice level="note">
            Nobody has compared this scan with calipers yet: the reading carries ± 0.8 % for that.
          </Notice>
        )
      }
      also={take =>
        near.length > 0 ? (
          <div>
            <p className="soft">Within its doubt of a standard size. Is it that thing?</p>
            <Row $gap={6} $wrap>
              {near.map(({ item, matched }) => (
                <Button key={item.id} $small onPress={() => take(shelfReading(item, matched[0]!.size))}>
                  {item.name}, {matched[0]!.size.label} {formatPlain(matched[0]!.size.value, 2)}: take that
                  too
                </Button>
              ))}
            </Row>
          </div>
        ) : null
      }
      onClose={onClose}
    />
  );
}
