import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import type { MeasuredThread } from '../../../core/job/document';
import type { Edit } from '../../../core/job/edits';
import { formatPercent, formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import { describeThread, likelyThread, type ThreadState, threadState } from '../../../core/work/threads';
import { useBench } from '../../job/bench-context';
import { CommittedField } from '../../ui/CommittedField';
import { Button, Select } from '../../ui/controls';
import { Notice, Panel, Row, Stack } from '../../ui/layout';
import { FONTS } from '../../ui/theme';

type Change = Extract<Edit, { kind: 'thread' }>['change'];

/** The features of a thread besides its numbers, and which thread it is. */
export function ThreadPanel({ thread }: { thread: MeasuredThread }) {
  const { edit, resolved, say } = useBench('edit', 'resolved', 'say');
  const state = threadState(thread, resolved.dimensions);
  const change = (to: Change) => void edit({ kind: 'thread', threadId: thread.id, change: to });
  return (
    <Panel>
      <Stack $gap={14}>
        <Recognition state={state} onTake={standard => change({ standard })} />
        <Stack $gap={10}>
          <Hands thread={thread} onChange={hand => change({ hand })} />
          <Four>
            <CommittedField
              label="Turns in the span"
              value={formatPlain(thread.turns)}
              check={text => countProblem(text, 0.5, 200, false)}
              onCommit={text => change({ turns: countIn(text) })}
            />
            <CommittedField
              label="Starts at the end face"
              value={String(thread.starts)}
              check={text => countProblem(text, 1, 12, true)}
              onCommit={text => change({ starts: countIn(text) })}
            />
            <Select
              label="Does it taper?"
              value={thread.taper === null ? 'unseen' : thread.taper ? 'yes' : 'no'}
              options={[
                { value: 'unseen', label: 'not looked' },
                { value: 'no', label: 'no, straight' },
                { value: 'yes', label: 'yes, a cone' },
              ]}
              onChange={v => change({ taper: v === 'unseen' ? null : v === 'yes' })}
            />
            <Select
              label="Ridges are"
              value={thread.crest ?? 'unseen'}
              options={[
                { value: 'unseen', label: 'not looked' },
                { value: 'sharp', label: 'sharp' },
                { value: 'flat', label: 'flat on top' },
                { value: 'round', label: 'round' },
              ]}
              onChange={v => change({ crest: v === 'unseen' ? null : v })}
            />
          </Four>
          <p className="soft" style={{ fontSize: 13.5 }}>
            Starts: look at the end face and count the ridges that begin there; most have one.
          </p>
          <Row>
            <Button
              $small
              $look="danger"
              onPress={() =>
                void edit({ kind: 'remove-thread', threadId: thread.id }).then(
                  done => done && say(`${thread.label} is gone; undo brings it back.`),
                )
              }
            >
              Remove this thread
            </Button>
          </Row>
        </Stack>
      </Stack>
    </Panel>
  );
}

function Hands({
  thread,
  onChange,
}: {
  thread: MeasuredThread;
  onChange(hand: MeasuredThread['hand']): void;
}) {
  return (
    <div>
      <h2 id={`hand-${thread.id}`} style={{ marginBottom: 5 }}>
        Held upright, which way do the ridges rise?
      </h2>
      <HandGroup
        aria-labelledby={`hand-${thread.id}`}
        selectionMode="single"
        selectedKeys={thread.hand ? [thread.hand] : []}
        onSelectionChange={keys => onChange(([...keys][0] as MeasuredThread['hand']) ?? null)}
      >
        {(['right', 'left'] as const).map(hand => (
          <ToggleButton key={hand} id={hand}>
            <svg viewBox="0 0 60 56" aria-hidden="true">
              <rect x="18" y="4" width="24" height="48" className="core" />
              {[12, 22, 32, 42].map(y => (
                <path
                  key={y}
                  d={hand === 'right' ? `M14 ${y + 4}L46 ${y - 4}` : `M14 ${y - 4}L46 ${y + 4}`}
                />
              ))}
            </svg>
            <span>
              {hand === 'right' ? 'up to the right' : 'up to the left'}
              <small>{hand} hand</small>
            </span>
          </ToggleButton>
        ))}
      </HandGroup>
    </div>
  );
}

const MOST = 4;

function Recognition({ state, onTake }: { state: ThreadState; onTake(standard: string | null): void }) {
  const { resolved } = useBench('resolved');
  const { thread, identified, pitch, lead, open } = state;
  const likely = likelyThread(state);
  return (
    <Stack $gap={9}>
      <h2>Which thread is it?</h2>
      {identified && pitch ? (
        <>
          <p className="number" style={{ fontSize: 14 }}>
            pitch {formatPlain(pitch.value, 3)} mm, {formatPlain(25.4 / pitch.value, 1)} turns an inch
            {thread.starts > 1 && lead ? `, lead ${formatPlain(lead, 3)} mm` : ''}
          </p>
          <List aria-label="Threads it could be">
            {identified.candidates.slice(0, MOST).map(c => (
              <li key={c.designation} data-on={thread.standard === c.designation ? '' : undefined}>
                <span>
                  {c.designation} <small>{c.standard}</small>
                </span>
                <b>{formatPercent(c.probability)}</b>
                <Button $small $look="quiet" onPress={() => onTake(c.designation)}>
                  Take it
                </Button>
              </li>
            ))}
            <li data-on={thread.standard === 'odd' ? '' : undefined}>
              <span>none of these</span>
              <b>{formatPercent(identified.none)}</b>
              <Button $small $look="quiet" onPress={() => onTake('odd')}>
                Take it
              </Button>
            </li>
          </List>
          {thread.standard ? (
            <Notice
              level="note"
              action={
                <Button $small onPress={() => onTake(null)}>
                  Undo
                </Button>
              }
            >
              {thread.standard === 'odd'
                ? 'Kept as an odd thread, made as measured.'
                : `Taken for ${thread.standard}.`}
            </Notice>
          ) : likely ? null : (
            <p className="soft">No standard thread is likely. It can be made as measured.</p>
          )}
          <Words>{describeThread(state, resolved.dimensions)}</Words>
        </>
      ) : (
        <p className="soft">It is named once these are known: {open.join(', ')}.</p>
      )}
    </Stack>
  );
}

function countProblem(text: string, min: number, max: number, whole: boolean): string | undefined {
  const typed = parseQuantity(text, 'count');
  if (!typed.ok) return typed.message;
  const { value } = typed.quantity;
  if (value < min || value > max) return `From ${min} to ${max}.`;
  return whole && !Number.isInteger(value) ? 'A whole number.' : undefined;
}

function countIn(text: string): number {
  const typed = parseQuantity(text, 'count');
  return typed.ok ? typed.quantity.value : 1;
}

const Four = styled.div`display: grid; grid-template-columns: repeat(auto-fit, minmax(180px, 1fr)); gap: 10px; align-items: end;`;
const HandGroup = styled(ToggleButtonGroup)`
  display: flex; gap: 8px;
  button {
    flex: 1; display: flex; align-items: center; gap: 6px; padding: 4px 8px; border: 1px solid var(--rule); border-radius: 4px; background: var(--raised); color: var(--ink); cursor: pointer; font: 500 14px ${FONTS.label}; text-align: left;
  }
  button[data-selected] { border-color: var(--blue); background: var(--tint); box-shadow: inset 0 0 0 1px var(--blue); }
  svg { width: 44px; height: 42px; flex: none; } .core { fill: var(--clay); stroke: var(--ink); } path { stroke: var(--ink); stroke-width: 2.4; }
  small { display: block; color: var(--soft); font-weight: 400; }
`;
const List = styled.ul`
  list-style: none; margin: 0; padding: 0;
  li { display: grid; grid-template-columns: minmax(0, 1fr) auto auto; gap: 8px; align-items: center; border-top: 1px solid var(--rule); padding: 2px 0 2px 6px; }
  li[data-on] { background: var(--tint); }
  b { font: 14px ${FONTS.number}; text-align: right; white-space: nowrap; } small { color: var(--soft); }
`;
const Words = styled.p`font-size: 14px; color: var(--soft); overflow-wrap: anywhere;`;
