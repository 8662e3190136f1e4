import { useState } from 'react';
import styled from 'styled-components';
import {
  type FeelAnswer,
  type FeelSearch,
  jawSetting,
  nextFeel,
  startFeel,
  windowFelt,
} from '../../../core/fit/feel';
import { formatLength, formatSigned } from '../../../core/quantity/format';
import { acrossOf, type MateLedger } from '../../../core/work/ledger';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { Panel, Row } from '../../ui/layout';
import { FONTS } from '../../ui/theme';

/**
 * The cheapest test: the caliper's own jaws stand in for the part. The maker's answers move the want, before any
 * plastic.
 */
export function FeelPanel({ ledger }: { ledger: MateLedger }) {
  const { edit, unit, say } = useBench('edit', 'unit', 'say');
  const { mate, dimension, reading, window } = ledger;
  const [search, setSearch] = useState<FeelSearch | null>(null);
  const now = search ?? startFeel(window);
  const inside = mate.side === 'inside';
  const take = (clearance: number) => {
    const felt = windowFelt(clearance, window);
    void edit({ kind: 'want', mateId: mate.id, want: { ...mate.want, name: 'own', window: felt } }).then(
      done => {
        if (!done) return;
        say(
          `The window is now ${formatSigned(felt.min, unit)} to ${formatSigned(felt.max, unit)} ${unit}, as you felt it.`,
        );
        setSearch(null);
      },
    );
  };
  const answer = (felt: FeelAnswer) => {
    if (felt === 'right') return take(now.clearance);
    const next = nextFeel(now, felt, window);
    if (next) setSearch(next);
    else take(now.clearance);
  };
  return (
    <Panel>
      <h2>Feel it before printing</h2>
      <p className="soft">
        {inside
          ? `Set the outside jaws to this, lock them, and pass them over the ${dimension.label.toLowerCase()}.`
          : `Open the inside jaws to this, lock them, and try them in the ${dimension.label.toLowerCase()}.`}{' '}
        Is that how it should go?
      </p>
      <Row $wrap $gap={12} style={{ marginTop: 8 }}>
        <Setting data-testid="jaw-setting">
          {formatLength(jawSetting(mate.side, reading.value, now.clearance), unit)} <small>{unit}</small>
        </Setting>
        <Row $wrap $gap={8}>
          <Button $small onPress={() => answer('tighter')}>
            Tighter than I want
          </Button>
          <Button $small onPress={() => answer('right')}>
            That is right
          </Button>
          <Button $small onPress={() => answer('looser')}>
            Looser than I want
          </Button>
        </Row>
        <span className="soft" style={{ fontSize: 13.5 }}>
          {formatSigned(now.clearance, unit)} {acrossOf(ledger)}
        </span>
      </Row>
    </Panel>
  );
}

const Setting = styled.b`font: 600 26px ${FONTS.number}; color: var(--blue); small { font: 14px ${FONTS.text}; color: var(--soft); }`;
