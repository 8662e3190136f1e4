import { zodResolver } from '@hookform/resolvers/zod';
import { useForm } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { JobAnswer, MakeAgain } from '../../../contract/jobs';
import { post } from '../../api/client';
import { useBench } from '../../job/bench-context';
import { Button, Dialog } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Notice, Row, Stack } from '../../ui/layout';

/** The job again for another object: everything but the readings, so only the names are asked. */
export function AgainDialog({ onClose }: { onClose(): void }) {
  const { document, job } = useBench('document', 'job');
  const navigate = useNavigate();
  const { control, handleSubmit, setError, formState } = useForm({
    resolver: zodResolver(MakeAgain),
    defaultValues: { title: document.title, object: '' },
  });
  const make = handleSubmit(async names => {
    try {
      const made = await post(`/jobs/${job.id}/again`, JobAnswer, names);
      await navigate(`/jobs/${made.id}/measure`);
    } catch (failure) {
      setError('root', { message: (failure as Error).message });
    }
  });
  return (
    <Dialog title="Make it for another object" isOpen onClose={onClose}>
      <form onSubmit={event => void make(event)}>
        <Stack $gap={12}>
          <p className="soft">
            Shape, wants, additions and what it has to bear come along, and the pictures that show where to
            measure; readings and prints stay here. What was decided and not measured comes along too.
          </p>
          <FormField control={control} name="title" label="What do you make?" autoFocus />
          <FormField
            control={control}
            name="object"
            label="For which object?"
            placeholder="the other boat’s port"
          />
          {formState.errors.root ? <Notice level="stop">{formState.errors.root.message}</Notice> : null}
          <Row style={{ justifyContent: 'flex-end' }} $gap={8}>
            <Button $look="quiet" onPress={onClose}>
              Cancel
            </Button>
            <Button $look="main" type="submit" isDisabled={formState.isSubmitting}>
              Start measuring
            </Button>
          </Row>
        </Stack>
      </form>
    </Dialog>
  );
}
