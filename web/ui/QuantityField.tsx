import { RotateCcw } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { TextField as AriaTextField, Input } from 'react-aria-components';
import styled from 'styled-components';
import type { Expression } from '../../core/quantity/expression';
import { ownUnit, type QuantityKind } from '../../core/quantity/units';
import { FieldLabel, FieldProblem, fieldBox, IconButton } from './controls';
import { FONTS } from './theme';

interface Props {
  label: string;
  kind: QuantityKind;
  expression: Expression;
  /** What it came to: shown when the text is more than that number. */
  understood: string;
  problem?: string;
  /** Stands on an example size. */
  provisional?: boolean;
  /** While typing; null takes the draft back. */
  onDraft(expression: Expression | null): void;
  onCommit(expression: Expression): void;
  /** Back to the recipe's own; left out when it is that already. */
  onReset?: () => void;
  lit?: boolean;
  /** A number that can be built but is seldom meant: why, and what is usual. */
  advice?: { text: string; usual: number } | null;
}

const PAUSE = 700;
const UNIT: Record<QuantityKind, string> = { length: 'mm', angle: '°', count: '', strain: '' };

/** A number or an expression. Takes `31.7`, `31,7`, `1 1/4 in`, `32/2`, `rim.model + 0.1` and says what it understood. */
export function QuantityField({
  label,
  kind,
  expression,
  understood,
  problem,
  provisional,
  onDraft,
  onCommit,
  onReset,
  lit,
  advice,
}: Props) {
  const [text, setText] = useState<string | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const latest = useRef({ text, problem, onCommit, onDraft });
  latest.current = { text, problem, onCommit, onDraft };
  useEffect(() => () => clearTimeout(timer.current), []);

  const commit = () => {
    clearTimeout(timer.current);
    const now = latest.current;
    // What cannot be understood stays in the field with its problem; nothing typed is lost.
    // Neither is an empty field a number: it waits for one.
    if (now.text === null || now.text.trim() === '' || now.problem) return;
    setText(null);
    now.onCommit({ text: now.text.trim(), unit: ownUnit(kind) });
    now.onDraft(null);
  };
  const type = (typed: string) => {
    setText(typed);
    onDraft(typed.trim() === '' ? null : { text: typed, unit: ownUnit(kind) });
    clearTimeout(timer.current);
    timer.current = setTimeout(commit, PAUSE);
  };
  const cancel = () => {
    clearTimeout(timer.current);
    setText(null);
    onDraft(null);
  };
  const shown = text ?? expression.text;
  const plain = /^[\d.,]+$/.test(shown.trim());
  const empty = text !== null && text.trim() === '';
  const trouble = empty ? 'Type a number, or press Escape to leave it as it was.' : problem;
  return (
    <Field value={shown} onChange={type} isInvalid={Boolean(trouble)} data-lit={lit ? '' : undefined}>
      <FieldLabel>{label}</FieldLabel>
      <Box>
        <NumberInput
          onBlur={() => (empty ? cancel() : commit())}
          onKeyDown={event => {
            if (event.key === 'Enter') commit();
            if (event.key === 'Escape') cancel();
          }}
          autoComplete="off"
        />
        {onReset && text === null ? (
          <IconButton aria-label={`${label}: back to the recipe’s own`} onPress={onReset}>
            <RotateCcw size={15} />
          </IconButton>
        ) : null}
      </Box>
      {trouble ? null : (
        <Understood>
          {plain
            ? provisional
              ? 'example size, not measured yet'
              : UNIT[kind]
            : `= ${understood} ${UNIT[kind]}${provisional ? ', example size' : ''}`}
        </Understood>
      )}
      <FieldProblem>{trouble}</FieldProblem>
      {advice && !trouble ? (
        <Advice>
          {advice.text}{' '}
          <button type="button" onClick={() => onCommit({ text: String(advice.usual), unit: ownUnit(kind) })}>
            Make it {advice.usual}
          </button>
        </Advice>
      ) : null}
    </Field>
  );
}

const Field = styled(AriaTextField)`
  min-width: 0;
  &[data-lit] label { color: var(--blue); }
`;
const Box = styled.div`position: relative; button { position: absolute; right: 3px; top: 2px; }`;
const NumberInput = styled(Input)`${fieldBox} font: 15px ${FONTS.number}; padding-right: 34px;`;
const Advice = styled.p`
  font-size: 12.5px; color: var(--loose); margin-top: 2px;
  button { border: 0; background: none; padding: 0; font: inherit; color: var(--blue); text-decoration: underline; cursor: pointer; }
`;
const Understood = styled.p`font-size: 12.5px; color: var(--soft); margin-top: 2px;`;
