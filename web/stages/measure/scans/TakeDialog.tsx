import { useState } from 'react';
import type { Dimension, Scan } from '../../../../core/job/document';
import { useBench } from '../../../job/bench-context';
import { scanReading } from '../../../scan/scan-reading';
import { Button, Dialog, Select, TextField } from '../../../ui/controls';
import { Notice, Row, Stack } from '../../../ui/layout';
import type { ShownFinding } from '../../../workers/scan-protocol';
import { ownDimension } from '../own-dimension';
import { sizeWords } from './FindingsList';

const OWN = 'own';
const LENGTHS: readonly Dimension['kind'][] = ['length', 'step', 'depth'];

/** A size of a thing on the scan becomes a reading: of a dimension that the recipe asks for, or of one of its own. */
export function TakeDialog({
  scan,
  finding,
  onClose,
}: {
  scan: Scan;
  finding: ShownFinding;
  onClose(): void;
}) {
  const { document, resolved, edit, say, select } = useBench('document', 'resolved', 'edit', 'say', 'select');
  const [of, setOf] = useState(finding.sizes[0]!.of);
  const size = finding.sizes.find(s => s.of === of)!;
  const wanted = new Set(resolved.needed.map(n => n.dimension.id));
  const fitting = document.dimensions
    .filter(d => !d.derived && answers(d.kind, size.kind))
    .sort((a, b) => Number(wanted.has(b.id)) - Number(wanted.has(a.id)));
  const [to, setTo] = useState<string>(
    fitting.find(d => wanted.has(d.id) && d.readings.length === 0)?.id ?? fitting[0]?.id ?? OWN,
  );
  const target = fitting.find(d => d.id === to);
  const [name, setName] = useState(finding.title);
  const kind = size.kind;
  const take = async () => {
    const reading = scanReading(scan.id, finding, size);
    let dimensionId = target?.id;
    if (dimensionId === undefined) {
      const fresh = ownDimension(name.trim() || finding.title, kind, document.dimensions);
      if (!(await edit({ kind: 'add-dimension', dimension: fresh }))) return;
      dimensionId = fresh.id;
    }
    if (!(await edit({ kind: 'add-reading', dimensionId, reading }))) return;
    select(dimensionId);
    say(`${target?.label ?? (name.trim() || finding.title)} has a reading off the scan.`);
    onClose();
  };
  const read = target?.readings.some(r => r.source === 'seat' && r.struck === null);
  return (
    <Dialog title={`Take ${finding.title.toLowerCase()} as a reading`} isOpen onClose={onClose} width={480}>
      <Stack $gap={12}>
        {finding.sizes.length > 1 ? (
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
        )}
        <Select
          label="It is a reading of"
          value={target ? to : OWN}
          options={[
            ...fitting.map(d => ({ value: d.id, label: d.label })),
            { value: OWN, label: 'a new dimension of your own' },
          ]}
          onChange={setTo}
        />
        {target ? null : (
          <TextField label="What it is called" value={name} onChange={setName} maxLength={120} />
        )}
        {read ? (
          <Notice level="note">
            It was read with calipers too: those count, and the scan’s size tells how large the scan is.
          </Notice>
        ) : scan.trust ? null : (
          <Notice level="note">
            Nobody has compared this scan with calipers yet: the reading carries ± 0.8 % for that.
          </Notice>
        )}
        <Row style={{ justifyContent: 'flex-end' }}>
          <Button $look="main" onPress={() => void take()}>
            Take it
          </Button>
        </Row>
      </Stack>
    </Dialog>
  );
}

/** Whether a size of that kind can be a reading of a dimension of this kind. */
function answers(dimension: Dimension['kind'], size: ShownFinding['sizes'][0]['kind']): boolean {
  if (dimension === size) return true;
  if (size === 'angle' || dimension === 'angle') return false;
  return LENGTHS.includes(dimension) && (LENGTHS.includes(size) || size === 'outside' || size === 'inside');
}
