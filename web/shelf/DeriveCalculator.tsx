import { useState } from 'react';
import styled from 'styled-components';
import { DERIVE_KINDS, type Derived, derive, deriveKind } from '../../core/measure/derive';
import { deriveFigure } from '../../core/measure/figures';
import { formatPlain } from '../../core/quantity/format';
import { parseQuantity } from '../../core/quantity/parse';
import { DrawingView } from '../drawing/DrawingView';
import { Select, TextField } from '../ui/controls';
import { Notice, Panel, Stack } from '../ui/layout';
import { FONTS } from '../ui/theme';
import { TwoColumns } from './calculator';

/** Any derived dimension from numbers at hand. */
export function DeriveCalculator() {
  const [kindId, setKind] = useState<string>('centre-distance');
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [lit, setLit] = useState<string | null>(null);
  const kind = deriveKind(kindId)!;
  const put = (key: string, text: string) => setTexts(now => ({ ...now, [key]: text }));
  const answer = answerOf(kindId, texts);
  const field = (key: string, label: string, hint?: string, problem?: string) => (
    <TextField
      key={key}
      label={label}
      hint={hint}
      value={texts[key] ?? ''}
      onChange={text => put(key, text)}
      onFocus={() => setLit(key)}
      problem={problem}
      autoComplete="off"
    />
  );
  return (
    <TwoColumns $left="1fr">
      <Stack $gap={12}>
        <Select
          label="What do you want to know?"
          value={kindId}
          options={DERIVE_KINDS.map(k => ({ value: k.id, label: k.title }))}
          onChange={id => {
            setKind(id);
            setTexts({});
          }}
        />
        <p className="soft">{kind.purpose}</p>
        <Fields>
          {kind.slots.map(s => field(s.key, `${sentence(s.label)}, mm`, s.how, problemOf(texts[s.key])))}
          {kind.counts.map(c =>
            field(c.key, sentence(c.label), `${formatPlain(c.default)} unless you say otherwise`),
          )}
          {field('u', 'Each give or take, mm', 'how sure each number is; 0.05 unless you say otherwise')}
        </Fields>
      </Stack>
      <Stack $gap={12}>
        <Panel style={{ padding: 0, overflow: 'hidden' }}>
          <DrawingView
            drawing={deriveFigure(kindId)}
            valueFor={d => texts[d.key]?.trim() || null}
            lit={lit}
            height={280}
          />
        </Panel>
        <Panel aria-live="polite">
          <p className="soft">{kind.formula}</p>
          {'value' in answer ? (
            <>
              <Result data-testid="calculated">
                {formatPlain(answer.value, 3)} ± {formatPlain(2 * answer.u, 3)}
                {kind.result === 'angle' ? '°' : ' mm'}
              </Result>
              <p className="number">{answer.worked}</p>
            </>
          ) : answer.problem ? (
            <Notice level="warn">{answer.problem}</Notice>
          ) : (
            <p className="soft">Fill in the numbers: the answer appears here.</p>
          )}
        </Panel>
      </Stack>
    </TwoColumns>
  );
}

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function problemOf(text: string | undefined): string | undefined {
  if (!text?.trim()) return undefined;
  const typed = parseQuantity(text, 'length');
  return typed.ok ? undefined : typed.message;
}

function answerOf(kindId: string, texts: Record<string, string>): Derived | { problem: string | null } {
  const kind = deriveKind(kindId)!;
  const doubt = parseQuantity(texts.u?.trim() || '0.05', 'length');
  if (!doubt.ok || doubt.quantity.value < 0) return { problem: 'Give or take: type a number such as 0.05.' };
  const quantities: Record<string, { value: number; u: number }> = {};
  for (const { key } of kind.slots) {
    const typed = parseQuantity(texts[key] ?? '', 'length');
    if (!typed.ok) return { problem: null };
    quantities[key] = { value: typed.quantity.value, u: doubt.quantity.value / Math.sqrt(3) };
  }
  const counts: Record<string, number> = {};
  for (const { key, label } of kind.counts) {
    if (!texts[key]?.trim()) continue;
    const typed = parseQuantity(texts[key], 'count');
    if (!typed.ok) return { problem: `${sentence(label)}: ${typed.message}` };
    counts[key] = typed.quantity.value;
  }
  try {
    return derive(kind, quantities, counts);
  } catch (error) {
    return { problem: (error as Error).message };
  }
}

const Fields = styled.div`display: grid; grid-template-columns: repeat(auto-fit, minmax(200px, 1fr)); gap: 12px;`;
const Result = styled.p`font: 600 26px ${FONTS.number}; margin: 6px 0;`;
