import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, useWatch } from 'react-hook-form';
import { z } from 'zod';
import type { Part } from '../../core/job/document';
import { requireRecipe } from '../../core/shape/recipes';
import { RecipePicker } from '../rack/RecipePicker';
import { Button, Checkbox, Dialog } from '../ui/controls';
import { FormField } from '../ui/FormField';
import { Row, Stack } from '../ui/layout';
import { useBench } from './bench-context';

const NewPart = z.object({
  name: z.string().max(120, 'At most 120 characters.'),
  recipe: z.string(),
  share: z.boolean(),
});

/** Adds a part to this job: a lid for the tray, the other half, a plug of another size. */
export default function AddPartDialog({ onClose }: { onClose(): void }) {
  const { resolved, edit, setPart, document } = useBench('resolved', 'edit', 'setPart', 'document');
  const { control, handleSubmit, setValue } = useForm({
    resolver: zodResolver(NewPart),
    defaultValues: { name: '', recipe: resolved.part.recipe, share: true },
  });
  const { recipe = resolved.part.recipe, share = true } = useWatch({ control });
  const usual = `${requireRecipe(recipe).title} ${document.parts.length + 1}`;
  const sameDimensions = requireRecipe(recipe).guide.some(s =>
    document.dimensions.some(d => d.guide === s.key),
  );
  const add = handleSubmit(async wish => {
    const id = freePartId(document.parts);
    const name = wish.name.trim() || usual;
    if (!(await edit({ ...wish, kind: 'add-part', id, name }))) return;
    onClose();
    setPart(id);
  });
  return (
    <Dialog title="Add a part" isOpen onClose={onClose} width={720}>
      <form onSubmit={event => void add(event)}>
        <Stack $gap={12}>
          <FormField control={control} name="name" label="Its name" placeholder={usual} />
          <RecipePicker value={recipe} onChange={id => setValue('recipe', id)} />
          {sameDimensions ? (
            <Checkbox isSelected={share} onChange={on => setValue('share', on)}>
              It goes on the same object: what is measured already holds for it too
            </Checkbox>
          ) : null}
          <Row>
            <Button $look="main" type="submit">
              Add it
            </Button>
            <Button onPress={onClose}>Leave it</Button>
          </Row>
        </Stack>
      </form>
    </Dialog>
  );
}

export function freePartId(parts: readonly Part[]): string {
  for (let n = parts.length + 1; ; n++) if (!parts.some(p => p.id === `part-${n}`)) return `part-${n}`;
}
