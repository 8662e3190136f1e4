import { useState } from 'react';
import { counting } from '../../../core/job/history';
import { reworkWords } from '../../../core/job/history/rework';
import { VERDICT_WORDS } from '../../../core/learn/verdict';
import { formatHours } from '../../../core/quantity/format';
import { type CountedPrint, type Outcome, restWaits } from '../../../core/work/outcome';
import { rescuesFor } from '../../../core/work/rescue';
import { type First, whatFirst } from '../../../core/work/what-first';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { Notice, Stack } from '../../ui/layout';
import { ReworkForm } from './ReworkForm';

/** What would save this very print, before hours go into another one, and what was done so far. */
export function Rescue({ outcome, of }: { outcome: Outcome; of: Pick<CountedPrint, 'version' | 'print'> }) {
  const { resolved } = useBench('resolved');
  const [doing, setDoing] = useState<string | null>(null);
  const rescues = restWaits(outcome) ? [] : rescuesFor(outcome, of, resolved);
  const done = counting(resolved.history).reworks.filter(r => r.printId === of.print.id);
  if (rescues.length === 0 && done.length === 0) return null;
  const nameOf = (mateId: string) =>
    resolved.ledger.mates.find(m => m.mate.id === mateId)?.mate.name ?? mateId;
  const whole = of.print.hours === null ? null : 60 * of.print.hours;
  const steps =
    whole === null ? [] : whatFirst({ pAllRight: resolved.ledger.pAllRight ?? 0, whole, mates: [], rescues });
  const minutes = (what: First['what']) => steps.find(s => s.what === what)?.minutes;
  const [saving, printing] = [minutes('rescue'), minutes('print')];
  return (
    <>
      {done.map(r => (
        <Notice key={r.id} level={r.after === 'right' ? 'note' : 'warn'}>
          <b>{nameOf(r.mateId)}</b> {reworkWords(r)}: {VERDICT_WORDS[r.after]} since.
        </Notice>
      ))}
      {rescues.length > 0 && !outcome.saved ? (
        <details open={doing !== null || undefined}>
          <summary>
            {saving !== undefined && printing !== undefined && saving < printing
              ? `Quicker: save this print. ${formatHours(saving / 60)} on the average until one sits right, ${formatHours(printing / 60)} by printing again`
              : `Or save this print: ${rescues[0]!.minutes} minutes by hand instead of printing again`}
          </summary>
          <Stack $gap={6} style={{ marginTop: 8 }}>
            {rescues.map(r => {
              const key = `${r.mateId}${r.how}`;
              return (
                <div key={key}>
                  <Notice
                    level="note"
                    action={
                      doing === key ? null : (
                        <Button $small onPress={() => setDoing(key)}>
                          I did it
                        </Button>
                      )
                    }
                  >
                    <b>{r.name}</b>: {r.words} <span className="soft">{r.caution}</span>
                  </Notice>
                  {doing === key ? (
                    <ReworkForm rescue={r} printId={of.print.id} onDone={() => setDoing(null)} />
                  ) : null}
                </div>
              );
            })}
            <p className="soft" style={{ fontSize: 14 }}>
              The try above stays as the print came off the printer. What it took by hand says how far it was
              off, and the next number follows that.
            </p>
          </Stack>
        </details>
      ) : null}
    </>
  );
}
