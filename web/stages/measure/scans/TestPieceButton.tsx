import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { Form } from 'react-aria-components';
import { useForm, useWatch } from 'react-hook-form';
import { ulid } from 'ulid';
import { z } from 'zod';
import type { Scan, ScanPiece } from '../../../../core/job/scans';
import { useBench } from '../../../job/bench-context';
import type { OpenScan } from '../../../scan/use-scan';
import { Button, Dialog, Select } from '../../../ui/controls';
import { FormField } from '../../../ui/FormField';
import { Notice, Row, Stack } from '../../../ui/layout';
import { saveFile } from '../../../ui/save-file';
import type { ShownSection } from '../../../workers/scan-protocol';

interface Props {
  scan: Scan;
  profile: NonNullable<ShownSection['profile']>;
  /** Where it was cut, in words. */
  where: string;
  ask: OpenScan['ask'];
}

const Wish = z.object({
  form: z.enum(['plate', 'frame']),
  clearance: z
    .string()
    .refine(
      text => Number(text.replace(',', '.')) >= 0 && Number(text.replace(',', '.')) <= 3,
      'From 0 to 3 mm, across the whole width.',
    ),
});

/** The section, thin, as a file for the printer: tried on the object it shows what the scan is worth. */
export function TestPieceButton({ scan, profile, where, ask }: Props) {
  const { edit, say } = useBench('edit', 'say');
  const [isOpen, setOpen] = useState(false);
  const { control, handleSubmit, setValue, setError, formState } = useForm({
    resolver: zodResolver(Wish),
    defaultValues: { form: 'plate' as ScanPiece['form'], clearance: '0.3' },
  });
  const { form } = useWatch({ control });
  const make = handleSubmit(async wish => {
    const clearance = Number(wish.clearance.replace(',', '.'));
    const nth = (scan.pieces?.length ?? 0) + 1;
    const title = `${scan.label}, test piece ${nth}`;
    const reply = await ask(api =>
      api.testPiece({ outline: profile.outline, title, form: wish.form, clearance }),
    );
    if (!reply) return;
    if (!reply.ok) return setError('root', { message: reply.message });
    const factor = scan.trust?.factor ?? 1;
    const piece: ScanPiece = {
      id: ulid(),
      at: new Date().toISOString(),
      where,
      form: wish.form,
      // The scan's settled scale may change later: stored as scanned.
      across: [profile.width / factor, profile.depth / factor],
      clearance,
    };
    const pieces = [...(scan.pieces ?? []), piece];
    if (!(await edit({ kind: 'scan', scanId: scan.id, change: { pieces } }))) return;
    saveFile(`${title}.3mf`, reply.file, 'model/3mf');
    setOpen(false);
    say('Print it, lay it on the object, and say beside the scan how it lay.');
  });
  return (
    <>
      <Button $small onPress={() => setOpen(true)}>
        Test piece, 2 mm thick
      </Button>
      <Dialog title="A test piece of this section" isOpen={isOpen} onClose={() => setOpen(false)} width={460}>
        <Form validationBehavior="aria" onSubmit={event => void make(event)}>
          <Stack $gap={14}>
            <p className="soft">
              A thin print of the section, laid on the object: it tells whether the scan is as large as the
              object and where it is off, before a day goes into a part.
            </p>
            <Select<ScanPiece['form']>
              label="It is"
              value={form ?? 'plate'}
              options={[
                { value: 'plate', label: 'a plate that goes into the object' },
                { value: 'frame', label: 'a frame that goes over the object' },
              ]}
              onChange={next => setValue('form', next)}
            />
            <FormField
              control={control}
              name="clearance"
              label="Clearance, mm across the whole width"
              inputMode="decimal"
            />
            {formState.errors.root ? <Notice level="stop">{formState.errors.root.message}</Notice> : null}
            <Row>
              <Button $look="main" type="submit" isDisabled={formState.isSubmitting}>
                Save its file
              </Button>
              <Button $look="quiet" onPress={() => setOpen(false)}>
                Cancel
              </Button>
            </Row>
          </Stack>
        </Form>
      </Dialog>
    </>
  );
}
