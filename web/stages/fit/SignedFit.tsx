import styled from 'styled-components';
import type { SignedMate } from '../../../core/job/document';
import { offWords } from '../../../core/learn/next';
import { unitOfKind } from '../../../core/learn/signed';
import { formatPercent, formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import type { SignedLedger } from '../../../core/work/signed-ledger';
import { useBench } from '../../job/bench-context';
import { CommittedField } from '../../ui/CommittedField';
import { Big, Panel, Row, Stack } from '../../ui/layout';
import { NotRead } from './NotRead';
import { OffCurve } from './OffCurve';

/** The tolerance of a length, a position, an angle or an edge, and how likely the next print is right. */
export function SignedFit({ mate, ledger }: { mate: SignedMate; ledger: SignedLedger | undefined }) {
  return (
    <Stack $gap={12}>
      <Panel>
        <Fields>
          <Bound mate={mate} edge="min" />
          <Bound mate={mate} edge="max" />
          <SenseField mate={mate} side="less" />
          <SenseField mate={mate} side="more" />
        </Fields>
      </Panel>
      {ledger ? (
        <NextPrint ledger={ledger} />
      ) : (
        <NotRead dimensionId={mate.other.dimension}>
          It says what the number should come to: with one reading there is a model number.
        </NotRead>
      )}
    </Stack>
  );
}

const Fields = styled.div`
  display: grid; grid-template-columns: repeat(auto-fit, minmax(160px, 1fr)); gap: 12px; align-items: start;
`;

function Bound({ mate, edge }: { mate: SignedMate; edge: 'min' | 'max' }) {
  const { edit } = useBench('edit');
  const angle = unitOfKind(mate.kind) === 'deg';
  const { tolerance, sense } = mate;
  const read = (text: string) => parseQuantity(text, angle ? 'angle' : 'length');
  const next = (value: number) => ({ ...tolerance, [edge]: edge === 'min' ? -value : value });
  return (
    <CommittedField
      label={`Still right: ${edge === 'min' ? sense.less : sense.more} by, ${angle ? '°' : 'mm'}`}
      value={formatPlain(edge === 'min' ? -tolerance.min : tolerance.max, 3)}
      check={text => {
        const typed = read(text);
        if (!typed.ok) return typed.message;
        const { min, max } = next(typed.quantity.value);
        return min < max ? undefined : 'Nothing would be right then: widen the other side first.';
      }}
      onCommit={text => {
        const typed = read(text);
        if (typed.ok)
          void edit({ kind: 'change-mate', mateId: mate.id, tolerance: next(typed.quantity.value) });
      }}
    />
  );
}

function SenseField({ mate, side }: { mate: SignedMate; side: 'more' | 'less' }) {
  const { edit } = useBench('edit');
  return (
    <CommittedField
      label={`${side === 'more' ? 'Above' : 'Below'} it, the bench says`}
      value={mate.sense[side]}
      check={text => (text.trim() === '' ? 'Give it a word.' : undefined)}
      onCommit={text =>
        void edit({
          kind: 'change-mate',
          mateId: mate.id,
          sense: { ...mate.sense, [side]: text.trim().slice(0, 120) },
        })
      }
    />
  );
}

function NextPrint({ ledger }: { ledger: SignedLedger }) {
  const { mate, unit } = ledger;
  return (
    <Panel>
      <Row $between>
        <h2>The next print, most likely</h2>
        <span>
          <Big style={{ color: 'var(--right)' }}>{formatPercent(ledger.pRight)}</Big>{' '}
          <span className="soft">is right</span>
        </span>
      </Row>
      <OffCurve ledger={ledger} />
      <p className="soft" style={{ fontSize: 14 }}>
        It is expected {offWords(ledger.off, { sense: mate.sense, unit })}. {ledger.reason}
      </p>
    </Panel>
  );
}
