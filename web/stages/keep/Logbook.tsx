import { format, isSameDay } from 'date-fns';
import { useState } from 'react';
import styled from 'styled-components';
import type { Print } from '../../../core/job/history';
import { asSlicedWords, ranAt } from '../../../core/job/history/print';
import { remarkOf } from '../../../core/job/history/remark-of';
import { reworkWords } from '../../../core/job/history/rework';
import { FAILURE_WORDS } from '../../../core/learn/happened';
import { VERDICT_WORDS } from '../../../core/learn/verdict';
import { capital, formatPlain } from '../../../core/quantity/format';
import { versionWords } from '../../../core/work/show';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { Panel, Row } from '../../ui/layout';
import { lookWords, tryWords } from './log-words';
import { VoidDialog, type Voiding } from './VoidDialog';

/** Everything that was made, tried and seen of the part, version by version. */
export function Logbook() {
  const { job, document, workshop } = useBench('job', 'document', 'workshop');
  const [voiding, setVoiding] = useState<Voiding | null>(null);
  const { versions, prints, tries, looks, reworks } = job.history;
  const plasticOf = (id: string | null) => {
    const plastic = workshop.materials.find(m => m.id === id);
    return plastic ? `, ${plastic.name}` : '';
  };
  const mateName = (id: string) => document.mates.find(m => m.id === id)?.name ?? id;
  return (
    <Panel>
      <h2>Logbook</h2>
      {versions.length === 0 ? <p className="soft">Versions, prints and verdicts gather here.</p> : null}
      {versions.toReversed().map(v => (
        <Entry key={v.id} data-void={v.voided ? '' : undefined}>
          <Row $between>
            <b>
              {capital(versionWords(v.number, v.partId, document))}{' '}
              <small className="soft">
                {format(new Date(v.at), 'd MMM HH:mm')}
                {plasticOf(v.materialId)}
              </small>
            </b>
            <VoidKey
              row={v}
              onVoid={() =>
                setVoiding({ kind: 'version', id: v.id, name: versionWords(v.number, v.partId, document) })
              }
            />
          </Row>
          {remarkOf(job.history, v.id) ? <p>{remarkOf(job.history, v.id)}</p> : null}
          {prints
            .filter(p => p.versionId === v.id)
            .map(p => (
              <div key={p.id} data-void={p.voided ? '' : undefined}>
                <Row $between>
                  <span>
                    print {p.number}
                    {p.slice ? ', a slice' : p.hand === 'other' ? ', the other hand' : ''}
                    {p.pieces > 1 ? `, ${p.pieces} pieces` : ''}
                    {p.failed ? `, failed: ${FAILURE_WORDS[p.failed]}` : ''}: {formatPlain(p.hours ?? 0, 1)}{' '}
                    h, {formatPlain(p.grams ?? 0, 1)} g, {(p.cost ?? 0).toFixed(2)} {workshop.currency}{' '}
                    <small className="soft">
                      {[ranWords(p), p.spool && `spool “${p.spool}”`, asSlicedWords(p.sliced), p.note]
                        .filter(Boolean)
                        .join(', ')}
                    </small>
                  </span>
                  <VoidKey
                    row={p}
                    onVoid={() => setVoiding({ kind: 'print', id: p.id, name: `print ${p.number}` })}
                  />
                </Row>
                {tries
                  .filter(t => t.printId === p.id)
                  .map(t => (
                    <Row key={t.id} $between data-void={t.voided ? '' : undefined}>
                      <span className="soft">{tryWords(t, v, mateName)}</span>
                      <VoidKey
                        row={t}
                        onVoid={() => setVoiding({ kind: 'try', id: t.id, name: 'this try' })}
                      />
                    </Row>
                  ))}
                {reworks
                  .filter(r => r.printId === p.id)
                  .map(r => (
                    <Row key={r.id} $between data-void={r.voided ? '' : undefined}>
                      <span className="soft">
                        {mateName(r.mateId)} {reworkWords(r)}: {VERDICT_WORDS[r.after]}
                      </span>
                      <VoidKey
                        row={r}
                        onVoid={() => setVoiding({ kind: 'rework', id: r.id, name: 'this work' })}
                      />
                    </Row>
                  ))}
                {looks
                  .filter(l => l.printId === p.id)
                  .map(l => (
                    <Row key={l.id} $between data-void={l.voided ? '' : undefined}>
                      <span className="soft">
                        {format(new Date(l.at), 'd MMM yyyy')}, in service: {lookWords(l, p.pieces)}
                      </span>
                      <VoidKey
                        row={l}
                        onVoid={() => setVoiding({ kind: 'look', id: l.id, name: 'this look' })}
                      />
                    </Row>
                  ))}
              </div>
            ))}
        </Entry>
      ))}
      {voiding ? <VoidDialog voiding={voiding} onClose={() => setVoiding(null)} /> : null}
    </Panel>
  );
}

/** “3 Nov 12:20 to 14:10” */
function ranWords(print: Print): string {
  const ran = ranAt(print);
  if (!ran) return '';
  const [from, to] = [new Date(ran.from), new Date(ran.to)];
  return `${format(from, 'd MMM HH:mm')} to ${format(to, isSameDay(from, to) ? 'HH:mm' : 'd MMM HH:mm')}`;
}

function VoidKey({ row, onVoid }: { row: { voided: string | null }; onVoid(): void }) {
  if (row.voided) return <small className="soft">does not count: {row.voided}</small>;
  return (
    <Button $small $look="quiet" onPress={onVoid}>
      Does not count…
    </Button>
  );
}

const Entry = styled.div`
  padding: 8px 0; border-top: 1px solid var(--rule); font-size: 14.5px;
  > div + div { padding-left: 16px; }
  [data-void] span, &[data-void] span, &[data-void] b { text-decoration: line-through; opacity: 0.7; }
`;
