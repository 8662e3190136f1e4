import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import type { Brief } from '../../../core/job/document';
import { MOST_PIECES } from '../../../core/job/fields';
import { useBench } from '../../job/bench-context';
import { CommittedField } from '../../ui/CommittedField';
import { Checkbox, FieldLabel } from '../../ui/controls';
import { Lead, Notice, Panel, Stack } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import { numberProblem, valueFor } from '../number-field';
import { LoadsAndObstacles } from './LoadsAndObstacles';

const BREAKS: { id: NonNullable<Brief['ifItBreaks']>; word: string; means: string }[] = [
  { id: 'nuisance', word: 'Nuisance', means: 'You print another one.' },
  { id: 'damage', word: 'Damage', means: 'Something else breaks, floods or is lost.' },
  { id: 'injury', word: 'Injury', means: 'Somebody may be hurt.' },
];
const HOLDS: { id: Brief['mustHold'][number]; word: string }[] = [
  { id: 'water', word: 'water' },
  { id: 'air', word: 'air' },
  { id: 'dust', word: 'dust' },
];

const TOUCHES: { id: NonNullable<Brief['touches']>[number]; word: string }[] = [
  { id: 'water', word: 'standing water' },
  { id: 'food', word: 'food' },
  { id: 'fuel', word: 'fuel or oil' },
  { id: 'solvent', word: 'solvents' },
  { id: 'mains', word: 'mains voltage' },
];

/** What it is, what it must do, and what may hurt. */
export function BriefStage() {
  const { document, resolved, edit } = useBench('document', 'resolved', 'edit');
  const { brief, object } = document;
  const set = (change: Partial<Brief>) => void edit({ kind: 'brief', brief: change });
  return (
    <>
      <h1>What is it, and what must it do?</h1>
      <Lead>
        Said once, it sets margins, plastic and what has to be tested. You can come back to it at any time.
      </Lead>
      <Columns>
        <Stack $gap={14}>
          <Panel>
            <Stack $gap={14}>
              <CommittedField
                label="Name of the job"
                value={document.title}
                check={text =>
                  text.trim() === ''
                    ? 'Give the job a name.'
                    : [...text.trim()].length > 300
                      ? 'At most 300 characters.'
                      : undefined
                }
                onCommit={title => void edit({ kind: 'rename', title: title.trim() })}
              />
              <CommittedField
                label="The object"
                placeholder="hull vent port, junior double"
                value={object.name}
                check={most(300)}
                onCommit={name => void edit({ kind: 'describe-object', name })}
              />
              <CommittedField
                label="What must the part do?"
                rows={3}
                placeholder="Keep spray out of the bow compartment; come off by hand to air it."
                value={brief.purpose}
                check={most(4000)}
                onCommit={purpose => set({ purpose })}
              />
              <Checkbox
                isSelected={object.leaves}
                onChange={leaves => void edit({ kind: 'describe-object', leaves })}
              >
                The object is borrowed or leaves the bench
              </Checkbox>
            </Stack>
          </Panel>
          <LoadsAndObstacles />
        </Stack>
        <Stack $gap={14}>
          <Panel>
            <FieldLabel as="h2" id="breaks">
              What if it breaks or comes off?
            </FieldLabel>
            <Choices
              aria-labelledby="breaks"
              selectionMode="single"
              selectedKeys={brief.ifItBreaks ? [brief.ifItBreaks] : []}
              onSelectionChange={keys => set({ ifItBreaks: ([...keys][0] as Brief['ifItBreaks']) ?? null })}
            >
              {BREAKS.map(b => (
                <ToggleButton key={b.id} id={b.id} data-next>
                  <b>{b.word}</b>
                  <span>{b.means}</span>
                </ToggleButton>
              ))}
            </Choices>
          </Panel>
          <Panel>
            <Stack $gap={12}>
              <div>
                <FieldLabel as="h2">It must hold</FieldLabel>
                <div style={{ display: 'flex', gap: 18 }}>
                  {HOLDS.map(h => (
                    <Checkbox
                      key={h.id}
                      isSelected={brief.mustHold.includes(h.id)}
                      onChange={on =>
                        set({
                          mustHold: on ? [...brief.mustHold, h.id] : brief.mustHold.filter(x => x !== h.id),
                        })
                      }
                    >
                      {h.word}
                    </Checkbox>
                  ))}
                </div>
              </div>
              <div>
                <FieldLabel as="h2">It touches</FieldLabel>
                <div style={{ display: 'flex', gap: '0 18px', flexWrap: 'wrap' }}>
                  {TOUCHES.map(t => {
                    const now = brief.touches ?? [];
                    return (
                      <Checkbox
                        key={t.id}
                        isSelected={now.includes(t.id)}
                        onChange={on => set({ touches: on ? [...now, t.id] : now.filter(x => x !== t.id) })}
                      >
                        {t.word}
                      </Checkbox>
                    );
                  })}
                </div>
              </div>
              <CommittedField
                label="Hottest it gets, °C"
                value={brief.hottestC === null ? '' : String(brief.hottestC)}
                hint="A car in the sun reaches 80, a radiator 60."
                check={text => (text.trim() === '' ? undefined : numberProblem(text, -60, 400))}
                onCommit={text => set({ hottestC: text.trim() === '' ? null : valueFor(text) })}
              />
              <Checkbox isSelected={brief.outdoors} onChange={outdoors => set({ outdoors })}>
                Stands in sun and weather
              </Checkbox>
              <CommittedField
                label="How many of it?"
                value={String(brief.quantity ?? 1)}
                check={text => numberProblem(text, 1, MOST_PIECES, true)}
                onCommit={text => set({ quantity: valueFor(text) ?? 1 })}
              />
              <CommittedField
                label="Price to buy one, if it can be bought"
                value={brief.priceToBuy === null ? '' : String(brief.priceToBuy)}
                check={text => (text.trim() === '' ? undefined : numberProblem(text, 0, 1e6))}
                onCommit={text => set({ priceToBuy: text.trim() === '' ? null : valueFor(text) })}
              />
              {brief.priceToBuy === null ? null : (
                <CommittedField
                  label="Days until it would be here"
                  value={String(brief.daysToBuy ?? '')}
                  check={text => (text.trim() === '' ? undefined : numberProblem(text, 0, 3650))}
                  onCommit={text => set({ daysToBuy: text.trim() === '' ? null : valueFor(text) })}
                />
              )}
            </Stack>
          </Panel>
          {resolved.cautions.map(f => (
            <Notice key={`${f.code}${f.load ?? ''}`} level={f.level}>
              {f.message}
            </Notice>
          ))}
        </Stack>
      </Columns>
    </>
  );
}

const most = (length: number) => (text: string) =>
  text.length > length ? `At most ${length} characters.` : undefined;

const Columns = styled.div`
  display: grid; grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr); gap: 14px; max-width: 1180px;
  @media (max-width: 760px) { grid-template-columns: 1fr; }
`;
const Choices = styled(ToggleButtonGroup)`
  display: flex; flex-direction: column; gap: 7px;
  button {
    text-align: left; padding: 9px 12px; border: 1px solid var(--rule); border-radius: 4px; background: var(--raised); color: var(--ink); cursor: pointer; font: inherit;
    display: flex; gap: 10px; align-items: baseline;
  }
  button b { font: 600 15px ${FONTS.label}; min-width: 72px; }
  button span { color: var(--soft); font-size: 14px; }
  button[data-selected] { border: 2px solid var(--blue); padding: 8px 11px; background: var(--tint); }
`;
