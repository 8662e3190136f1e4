import { useState } from 'react';
import styled from 'styled-components';
import { candidatesFor, suggestedTakes } from '../../core/job/change-recipe';
import { requireRecipe } from '../../core/shape/recipes';
import { RecipePicker } from '../rack/RecipePicker';
import { Button, Dialog, Select } from '../ui/controls';
import { Row, Stack } from '../ui/layout';
import { useBench } from './bench-context';

/** The same object, another shape: readings are carried over, size by size. */
export default function ChangeRecipeDialog({ onClose }: { onClose(): void }) {
  const { resolved, document, edit, say } = useBench('resolved', 'document', 'edit', 'say');
  const { part } = resolved;
  const [recipeId, setRecipeId] = useState(part.recipe);
  const [own, setOwn] = useState<Record<string, string>>({});
  const recipe = requireRecipe(recipeId);
  const suggested =
    recipeId === part.recipe
      ? {}
      : suggestedTakes(document, part, recipe, id => resolved.dimensions.get(id)?.evaluation?.value);
  const rows = recipe.guide.flatMap(step => {
    const found = candidatesFor(step, document);
    return found.length > 0 ? [{ step, found }] : [];
  });
  const chosen = (key: string) => own[key] ?? suggested[key] ?? '';
  const twice = rows.find(
    ({ step }) =>
      chosen(step.key) !== '' &&
      rows.some(r => r.step.key !== step.key && chosen(r.step.key) === chosen(step.key)),
  );
  const change = async () => {
    const takes = Object.fromEntries(
      rows.flatMap(({ step }) => (chosen(step.key) === '' ? [] : [[step.key, chosen(step.key)]])),
    );
    const prefix = `r${Date.now().toString(36)}`;
    if (!(await edit({ kind: 'change-recipe', partId: part.id, recipe: recipeId, takes, prefix }))) return;
    say(`It is a ${recipe.title.toLowerCase()} now. What was read stayed; undo brings the old shape back.`);
    onClose();
  };
  return (
    <Dialog title="Same object, another shape" isOpen onClose={onClose} width={760}>
      <Stack $gap={12}>
        <RecipePicker
          value={recipeId}
          onChange={id => {
            setRecipeId(id);
            setOwn({});
          }}
        />
        {recipeId === part.recipe ? (
          <p className="soft">This is the shape it has now: choose another.</p>
        ) : rows.length === 0 ? (
          <p className="soft">Nothing that was read serves this shape: its sizes are measured again.</p>
        ) : (
          <div>
            <h3>What was read already</h3>
            <Takes>
              {rows.map(({ step, found }) => (
                <Select
                  key={step.key}
                  label={step.label}
                  value={chosen(step.key)}
                  options={[
                    { value: '', label: 'measure it again' },
                    ...found.map(d => ({ value: d.id, label: `from “${d.label}”` })),
                  ]}
                  onChange={value => setOwn({ ...own, [step.key]: value })}
                />
              ))}
            </Takes>
            {twice ? (
              <p role="alert">One reading can stand for one size only: choose another for one of the two.</p>
            ) : null}
          </div>
        )}
        <p className="soft" style={{ fontSize: 14 }}>
          The brief, loads, what stands around and additions stay. A surface that goes on the same size keeps
          how it should fit, and what tries taught.
        </p>
        <Foot>
          <Button
            $look="main"
            isDisabled={recipeId === part.recipe || twice !== undefined}
            onPress={() => void change()}
          >
            Change the shape
          </Button>
          <Button onPress={onClose}>Leave it</Button>
        </Foot>
      </Stack>
    </Dialog>
  );
}

const Takes = styled.div`
  display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 8px 14px; margin-top: 6px;
  @media (max-width: 620px) { grid-template-columns: minmax(0, 1fr); }
`;
const Foot = styled(Row)`
  position: sticky; bottom: -24px; margin: 0 -24px -24px; padding: 10px 24px 18px; background: var(--sheet); border-top: 1px solid var(--rule);
`;
