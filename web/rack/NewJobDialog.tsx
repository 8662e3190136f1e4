import { zodResolver } from '@hookform/resolvers/zod';
import { useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { Form } from 'react-aria-components';
import { useForm, useWatch } from 'react-hook-form';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { z } from 'zod';
import { JobAnswer, JobChange } from '../../contract/jobs';
import { Rack } from '../../contract/rack';
import { WorkshopAnswer } from '../../contract/workshop';
import type { Edit } from '../../core/job/edits';
import { takesFor } from '../../core/scan/find/become';
import { RECIPES, requireRecipe } from '../../core/shape/recipes';
import { get, post } from '../api/client';
import { scanReading } from '../scan/scan-reading';
import { sendScan } from '../scan/send-scan';
import { followEdits, followedBy } from '../scan/take-surface';
import { Button, Dialog, FieldHint, Select } from '../ui/controls';
import { FormField } from '../ui/FormField';
import { Notice, Row, Stack } from '../ui/layout';
import { FromScan, type ScanForJob } from './FromScan';
import { againId, jobOfAgain, RecipePicker } from './RecipePicker';

const LONGEST_NAME = 300;
const long = (text: string) => [...text].length > LONGEST_NAME;

const NewJob = z.object({
  title: z
    .string()
    .refine(text => text.trim() !== '', 'Give the job a name, such as “Vent-port cap”.')
    .refine(text => !long(text), {
      error: issue => `At most ${LONGEST_NAME} characters; this is ${[...String(issue.input)].length}.`,
    }),
  object: z.string().refine(text => !long(text), `At most ${LONGEST_NAME} characters.`),
  recipe: z.string(),
  materialId: z.string(),
});

export default function NewJobDialog({ isOpen, onClose }: { isOpen: boolean; onClose(): void }) {
  const navigate = useNavigate();
  const workshop = useQuery({ queryKey: ['workshop'], queryFn: () => get('/workshop', WorkshopAnswer) });
  const materials = workshop.data?.workshop.materials ?? [];
  const usual = materials[0]?.id ?? '';
  const { control, handleSubmit, setValue, setError, formState } = useForm({
    resolver: zodResolver(NewJob),
    defaultValues: { title: '', object: '', recipe: RECIPES[0]!.id, materialId: '' },
    // A name that grows too long is reported while it is typed, after the first attempt to create the job.
    reValidateMode: 'onChange',
  });
  const { recipe, materialId } = useWatch({ control });
  // The rack was just shown: its data is recent enough.
  const rack = useQuery({ queryKey: ['rack'], queryFn: () => get('/jobs', Rack), staleTime: 60_000 });
  const own = (rack.data?.jobs ?? []).filter(
    job => job.away === 'recipe' || (job.away !== 'removed' && job.marks.at(-1)?.verdict === 'right'),
  );
  const [scan, setScan] = useState<ScanForJob | null>(null);
  const again = own.find(job => againId(job.id) === recipe);
  const setRecipe = useCallback((id: string) => setValue('recipe', id), [setValue]);
  const make = handleSubmit(async wish => {
    try {
      const names = { title: wish.title.trim(), object: wish.object.trim() };
      const from = jobOfAgain(wish.recipe);
      const job = from
        ? await post(`/jobs/${from}/again`, JobAnswer, names)
        : await post('/jobs', JobAnswer, {
            ...names,
            recipe: wish.recipe,
            materialId: wish.materialId || usual || undefined,
          });
      if (scan) await takeScan(job, wish.recipe, scan);
      await navigate(`/jobs/${job.id}/measure${scan ? '?by=scans' : ''}`);
    } catch (failure) {
      setError('root', { message: (failure as Error).message });
    }
  });
  return (
    <Dialog title="New job" isOpen={isOpen} onClose={onClose} width={720}>
      <Form validationBehavior="aria" onSubmit={event => void make(event)}>
        <Stack $gap={14}>
          <Names>
            <FormField
              control={control}
              name="title"
              label="What do you make?"
              placeholder="Vent-port cap"
              autoFocus
            />
            <FormField
              control={control}
              name="object"
              label="For which object?"
              placeholder="hull vent port, junior double"
            />
          </Names>
          <FromScan onScan={setScan} recipe={recipe ?? ''} onRecipe={setRecipe} />
          <RecipePicker value={recipe ?? ''} onChange={id => setValue('recipe', id)} own={own} />
          <Foot>
            <FieldHint>
              {again
                ? `All of “${again.title}” but its readings: shape, wants, additions, what it has to bear.`
                : RECIPES.find(r => r.id === recipe)?.purpose}
            </FieldHint>
            {formState.errors.root ? <Notice level="stop">{formState.errors.root.message}</Notice> : null}
            <Row>
              {materials.length > 0 && !again ? (
                <Select
                  label="Plastic"
                  value={materialId || usual}
                  options={materials.map(m => ({
                    value: m.id,
                    label: m.flexible ? `${m.name}, flexible` : m.name,
                  }))}
                  onChange={id => setValue('materialId', id)}
                />
              ) : null}
              <Button $look="main" type="submit" isDisabled={formState.isSubmitting}>
                Start measuring
              </Button>
              <Button $look="quiet" onPress={onClose}>
                Cancel
              </Button>
            </Row>
          </Foot>
        </Stack>
      </Form>
    </Dialog>
  );
}

/** The scan becomes part of the job, and the sizes that the recipe asks for are read off it. */
async function takeScan(job: JobAnswer, recipe: string, { file, unit, findings }: ScanForJob): Promise<void> {
  const { scan, revision } = await sendScan(job.id, file);
  const send = (revision: number, edit: Edit) => post(`/jobs/${job.id}/edits`, JobChange, { revision, edit });
  let now = revision;
  if (unit !== scan.unit)
    now = (await send(now, { kind: 'scan', scanId: scan.id, change: { unit } })).revision;
  const readings = takesFor(recipe, findings).flatMap(t => {
    const dimension = job.document.dimensions.find(d => d.guide === t.step);
    const finding = findings[t.finding]!;
    return dimension
      ? [{ dimensionId: dimension.id, reading: scanReading(scan.id, finding, finding.sizes[t.size]!) }]
      : [];
  });
  if (readings.length > 0) now = (await send(now, { kind: 'add-readings', readings })).revision;
  const spec = followedBy(requireRecipe(recipe));
  const [made] = job.document.parts;
  if (!spec || !made) return;
  const kept = { ...scan, unit };
  const part = { partId: made.id, spec, lies: 'drawn', turn: 0 };
  for (const edit of await followEdits(job.id, job.document, kept, part))
    now = (await send(now, edit)).revision;
}

const Names = styled.div`display: grid; grid-template-columns: 1fr 1fr; gap: 12px; align-items: start; @media (max-width: 620px) { grid-template-columns: 1fr; }`;
/** Stays visible under the recipes, however many there are. */
const Foot = styled.div`
  position: sticky; bottom: -24px; margin: 0 -24px -24px; padding: 10px 24px 18px; background: var(--sheet); border-top: 1px solid var(--rule);
  display: flex; flex-direction: column; gap: 10px;
  > div { align-items: flex-end; } > div > :first-child:not(button) { flex: 1; }
`;
