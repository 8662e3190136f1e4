import { useState } from 'react';
import styled from 'styled-components';
import { formatPlain } from '../../../../core/quantity/format';
import { deviationColour } from '../../../../core/scan/against-part';
import { useBench } from '../../../job/bench-context';
import type { OpenScan } from '../../../scan/use-scan';
import { kernelLine } from '../../../solid/kernel-worker';
import { Button, Select } from '../../../ui/controls';
import { Notice, Panel, Row } from '../../../ui/layout';
import type { ShownAgainst } from '../../../workers/scan-protocol';

const NOW = 'now';

interface Props {
  ask: OpenScan['ask'];
  against: ShownAgainst | null;
  onAgainst(against: ShownAgainst | null): void;
}

/** The end of the scale: a round number that all but the worst places stay within, mm. */
const SCALES = [0.1, 0.2, 0.5, 1, 2, 5];
export const scaleOf = ({ p95 }: Pick<ShownAgainst, 'p95'>): number =>
  SCALES.find(s => s >= p95) ?? SCALES.at(-1)!;

/** A scan of a print against what it was printed from: what the printer did. */
export function AgainstPanel({ ask, against, onAgainst }: Props) {
  const { job, resolved } = useBench('job', 'resolved');
  const versions = job.history.versions.filter(v => v.partId === resolved.part.id);
  const [of, setOf] = useState<string>(versions.at(-1)?.id ?? NOW);
  const [said, setSaid] = useState<string | null>(null);
  const [building, setBuilding] = useState(false);
  const compare = async () => {
    setSaid(null);
    onAgainst(null);
    const version = versions.find(v => v.id === of);
    const spec = version
      ? { recipe: version.recipe, additions: version.additions, parameters: version.parameters }
      : resolved.solidSpec;
    setBuilding(true);
    const built = await kernelLine('show')
      .ask(api => api.show(spec))
      .catch((error: Error) => error);
    setBuilding(false);
    if (built === null) return;
    if (built instanceof Error || !built.ok) {
      setSaid('The part cannot be built from these numbers: see Shape.');
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
        <div style={{ width: 200 }}>
          <Select
            label="What it is compared with"
            hideLabel
            value={of}
            options={[
              ...versions.map(v => ({ value: v.id, label: `version ${v.number}` })),
              { value: NOW, label: 'the part as it is now' },
            ]}
            onChange={next => {
              setOf(next);
              onAgainst(null);
            }}
          />
        </div>
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
          </tbody>
        </Sizes>
      ) : null}
    </Panel>
  );
}

/** What the colours say, beside the view that shows them. */
export function AgainstScale({ against }: { against: ShownAgainst }) {
  const most = scaleOf(against);
  return (
    <div>
      <Scale aria-label={`Colours from ${most} mm inside to ${most} mm outside`}>
        {[-1, -0.5, 0, 0.5, 1].map(share => (
          <span key={share} style={{ background: rgb(share) }}>
            {share === 0 ? '0' : `${share < 0 ? '−' : '+'}${formatPlain(Math.abs(share) * most, 2)}`}
          </span>
        ))}
      </Scale>
      <p className="soft">mm; orange lies outside of the part, purple inside of it, grey was not compared.</p>
    </div>
  );
}

const signed = (x: number) => `${x < 0 ? '−' : '+'}${formatPlain(Math.abs(x), 3)}`;
const rgb = (share: number) =>
  `rgb(${deviationColour(share, 1)
    .map(c => Math.round(255 * c))
    .join(' ')})`;

const Scale = styled.div`
  display: grid; grid-template-columns: repeat(5, 1fr); margin-top: 8px; border: 1px solid var(--rule); border-radius: 4px; overflow: hidden;
  span { padding: 4px 2px; text-align: center; font-size: 12.5px; color: #20262b; }
  span:first-child { color: #fff; }
`;
const Sizes = styled.table`
  border-collapse: collapse; font-size: 14px; margin-top: 6px; width: 100%;
  th { text-align: left; font-weight: 500; color: var(--soft); } td { text-align: right; padding: 2px 0; }
`;
