import { useState } from 'react';
import { Input, TextField } from 'react-aria-components';
import styled from 'styled-components';
import type { FitMate } from '../../../core/job/document';
import { formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import { fitOf } from '../../../core/shelf/iso286/limits';
import { useBench } from '../../job/bench-context';
import { FieldLabel, fieldBox, Select } from '../../ui/controls';
import { FONTS } from '../../ui/theme';

/** The form of the numbers: a per-side value is asked for by name, never guessed. */
type Given = 'whole' | 'per-side' | 'iso';
const GIVEN: { value: Given; label: string }[] = [
  { value: 'whole', label: 'across the whole width' },
  { value: 'per-side', label: 'per side' },
  { value: 'iso', label: 'as an ISO class' },
];

/** The window itself, for those who think in it: clearance in mm, or stretch in %. @param size read, mm */
export function OwnWindow({ mate, size }: { mate: FitMate; size: number | null }) {
  const [given, setGiven] = useState<Given>('whole');
  const strain = mate.want.window.unit === 'strain';
  return (
    <div style={{ width: 236 }}>
      {given === 'iso' && !strain ? (
        <IsoClass mate={mate} size={size} />
      ) : (
        <Numbers key={given} mate={mate} perSide={given === 'per-side' && !strain} />
      )}
      {strain ? null : (
        <Select
          label="How the gap is given"
          hideLabel
          value={given}
          options={GIVEN}
          onChange={g => setGiven(g)}
        />
      )}
    </div>
  );
}

function Numbers({ mate, perSide }: { mate: FitMate; perSide: boolean }) {
  const { edit } = useBench('edit');
  const { window } = mate.want;
  const strain = window.unit === 'strain';
  const times = perSide ? 2 : 1;
  const [least, setLeast] = useState<string | null>(null);
  const [most, setMost] = useState<string | null>(null);
  const shown = (x: number) => formatPlain(strain ? 100 * x : x / times, strain ? 2 : 4);
  const read = (typed: string | null, now: number) => {
    if (typed === null) return { value: now };
    const outcome = parseQuantity(typed, strain ? 'strain' : 'length');
    return outcome.ok ? { value: times * outcome.quantity.value } : { value: now, problem: outcome.message };
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
  const other = perSide
    ? `${formatPlain(low.value, 3)} … ${formatPlain(high.value, 3)} mm across the whole width`
    : `${formatPlain(low.value / 2, 3)} … ${formatPlain(high.value / 2, 3)} mm per side`;
  const what = strain ? 'stretch, %' : perSide ? 'per side, mm' : 'gap, mm';
  return (
    <>
      <Pair>
        <TextField
          value={least ?? shown(window.min)}
          onChange={setLeast}
          onBlur={commit}
          isInvalid={Boolean(problem)}
        >
          <FieldLabel>Least {what}</FieldLabel>
          <Box onKeyDown={onKeyDown} />
        </TextField>
        <TextField
          value={most ?? shown(window.max)}
          onChange={setMost}
          onBlur={commit}
          isInvalid={Boolean(problem)}
        >
          <FieldLabel>Most {what}</FieldLabel>
          <Box onKeyDown={onKeyDown} />
        </TextField>
      </Pair>
      <Below problem={problem}>{problem ?? (strain ? '' : other)}</Below>
    </>
  );
}

/** A fit of ISO 286 as the window: for those who think in it. */
function IsoClass({ mate, size }: { mate: FitMate; size: number | null }) {
  const { edit } = useBench('edit');
  const [text, setText] = useState('');
  const outcome = size === null ? { problem: 'Measure it first: a class is for a size.' } : look(size, text);
  const commit = () => {
    if (!('window' in outcome)) return;
    void edit({ kind: 'want', mateId: mate.id, want: { ...mate.want, name: 'own', window: outcome.window } });
  };
  const problem = text.trim() === '' ? undefined : 'problem' in outcome ? outcome.problem : undefined;
  return (
    <>
      <TextField value={text} onChange={setText} onBlur={commit} isInvalid={Boolean(problem)}>
        <FieldLabel>Fit, such as H7/g6</FieldLabel>
        <Box onKeyDown={event => event.key === 'Enter' && commit()} spellCheck="false" autoComplete="off" />
      </TextField>
      <Below problem={problem}>
        {problem ??
          ('window' in outcome
            ? `${formatPlain(outcome.window.min, 3)} … ${formatPlain(outcome.window.max, 3)} mm; filament prints scatter more`
            : 'Enter takes its clearance as the window.')}
      </Below>
    </>
  );
}

function look(
  size: number,
  text: string,
): { window: { min: number; max: number; unit: 'mm' } } | { problem: string } {
  try {
    const { min, max } = fitOf(size, text).clearance;
    return { window: { min, max, unit: 'mm' } };
  } catch (error) {
    return { problem: (error as Error).message };
  }
}

function Below({ problem, children }: { problem?: string; children: React.ReactNode }) {
  return (
    <p
      style={{
        fontSize: 13,
        color: problem ? 'var(--danger)' : 'var(--soft)',
        margin: '2px 0 5px',
        minHeight: 18,
      }}
      role={problem ? 'alert' : undefined}
    >
      {children}
    </p>
  );
}

const Pair = styled.div`display: grid; grid-template-columns: 1fr 1fr; gap: 8px;`;
const Box = styled(Input)`${fieldBox} font: 15px ${FONTS.number};`;
