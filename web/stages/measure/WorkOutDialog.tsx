import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { derivedProblem } from '../../../core/job/derived';
import type { Derived, Dimension } from '../../../core/job/document';
import type { Edit } from '../../../core/job/edits';
import { DERIVE_KINDS, type DeriveKind, type DeriveSlot, deriveKind } from '../../../core/measure/derive';
import { deriveFigure } from '../../../core/measure/figures';
import { formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import { evaluateDimensions } from '../../../core/work/dimensions';
import { showSize, valueWords } from '../../../core/work/show';
import { DrawingView } from '../../drawing/DrawingView';
import { useBench } from '../../job/bench-context';
import { Button, Dialog, Select, TextField } from '../../ui/controls';
import { Notice, Panel, Row, Stack } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import { ownDimension } from './own-dimension';

const NEW = 'new';
const NUMBER = 'number';
const EXPRESSION = 'expression';

/** What a slot is filled from: a dimension's id, a new one to read, or a number with its doubt. */
interface Filling {
  from: string;
  value: string;
  u: string;
}

const blank: Filling = { from: NEW, value: '', u: '0.05' };

interface Props {
  dimension: Dimension;
  onClose(): void;
  /** With the dimension to read next, where new ones came with it. */
  onDone(next: string | null): void;
}

/** How a dimension that cannot be measured comes from others that can. */
export function WorkOutDialog({ dimension, onClose, onDone }: Props) {
  const { document, resolved, workshop, unit, edit } = useBench(
    'document',
    'resolved',
    'workshop',
    'unit',
    'edit',
  );
  const now = dimension.derived;
  const kinds = DERIVE_KINDS.filter(k => (k.result === 'angle') === (dimension.kind === 'angle'));
  const [kindId, setKind] = useState(
    now?.by === 'formula' ? now.kind : now?.by === 'expression' ? EXPRESSION : usualKind(dimension),
  );
  const [fillings, setFillings] = useState<Record<string, Filling>>(() => fillingsOf(now));
  const [counts, setCounts] = useState<Record<string, string>>(() =>
    now?.by === 'formula'
      ? Object.fromEntries(Object.entries(now.counts).map(([k, v]) => [k, String(v)]))
      : {},
  );
  const [text, setText] = useState(now?.by === 'expression' ? now.expression.text : '');
  const [lit, setLit] = useState<string | null>(null);
  const [problem, setProblem] = useState<{ message: string; at?: number } | null>(null);
  const kind = kindId === EXPRESSION ? undefined : deriveKind(kindId);
  const others = document.dimensions.filter(d => d.id !== dimension.id);

  /** The derivation as filled in so far, with the dimensions that would be new. */
  const plan = useMemo(
    () => planOf(kind, text, fillings, counts, dimension, document.dimensions),
    [kind, text, fillings, counts, dimension, document.dimensions],
  );
  const preview = useMemo(() => {
    if ('problem' in plan) return null;
    const dimensions = [...document.dimensions, ...plan.fresh].map(d =>
      d.id === dimension.id ? { ...d, derived: plan.derived } : d,
    );
    return evaluateDimensions({ ...document, dimensions }, workshop).get(dimension.id) ?? null;
  }, [plan, document, dimension.id, workshop]);

  const save = async () => {
    if ('problem' in plan) return setProblem({ message: plan.problem });
    const wrong = derivedProblem(dimension, plan.derived, {
      dimensions: [...document.dimensions, ...plan.fresh],
    });
    if (wrong) return setProblem(wrong);
    const edits: Edit[] = [
      ...plan.fresh.map(d => ({ kind: 'add-dimension' as const, dimension: d })),
      { kind: 'derive', dimensionId: dimension.id, derived: plan.derived },
    ];
    for (const step of edits) if (!(await edit(step))) return;
    onDone(plan.fresh[0]?.id ?? null);
  };
  return (
    <Dialog title={`Work out: ${dimension.label}`} isOpen onClose={onClose} width={760}>
      <Columns>
        <Stack $gap={12}>
          <Select
            label="How"
            value={kindId}
            options={[
              ...kinds.map(k => ({ value: k.id, label: k.title })),
              { value: EXPRESSION, label: 'A sum of your own' },
            ]}
            onChange={id => {
              setKind(id);
              setProblem(null);
            }}
          />
          {kind ? (
            <>
              <p className="soft">{kind.purpose}</p>
              {kind.slots.map(slot => (
                <SlotRow
                  key={slot.key}
                  slot={slot}
                  filling={fillings[slot.key] ?? blank}
                  others={others}
                  onFocus={() => setLit(slot.key)}
                  onChange={filling => {
                    setFillings(all => ({ ...all, [slot.key]: filling }));
                    setProblem(null);
                    setLit(slot.key);
                  }}
                />
              ))}
              {kind.counts.map(c => (
                <TextField
                  key={c.key}
                  label={sentence(c.label)}
                  value={counts[c.key] ?? String(c.default)}
                  onChange={value => setCounts(all => ({ ...all, [c.key]: value }))}
                  inputMode="decimal"
                />
              ))}
            </>
          ) : (
            <SumField
              text={text}
              angle={dimension.kind === 'angle'}
              names={others.map(d => d.name)}
              problem={problem}
              onChange={typed => {
                setText(typed);
                setProblem(null);
              }}
            />
          )}
        </Stack>
        <Stack $gap={12}>
          {kind ? (
            <Panel style={{ padding: 0, overflow: 'hidden' }}>
              <DrawingView
                drawing={deriveFigure(kind.id)}
                valueFor={d =>
                  shownFor(fillings[d.key], document.dimensions, id => {
                    const known = resolved.dimensions.get(id);
                    return known?.evaluation
                      ? showSize(known.dimension.kind, known.evaluation.value, unit)
                      : null;
                  })
                }
                lit={lit}
                height={250}
              />
            </Panel>
          ) : null}
          <Worked aria-live="polite">
            {kind ? <p className="soft">{kind.formula}</p> : null}
            {preview?.worked && 'text' in preview.worked ? (
              <>
                <p className="number">{preview.worked.text}</p>
                <p>
                  <b className="number">{valueWords(preview, unit)}</b>
                </p>
              </>
            ) : (
              <p className="soft">
                {preview?.worked && 'problem' in preview.worked && !problem
                  ? preview.worked.problem
                  : 'The numbers appear here once they are all there.'}
              </p>
            )}
          </Worked>
          {problem && kind ? <Notice level="stop">{problem.message}</Notice> : null}
        </Stack>
      </Columns>
      <Row style={{ justifyContent: 'flex-end', marginTop: 14 }} $gap={8}>
        <Button $look="quiet" onPress={onClose}>
          Leave it
        </Button>
        <Button $look="main" onPress={() => void save()}>
          Work it out so
        </Button>
      </Row>
    </Dialog>
  );
}

interface SlotProps {
  slot: DeriveSlot;
  filling: Filling;
  others: readonly Dimension[];
  onFocus(): void;
  onChange(filling: Filling): void;
}

function SlotRow({ slot, filling, others, onFocus, onChange }: SlotProps) {
  const typed = filling.from === NUMBER ? parseQuantity(filling.value, 'length') : null;
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: it lights the figure while a field inside has the focus
    <div onFocus={onFocus}>
      <Select
        label={`${sentence(slot.label)} (${slot.how})`}
        value={filling.from}
        options={[
          { value: NEW, label: 'read it next, as a dimension of its own' },
          ...others.map(d => ({ value: d.id, label: d.label })),
          { value: NUMBER, label: 'a number I know' },
        ]}
        onChange={from => onChange({ ...filling, from })}
      />
      {filling.from === NUMBER ? (
        <Row $gap={8} style={{ marginTop: 6, alignItems: 'flex-start' }}>
          <TextField
            label="Number"
            value={filling.value}
            onChange={value => onChange({ ...filling, value })}
            problem={typed && !typed.ok && filling.value !== '' ? typed.message : undefined}
          />
          <TextField label="give or take" value={filling.u} onChange={u => onChange({ ...filling, u })} />
        </Row>
      ) : null}
    </div>
  );
}

interface SumProps {
  text: string;
  angle: boolean;
  names: readonly string[];
  problem: { message: string; at?: number } | null;
  onChange(text: string): void;
}

/** A sum over names; where it cannot be understood the place is marked under it. */
function SumField({ text, angle, names, problem, onChange }: SumProps) {
  return (
    <div>
      <TextField
        label={`Sum, ${angle ? '°' : 'mm'}`}
        value={text}
        onChange={onChange}
        placeholder="bore / 2 + 0.4"
        problem={problem?.message}
        autoComplete="off"
        spellCheck="false"
      />
      {problem?.at !== undefined ? (
        <Place aria-hidden>
          {text.slice(0, problem.at)}
          <mark>{text.slice(problem.at).match(/^[\w.]+|^./)?.[0] ?? ' '}</mark>
          {text.slice(problem.at).replace(/^[\w.]+|^./, '')}
        </Place>
      ) : null}
      <p className="soft" style={{ fontSize: 13.5, marginTop: 8 }}>
        Names you can use: {names.join(', ')}. A number may carry its unit; + − * / and brackets, min, max,
        sqrt.
      </p>
    </div>
  );
}

/** What is worked out most often. Practice. */
const usualKind = ({ kind }: Pick<Dimension, 'kind'>) => (kind === 'angle' ? 'taper' : 'centre-distance');

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function fillingsOf(derived: Derived | undefined): Record<string, Filling> {
  if (derived?.by !== 'formula') return {};
  return Object.fromEntries(
    Object.entries(derived.inputs).map(([key, input]) => [
      key,
      input.of === 'dimension'
        ? { ...blank, from: input.id }
        : { from: NUMBER, value: formatPlain(input.value, 4), u: formatPlain(input.u * Math.sqrt(3), 4) },
    ]),
  );
}

type Plan = { derived: Derived; fresh: Dimension[] } | { problem: string };

function planOf(
  kind: DeriveKind | undefined,
  text: string,
  fillings: Record<string, Filling>,
  counts: Record<string, string>,
  dimension: Dimension,
  taken: readonly Dimension[],
): Plan {
  if (!kind) {
    if (!text.trim()) return { problem: 'Type a sum, such as bore / 2 + 0.4.' };
    return {
      derived: {
        by: 'expression',
        expression: { text: text.trim(), unit: dimension.kind === 'angle' ? 'deg' : 'mm' },
      },
      fresh: [],
    };
  }
  const fresh: Dimension[] = [];
  const inputs: Extract<Derived, { by: 'formula' }>['inputs'] = {};
  for (const slot of kind.slots) {
    const filling = fillings[slot.key] ?? blank;
    if (filling.from === NEW) {
      const own = ownDimension(`${dimension.label}: ${slot.label}`, kindOfSlot(slot), [...taken, ...fresh], {
        note: sentence(slot.how),
      });
      fresh.push(own);
      inputs[slot.key] = { of: 'dimension', id: own.id };
    } else if (filling.from === NUMBER) {
      const [value, u] = [parseQuantity(filling.value, 'length'), parseQuantity(filling.u || '0', 'length')];
      if (!value.ok) return { problem: `${sentence(slot.label)}: ${value.message}` };
      if (!u.ok || u.quantity.value < 0)
        return { problem: `${sentence(slot.label)}: how sure is it? Type a number such as 0.05.` };
      // “Give or take” is a rectangle, as an instrument's error is.
      inputs[slot.key] = { of: 'number', value: value.quantity.value, u: u.quantity.value / Math.sqrt(3) };
    } else inputs[slot.key] = { of: 'dimension', id: filling.from };
  }
  const numbers: Record<string, number> = {};
  for (const c of kind.counts) {
    const typed = parseQuantity(counts[c.key] ?? String(c.default), 'count');
    if (!typed.ok) return { problem: `${sentence(c.label)}: ${typed.message}` };
    numbers[c.key] = typed.quantity.value;
  }
  return { derived: { by: 'formula', kind: kind.id, inputs, counts: numbers }, fresh };
}

/** Which jaws a slot is read with, from its name. */
function kindOfSlot(slot: DeriveSlot): Dimension['kind'] {
  if (/inside|gap|bore/.test(slot.key)) return 'inside';
  if (/deep|shallow/.test(slot.key)) return 'depth';
  if (/height|near|far/.test(slot.key)) return 'step';
  if (/length|span|between|chord|around|[xy]\d/.test(slot.key)) return 'length';
  return 'outside';
}

function shownFor(
  filling: Filling | undefined,
  taken: readonly Dimension[],
  sizeOf: (id: string) => string | null,
): string | null {
  if (!filling || filling.from === NEW) return null;
  if (filling.from === NUMBER) return filling.value || null;
  return taken.some(d => d.id === filling.from) ? sizeOf(filling.from) : null;
}

const Columns = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: 18px; align-items: start;
  @media (max-width: 700px) { grid-template-columns: minmax(0, 1fr); }
`;
const Worked = styled.div`font-size: 15px; b { font-size: 18px; } p { margin-bottom: 4px; overflow-wrap: anywhere; }`;
const Place = styled.pre`
  font: 15px ${FONTS.number}; margin: 6px 0 0; white-space: pre-wrap; color: var(--soft);
  mark { background: var(--danger-tint); color: var(--danger); border-bottom: 2px solid var(--danger); }
`;
