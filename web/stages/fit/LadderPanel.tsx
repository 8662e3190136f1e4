import { useState } from 'react';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { BenchLadderVerdicts } from '../../../contract/bench';
import { counting, type Ladder } from '../../../core/job/history';
import { VERDICT_WORDS, VERDICTS, type Verdict } from '../../../core/learn/verdict';
import type { MateLedger } from '../../../core/work/ledger';
import { post } from '../../api/client';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { FilesOf } from '../../ui/FilesOf';
import { Panel, Row } from '../../ui/layout';
import { FONTS } from '../../ui/theme';

/** The last ladder of this mate: its files, and how each ring felt. */
export function LadderPanel({ ledger }: { ledger: MateLedger }) {
  const { resolved } = useBench('resolved');
  const { ladders, ladderTries } = counting(resolved.history);
  const ladder = ladders.findLast(l => l.mateId === ledger.mate.id);
  if (!ladder) return null;
  const said = ladderTries.findLast(t => t.ladderId === ladder.id)?.verdicts;
  return <Rings key={`${ladder.id} ${said ? 'tried' : ''}`} ladder={ladder} said={said} />;
}

function Rings({ ladder, said }: { ladder: Ladder; said: readonly (Verdict | null)[] | undefined }) {
  const { job, session, say, workshop } = useBench('job', 'session', 'say', 'workshop');
  const [verdicts, setVerdicts] = useState<(Verdict | null)[]>(() => ladder.sizes.map(() => null));
  const [busy, setBusy] = useState(false);
  const attempt = async (work: () => Promise<unknown>) => {
    setBusy(true);
    try {
      await work();
    } catch (error) {
      say((error as Error).message, 'stop');
    } finally {
      setBusy(false);
    }
  };
  const discard = () =>
    attempt(() =>
      session.append('void', () => ({ kind: 'ladder', id: ladder.id, reason: 'put away by the maker' })),
    );
  const record = () =>
    attempt(() => session.append('ladder-tries', () => ({ ladderId: ladder.id, verdicts })));
  const practice = () =>
    attempt(async () => {
      const answer = await post(`/bench/jobs/${job.id}/ladders/${ladder.id}/try-on`, BenchLadderVerdicts);
      setVerdicts(answer.verdicts);
    });
  return (
    <Panel>
      <Row $between $wrap>
        <h2>{said ? 'The ladder, tried' : 'The ladder'}</h2>
        <Row $gap={10} $wrap>
          <FilesOf at={`/api/jobs/${job.id}/ladders/${ladder.id}/ladder`} />
          <Button $small $look="quiet" isDisabled={busy} onPress={() => void discard()}>
            Put it away
          </Button>
        </Row>
      </Row>
      <p className="soft" style={{ margin: '2px 0 8px' }}>
        {said
          ? 'Its verdicts are in the ledger.'
          : 'Print it in the part’s plastic and settings, then try each ring where the part will sit. Those you skip stay open.'}
      </p>
      <Rungs>
        {ladder.sizes.map((size, i) => (
          <li key={size}>
            <span>
              Ring {i + 1}: <b>{size.toFixed(2)}</b> mm
            </span>
            {said ? (
              <span>{said[i] ? VERDICT_WORDS[said[i]] : 'not tried'}</span>
            ) : (
              <ToggleButtonGroup
                aria-label={`Ring ${i + 1}`}
                selectionMode="single"
                selectedKeys={verdicts[i] ? [verdicts[i]] : []}
                onSelectionChange={keys =>
                  setVerdicts(now =>
                    now.map((v, k) => (k === i ? (([...keys][0] as Verdict | undefined) ?? null) : v)),
                  )
                }
              >
                {VERDICTS.map(v => (
                  <ToggleButton key={v} id={v}>
                    {VERDICT_WORDS[v]}
                  </ToggleButton>
                ))}
              </ToggleButtonGroup>
            )}
          </li>
        ))}
      </Rungs>
      {said ? null : (
        <Row $wrap>
          <Button isDisabled={busy || verdicts.every(v => v === null)} onPress={() => void record()}>
            Record the ladder
          </Button>
          {workshop.practiceBench ? (
            <Button isDisabled={busy} onPress={() => void practice()}>
              Practice hands
            </Button>
          ) : null}
        </Row>
      )}
    </Panel>
  );
}

const Rungs = styled.ul`
  list-style: none; margin: 0 0 10px; padding: 0;
  li { display: flex; justify-content: space-between; align-items: center; gap: 14px; border-top: 1px solid var(--rule); padding: 6px 0; flex-wrap: wrap; }
  b { font-family: ${FONTS.number}; }
  [role='radiogroup'] { display: flex; flex-wrap: wrap; gap: 4px; }
  button { padding: 5px 9px; border: 1px solid var(--rule); border-radius: 4px; background: var(--raised); color: var(--ink); cursor: pointer; font: 13.5px ${FONTS.text}; }
  button[data-selected] { border-color: var(--blue); background: var(--tint); font-weight: 600; }
`;
