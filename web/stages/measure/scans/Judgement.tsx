import styled from 'styled-components';
import { ulid } from 'ulid';
import type { Scan, ScanStep } from '../../../../core/job/scans';
import { formatPlain } from '../../../../core/quantity/format';
import type { Judged } from '../../../../core/scan/judge';
import type { StepDid } from '../../../../core/scan/prepare';
import type { UnseenSide } from '../../../../core/scan/skin';
import { SCAN_UNITS, type ScanUnit } from '../../../../core/scan/unit';
import { useBench } from '../../../job/bench-context';
import { UNIT_NAMES } from '../../../scan/units';
import { Button, Select } from '../../../ui/controls';
import { Notice, Panel, Row } from '../../../ui/layout';
import type { ShownScan } from '../../../workers/scan-protocol';

/** With more scatter than this, fits cannot be judged, mm sd. Common practice, no source. */
const ROUGH = 0.12;
/** With a larger share of edges between more than two triangles, the surface is doubled. Common practice, no source. */
const OVER_ITSELF = 0.05;
const SPECKS = 0.01;

/** Whether the scan is usable: its properties, and what to do about problems. */
export function Judgement({ scan, shown }: { scan: Scan; shown: ShownScan }) {
  const { document, edit } = useBench('document', 'edit');
  const { before, after } = shown;
  const change = (change: { unit?: ScanUnit; steps?: ScanStep[] }) =>
    void edit({ kind: 'scan', scanId: scan.id, change });
  const side = (i: 0 | 1 | 2) => formatPlain(after.bounds.max[i] - after.bounds.min[i], 1);
  // The worker judged it in the stated unit: its suspicion is about those numbers.
  const suspicion = before.unitSuspicion;
  const suspected = suspicion.unit !== 'mm' && unitTimes(scan.unit, suspicion.factor);
  const without = scan.steps.find(s => s.kind === 'without-islands');
  return (
    <Panel>
      <h2>What it is</h2>
      <Facts>
        <dt>Size</dt>
        <dd className="number">
          {side(0)} × {side(1)} × {side(2)} mm
        </dd>
        <dt>Triangles</dt>
        <dd className="number">
          {after.triangles.toLocaleString('en')}
          {after.triangles !== before.triangles ? ` of ${before.triangles.toLocaleString('en')}` : ''}
          {shown.reduced ? ', fewer are shown' : ''}
        </dd>
        <dt>Scatter</dt>
        <dd className="number">{after.fuzz === null ? 'no surface' : `${formatPlain(after.fuzz, 3)} mm`}</dd>
        <dt>Skin</dt>
        <dd>{skinOf(after)}</dd>
        {after.unseen.length > 0 ? (
          <>
            <dt>Not seen</dt>
            <dd>{after.unseen.map(unseenWords).join(', ')}</dd>
          </>
        ) : null}
      </Facts>
      <Row $gap={10} style={{ margin: '10px 0', alignItems: 'flex-end' }}>
        <div style={{ width: 170 }}>
          <Select
            label="Unit of its numbers"
            value={scan.unit}
            options={UNIT_NAMES}
            onChange={unit => change({ unit })}
          />
        </div>
      </Row>
      <Notices>
        {suspected ? (
          <Notice
            level="warn"
            action={
              <Button $small onPress={() => change({ unit: suspected })}>
                Take {UNIT_NAMES.find(u => u.value === suspected)!.label}
              </Button>
            }
          >
            {suspicion.reason} Read one size with calipers to be sure.
          </Notice>
        ) : null}
        {before.islands > 0 && !without ? (
          <Notice
            level="warn"
            action={
              <Button
                $small
                onPress={() =>
                  change({ steps: [...scan.steps, { id: ulid(), kind: 'without-islands', share: SPECKS }] })
                }
              >
                Leave them out
              </Button>
            }
          >
            {before.islands} {before.islands === 1 ? 'speck floats' : 'specks float'} beside the object.
          </Notice>
        ) : null}
        {after.fuzz !== null && after.fuzz > ROUGH ? (
          <Notice level="warn">
            It scatters by {formatPlain(after.fuzz, 2)} mm: sizes of large faces are still good, those of
            small ones are not. Dull the surface and scan it once more.
          </Notice>
        ) : null}
        {after.double ? (
          <Notice level="warn">
            {formatPlain(100 * after.double.share, 0)} % of it was scanned twice, and the two skins lie{' '}
            {formatPlain(after.double.apart, 2)} mm apart: sizes across them are off by as much. Scan it again
            without going over it twice, or crop that part away.
          </Notice>
        ) : null}
        {before.nonManifoldEdges > OVER_ITSELF * before.triangles ? (
          <Notice level="warn">
            Its skin lies over itself in many places: it was scanned too often there. Sizes come out too large
            by about its thickness.
          </Notice>
        ) : null}
        {after.triangles === 0 ? (
          <Notice level="stop">
            This is a list of points: export it as triangles (a mesh) to measure on it.
          </Notice>
        ) : null}
      </Notices>
      {scan.steps.length > 0 ? (
        <Steps>
          {scan.steps.map((step, i) => (
            <li key={step.id}>
              {wordsOf(step, document.scans)}
              {didWords(shown.did[step.id])}
              {i === scan.steps.length - 1 ? (
                <Button $small $look="quiet" onPress={() => change({ steps: scan.steps.slice(0, -1) })}>
                  Take back
                </Button>
              ) : null}
            </li>
          ))}
        </Steps>
      ) : null}
    </Panel>
  );
}

function skinOf({ watertight, holes, components, islands }: Judged): string {
  if (watertight) return 'closed';
  const bodies = components - islands;
  return `open, ${holes} ${holes === 1 ? 'border' : 'borders'}${bodies > 1 ? `, ${bodies} bodies` : ''}`;
}

/** “42 % of the underside”: the share that is missing, seen from there. */
const unseenWords = ({ side, share }: UnseenSide): string =>
  `${share > 0.95 ? '' : `${formatPlain(100 * share, 0)} % of `}the ${side}${side === 'top' || side === 'underside' ? '' : ' side'}`;

/** The unit that is this many times the stated one; null where there is none. */
function unitTimes(now: ScanUnit, factor: number): ScanUnit | undefined {
  const wanted = SCAN_UNITS[now] * factor;
  return UNIT_NAMES.map(u => u.value).find(u => Math.abs(SCAN_UNITS[u] / wanted - 1) < 0.01);
}

function wordsOf(step: ScanStep, scans: readonly Scan[]): string {
  if (step.kind === 'without-islands') return 'Specks left out';
  if (step.kind === 'fill') return `Holes up to ${formatPlain(step.across, 1)} mm closed`;
  if (step.kind === 'smooth') return 'Smoothed';
  if (step.kind === 'reduce') return `Thinned out to within ${formatPlain(step.bound, 3)} mm`;
  if (step.kind === 'mirror')
    return `Completed by symmetry: ${Math.round(100 * step.overlap)} % of it lay on its own image, ${formatPlain(step.rms, 2)} mm apart`;
  if (step.kind === 'merge')
    return `Put together with ${scans.find(s => s.id === step.scan)?.label ?? 'another scan'}: ${Math.round(100 * step.overlap)} % of it lie on this one, ${formatPlain(step.rms, 2)} mm apart`;
  return step.kind === 'crop' ? 'Cropped' : 'Put upright';
}

function didWords(did: StepDid | undefined): string {
  if (!did) return '';
  if (did.kind === 'filled')
    return `: ${did.filled} of them; ${did.left} larger ${did.left === 1 ? 'border stays' : 'borders stay'} open`;
  if (did.kind === 'moved')
    return `: its corners moved by ${formatPlain(did.rms, 3)} mm rms, ${formatPlain(did.most, 2)} mm at most`;
  return `: ${Math.round(100 * did.left)} % of its triangles, ${formatPlain(did.off, 3)} mm off at most`;
}

const Facts = styled.dl`
  display: grid; grid-template-columns: auto 1fr; gap: 2px 12px; margin: 0; font-size: 14.5px;
  dt { color: var(--soft); } dd { margin: 0; }
`;
const Notices = styled.div`display: flex; flex-direction: column; gap: 8px; &:empty { display: none; }`;
const Steps = styled.ol`
  margin: 10px 0 0; padding-left: 20px; font-size: 14px; li { min-height: 26px; }
  li > button { margin-left: 8px; }
`;
