import styled from 'styled-components';
import { Dialog } from '../ui/controls';
import { FONTS } from '../ui/theme';

const KEYS: [string, string][] = [
  ['0 … 9', 'on Measure: starts a reading of the dimension in turn'],
  ['Enter', 'keeps the reading'],
  ['Backspace', 'in an empty field: takes the last reading back'],
  ['Tab', 'next dimension; after the last one it moves on as usual'],
  ['u', 'millimetres or inches'],
  ['g then b m f s p t k', 'Brief, Measure, Fit, Shape, Print, Try, Keep'],
  ['Ctrl Z · Ctrl Shift Z', 'undo, do again'],
  ['?', 'this list'],
];

export function KeysDialog({ isOpen, onClose }: { isOpen: boolean; onClose(): void }) {
  return (
    <Dialog title="Keys" isOpen={isOpen} onClose={onClose}>
      <List>
        {KEYS.map(([keys, words]) => (
          <div key={keys}>
            <dt>{keys}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </List>
    </Dialog>
  );
}

const List = styled.dl`
  margin: 0;
  div { display: grid; grid-template-columns: 190px 1fr; padding: 7px 0; border-top: 1px solid var(--rule); }
  dt { font: 14px ${FONTS.number}; }
  dd { margin: 0; }
`;
