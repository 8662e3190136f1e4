import { formatHours } from '../../../core/quantity/format';
import { type Outcome, restWaits, type StandingPrint } from '../../../core/work/outcome';
import { rescuesFor } from '../../../core/work/rescue';
import { type First, whatFirst } from '../../../core/work/what-first';
import { useBench } from '../../job/bench-context';
import { Notice, Stack } from '../../ui/layout';

/** What would save this very print, before hours go into another one. */
export function Rescue({ outcome, of }: { outcome: Outcome; of: Pick<StandingPrint, 'version' | 'print'> }) {
  const { resolved } = useBench('resolved');
  const rescues = restWaits(outcome) ? [] : rescuesFor(outcome, of, resolved);
  if (rescues.length === 0) return null;
  const whole = of.print.hours === null ? null : 60 * of.print.hours;
  const steps =
    whole === null ? [] : whatFirst({ pAllRight: resolved.ledger.pAllRight ?? 0, whole, mates: [], rescues });
  const minutes = (what: First['what']) => steps.find(s => s.what === what)?.minutes;
  const [saving, printing] = [minutes('rescue'), minutes('print')];
  return (
    <details>
      <summary>
        {saving !== undefined && printing !== undefined && saving < printing
          ? `Quicker: save this print. ${formatHours(saving / 60)} on the average until one sits right, ${formatHours(printing / 60)} by printing again`
          : `Or save this print: ${rescues[0]!.minutes} minutes by hand instead of printing again`}
      </summary>
      <Stack $gap={6} style={{ marginTop: 8 }}>
        {rescues.map(r => (
          <Notice key={`${r.mateId}${r.how}`} level="note">
            <b>{r.name}</b>: {r.words} <span className="soft">{r.caution}</span>
          </Notice>
        ))}
        <p className="soft" style={{ fontSize: 14 }}>
          A part that was worked on says nothing of the numbers: what it taught is what it was before. Note it
          at the try, and judge it again only as it came off the printer.
        </p>
      </Stack>
    </details>
  );
}
