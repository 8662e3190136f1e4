import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { formatPlain } from '../../../../core/quantity/format';
import type { Press } from '../../../../core/shape/additions/pressed';
import type { Mover } from '../../../../core/shape/movers';
import { useBench } from '../../../job/bench-context';
import { IconButton } from '../../../ui/controls';
import { Loading, Notice, Panel, Row } from '../../../ui/layout';
import { useMovers } from './use-movers';

interface Props {
  press: Press;
  title: string;
  onClose(): void;
  /** Above the list. */
  children?: ReactNode;
  /** What can be done with one of the numbers. */
  actions(mover: Mover): ReactNode;
}

/** The numbers that move the place that was pressed, the most local first. */
export function MoversPanel({ press, title, onClose, children, actions }: Props) {
  const { resolved } = useBench('resolved');
  const moved = useMovers(press);
  return (
    <Panel aria-label={title}>
      <Row $between>
        <h2>{title}</h2>
        <IconButton aria-label="Close" onPress={onClose}>
          <X size={18} />
        </IconButton>
      </Row>
      {children}
      {moved === null ? (
        <Loading what="Trying every number" />
      ) : moved instanceof Error ? (
        <Notice level="stop">{moved.message}</Notice>
      ) : moved.movers.length === 0 ? (
        <Notice level="note">
          No number moves this place. An addition could: a boss, a cut, a rib right there.
        </Notice>
      ) : (
        <List>
          {moved.movers.map(mover => (
            <li key={mover.name}>
              <div>
                <b>{labelOf(resolved.recipe.parameters, mover.name)}</b>{' '}
                <span className="number">{sizeOf(resolved, mover.name)}</span>
                <p>
                  {rateWords(mover, isAngleOf(resolved.recipe.parameters, mover.name))}{' '}
                  {disturbWords(mover, resolved.recipe.mates)}
                </p>
              </div>
              <Row $gap={6} $wrap>
                {actions(mover)}
              </Row>
            </li>
          ))}
        </List>
      )}
      {moved && !(moved instanceof Error) && moved.untried > 0 ? (
        <p className="soft">
          This part takes long to build: {moved.untried} {moved.untried === 1 ? 'number was' : 'numbers were'}{' '}
          not tried.
        </p>
      ) : null}
    </Panel>
  );
}

type Specs = ReturnType<typeof useBench<'resolved'>>['resolved']['recipe']['parameters'];

export const labelOf = (specs: Specs, name: string): string =>
  specs.find(s => s.name === name)?.label ?? name;

export const isAngleOf = (specs: Specs, name: string): boolean => {
  const spec = specs.find(s => s.name === name);
  return spec?.kind === 'length' && spec.measure === 'angle';
};

function sizeOf(
  { recipe, parameters }: Pick<ReturnType<typeof useBench<'resolved'>>['resolved'], 'recipe' | 'parameters'>,
  name: string,
): string {
  const value = parameters[name];
  if (typeof value !== 'number') return '';
  return `${formatPlain(value, 2)}${isAngleOf(recipe.parameters, name) ? '°' : ' mm'}`;
}

function rateWords({ rate, share }: Mover, angle: boolean): string {
  const by = `${formatPlain(Math.abs(rate), 2)} mm ${rate > 0 ? 'out' : 'in'}`;
  const rest =
    share > 0.6 ? 'and most of the part with it' : share > 0.2 ? 'and more of the part with it' : '';
  return `${angle ? 'One degree' : 'One mm'} more moves it ${by}${rest ? `, ${rest}` : ''}.`;
}

function disturbWords({ disturbs }: Mover, mates: readonly { id: string; name: string }[]): string {
  if (disturbs.length === 0) return 'Nothing that must fit changes.';
  const names = disturbs.map(id => `“${mates.find(m => m.id === id)?.name ?? id}”`);
  return `It changes ${names.join(' and ')}.`;
}

const List = styled.ul`
  list-style: none; margin: 8px 0 0; padding: 0;
  li { display: flex; justify-content: space-between; align-items: center; gap: 14px; flex-wrap: wrap; padding: 8px 0; border-top: 1px solid var(--rule); }
  li > div:first-child { flex: 1 1 320px; } p { margin: 2px 0 0; font-size: 14px; color: var(--soft); }
`;
