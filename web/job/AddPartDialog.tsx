import { useState } from 'react';
import type { Part } from '../../core/job/document';
import { requireRecipe } from '../../core/shape/recipes';
import { RecipePicker } from '../rack/RecipePicker';
import { Button, Checkbox, Dialog, TextField } from '../ui/controls';
import { Row, Stack } from '../ui/layout';
import { useBench } from './bench-context';

/** One part more in this job: a lid for the tray, the other half, a plug of another size. */
export default function AddPartDialog({ onClose }: { onClose(): void }) {
  const { resolved, edit, setPart, document } = useBench('resolved', 'edit', 'setPart', 'document');
  const [recipe, setRecipe] = useState(resolved.part.recipe);
  const [name, setName] = useState('');
  const [share, setShare] = useState(true);
  const { title } = requireRecipe(recipe);
  const shown = name.trim() || `${title} ${document.parts.length + 1}`;
  const problem = shown.length > 120 ? 'At most 120 characters.' : undefined;
  const sameDimensions = requireRecipe(recipe).guide.some(s =>
    document.dimensions.some(d => d.guide === s.key),
  );
  const add = async () => {
    if (problem) return;
    const id = freeId(document.parts);
    if (!(await edit({ kind: 'add-part', id, name: shown, recipe, share }))) return;
    onClose();
    setPart(id);
  };
  return (
    <Dialog title="Add a part" isOpen onClose={onClose} width={720}>
      <Stack $gap={12}>
        <TextField
          label="Its name"
          placeholder={`${title} ${document.parts.length + 1}`}
          value={name}
          onChange={setName}
          problem={problem}
        />
        <RecipePicker value={recipe} onChange={setRecipe} />
        {sameDimensions ? (
          <Checkbox isSelected={share} onChange={setShare}>
            It goes on the same object: what is measured already holds for it too
          </Checkbox>
        ) : null}
        <Row>
          <Button $look="main" onPress={() => void add()}>
            Add it
          </Button>
          <Button onPress={onClose}>Leave it</Button>
        </Row>
      </Stack>
    </Dialog>
  );
}

function freeId(parts: readonly Part[]): string {
  for (let n = parts.length + 1; ; n++) if (!parts.some(p => p.id === `part-${n}`)) return `part-${n}`;
}
