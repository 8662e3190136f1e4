import { Trash2 } from 'lucide-react';
import { lazy, Suspense, useMemo, useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import type { Scan } from '../../../../core/job/scans';
import { deviationColour } from '../../../../core/scan/against-part';
import type { PrimitiveKind } from '../../../../core/scan/fit/primitive';
import type { Point3 } from '../../../../core/shape/vector';
import { scanCheck } from '../../../../core/work/scan-trust';
import { useBench } from '../../../job/bench-context';
import { crossAt } from '../../../scan/marks';
import type { Painted } from '../../../scan/ScanView';
import { useScan } from '../../../scan/use-scan';
import { Button, MenuButton, Select } from '../../../ui/controls';
import { Loading, Notice, Panel, Row, Stack } from '../../../ui/layout';
import type { ShownAgainst, ShownFinding, ShownSection } from '../../../workers/scan-protocol';
import { AgainstScale, scaleOf } from '../AgainstScale';
import { AgainstPanel } from './AgainstPanel';
import { CompareSizes } from './CompareSizes';
import { FindingsList } from './FindingsList';
import { FollowPanel } from './FollowPanel';
import { Judgement } from './Judgement';
import { PairsDialog } from './PairsDialog';
import { PreparePanel } from './PreparePanel';
import { SectionPanel } from './SectionPanel';
import { TakeDialog } from './TakeDialog';
import { TestPieces } from './TestPieces';

const ScanView = lazy(() => import('../../../scan/ScanView'));

const FORMS: { value: PrimitiveKind; label: string }[] = [
  { value: 'cylinder', label: 'a bore or round outside' },
  { value: 'plane', label: 'a flat face' },
  { value: 'cone', label: 'a taper' },
  { value: 'sphere', label: 'a ball' },
  { value: 'hexagon', label: 'a hexagon' },
  { value: 'prism', label: 'another even prism' },
];
/**
 * The region in which a press begins to search, as a share of the scan's size; smaller ones are tried where that finds
 * nothing.
 */
const REGIONS = [0.06, 0.03, 0.12];

/** One scan: viewed, judged, measured. */
export function ScanBench({ scan, onRemoved }: { scan: Scan; onRemoved(): void }) {
  const { job, document, workshop, edit, say } = useBench('job', 'document', 'workshop', 'edit', 'say');
  const others = document.scans.filter(s => s.id !== scan.id).map(s => ({ ...s, jobId: job.id }));
  const from = useMemo(() => ({ jobId: job.id, scanId: scan.id }), [job.id, scan.id]);
  const { shown, problem, busy, ask } = useScan({ from, unit: scan.unit, steps: scan.steps, others });
  const [form, setForm] = useState<PrimitiveKind>('cylinder');
  const [findings, setFindings] = useState<{ of: unknown; list: ShownFinding[] }>({ of: null, list: [] });
  const [lit, setLit] = useState<ShownFinding | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [taking, setTaking] = useState<ShownFinding | null>(null);
  const [against, setAgainst] = useState<ShownAgainst | null>(null);
  const [section, setSection] = useState<ShownSection | null>(null);
  const [points, setPoints] = useState<readonly Point3[] | null>(null);
  /** Another scan that could not be aligned with this one automatically. */
  const [unlaid, setUnlaid] = useState<string | null>(null);
  const [pairing, setPairing] = useState(false);
  const [places, setPlaces] = useState<readonly Point3[] | null>(null);
  // The findings belong to the scan's state at that time.
  const list = findings.of === shown ? findings.list : [];
  const put = (list: ShownFinding[]) => setFindings({ of: shown, list });

  const findAll = async () => {
    setSaid(null);
    setUnlaid(null);
    const reply = await ask((api, progress) => api.find(progress));
    if (!reply) return;
    if (!reply.ok) return setSaid(reply.message);
    put(reply.findings);
    setLit(null);
    if (reply.findings.length === 0) setSaid('No flat, round or even form is on it: take a section instead.');
  };
  const press = async (near: Point3) => {
    if (!shown) return;
    if (!points && !places && busy) return;
    setSaid(null);
    setUnlaid(null);
    if (points) return setPoints([...points.slice(-2), near]);
    if (places) return setPlaces([...places, near]);
    const { min, max } = shown.bounds;
    const size = Math.max(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
    for (const share of REGIONS) {
      const reply = await ask(api => api.fit({ kind: form, near, radius: share * size }));
      if (!reply) return;
      if (reply.ok) {
        put([reply.finding, ...list.filter(f => !isSame(f, reply.finding))]);
        setLit(reply.finding);
        return;
      }
      setSaid(reply.message);
    }
  };
  const lay = async (id: string, pairs: readonly (readonly [Point3, Point3])[] | null = null) => {
    const other = others.find(o => o.id === id);
    if (!other) return;
    setSaid(null);
    const reply = await ask((api, progress) => api.lay(other, progress, pairs));
    if (!reply) return;
    if (!reply.ok) {
      setSaid(reply.message);
      setUnlaid(id);
      return;
    }
    setUnlaid(null);
    setPairing(false);
    const { turn, shift, rms, overlap } = reply;
    const step = {
      id: ulid(),
      kind: 'merge' as const,
      scan: id,
      turn,
      shift: [...shift] as [number, number, number],
      rms,
      overlap,
    };
    if (await edit({ kind: 'scan', scanId: scan.id, change: { steps: [...scan.steps, step] } }))
      say(`${other.label} lies on it: ${Math.round(100 * overlap)} % of it, ${rms.toFixed(2)} mm apart.`);
  };
  const remove = () => {
    void edit({ kind: 'remove-scan', scanId: scan.id }).then(done => done && onRemoved());
  };
  const colours = useMemo(() => {
    if (!against || against.offs.length * 3 !== shown?.positions.length) return null;
    const most = scaleOf(against.p95);
    const paint = new Float32Array(3 * against.offs.length);
    against.offs.forEach((off, v) => {
      // The view works in linear light.
      paint.set(
        deviationColour(off, most).map(c => c ** 2.2),
        3 * v,
      );
    });
    return paint;
  }, [against, shown]);
  const painted: Painted[] = [
    ...list
      .filter(f => f !== lit && f.kind !== 'plane' && f.kind !== 'across')
      .map(f => ({ corners: f.shown, look: 'known' as const })),
    ...(lit && list.includes(lit) ? [{ corners: lit.shown, look: 'lit' as const }] : []),
  ];
  return (
    <>
      <Bench>
        <div>
          <Room>
            {shown ? (
              <Suspense fallback={<Loading what="Opening the view" />}>
                <ScanView
                  scan={shown}
                  painted={painted}
                  colours={colours}
                  lines={[
                    ...(section ? [...section.loops, ...(section.beside ?? [])].map(l => l.line) : []),
                    ...(points ? [lineThrough(points)] : []),
                    ...(places ?? []).map(crossAt),
                  ]}
                  onPress={at => void press(at)}
                  says={
                    places
                      ? `Press where posts are to stand: ${places.length} so far.`
                      : points
                        ? `Press on three places that are level: ${points.length} of 3.`
                        : shown.hasSurface
                          ? `Press on ${FORMS.find(f => f.value === form)!.label}: its size comes from all of it that was seen. Drag to turn.`
                          : 'Points alone have no surface to press on: export triangles.'
                  }
                />
              </Suspense>
            ) : null}
            {problem ? (
              <Notice level="stop">{problem}</Notice>
            ) : busy ? (
              <Working role="status">
                {busy.what}… {busy.share > 0 ? `${Math.round(100 * busy.share)} %` : ''}
              </Working>
            ) : null}
          </Room>
          {against && colours ? <AgainstScale most={scaleOf(against.p95)} /> : null}
          {shown?.hasSurface ? (
            <Tools>
              <Row $gap={8}>
                <Button
                  $look={list.length === 0 ? 'main' : undefined}
                  isDisabled={busy !== null}
                  onPress={() => void findAll()}
                >
                  Find all that is on it
                </Button>
                <span className="soft">or press on</span>
                <div style={{ flex: 1, minWidth: 130 }}>
                  <Select<PrimitiveKind>
                    label="Press on"
                    hideLabel
                    value={form}
                    options={FORMS}
                    onChange={setForm}
                  />
                </div>
              </Row>
              {others.some(o => !scan.steps.some(s => s.kind === 'merge' && s.scan === o.id)) ? (
                <Row $gap={8}>
                  <span className="soft">Seen from other sides too?</span>
                  <MenuButton
                    label="Put together with"
                    items={others
                      .filter(o => !scan.steps.some(s => s.kind === 'merge' && s.scan === o.id))
                      .map(o => ({ id: o.id, label: o.label }))}
                    onChoose={id => void lay(id)}
                  />
                </Row>
              ) : null}
              {said ? (
                <Notice
                  level="warn"
                  action={
                    unlaid ? (
                      <Button $small onPress={() => setPairing(true)}>
                        Pick three pairs
                      </Button>
                    ) : undefined
                  }
                >
                  {said}
                </Notice>
              ) : null}
            </Tools>
          ) : null}
          {shown?.hasSurface ? (
            <>
              <SectionPanel
                scan={scan}
                shown={shown}
                ask={ask}
                section={section}
                onSection={setSection}
                lit={lit}
              />
              <AgainstPanel
                ask={ask}
                against={against?.offs.length === shown.positions.length / 3 ? against : null}
                onAgainst={setAgainst}
              />
            </>
          ) : null}
        </div>
        <Stack>
          {list.length > 0 ? (
            <FindingsList scan={scan} findings={list} lit={lit} onLit={setLit} onTake={setTaking} />
          ) : null}
          {shown?.hasSurface ? (
            <FollowPanel scan={scan} findings={list} ask={ask} places={places} onPlaces={setPlaces} />
          ) : null}
          <TestPieces scan={scan} />
          <CompareSizes
            check={scanCheck(scan, document, workshop)}
            trust={scan.trust}
            what="Scan"
            meanwhile="Until that is settled, sizes off it carry ± 0.8 % more."
            onSettle={trust => void edit({ kind: 'scan', scanId: scan.id, change: { trust } })}
            refused={scan.refused}
            onRefuse={refused => void edit({ kind: 'scan', scanId: scan.id, change: { refused } })}
          />
          {shown ? <Judgement scan={scan} shown={shown} /> : null}
          {shown?.hasSurface ? (
            <PreparePanel
              scan={scan}
              shown={shown}
              ask={ask}
              busy={busy !== null}
              points={points}
              onPoints={setPoints}
            />
          ) : null}
          <Button $small $look="quiet" onPress={remove}>
            <Trash2 size={16} /> Remove this scan
          </Button>
        </Stack>
      </Bench>
      {pairing && unlaid && shown && others.some(o => o.id === unlaid) ? (
        <PairsDialog
          shown={shown}
          label={scan.label}
          other={others.find(o => o.id === unlaid)!}
          busy={busy !== null}
          onClose={() => setPairing(false)}
          onPairs={pairs => void lay(unlaid, pairs)}
        />
      ) : null}
      {taking ? <TakeDialog scan={scan} finding={taking} onClose={() => setTaking(null)} /> : null}
    </>
  );
}

/** Complete with three places. */
const lineThrough = (points: readonly Point3[]): Float32Array =>
  Float32Array.from((points.length === 3 ? [...points, points[0]!] : points).flat());

/** Found again, it is the same thing: of one kind, about the same size and place. */
function isSame(a: ShownFinding, b: ShownFinding): boolean {
  const [x, y] = [a.sizes[0], b.sizes[0]];
  const far = Math.hypot(...[0, 1, 2].map(i => a.near[i as 0]! - b.near[i as 0]!));
  return (
    a.kind === b.kind &&
    far < 3 &&
    (x === undefined || y === undefined || Math.abs(x.value - y.value) < 0.02 * x.value)
  );
}

const Bench = styled.div`
  display: grid; grid-template-columns: minmax(0, 1.4fr) minmax(290px, 1fr); gap: 14px; align-items: start;
  h2 { font-size: 16px; margin: 0 0 6px; }
  @media (max-width: 760px) { grid-template-columns: minmax(0, 1fr); }
`;
const Room = styled(Panel)`position: relative; height: 400px; padding: 0;`;
const Tools = styled.div`margin: 10px 0 14px; display: flex; flex-direction: column; gap: 8px;`;
const Working = styled.p`
  position: absolute; left: 12px; top: 10px; margin: 0; padding: 4px 10px; border-radius: 4px; background: var(--tint); font-size: 13.5px;
`;
