import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Form } from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { JobAnswer } from '../../contract/jobs';
import { WorkshopAnswer } from '../../contract/workshop';
import { RECIPES } from '../../core/shape/recipes';
import { get, post } from '../api/client';
import { Button, Dialog, FieldHint, Select, TextField } from '../ui/controls';
import { Notice, Row, Stack } from '../ui/layout';
import { RecipePicker } from './RecipePicker';

const LONGEST_NAME = 300;

export default function NewJobDialog({ isOpen, onClose }: { isOpen: boolean; onClose(): void }) {
  const navigate = useNavigate();
  const workshop = useQuery({ queryKey: ['workshop'], queryFn: () => get('/workshop', WorkshopAnswer) });
  const materials = workshop.data?.workshop.materials ?? [];
  const [title, setTitle] = useState('');
  const [object, setObject] = useState('');
  const [recipe, setRecipe] = useState(RECIPES[0]!.id);
  const [materialId, setMaterial] = useState<string | null>(null);
  const [asked, setAsked] = useState(false);
  const [error, setError] = useState<Error | null>(null);
  const [busy, setBusy] = useState(false);
  const problem =
    title.trim() === ''
      ? 'Give the job a name, such as “Vent-port cap”.'
      : [...title].length > LONGEST_NAME
        ? `At most ${LONGEST_NAME} characters; this is ${[...title].length}.`
        : undefined;
  const make = async () => {
    setAsked(true);
    if (problem) return;
    setBusy(true);
    try {
      const job = await post('/jobs', JobAnswer, {
        title: title.trim(),
        object: object.trim(),
        recipe,
        materialId: materialId ?? materials[0]?.id,
      });
      void navigate(`/jobs/${job.id}/measure`);
    } catch (failure) {
      setError(failure as Error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Dialog title="New job" isOpen={isOpen} onClose={onClose} width={720}>
      <Form
        validationBehavior="aria"
        onSubmit={event => {
          event.preventDefault();
          void make();
        }}
      >
        <Stack $gap={14}>
          <Names>
            <TextField
              label="What do you make?"
              placeholder="Vent-port cap"
              value={title}
              onChange={setTitle}
              problem={asked || [...title].length > LONGEST_NAME ? problem : undefined}
              autoFocus
            />
            <TextField
              label="For which object?"
              placeholder="hull vent port, junior double"
              value={object}
              onChange={setObject}
            />
          </Names>
          <div>
            <RecipePicker value={recipe} onChange={setRecipe} />
            <FieldHint>{RECIPES.find(r => r.id === recipe)?.purpose}</FieldHint>
          </div>
          {materials.length > 0 ? (
            <Select
              label="Plastic"
              value={materialId ?? materials[0]!.id}
              options={materials.map(m => ({
                value: m.id,
                label: m.flexible ? `${m.name}, flexible` : m.name,
              }))}
              onChange={setMaterial}
            />
          ) : null}
          {error ? <Notice level="stop">{error.message}</Notice> : null}
          <Row>
            <Button $look="main" type="submit" isDisabled={busy}>
              Start measuring
            </Button>
            <Button $look="quiet" onPress={onClose}>
              Cancel
            </Button>
          </Row>
        </Stack>
      </Form>
    </Dialog>
  );
}

const Names = styled.div`display: grid; grid-template-columns: 1fr 1fr; gap: 12px; align-items: start; @media (max-width: 620px) { grid-template-columns: 1fr; }`;
