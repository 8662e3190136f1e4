import styled from 'styled-components';
import type { Printer } from '../../../core/job/workshop';
import { settingsOf } from '../../../core/print/of-printer';
import { Quality } from '../../../core/print/settings';
import { formatPlain } from '../../../core/quantity/format';
import { useBench } from '../../job/bench-context';
import { Select } from '../../ui/controls';
import { Lead, Notice, Panel, Stack } from '../../ui/layout';
import { NewVersion } from './NewVersion';
import { OverAirPanel } from './over-air/OverAirPanel';
import { PosesPanel } from './poses/PosesPanel';
import { usePoses } from './poses/use-poses';
import { VersionCard } from './VersionCard';
import { VersionTree } from './VersionTree';

/** After a plastic's name in the list. */
const SUITS = { suitable: '', doubtful: ' (doubtful here)', no: ' (not for this)' } as const;

/** Plastic, printer and pose; the checks; then a version, its files, and the print. */
export function PrintStage() {
  const { resolved, workshop, edit } = useBench('resolved', 'workshop', 'edit');
  const { part, material, suitability: suits } = resolved;
  const versions = resolved.versions.toReversed();
  const looked = usePoses();
  return (
    <>
      <h1>Before hours of printing</h1>
      <Lead>
        A version freezes the numbers as they stand, so that what a print teaches can be traced to them.
      </Lead>
      <Columns>
        <Stack $gap={14}>
          <Panel>
            <Fields>
              <Select
                label="Plastic"
                value={material.id}
                options={workshop.materials.map(m => ({
                  value: m.id,
                  label: `${m.name}${m.flexible ? ', flexible' : ''}${SUITS[resolved.suitabilityOf(m).verdict]}`,
                }))}
                onChange={id => void edit({ kind: 'material', partId: part.id, materialId: id })}
              />
              <Select
                label="Printer"
                value={resolved.printer.id}
                options={workshop.printers.map(p => ({ value: p.id, label: p.name }))}
                onChange={id => void edit({ kind: 'printer', partId: part.id, printerId: id })}
              />
              <Select
                label="Quality"
                value={part.quality}
                options={Quality.options.map(value => ({
                  value,
                  label: qualityWords(value, resolved.printer),
                }))}
                onChange={quality => void edit({ kind: 'quality', partId: part.id, quality })}
              />
            </Fields>
            {suits.reasons.length > 0 ? (
              <Stack $gap={6} style={{ marginTop: 10 }}>
                {suits.reasons.map(r => (
                  <Notice key={r.words} level={r.verdict === 'no' ? 'stop' : 'warn'}>
                    {material.name}: {r.words}.
                  </Notice>
                ))}
              </Stack>
            ) : null}
          </Panel>
          <PosesPanel {...looked} />
          <OverAirPanel />
        </Stack>
        <Stack $gap={14}>
          <NewVersion poses={looked.found} />
          {versions.length > 0 ? <h2>Versions</h2> : null}
          <VersionTree versions={resolved.versions} />
          {versions.map((version, i) => (
            <VersionCard key={version.id} version={version} open={i === 0} />
          ))}
        </Stack>
      </Columns>
    </>
  );
}

const qualityWords = (quality: Quality, printer: Printer) =>
  `${quality}, layers of ${formatPlain(settingsOf(printer, quality).layer)}`;

const Columns = styled.div`
  display: grid; grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr); gap: 18px; max-width: 1180px;
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
`;
const Fields = styled.div`display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 12px; @media (max-width: 700px) { grid-template-columns: 1fr; }`;
