import { useMemo } from 'react';
import styled from 'styled-components';
import { counting } from '../../../core/job/history';
import { takesOf } from '../../../core/print/of-printer';
import { capital, formatHours } from '../../../core/quantity/format';
import { gaugeOfMate } from '../../../core/work/gauge-first';
import { waysForMate } from '../../../core/work/surer';
import { type First, whatFirst } from '../../../core/work/what-first';
import { usePace } from '../../api/use-pace';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { asPlaced, type usePoses } from './poses/use-poses';
import { useSlices } from './slices/use-slices';

/** A shorter print is not worth weighing. */
const WORTH_A_THOUGHT = { minutes: 20, doubt: 0.05 };
/** Steps that are shown. */
const MOST = 4;

/** Whether to print the whole part at once, or something quicker first: by the time until one sits right. */
export function FirstPanel({ poses }: { poses: ReturnType<typeof usePoses>['found'] }) {
  const { resolved, workshop, session, say, go, select } = useBench(
    'resolved',
    'workshop',
    'session',
    'say',
    'go',
    'select',
  );
  const { part, printer, material, ledger, history, document } = resolved;
  const away = document.object.goneAt !== null;
  const pace = usePace(printer);
  const { estimate } = asPlaced(poses, part.pose);
  const whole = estimate ? 60 * takesOf(estimate, pace, material).hours : null;
  const chance = ledger.pAllRight;
  const doubtful =
    whole !== null &&
    chance !== null &&
    (away || whole >= WORTH_A_THOUGHT.minutes) &&
    1 - chance >= WORTH_A_THOUGHT.doubt;
  const slices = useSlices(doubtful);
  const steps = useMemo(() => {
    if (!doubtful) return [];
    const { ladders } = counting(history);
    return whatFirst({
      pAllRight: chance!,
      whole: whole!,
      away,
      mates: ledger.mates.map(row => {
        const slice = slices?.find(s => s.surfaces.length === 1 && s.surfaces[0] === row.mate.ours.surface);
        return {
          id: row.mate.id,
          name: row.mate.name,
          pRight: row.pRight,
          surer: waysForMate(row, resolved, workshop).filter(
            w => w.what !== 'ladder' || !ladders.some(l => l.mateId === row.mate.id),
          ),
          slice: slice?.ok ? 60 * takesOf(slice.estimate, pace, material).hours : null,
          gauge: gaugeOfMate(row, resolved),
        };
      }),
    });
  }, [doubtful, chance, whole, away, ledger, history, slices, resolved, workshop, pace, material]);
  const [best] = steps;
  if (!best || best.what === 'print') return null;
  const at = steps.find(s => s.what === 'print')!;
  const shown = steps.slice(0, MOST);
  if (!shown.includes(at)) shown.push(at);
  const follow = ({ what, mateId }: First) => {
    const row = ledger.mates.find(m => m.mate.id === mateId);
    if (what === 'read-again' && row) {
      select(row.dimension.id);
      go('measure', row.dimension.id);
    } else if ((what === 'ladder' || what === 'gauge') && row)
      void session
        .append(what === 'ladder' ? 'ladders' : 'gauges', () => ({ mateId: row.mate.id, partId: part.id }))
        .then(() => go('fit'))
        .catch((error: Error) => say(error.message, 'stop'));
  };
  return (
    <Box aria-label="What to do first">
      <h3>What saves most time</h3>
      <p className="soft">
        Until one sits right, on the average, from now on
        {away ? '; the object is away, so a day is counted for every part that goes to it' : ''}:
      </p>
      <ol>
        {shown.map(step => (
          <li key={`${step.what} ${step.mateId}`}>
            <b className="number">{formatHours(step.minutes / 60)}</b>
            <span>{capital(step.words)}</span>
            {step.what === 'slice' ? (
              <small className="soft">make the version, then cut it there</small>
            ) : step.what === 'print' ? null : (
              <Button $small onPress={() => follow(step)}>
                {step.what === 'ladder'
                  ? 'Make a ladder'
                  : step.what === 'gauge'
                    ? 'Make a gauge'
                    : 'Read again'}
              </Button>
            )}
          </li>
        ))}
      </ol>
    </Box>
  );
}

const Box = styled.section`
  margin: 12px 0 10px; padding-top: 10px; border-top: 1px solid var(--rule); font-size: 14px;
  ol { list-style: none; margin: 6px 0 0; padding: 0; }
  li { display: grid; grid-template-columns: 84px minmax(0, 1fr) auto; gap: 10px; align-items: center; padding: 5px 0; border-top: 1px solid var(--rule); min-height: 34px; }
  small { max-width: 130px; text-align: right; }
`;
