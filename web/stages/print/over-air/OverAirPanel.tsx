import { lazy, Suspense, useMemo, useState } from 'react';
import styled from 'styled-components';
import { rulesOf } from '../../../../core/print/of-printer';
import type { Remedy } from '../../../../core/print/over-air/remedies';
import { saysOf, titleOf } from '../../../../core/print/over-air/words';
import { formatPlain } from '../../../../core/quantity/format';
import { useBench } from '../../../job/bench-context';
import { Button } from '../../../ui/controls';
import { Loading, Panel, Row } from '../../../ui/layout';
import type { ShownHang } from '../../../workers/solid-protocol';
import { useAttempt } from '../use-attempt';
import { useOverAir } from './use-over-air';

const SolidView = lazy(() => import('../../../solid/SolidView'));

/** Rows that are shown before all are asked for. */
const FIRST = 3;

/** What hangs over air in the part's pose, in a list and in colour on the part, each with its remedy. */
export function OverAirPanel() {
  const found = useOverAir();
  const [shows, setShows] = useState(false);
  const [all, setAll] = useState(false);
  const hangs = found && !(found instanceof Error) ? found.hangs : [];
  const places = useMemo(
    () => hangs.map(({ at, patch, kind }, i) => ({ number: i + 1, at, patch, quiet: kind === 'bridge' })),
    [hangs],
  );
  if (found === null)
    return (
      <Panel>
        <h2>What hangs over air</h2>
        <Quiet role="status">Looking under it…</Quiet>
      </Panel>
    );
  // The checks report what keeps the part from being built.
  if (found instanceof Error) return null;
  const asking = hangs.filter(h => h.kind !== 'bridge');
  const rows = all ? hangs : hangs.slice(0, FIRST);
  return (
    <Panel>
      <Row $between $wrap>
        <h2>What hangs over air</h2>
        {hangs.length > 0 ? (
          <Button $small aria-expanded={shows} onPress={() => setShows(!shows)}>
            {shows ? 'Close the solid' : 'Show it on the solid'}
          </Button>
        ) : null}
      </Row>
      <Quiet>{summaryOf(hangs)}</Quiet>
      {shows ? (
        <View>
          <Suspense fallback={<Loading what="Opening the view" />}>
            <SolidView solid={found.solid} lit={null} busy={false} numbered={places} from="underCorner" />
          </Suspense>
        </View>
      ) : null}
      {hangs.length > 0 ? (
        <List>
          {rows.map((hang, i) => (
            <HangRow key={i} number={i + 1} hang={hang} remedy={found.remedies[i] ?? null} />
          ))}
        </List>
      ) : null}
      {hangs.length > rows.length ? (
        <Button $small $look="quiet" onPress={() => setAll(true)}>
          {hangs.length - rows.length} more
        </Button>
      ) : null}
      {found.trying ? <Quiet role="status">Trying what would do without supports…</Quiet> : null}
      {asking.length > 0 && !found.trying && Object.keys(found.remedies).length === 0 ? (
        <Quiet>
          No chamfer, pointed hole or cut does without these supports: lay the part another way, or let the
          slicing program set them.
        </Quiet>
      ) : null}
    </Panel>
  );
}

function summaryOf(hangs: readonly ShownHang[]): string {
  const asking = hangs.filter(h => h.kind !== 'bridge');
  const area = asking.reduce((sum, h) => sum + h.area, 0);
  const volume = asking.reduce((sum, h) => sum + h.volume, 0);
  if (area > 0)
    return `Supports under ${formatPlain(area / 100, 2)} cm², ${formatPlain(volume / 1000, 1)} cm³ of room under them.`;
  if (asking.length > 0) return 'A tip begins in the air: it needs a support of its own.';
  return hangs.length > 0
    ? 'Needs no supports: what hangs over air spans freely.'
    : 'Needs no supports, and has nothing to bridge.';
}

function HangRow({ number, hang, remedy }: { number: number; hang: ShownHang; remedy: Remedy | null }) {
  const { resolved } = useBench('resolved');
  const { recipe, printer, ledger } = resolved;
  const nameOf = (surface: string) =>
    ledger.mates.find(m => m.mate.ours.surface === surface)?.mate.name ??
    recipe.mates.find(m => m.id === surface)?.name ??
    surface;
  const mend = useAttempt();
  return (
    <li>
      <Badge $quiet={hang.kind === 'bridge'}>{number}</Badge>
      <div>
        <strong>{titleOf(hang)}</strong>
        <span className="soft"> {saysOf(hang, rulesOf(printer))}</span>
        {hang.mates.length > 0 && hang.kind !== 'bridge' ? (
          <em>
            {' '}
            Supports would stand on {hang.mates.map(m => `“${nameOf(m)}”`).join(', ')}: it comes out rough
            there, and no longer as read.
          </em>
        ) : null}
      </div>
      {remedy ? (
        <Button $small onPress={() => void mend(remedy)}>
          {remedy.label}
        </Button>
      ) : null}
    </li>
  );
}

const Quiet = styled.p`color: var(--soft); font-size: 14px; margin-top: 6px;`;
const View = styled.div`height: 340px; margin-top: 10px; border: 1px solid var(--rule); border-radius: 6px;`;
const List = styled.ol`
  list-style: none; margin: 8px 0 0; padding: 0; font-size: 14px;
  li { display: grid; grid-template-columns: 24px minmax(0, 1fr) auto; gap: 10px; align-items: start; padding: 6px 0; border-top: 1px solid var(--rule); }
  em { font-style: normal; color: var(--danger); }
`;
const Badge = styled.span<{ $quiet: boolean }>`
  display: grid; place-items: center; width: 22px; height: 22px; border-radius: 50%; font-size: 13px; font-weight: 600;
  color: var(--sheet); background: var(--${p => (p.$quiet ? 'soft' : 'danger')});
`;
