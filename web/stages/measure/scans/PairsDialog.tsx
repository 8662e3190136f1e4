import { lazy, Suspense, useMemo, useState } from 'react';
import styled from 'styled-components';
import type { Scan } from '../../../../core/job/scans';
import type { Point3 } from '../../../../core/shape/vector';
import { crossAt } from '../../../scan/marks';
import { useScan } from '../../../scan/use-scan';
import { Button, Dialog } from '../../../ui/controls';
import { Loading, Notice, Row } from '../../../ui/layout';
import type { OtherScan, ShownScan } from '../../../workers/scan-protocol';

const ScanView = lazy(() => import('../../../scan/ScanView'));

/** Three determine a pose; more average it. */
const LEAST = 3;

interface Props {
  shown: ShownScan;
  label: string;
  other: OtherScan & Pick<Scan, 'label'>;
  busy: boolean;
  onClose(): void;
  onPairs(pairs: readonly (readonly [Point3, Point3])[]): void;
}

/** Where a scan cannot be aligned automatically: the same places are pressed on both, in turn. */
export function PairsDialog({ shown, label, other, busy, onClose, onPairs }: Props) {
  const from = useMemo(() => ({ jobId: other.jobId, scanId: other.id }), [other.jobId, other.id]);
  // Scans that were merged with it stay merged.
  const steps = useMemo(() => other.steps.filter(s => s.kind !== 'merge'), [other.steps]);
  const { shown: second, problem, busy: reading } = useScan({ from, unit: other.unit, steps });
  const [here, setHere] = useState<readonly Point3[]>([]);
  const [there, setThere] = useState<readonly Point3[]>([]);
  const pairs = here.slice(0, there.length).map((p, i) => [p, there[i]!] as const);
  const isHereNext = here.length <= there.length;
  const back = () => (isHereNext ? setThere(there.slice(0, -1)) : setHere(here.slice(0, -1)));
  return (
    <Dialog title="Which places are the same?" isOpen onClose={onClose} width={1060}>
      <p className="soft">
        Press on a place on the left, then on the same one on the right: corners and edges that both show, far
        apart and not on one line. {pairs.length} of {LEAST} pairs at least.
      </p>
      {problem ? <Notice level="stop">{problem}</Notice> : null}
      <Two>
        {[
          { name: label, scan: shown, marks: here, isNext: isHereNext, put: setHere },
          { name: other.label, scan: second, marks: there, isNext: !isHereNext, put: setThere },
        ].map(({ name, scan, marks, isNext, put }, i) => (
          <div key={i}>
            <b>{name}</b>
            <View data-next={isNext ? '' : undefined}>
              {scan ? (
                <Suspense fallback={<Loading what="Opening the view" />}>
                  <ScanView
                    scan={scan}
                    painted={NONE}
                    lines={marks.map(crossAt)}
                    {...(isNext ? { onPress: (at: Point3) => put([...marks, at]) } : {})}
                    says={isNext ? `Press on place ${marks.length + 1}.` : 'The other one is next.'}
                  />
                </Suspense>
              ) : reading ? (
                <Loading what={reading.what} />
              ) : null}
            </View>
          </div>
        ))}
      </Two>
      <Row $gap={8}>
        <Button $look="main" isDisabled={busy || pairs.length < LEAST} onPress={() => onPairs(pairs)}>
          {busy ? 'Laying it on…' : 'Lay it on by these'}
        </Button>
        <Button $look="quiet" isDisabled={here.length === 0} onPress={back}>
          Take the last place back
        </Button>
        <Button $look="quiet" onPress={onClose}>
          Cancel
        </Button>
      </Row>
    </Dialog>
  );
}

const NONE: never[] = [];
const Two = styled.div`
  display: grid; grid-template-columns: 1fr 1fr; gap: 12px; margin: 10px 0 14px;
  @media (max-width: 760px) { grid-template-columns: 1fr; }
`;
const View = styled.div`
  position: relative; height: 380px; border: 1px solid var(--rule); border-radius: 6px; overflow: hidden;
  &[data-next] { border-color: var(--blue); outline: 1px solid var(--blue); }
`;
