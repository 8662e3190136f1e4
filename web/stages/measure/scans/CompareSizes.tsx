import styled from 'styled-components';
import type { Scan } from '../../../../core/job/document';
import { formatPlain } from '../../../../core/quantity/format';
import { scanCheck } from '../../../../core/work/scan-trust';
import { useBench } from '../../../job/bench-context';
import { Button } from '../../../ui/controls';
import { Notice, Panel, Row } from '../../../ui/layout';

/** A factor so near to the one that was settled says nothing new. */
const SAME = 0.0005;

/** How large the scan truly is, by what was read with calipers too. */
export function CompareSizes({ scan }: { scan: Scan }) {
  const { document, workshop, edit } = useBench('document', 'workshop', 'edit');
  const check = scanCheck(scan, document, workshop);
  const settle = (trust: { factor: number; u: number } | null) =>
    void edit({ kind: 'scan', scanId: scan.id, change: { trust } });
  const { trust } = scan;
  const isSettled =
    trust !== undefined &&
    (check.factor === null || Math.abs(trust.factor - check.factor) < SAME || trust.factor === 1);
  return (
    <Panel>
      <h2>Is it as large as the object?</h2>
      <Notice level={check.verdict === 'true' ? 'note' : 'warn'}>{check.words}</Notice>
      {check.pairs.length > 0 ? (
        <Sizes>
          <thead>
            <tr>
              <th>Size, mm</th>
              <th>Calipers</th>
              <th>Scan</th>
              <th>Scan is</th>
            </tr>
          </thead>
          <tbody>
            {check.pairs.map(p => (
              <tr key={p.dimension}>
                <td>{p.label}</td>
                <td className="number">{formatPlain(p.read, 2)}</td>
                <td className="number">{formatPlain(p.scanned, 2)}</td>
                <td className="number">{signed(p.scanned - p.read)}</td>
              </tr>
            ))}
          </tbody>
        </Sizes>
      ) : null}
      {trust ? (
        <p className="soft">
          {trust.factor === 1
            ? `Taken as it is, ± ${formatPlain(200 * trust.u, 2)} %.`
            : `All that is read off it is multiplied by ${trust.factor.toFixed(4)}, ± ${formatPlain(200 * trust.u, 2)} %.`}
        </p>
      ) : check.factor === null ? null : (
        <p className="soft">Until that is settled, sizes off it carry ± 0.8 % more.</p>
      )}
      <Row $gap={8} $wrap>
        {check.factor !== null && !isSettled ? (
          <>
            <Button
              $small
              $look={check.verdict === 'off' ? 'main' : undefined}
              onPress={() =>
                settle({ factor: Number(check.factor!.toFixed(5)), u: Number(check.u.toFixed(5)) })
              }
            >
              Correct it by {signed(100 * (check.factor - 1))} %
            </Button>
            {check.verdict === 'true' ? (
              <Button
                $small
                $look="main"
                onPress={() => settle({ factor: 1, u: Number(check.u.toFixed(5)) })}
              >
                Take it as it is
              </Button>
            ) : null}
          </>
        ) : null}
        {trust ? (
          <Button $small $look="quiet" onPress={() => settle(null)}>
            Check it anew
          </Button>
        ) : null}
      </Row>
    </Panel>
  );
}

const signed = (x: number) =>
  Math.abs(x) < 0.005 ? '0' : `${x < 0 ? '−' : '+'}${formatPlain(Math.abs(x), 2)}`;

const Sizes = styled.table`
  width: 100%; border-collapse: collapse; font-size: 14px; margin: 8px 0;
  th { text-align: right; font-weight: 500; color: var(--soft); } th:first-child, td:first-child { text-align: left; }
  td { text-align: right; padding: 2px 0; border-top: 1px solid var(--rule); } td:first-child { overflow-wrap: anywhere; }
`;
