import styled from 'styled-components';
import { formatPlain } from '../../core/quantity/format';
import { FONTS } from './theme';

interface Props {
  /** Ratio. */
  strain: number;
  /** What the plastic bears often and once, ratios. */
  often: number;
  once: number;
}

/** A stretch on the scale of what the plastic bears: often, once, and beyond. */
export function StrainGauge({ strain, often, once }: Props) {
  const most = Math.max(1.35 * once, 1.1 * strain);
  const at = (x: number) => `${Math.min(100, (100 * x) / most)}%`;
  const words = strain > once ? 'beyond what it bears' : strain > often ? 'once only' : 'often';
  return (
    <Figure role="img" aria-label={`${formatPlain(100 * strain, 2)} % stretch: ${words}`}>
      <div className="bar">
        <i className="often" style={{ left: 0, width: at(often) }} />
        <i className="once" style={{ left: at(often), width: at(once - often) }} />
        <i className="beyond" style={{ left: at(once), right: 0 }} />
        <b style={{ left: at(strain) }} />
      </div>
      <div className="marks">
        <span style={{ left: at(often) }}>often {formatPlain(100 * often, 1)} %</span>
        <span style={{ left: at(once) }}>once {formatPlain(100 * once, 1)} %</span>
      </div>
    </Figure>
  );
}

const Figure = styled.div`
  margin: 4px 0 12px;
  .bar { position: relative; height: 16px; border-radius: 3px; overflow: hidden; border: 1px solid var(--rule); }
  .bar i { position: absolute; top: 0; bottom: 0; } .often { background: var(--right-tint); } .once { background: var(--loose-tint); } .beyond { background: var(--danger-tint); }
  .bar b { position: absolute; top: 0; bottom: 0; width: 3px; margin-left: -1.5px; background: var(--ink); }
  .marks { position: relative; height: 17px; font: 12.5px ${FONTS.text}; color: var(--soft); }
  .marks span { position: absolute; transform: translateX(-50%); white-space: nowrap; }
  .marks span:last-child { transform: translateX(4px); } .marks span:first-child { transform: translateX(calc(-100% - 4px)); }
`;
