import { Plus, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { Button, IconButton } from '../ui/controls';
import { Row } from '../ui/layout';

/** The heading of a list of the workshop, with the key that adds to it. */
export function ListHead({ title, onAdd }: { title: string; onAdd(): void }) {
  return (
    <Row $between style={{ marginBottom: 6 }}>
      <h2>{title}</h2>
      <Button $small onPress={onAdd} aria-label={`Add to ${title.toLowerCase()}`}>
        <Plus size={15} /> Add
      </Button>
    </Row>
  );
}

/** Removes one of them; the last one stays. */
export function Remove({ name, last, onRemove }: { name: string; last: boolean; onRemove(): void }) {
  return (
    <IconButton aria-label={`Remove ${name}`} isDisabled={last} onPress={onRemove}>
      <Trash2 size={16} />
    </IconButton>
  );
}

export const Grid = styled.div`display: grid; grid-template-columns: repeat(auto-fit, minmax(190px, 1fr)); gap: 12px; align-items: end;`;
export const Item = styled.div`
  display: grid; grid-template-columns: minmax(150px, 1.5fr) repeat(auto-fit, minmax(96px, 1fr)); gap: 10px; padding: 8px 0; border-top: 1px solid var(--rule); align-items: start;
`;
/** Beside fields, level with their boxes. */
export const Tail = styled.div`padding-top: 25px;`;
