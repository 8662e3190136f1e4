import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { formatPlain } from '../../../../core/quantity/format';
import type { Press } from '../../../../core/shape/additions/pressed';
import type { Mover } from '../../../../core/shape/movers';
import type { Movable } from '../../../../core/work/movable';
import { moversOf } from '../../../solid/movers';
import { IconButton } from '../../../ui/controls';
import { Loading, Notice, Panel, Row } from '../../../ui/layout';
import { MoverList } from './MoverList';
import { useFoundOut } from './use-found-out';

interface Props {
  press: Press;
  title: string;
  onClose(): void;
  /** Above the list. */
  children?: ReactNode;
  /** What can be done with one of the numbers. */
  actions(mover: Mover, of: Movable): ReactNode;
}

/** The numbers that move the pressed place, the most local first. */
export function MoversPanel({ press, title, onClose, children, actions }: Props) {
  const moved = useFoundOut(press, (work, partId) => moversOf(work, partId, press));
  return (
    <PressedPanel title={title} onClose={onClose} about={children}>
      {moved === null ? (
        <Loading what="Trying every number" />
      ) : moved instanceof Error ? (
        <Notice level="stop">{moved.message}</Notice>
      ) : (
        <MoverList movers={moved.movers} untried={moved.untried} words={rateWords} actions={actions} />
      )}
    </PressedPanel>
  );
}

/** The findings at a pressed place, with a key that closes them. */
export function PressedPanel({
  title,
  onClose,
  about,
  children,
}: {
  title: string;
  onClose(): void;
  about?: ReactNode;
  children: ReactNode;
}) {
  return (
    <Panel aria-label={title}>
      <Row $between>
        <h2>{title}</h2>
        <IconButton aria-label="Close" onPress={onClose}>
          <X size={18} />
        </IconButton>
      </Row>
      {about}
      {children}
    </Panel>
  );
}

function rateWords({ rate, share }: Mover, { isAngle, carriesMate }: Movable): string {
  const by = `${formatPlain(Math.abs(rate), 2)} mm ${rate > 0 ? 'out' : 'in'}`;
  const rest =
    share > 0.6 ? 'and most of the part with it' : share > 0.2 ? 'and more of the part with it' : '';
  if (!carriesMate) return `Moved out by one mm, it moves the place ${by}${rest ? `, ${rest}` : ''}.`;
  return `${isAngle ? 'One degree' : 'One mm'} more moves it ${by}${rest ? `, ${rest}` : ''}.`;
}
