import { useState } from 'react';
import { Input, TextField } from 'react-aria-components';
import styled from 'styled-components';
import type { Mate } from '../../../core/job/document';
import { formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import { useBench } from '../../job/bench-context';
import { FieldLabel, fieldBox } from '../../ui/controls';
import { FONTS } from '../../ui/theme';

/** The window itself, for those who think in it: whole-width clearance in mm, or stretch in %. */
export function OwnWindow({ mate }: { mate: Mate }) {
  const { edit } = useBench();
  const { window } = mate.want;
  const strain = window.unit === 'strain';
  const [least, setLeast] = useState<string | null>(null);
  const [most, setMost] = useState<string | null>(null);
  const shown = (x: number) => formatPlain(strain ? 100 * x : x, strain ? 2 : 3);
  const read = (typed: string | null, now: number) => {
    if (typed === null) return { value: now };
    const outcome = parseQuantity(typed, strain ? 'strain' : 'length');
    return outcome.ok ? { value: outcome.quantity.value } : { value: now, problem: outcome.message };
  };
  const low = read(least, window.min);
  const high = read(most, window.max);
  const limit = strain ? 3 : 50;
  const problem =
    low.problem ??
    high.problem ??
    (low.value >= high.value
      ? 'The least must be below the most.'
      : Math.max(Math.abs(low.value), Math.abs(high.value)) > limit
        ? `At most ${strain ? '300 %' : '50 mm'}.`
        : undefined);
  const commit = () => {
    if (problem || (least === null && most === null)) return;
    void edit({
      kind: 'want',
      mateId: mate.id,
      want: { ...mate.want, name: 'own', window: { ...window, min: low.value, max: high.value } },
    });
    setLeast(null);
    setMost(null);
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (event.key === 'Enter') commit();
    if (event.key === 'Escape') {
      setLeast(null);
      setMost(null);
    }
  };
  const perSide = strain
    ? null
    : `${formatPlain(low.value / 2, 3)} … ${formatPlain(high.value / 2, 3)} mm per side`;
  return (
    <div style={{ width: 236 }}>
      <Pair>
        <TextField
          value={least ?? shown(window.min)}
          onChange={setLeast}
          onBlur={commit}
          isInvalid={Boolean(problem)}
        >
          <FieldLabel>{strain ? 'Least stretch, %' : 'Least gap, mm'}</FieldLabel>
          <Box onKeyDown={onKeyDown} />
        </TextField>
        <TextField
          value={most ?? shown(window.max)}
          onChange={setMost}
          onBlur={commit}
          isInvalid={Boolean(problem)}
        >
          <FieldLabel>{strain ? 'Most stretch, %' : 'Most gap, mm'}</FieldLabel>
          <Box onKeyDown={onKeyDown} />
        </TextField>
      </Pair>
      <p
        style={{ fontSize: 13, color: problem ? 'var(--danger)' : 'var(--soft)', marginTop: 2 }}
        role={problem ? 'alert' : undefined}
      >
        {problem ?? perSide}
      </p>
    </div>
  );
}

const Pair = styled.div`display: grid; grid-template-columns: 1fr 1fr; gap: 8px;`;
const Box = styled(Input)`${fieldBox} font: 15px ${FONTS.number};`;
