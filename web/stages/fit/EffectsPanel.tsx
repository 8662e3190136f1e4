import styled from 'styled-components';
import { formatLength, formatSigned } from '../../../core/quantity/format';
import type { MateLedger } from '../../../core/work/ledger';
import { useBench } from '../../job/bench-context';
import { Panel } from '../../ui/layout';
import { StrainGauge } from '../../ui/StrainGauge';
import { FONTS } from '../../ui/theme';

/** The effects of the fit on the part and the hand, in numbers with their bounds. */
export function EffectsPanel({ ledger }: { ledger: MateLedger }) {
  const { resolved, unit } = useBench('resolved', 'unit');
  const effects = resolved.effectsOf(ledger);
  const both = resolved.bothWays(ledger);
  if (effects.length === 0 && !both) return null;
  return (
    <Panel>
      <h2>What this fit does</h2>
      <List>
        {effects.map(e => (
          <div key={e.label} data-level={e.level}>
            <dt>{e.label}</dt>
            <dd>{e.value}</dd>
            <p role={e.level === 'stop' ? 'alert' : undefined}>
              {e.level === 'stop' ? <b>Stop: </b> : e.level === 'warn' ? <b>Take care: </b> : null}
              {e.words}
            </p>
            {e.gauge ? (
              <Gauge>
                <StrainGauge {...e.gauge} />
              </Gauge>
            ) : null}
          </div>
        ))}
      </List>
      {both ? (
        <Both data-testid="both-ways">
          In a stiff plastic ({both.stiff.want}) this wants {formatSigned(both.stiff.clearance, unit)} {unit},
          drawn {formatLength(both.stiff.model, unit)}; in a flexible one ({both.flexible.want}){' '}
          {formatSigned(both.flexible.clearance, unit)} {unit}, drawn{' '}
          {formatLength(both.flexible.model, unit)}: before any try.
        </Both>
      ) : null}
      <p className="soft" style={{ fontSize: 12.5 }}>
        {resolved.material.name} by the shelf’s ranges, from memory; printed parts differ: orders of size, not
        promises.
      </p>
    </Panel>
  );
}

const Gauge = styled.div`grid-column: 1 / -1; max-width: 460px;`;
const Both = styled.p`border-top: 1px solid var(--rule); padding: 8px 0; font-size: 14.5px;`;
const List = styled.dl`
  margin: 8px 0;
  > div { display: grid; grid-template-columns: minmax(120px, 190px) minmax(120px, 170px) minmax(0, 1fr); gap: 12px; padding: 6px 0; border-top: 1px solid var(--rule); align-items: baseline; }
  dd { margin: 0; font: 600 15px ${FONTS.number}; }
  p { color: var(--soft); font-size: 14px; }
  [data-level='warn'] b { color: var(--loose); } [data-level='stop'] b, [data-level='stop'] dd { color: var(--danger); }
  @media (max-width: 760px) { > div { grid-template-columns: 1fr 1fr; } p { grid-column: 1 / -1; } }
`;
