import { Check } from 'lucide-react';
import styled from 'styled-components';
import { takesOf } from '../../../../core/print/of-printer';
import type { Pace } from '../../../../core/print/pace';
import { poseInWords } from '../../../../core/print/pose-words';
import { capital, formatHours } from '../../../../core/quantity/format';
import { useNoted, usePace } from '../../../api/use-pace';
import { useBench } from '../../../job/bench-context';
import { Button } from '../../../ui/controls';
import { Notice, Panel } from '../../../ui/layout';
import type { ShownPose } from '../../../workers/solid-protocol';
import { PngPicture } from '../PngPicture';
import { TakesFigures } from '../TakesFigures';
import { asPlaced, type usePoses } from './use-poses';

/** The part's pose on the bed: the best poses side by side, with time, plastic and reasons. */
export function PosesPanel({ found, busy }: ReturnType<typeof usePoses>) {
  const { resolved, edit } = useBench('resolved', 'edit');
  const { part, printer } = resolved;
  const noted = useNoted(printer.id);
  const pace = usePace(printer);
  const poses = found && !(found instanceof Error) ? found.poses : [];
  const best = poses[0];
  const { ranked: now } = asPlaced(found, part.pose);
  const better = now && best !== now ? best : null;
  const lay = ({ plan }: ShownPose) => edit({ kind: 'pose', partId: part.id, pose: plan.pose });
  const turned = now?.plan.fits && now.plan.pose.turn !== part.pose.turn;
  return (
    <Panel>
      <h2 style={{ marginBottom: 8 }}>How it lies</h2>
      {found === null ? <Quiet role="status">Looking at every way it may lie…</Quiet> : null}
      {found instanceof Error ? <Quiet>{found.message}</Quiet> : null}
      {found && !(found instanceof Error) && found.laid ? (
        <InPieces pieces={found.pieces} takes={takesOf(found.laid, pace, resolved.material)} />
      ) : null}
      {better ? (
        <Notice
          level="note"
          action={
            <Button $small onPress={() => void lay(better)}>
              Lay it {poseInWords(better.plan.pose)}
            </Button>
          }
        >
          Better {poseInWords(better.plan.pose)}: {whatIsBetter(better, now!)}.
        </Notice>
      ) : null}
      {turned ? (
        <Notice
          level="warn"
          action={
            <Button $small onPress={() => void lay(now)}>
              Turn it
            </Button>
          }
        >
          It fits on the bed only turned by {Math.round(now.plan.pose.turn)}°.
        </Notice>
      ) : null}
      <Cards $busy={busy} aria-busy={busy}>
        {poses.map(ranked => (
          <Card
            key={ranked.plan.pose.down.join()}
            ranked={ranked}
            pace={pace}
            chosen={ranked === now}
            onLay={() => void lay(ranked)}
          />
        ))}
      </Cards>
      {poses.length > 0 ? (
        <Quiet>
          {noted.length === 0
            ? 'Times hold for a usual printer. Note the hours of one print below, and they hold for yours.'
            : `Times by ${noted.length === 1 ? 'one print' : `${noted.length} prints`} whose hours were noted.`}
        </Quiet>
      ) : null}
    </Panel>
  );
}

function InPieces({ pieces, takes }: { pieces: number; takes: ReturnType<typeof takesOf> }) {
  const { workshop } = useBench('workshop');
  return (
    <>
      <Quiet>It prints in {pieces} pieces, each laid on its cut already; all of them at once take</Quiet>
      <TakesFigures takes={takes} beside={`${takes.cost.toFixed(2)} ${workshop.currency}`} />
    </>
  );
}

/** Advantages of another pose that the current one lacks. */
const whatIsBetter = (other: ShownPose, now: ShownPose): string => {
  const own = other.reasons.filter(r => !now.reasons.includes(r));
  return (own.length > 0 ? own : other.reasons).slice(0, 2).join('; ');
};

/** The most reasons that fit on a card. */
const MOST_REASONS = 3;

function Card({
  ranked,
  pace,
  chosen,
  onLay,
}: {
  ranked: ShownPose;
  pace: Pace;
  chosen: boolean;
  onLay(): void;
}) {
  const { resolved, workshop } = useBench('resolved', 'workshop');
  const { plan, reasons, estimate } = ranked;
  const takes = takesOf(estimate, pace, resolved.material);
  const words = poseInWords(plan.pose);
  return (
    <CardBox $chosen={chosen} aria-label={`Orientation: ${words}`} role="group">
      <PngPicture bytes={ranked.picture} alt={`The part ${words}`} height={92} />
      <strong>{capital(words)}</strong>
      <TakesFigures takes={takes} beside={`${takes.cost.toFixed(2)} ${workshop.currency}`} />
      <ul>
        {reasons.slice(0, MOST_REASONS).map(r => (
          <li key={r}>{r}</li>
        ))}
        {takes.waits > 0.3 * takes.hours ? (
          <li>{formatHours(takes.waits)} of it waiting for layers to cool</li>
        ) : null}
      </ul>
      {chosen ? (
        <Chosen>
          <Check size={16} aria-hidden /> Lies like this
        </Chosen>
      ) : (
        <Button $small isDisabled={!plan.fits} onPress={onLay}>
          Lay it like this
        </Button>
      )}
    </CardBox>
  );
}

const Quiet = styled.p`color: var(--soft); font-size: 14px; margin-top: 8px;`;
const Cards = styled.div<{ $busy: boolean }>`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(168px, 1fr)); gap: 10px; margin-top: 10px; opacity: ${p => (p.$busy ? 0.6 : 1)};
`;
const CardBox = styled.div<{ $chosen: boolean }>`
  display: flex; flex-direction: column; gap: 5px; padding: 8px; border-radius: 5px; font-size: 14px; min-width: 0;
  border: ${p => (p.$chosen ? '2px solid var(--blue)' : '1px solid var(--rule)')}; margin: ${p => (p.$chosen ? 0 : 1)}px;
  ul { list-style: none; margin: 0 0 4px; padding: 0; flex: 1; line-height: 1.25; font-size: 13.5px; }
  li { padding: 1px 0; overflow-wrap: anywhere; }
`;
const Chosen = styled.span`display: inline-flex; align-items: center; gap: 5px; min-height: 32px; color: var(--blue); font-weight: 600;`;
