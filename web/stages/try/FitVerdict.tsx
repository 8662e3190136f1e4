import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import type { FitMate } from '../../../core/job/document';
import { BINDS } from '../../../core/job/history/try';
import { JUDGED_WORDS, type JudgedBy } from '../../../core/learn/signed';
import { MARK_OF, VERDICT_WORDS, VERDICTS, type Verdict } from '../../../core/learn/verdict';
import { Checkbox, Select, TextField } from '../../ui/controls';
import { MarkShape, Panel, Row } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import { Words } from './choices';
import type { MateDraft } from './try-draft';

const EFFORTS = [
  { id: 'too-easy', word: 'too easy' },
  { id: 'good', word: 'good' },
  { id: 'too-hard', word: 'too hard' },
] as const;
const WHEN = [
  { id: 'on', word: 'going on' },
  { id: 'off', word: 'coming off' },
  { id: 'home', word: 'when home' },
] as const;
const BIND_WORDS: Record<(typeof BINDS)[number], string> = {
  start: 'at the start',
  middle: 'half way',
  end: 'at the end',
  'one-side': 'on one side',
  'all-along': 'all along',
};
const BY: JudgedBy[] = ['paper', 'feeler', 'tape', 'caliper', 'eye'];

const OBJECT = 'object';

interface Props {
  mate: FitMate;
  /** What was drawn, mm. */
  model: number;
  draft: MateDraft;
  problems: { about?: string; printed?: string };
  /** Measured gauges of the object that it may have been tried on. */
  gauges: readonly { id: string; value: number }[];
  onChange(change: Partial<MateDraft>): void;
}

/** How a surface feels: one of five words and, if the maker can tell, by how much, where it binds, how much force. */
export function FitVerdict({ mate, model, draft, problems, gauges, onChange }: Props) {
  const { verdict } = draft;
  const missed = verdict !== undefined && verdict !== 'right';
  const tight = verdict !== undefined && MARK_OF[verdict] === 'tight';
  const springs = mate.want.name === 'stretch' || mate.want.name === 'click';
  return (
    <Panel data-mate={mate.id}>
      <Row $between>
        <h3 id={`verdict-${mate.id}`}>{mate.name}</h3>
        <span className="soft" style={{ fontSize: 14 }}>
          {mate.want.name === 'own' ? 'wanted in your window' : `wanted ${mate.want.name}`}, drawn{' '}
          <span className="number">{model.toFixed(2)}</span> mm
        </span>
      </Row>
      {gauges.length > 0 ? (
        <div style={{ maxWidth: 300, marginTop: 8 }}>
          <Select
            label="Tried on"
            value={draft.gauge ?? OBJECT}
            options={[
              { value: OBJECT, label: 'the object itself' },
              ...gauges.map(g => ({ value: g.id, label: `its gauge, ${g.value.toFixed(2)} mm` })),
            ]}
            onChange={on => onChange({ gauge: on === OBJECT ? undefined : on })}
          />
        </div>
      ) : null}
      <Verdicts
        aria-labelledby={`verdict-${mate.id}`}
        selectionMode="single"
        selectedKeys={verdict ? [verdict] : []}
        onSelectionChange={keys => onChange({ verdict: [...keys][0] as Verdict | undefined })}
      >
        {VERDICTS.map((v, i) => (
          <ToggleButton key={v} id={v} data-mark={MARK_OF[v]} data-next aria-keyshortcuts={String(i + 1)}>
            <svg width="26" height="15" viewBox="0 0 24 14" aria-hidden>
              <MarkShape mark={MARK_OF[v]} />
            </svg>
            {VERDICT_WORDS[v]}
          </ToggleButton>
        ))}
      </Verdicts>
      <Extra>
        {missed ? (
          <>
            <TextField
              label={`By about how much, mm (if you can)`}
              placeholder="0.1 is one sheet of paper"
              value={draft.about}
              onChange={about => onChange({ about })}
              problem={problems.about}
            />
            {draft.about.trim() ? (
              <Select
                label="Found with"
                value={draft.aboutBy}
                options={BY.map(value => ({ value, label: JUDGED_WORDS[value] }))}
                onChange={aboutBy => onChange({ aboutBy })}
              />
            ) : null}
          </>
        ) : null}
        <TextField
          label="The print measures, mm (if you can)"
          placeholder={model.toFixed(2)}
          value={draft.printed}
          onChange={printed => onChange({ printed })}
          problem={problems.printed}
        />
      </Extra>
      {tight ? (
        <Row $wrap $gap={16} style={{ marginTop: 8 }}>
          <Words
            says={`Where ${mate.name} binds`}
            label="it binds"
            value={draft.binds}
            options={BINDS.map(id => ({ id, word: BIND_WORDS[id] }))}
            onChange={binds => onChange({ binds })}
          />
          <Checkbox isSelected={draft.marks} onChange={marks => onChange({ marks })}>
            It marks the plastic
          </Checkbox>
        </Row>
      ) : null}
      {springs ? (
        <Efforts>
          {WHEN.map(w => (
            <Words
              key={w.id}
              says={`Effort ${w.word}`}
              label={w.word}
              value={draft.effort[w.id]}
              options={EFFORTS}
              onChange={effort => onChange({ effort: { ...draft.effort, [w.id]: effort } })}
            />
          ))}
        </Efforts>
      ) : null}
    </Panel>
  );
}

export const Verdicts = styled(ToggleButtonGroup)<{ $columns?: number }>`
  display: grid; grid-template-columns: repeat(${p => p.$columns ?? 5}, minmax(0, 1fr)); gap: 6px; margin: 10px 0;
  button {
    display: flex; flex-direction: column; align-items: center; gap: 6px; padding: 11px 4px 9px; min-height: 64px; border: 2px solid transparent; box-shadow: inset 0 0 0 1px var(--rule);
    border-radius: 5px; background: var(--raised); color: var(--ink); cursor: pointer; font: 500 15px ${FONTS.text}; overflow-wrap: anywhere;
  }
  button[data-selected] { box-shadow: none; font-weight: 600; background: var(--sheet); }
  button[data-selected][data-mark='tight'] { border-color: var(--tight); }
  button[data-selected][data-mark='right'] { border-color: var(--right); }
  button[data-selected][data-mark='loose'] { border-color: var(--loose); }
  @media (max-width: 500px) { grid-template-columns: repeat(2, minmax(0, 1fr)); }
`;
export const Extra = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(220px, 1fr)); gap: 12px 20px; align-items: start;
`;
const Efforts = styled.div`display: flex; flex-direction: column; gap: 6px; margin-top: 10px;`;
