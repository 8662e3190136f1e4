import { zodResolver } from '@hookform/resolvers/zod';
import { Pencil, Plus, Shapes, Trash2 } from 'lucide-react';
import { lazy, memo, Suspense, useState } from 'react';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import { useForm } from 'react-hook-form';
import styled from 'styled-components';
import { z } from 'zod';
import { Button, Dialog, Hinted, IconButton } from '../ui/controls';
import { FormField } from '../ui/FormField';
import { Row, Stack } from '../ui/layout';
import { FONTS } from '../ui/theme';
import { useBench } from './bench-context';

const AddPartDialog = lazy(() => import('./AddPartDialog'));
const ChangeRecipeDialog = lazy(() => import('./ChangeRecipeDialog'));

/** The part that is being worked on. With one part there is nothing to choose: only Shape offers to add one. */
export const PartBar = memo(function PartBar({ onShape }: { onShape: boolean }) {
  const { document, resolved, setPart, edit } = useBench('document', 'resolved', 'setPart', 'edit');
  const [adding, setAdding] = useState(false);
  const [naming, setNaming] = useState(false);
  const [reshaping, setReshaping] = useState(false);
  const { parts } = document;
  const { part } = resolved;
  if (parts.length === 1 && !onShape) return null;
  const remove = async () => {
    const next = parts.find(p => p.id !== part.id)!;
    if (await edit({ kind: 'remove-part', partId: part.id })) setPart(next.id);
  };
  return (
    <Bar>
      {parts.length > 1 ? (
        <Tabs
          aria-label="Part"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[part.id]}
          onSelectionChange={keys => setPart(String([...keys][0]))}
        >
          {parts.map(p => (
            <ToggleButton key={p.id} id={p.id}>
              {p.name}
            </ToggleButton>
          ))}
        </Tabs>
      ) : null}
      {onShape ? (
        <Tools>
          {parts.length > 1 ? (
            <>
              <Hinted hint="Rename it">
                <IconButton aria-label={`Rename ${part.name}`} onPress={() => setNaming(true)}>
                  <Pencil size={16} />
                </IconButton>
              </Hinted>
              <Hinted hint="Remove this part; undo brings it back">
                <IconButton aria-label={`Remove ${part.name}`} onPress={() => void remove()}>
                  <Trash2 size={16} />
                </IconButton>
              </Hinted>
            </>
          ) : null}
          <Button $small $look="quiet" onPress={() => setReshaping(true)}>
            <Shapes size={15} /> Another shape
          </Button>
          <Button $small $look="quiet" onPress={() => setAdding(true)} isDisabled={parts.length >= 20}>
            <Plus size={15} /> Add a part
          </Button>
        </Tools>
      ) : null}
      {adding ? (
        <Suspense fallback={null}>
          <AddPartDialog onClose={() => setAdding(false)} />
        </Suspense>
      ) : null}
      {reshaping ? (
        <Suspense fallback={null}>
          <ChangeRecipeDialog onClose={() => setReshaping(false)} />
        </Suspense>
      ) : null}
      {naming ? <RenameDialog onClose={() => setNaming(false)} /> : null}
    </Bar>
  );
});

const Naming = z.object({
  name: z.string().trim().min(1, 'Give it a name.').max(120, 'At most 120 characters.'),
});

function RenameDialog({ onClose }: { onClose(): void }) {
  const { resolved, edit } = useBench('resolved', 'edit');
  const { control, handleSubmit } = useForm({
    resolver: zodResolver(Naming),
    defaultValues: { name: resolved.part.name },
    mode: 'onChange',
  });
  const keep = handleSubmit(async ({ name }) => {
    if (await edit({ kind: 'rename-part', partId: resolved.part.id, name })) onClose();
  });
  return (
    <Dialog title="The part’s name" isOpen onClose={onClose}>
      <form onSubmit={event => void keep(event)}>
        <Stack $gap={12}>
          <FormField control={control} name="name" label="Name" />
          <Row>
            <Button $look="main" type="submit">
              Keep it
            </Button>
            <Button onPress={onClose}>Leave it</Button>
          </Row>
        </Stack>
      </form>
    </Dialog>
  );
}

const Bar = styled.div`display: flex; align-items: center; gap: 10px; margin: -6px 0 8px; min-height: 30px; flex-wrap: wrap;`;
const Tools = styled.div`display: flex; align-items: center; gap: 4px; margin-left: auto;`;
const Tabs = styled(ToggleButtonGroup)`
  display: flex; flex-wrap: wrap; gap: 6px; min-width: 0;
  button {
    max-width: 240px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; cursor: pointer;
    font: 600 14.5px ${FONTS.label}; padding: 5px 13px; border: 1px solid var(--rule); border-radius: 4px; background: var(--raised); color: var(--ink);
  }
  button[data-selected] { background: var(--blue); color: var(--on-blue); border-color: var(--blue); }
`;
