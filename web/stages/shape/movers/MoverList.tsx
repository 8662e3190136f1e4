import type { ReactNode } from 'react';
import styled from 'styled-components';
import { formatPlain } from '../../../../core/quantity/format';
import type { Mover } from '../../../../core/shape/movers';
import { type Movable, movablesOf } from '../../../../core/work/movable';
import { useBench } from '../../../job/bench-context';
import { Notice, Row } from '../../../ui/layout';

/** Numbers of the part that move something, each with its effect and its actions. */
export function MoverList<M extends Pick<Mover, 'name' | 'disturbs'>>({
  movers,
  untried,
  words,
  actions,
}: {
  movers: readonly M[];
  /** Numbers that were not tried. */
  untried: number;
  /** What it moves, and how far. */
  words(mover: M, of: Movable): string;
  actions(mover: M, of: Movable): ReactNode;
}) {
  const { resolved } = useBench('resolved');
  const movables = movablesOf(resolved);
  return (
    <>
      {movers.length === 0 ? (
        <Notice level="note">
          No number moves this place. An addition could: a boss, a cut, a rib right there.
        </Notice>
      ) : (
        <List>
          {movers.map(mover => {
            const of = movables.find(m => m.name === mover.name);
            // It was found before the part changed.
            if (!of) return null;
            return (
              <li key={mover.name}>
                <div>
                  <b>{of.label}</b> {of.carriesMate ? <span className="number">{sizeOf(of)}</span> : null}
                  <p>
                    {words(mover, of)} {disturbWords(mover, resolved.recipe.mates)}
                  </p>
                </div>
                <Row $gap={6} $wrap>
                  {actions(mover, of)}
                </Row>
              </li>
            );
          })}
        </List>
      )}
      {untried > 0 ? (
        <p className="soft">
          This part takes long to build: {untried} {untried === 1 ? 'number was' : 'numbers were'} not tried.
        </p>
      ) : null}
    </>
  );
}

/** The label of the button that changes one. */
export const makeWords = ({ now, isAngle, carriesMate }: Movable, to: number): string =>
  carriesMate
    ? `Make it ${formatPlain(to, 2)}${isAngle ? '°' : ' mm'}`
    : `Move it ${formatPlain(Math.abs(to - now), 2)} mm ${to > now ? 'out' : 'in'}`;

const sizeOf = ({ now, isAngle }: Movable): string => `${formatPlain(now, 2)}${isAngle ? '°' : ' mm'}`;

function disturbWords(
  { disturbs }: Pick<Mover, 'disturbs'>,
  mates: readonly { id: string; name: string }[],
): string {
  if (disturbs.length === 0) return 'Nothing that must fit changes.';
  const names = disturbs.map(id => `“${mates.find(m => m.id === id)?.name ?? id}”`);
  return `It changes ${names.join(' and ')}.`;
}

const List = styled.ul`
  list-style: none; margin: 8px 0 0; padding: 0;
  li { display: flex; justify-content: space-between; align-items: center; gap: 14px; flex-wrap: wrap; padding: 8px 0; border-top: 1px solid var(--rule); }
  li > div:first-child { flex: 1 1 320px; } p { margin: 2px 0 0; font-size: 14px; color: var(--soft); }
`;
