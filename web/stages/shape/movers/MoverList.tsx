import type { ReactNode } from 'react';
import styled from 'styled-components';
import { formatPlain } from '../../../../core/quantity/format';
import type { Mover } from '../../../../core/shape/movers';
import { isAngleOf } from '../../../../core/shape/own-mates';
import { useBench } from '../../../job/bench-context';
import { Notice, Row } from '../../../ui/layout';

/** Numbers of the part that move something, each with what it does and what can be done with it. */
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
  words(mover: M, angle: boolean): string;
  actions(mover: M): ReactNode;
}) {
  const { resolved } = useBench('resolved');
  const { parameters: specs, mates } = resolved.recipe;
  return (
    <>
      {movers.length === 0 ? (
        <Notice level="note">
          No number moves this place. An addition could: a boss, a cut, a rib right there.
        </Notice>
      ) : (
        <List>
          {movers.map(mover => (
            <li key={mover.name}>
              <div>
                <b>{labelOf(specs, mover.name)}</b>{' '}
                <span className="number">{sizeOf(resolved, mover.name)}</span>
                <p>
                  {words(mover, isAngleOf(specs, mover.name))} {disturbWords(mover, mates)}
                </p>
              </div>
              <Row $gap={6} $wrap>
                {actions(mover)}
              </Row>
            </li>
          ))}
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

type Resolved = ReturnType<typeof useBench<'resolved'>>['resolved'];
type Specs = Resolved['recipe']['parameters'];

export const labelOf = (specs: Specs, name: string): string =>
  specs.find(s => s.name === name)?.label ?? name;

function sizeOf({ recipe, parameters }: Pick<Resolved, 'recipe' | 'parameters'>, name: string): string {
  const value = parameters[name];
  if (typeof value !== 'number') return '';
  return `${formatPlain(value, 2)}${isAngleOf(recipe.parameters, name) ? '°' : ' mm'}`;
}

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
