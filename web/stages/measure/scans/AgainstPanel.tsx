import { useState } from 'react';
import styled from 'styled-components';
import { formatPlain } from '../../../../core/quantity/format';
import type { OpenScan } from '../../../scan/use-scan';
import { kernelLine } from '../../../solid/kernel-worker';
import { Button } from '../../../ui/controls';
import { Notice, Panel, Row } from '../../../ui/layout';
import type { ShownAgainst } from '../../../workers/scan-protocol';
import { signed } from '../AgainstScale';
import { NOT_BUILT, useComparedPart } from '../compared-part';

interface Props {
  ask: OpenScan['ask'];
  against: ShownAgainst | null;
  onAgainst(against: ShownAgainst | null): void;
}

/** A scan of a print compared with its part: what the printer did. */
export function AgainstPanel({ ask, against, onAgainst }: Props) {
  const { spec, choice } = useComparedPart(() => onAgainst(null));
  const [said, setSaid] = useState<string | null>(null);
  const [building, setBuilding] = useState(false);
  const compare = async () => {
    setSaid(null);
    onAgainst(null);
    setBuilding(true);
    const built = await kernelLine('show')
      .ask(api => api.show(spec))
      .catch((error: Error) => error);
    setBuilding(false);
    if (built === null) return;
    if (built instanceof Error || !built.ok) {
      setSaid(NOT_BUILT);
      return;
    }
    const { positions } = built.solid;
    const reply = await ask((api, progress) => api.against(positions, progress));
    if (!reply) return;
    if (reply.ok) onAgainst(reply.against);
    else setSaid(reply.message);
  };
  return (
    <Panel style={{ marginTop: 14 }}>
      <h2>Against the part</h2>
      <p className="soft">A scan of a print, laid on what it was printed from, shows what the printer did.</p>
      <Row $gap={8} $wrap>
        {choice}
        <Button isDisabled={building} onPress={() => void compare()}>
          {building ? 'Building the part…' : 'Compare'}
        </Button>
        {against ? (
          <Button $small $look="quiet" onPress={() => onAgainst(null)}>
            Colours off
          </Button>
        ) : null}
      </Row>
      {said ? <Notice level="warn">{said}</Notice> : null}
      {against ? (
        <Sizes>
          <tbody>
            <tr>
              <th>On average</th>
              <td className="number">{signed(against.mean)} mm</td>
            </tr>
            <tr>
              <th>95 % of it nearer than</th>
              <td className="number">{formatPlain(against.p95, 2)} mm</td>
            </tr>
            <tr>
              <th>Farthest</th>
              <td className="number">{formatPlain(against.max, 2)} mm</td>
            </tr>
            <tr>
              <th>Scan on the part</th>
              <td className="number">
                {formatPlain(100 * against.overlap, 0)} %, {formatPlain(against.area / 100, 1)} cm²
              </td>
            </tr>
            <tr>
              <th>Of the part, the scan saw</th>
              <td className="number">{formatPlain(100 * against.back.seen, 0)} %</td>
            </tr>
            <tr>
              <th>From the part to the scan</th>
              <td className="number">
                {signed(against.back.mean)} mm, 95 % nearer than {formatPlain(against.back.p95, 2)} mm
              </td>
            </tr>
          </tbody>
        </Sizes>
      ) : null}
    </Panel>
  );
}

const Sizes = styled.table`
  border-collapse: collapse; font-size: 14px; margin-top: 6px; width: 100%;
  th { text-align: left; font-weight: 500; color: var(--soft); } td { text-align: right; padding: 2px 0; }
`;
