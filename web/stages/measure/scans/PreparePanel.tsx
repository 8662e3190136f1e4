import { useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import type { Scan, ScanStep } from '../../../../core/job/scans';
import { formatPlain } from '../../../../core/quantity/format';
import { levelPose, uprightPose } from '../../../../core/scan/align/upright';
import type { MirrorPlane } from '../../../../core/scan/symmetry';
import type { Point3 } from '../../../../core/shape/vector';
import { useBench } from '../../../job/bench-context';
import type { OpenScan } from '../../../scan/use-scan';
import { Button, Select } from '../../../ui/controls';
import { Notice, Panel, Row } from '../../../ui/layout';
import type { ShownScan } from '../../../workers/scan-protocol';

/** Common practice, no source: a marker, a dark spot, a whole side. mm */
const HOLES = [1, 3, 8, 20];
const ROUNDS = [1, 3, 6];
/** A hair, a printed layer, a nozzle's width. mm */
const BOUNDS = [0.02, 0.05, 0.1];

interface Props {
  scan: Scan;
  shown: ShownScan;
  ask: OpenScan['ask'];
  busy: boolean;
  /** Places that were pressed for standing it up; null while that is off. */
  points: readonly Point3[] | null;
  onPoints(points: readonly Point3[] | null): void;
}

type Wish = ScanStep extends infer S ? (S extends { id: string } ? Omit<S, 'id'> : never) : never;

/** The steps before a scan is measured; each can be taken back, and the file is never changed. */
export function PreparePanel({ scan, shown, ask, busy, points, onPoints }: Props) {
  const { edit } = useBench('edit');
  const [across, setAcross] = useState('3');
  const [rounds, setRounds] = useState('3');
  const [bound, setBound] = useState('0.05');
  const [symmetry, setSymmetry] = useState<{
    of: ShownScan;
    plane: MirrorPlane;
    rms: number;
    overlap: number;
  } | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const found = symmetry?.of === shown ? symmetry : null;
  const add = async (wish: Wish) => {
    const step = { ...wish, id: ulid() } as ScanStep;
    return edit({ kind: 'scan', scanId: scan.id, change: { steps: [...scan.steps, step] } });
  };
  const put = ({ turn, shift }: ReturnType<typeof uprightPose>) =>
    add({ kind: 'put', turn: [...turn], shift: [shift[0], shift[1], shift[2]] });
  const search = async () => {
    setSaid(null);
    const reply = await ask((api, progress) => api.symmetry(progress));
    if (!reply) return;
    if (reply.ok) setSymmetry({ of: shown, plane: reply.plane, rms: reply.rms, overlap: reply.overlap });
    else setSaid(reply.message);
  };
  const stand = async () => {
    if (points?.length !== 3) return;
    const pose = levelPose([points[0]!, points[1]!, points[2]!], middleOf(shown));
    if (!pose) return setSaid('The three places lie on one line: press on one beside it.');
    if (await put(pose)) onPoints(null);
  };
  return (
    <Panel>
      <h2>Prepare it</h2>
      <Steps>
        <Select
          label="Close holes up to"
          value={across}
          options={HOLES.map(mm => ({ value: String(mm), label: `${mm} mm` }))}
          onChange={setAcross}
        />
        <Button $small isDisabled={busy} onPress={() => void add({ kind: 'fill', across: Number(across) })}>
          Close them
        </Button>
        <Select
          label="Take scatter off, edges stay"
          value={rounds}
          options={ROUNDS.map(n => ({ value: String(n), label: n === 1 ? 'once over' : `${n} times over` }))}
          onChange={setRounds}
        />
        <Button $small isDisabled={busy} onPress={() => void add({ kind: 'smooth', rounds: Number(rounds) })}>
          Smooth it
        </Button>
        <Select
          label="Fewer triangles, within"
          value={bound}
          options={BOUNDS.map(mm => ({ value: String(mm), label: `${mm} mm` }))}
          onChange={setBound}
        />
        <Button $small isDisabled={busy} onPress={() => void add({ kind: 'reduce', bound: Number(bound) })}>
          Thin it out
        </Button>
      </Steps>
      <Row $gap={8} $wrap>
        {points === null ? (
          <Button $small isDisabled={busy} onPress={() => onPoints([])}>
            Stand it on three places
          </Button>
        ) : (
          <>
            <Button $small $look="main" isDisabled={busy || points.length < 3} onPress={() => void stand()}>
              Make these three level
            </Button>
            <Button $small $look="quiet" onPress={() => onPoints(null)}>
              Cancel
            </Button>
          </>
        )}
        <Button $small isDisabled={busy} onPress={() => void search()}>
          Find its plane of symmetry
        </Button>
      </Row>
      <div style={{ height: 8 }} />
      {said ? <Notice level="warn">{said}</Notice> : null}
      {found ? (
        <Notice level="note">
          Mirrored, {Math.round(100 * found.overlap)} % of it lie on itself,{' '}
          <span className="number">{formatPlain(found.rms, 2)} mm</span> apart.
          <Row $gap={8} $wrap style={{ marginTop: 6 }}>
            <Button
              $small
              onPress={() =>
                void add({
                  kind: 'mirror',
                  normal: [...found.plane.normal],
                  at: found.plane.at,
                  rms: Math.min(10, found.rms),
                  overlap: found.overlap,
                })
              }
            >
              Complete it from the other side
            </Button>
            <Button $small onPress={() => void put(uprightPose(found.plane))}>
              Turn it: left and right alike
            </Button>
          </Row>
        </Notice>
      ) : null}
    </Panel>
  );
}

const middleOf = ({ bounds: { min, max } }: ShownScan): Point3 => [
  (min[0] + max[0]) / 2,
  (min[1] + max[1]) / 2,
  (min[2] + max[2]) / 2,
];

const Steps = styled.div`
  display: grid; grid-template-columns: 1fr auto; gap: 8px 10px; align-items: end; margin-bottom: 12px;
  button { justify-self: stretch; }
`;
