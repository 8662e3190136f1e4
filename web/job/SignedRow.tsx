import styled from 'styled-components';
import { offWords } from '../../core/learn/next';
import { formatPercent, formatPlain, formatSigned } from '../../core/quantity/format';
import type { SignedLedger } from '../../core/work/signed-ledger';
import { Button } from '../ui/controls';
import { useBench } from './bench-context';
import { Line, MateBox, Total } from './ledger-look';

/** A mate that is judged by an amount, with its chain from target to model number. */
export function SignedRow({ ledger }: { ledger: SignedLedger }) {
  const { selected, select } = useBench('selected', 'select');
  const { mate } = ledger;
  const open = selected === mate.id || selected === ledger.dimension.id;
  return (
    <MateBox data-open={open ? '' : undefined}>
      <Line
        type="button"
        data-mate
        aria-expanded={open}
        onClick={() => select(selected === mate.id ? null : mate.id)}
      >
        <span>
          {mate.name} <small>{mate.kind}</small>
        </span>
        <span className="number">{sizeWords(ledger.model, ledger)}</span>
      </Line>
      {open ? <Chain ledger={ledger} /> : null}
    </MateBox>
  );
}

const sizeWords = (value: number, { unit }: Pick<SignedLedger, 'unit'>) =>
  `${value.toFixed(2).replace('-', '−')}${unit === 'deg' ? '°' : ''}`;

function Chain({ ledger }: { ledger: SignedLedger }) {
  const { edit, resolved } = useBench('edit', 'resolved');
  const { mate, tries } = ledger;
  const words = {
    reading: 'target',
    allowance: 'middle of what is right',
    compensation: 'what prints take',
    lesson: tries > 0 ? `${tries} ${tries === 1 ? 'try' : 'tries'} taught` : 'no try yet',
    own: 'your own number',
  };
  const isOwn = ledger.model !== ledger.proposed;
  const back = () =>
    void edit({
      kind: 'parameter',
      partId: resolved.part.id,
      name: mate.number,
      expression: {
        text: `${ledger.dimension.name}.model`,
        unit: ledger.unit === 'deg' ? 'deg' : 'mm',
      },
    });
  return (
    <Box>
      {ledger.steps.map((step, i) => (
        <Step key={step.step}>
          <span>
            {words[step.step]}
            {step.u > 0 ? <small> ±{formatPlain(2 * step.u, 2)}</small> : null}
          </span>
          <span className="number">
            {i === 0 ? sizeWords(step.amount, ledger) : formatSigned(step.amount)}
          </span>
        </Step>
      ))}
      <Total>
        <b>model number</b>
        <strong>{sizeWords(ledger.model, ledger)}</strong>
      </Total>
      {isOwn ? (
        <p>
          The ledger would draw {sizeWords(ledger.proposed, ledger)}.{' '}
          <Button $small onPress={back}>
            Draw {sizeWords(ledger.proposed, ledger)}
          </Button>
        </p>
      ) : null}
      <p>
        Expected {offWords(ledger.off, { sense: mate.sense, unit: ledger.unit })};{' '}
        {formatPercent(ledger.pRight)} likely to be right.
      </p>
    </Box>
  );
}

const Box = styled.div`padding: 2px 18px 12px; p { font-size: 13.5px; color: var(--soft); margin-top: 4px; }`;
const Step = styled.div`
  display: grid; grid-template-columns: 1fr 80px; align-items: center; min-height: 27px; font-size: 13.5px;
  .number { text-align: right; }
`;
