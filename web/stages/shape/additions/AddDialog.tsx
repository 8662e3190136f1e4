import styled from 'styled-components';
import { KINDS } from '../../../../core/shape/additions';
import type { AdditionKind, AdditionKindName } from '../../../../core/shape/additions/addition';
import { Dialog } from '../../../ui/controls';
import { FONTS } from '../../../ui/theme';
import { KindPicture } from './KindPicture';

const GROUPS: readonly { title: string; kinds: readonly AdditionKindName[] }[] = [
  { title: 'Put on, or cut in', kinds: ['shape', 'hole', 'slot', 'band', 'thread', 'rib'] },
  {
    title: 'For hands, ties and the way on',
    kinds: ['edges', 'flutes', 'tie', 'lead-in', 'draft', 'keep-clear'],
  },
  { title: 'Words, and the whole part', kinds: ['words', 'other-hand', 'split'] },
];

/** What can be added to any part or cut from it, with pictures. */
export function AddDialog({
  isOpen,
  onClose,
  onChoose,
}: {
  isOpen: boolean;
  onClose(): void;
  onChoose(kind: AdditionKind): void;
}) {
  return (
    <Dialog title="Add to the part" isOpen={isOpen} onClose={onClose} width={760}>
      {GROUPS.map(group => (
        <Section key={group.title}>
          <h3>{group.title}</h3>
          <div>
            {group.kinds.map(name => {
              const kind = KINDS.find(k => k.kind === name)!;
              return (
                <button key={name} type="button" onClick={() => onChoose(kind)}>
                  <KindPicture kind={name} />
                  <span>
                    <b>{kind.title}</b>
                    {kind.purpose}
                  </span>
                </button>
              );
            })}
          </div>
        </Section>
      ))}
    </Dialog>
  );
}

const Section = styled.section`
  margin-top: 10px;
  h3 { font: 600 14px ${FONTS.label}; color: var(--soft); margin: 0 0 5px; }
  > div { display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 7px; }
  button {
    display: grid; grid-template-columns: 58px 1fr; gap: 9px; align-items: center; text-align: left; padding: 8px; cursor: pointer; min-width: 0;
    background: var(--raised); color: var(--ink); border: 1px solid var(--rule); border-radius: 5px; font: 13px/1.25 ${FONTS.text};
  }
  button:hover, button:focus-visible { border-color: var(--blue); background: var(--tint); }
  b { display: block; font: 600 14.5px ${FONTS.label}; }
  @media (max-width: 700px) { > div { grid-template-columns: minmax(0, 1fr); } }
`;
