import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { FormProvider, useController, useForm, useWatch } from 'react-hook-form';
import { Link } from 'react-router';
import styled from 'styled-components';
import { WorkshopAnswer } from '../../contract/workshop';
import type { Workshop } from '../../core/job/workshop';
import { call, get } from '../api/client';
import { fetchAnew } from '../api/fetch-anew';
import { Button, Checkbox, Select } from '../ui/controls';
import { FormField } from '../ui/FormField';
import { Failure, Lead, Loading, Notice, Panel, Row, Stack } from '../ui/layout';
import { TopBar } from '../ui/TopBar';
import { CalibrationPanel } from './CalibrationPanel';
import { InstrumentPanel } from './InstrumentPanel';
import { Grid } from './list-look';
import { NumberField } from './NumberField';
import { PhonesPanel } from './PhonesPanel';
import { PlasticsPanel } from './PlasticsPanel';
import { PrintersPanel } from './PrintersPanel';
import { WindowsPanel } from './WindowsPanel';
import { type WorkshopFields, workshopResolver } from './workshop-form';

/** What the workshop owns, and the beliefs about its printers. */
export default function WorkshopPage() {
  const query = useQuery({ queryKey: ['workshop'], queryFn: () => get('/workshop', WorkshopAnswer) });
  const [savedAt, setSavedAt] = useState<number | null>(null);
  useEffect(() => {
    document.title = 'Workshop – Sagoma';
  }, []);
  return (
    <>
      <TopBar />
      {query.error ? <Failure error={query.error} retry={() => void query.refetch()} /> : null}
      {query.isPending ? <Loading what="Opening the workshop" /> : null}
      {query.data ? (
        <WorkshopForm
          key={query.data.revision}
          answer={query.data}
          saved={savedAt === query.data.revision}
          onSaved={setSavedAt}
        />
      ) : null}
    </>
  );
}

interface FormProps {
  answer: WorkshopAnswer;
  /** This is what was just saved. */
  saved: boolean;
  onSaved(revision: number): void;
}

function WorkshopForm({ answer, saved, onSaved }: FormProps) {
  const client = useQueryClient();
  const form = useForm<WorkshopFields, unknown, Workshop>({
    resolver: workshopResolver,
    defaultValues: answer.workshop,
  });
  const { control, formState, handleSubmit, trigger, watch } = form;
  const [error, setError] = useState<string | null>(null);
  // One number may contradict another: after every change all of them are checked.
  useEffect(() => {
    const watching = watch(() => void trigger());
    return () => watching.unsubscribe();
  }, [watch, trigger]);
  const changed = JSON.stringify(useWatch({ control })) !== JSON.stringify(answer.workshop);
  const bad = Object.keys(formState.errors).length > 0;
  const save = handleSubmit(async workshop => {
    setError(null);
    try {
      const next = await call('PUT', '/workshop', WorkshopAnswer, { revision: answer.revision, workshop });
      onSaved(next.revision);
      client.setQueryData(['workshop'], next);
      await fetchAnew(client, 'rack');
    } catch (failure) {
      setError((failure as Error).message);
    }
  });
  const { field: unit } = useController({ control, name: 'unit' });
  const { field: practiceBench } = useController({ control, name: 'practiceBench' });
  return (
    <FormProvider {...form}>
      <Page>
        <Row $between $wrap>
          <h1>Workshop</h1>
          <Row>
            {saved && !changed ? <span className="soft">Saved.</span> : null}
            {bad ? <span className="soft">Correct what is marked in red first.</span> : null}
            <Button $look="main" isDisabled={!changed || bad} onPress={() => void save()}>
              Save the workshop
            </Button>
          </Row>
        </Row>
        <Lead>Instruments set how sure a reading is; printers and plastics what a print will do.</Lead>
        <Stack $gap={14}>
          {error ? <Notice level="stop">{error}</Notice> : null}
          <Panel>
            <Grid>
              <FormField control={control} name="name" label="Name" />
              <FormField control={control} name="currency" label="Currency" />
              <Select label="Shown in" value={unit.value} options={UNITS} onChange={unit.onChange} />
              <NumberField label="Your hands read apart by (sd, mm)" name="operatorRepeatability" />
            </Grid>
            <div style={{ marginTop: 10 }}>
              <Checkbox isSelected={practiceBench.value} onChange={practiceBench.onChange}>
                Offer the practice bench: a simulated object, caliper, printer and hands, to learn without
                plastic
              </Checkbox>
            </div>
          </Panel>
          <PhonesPanel />
          <InstrumentPanel />
          <PrintersPanel />
          <CalibrationPanel workshop={answer.workshop} unsaved={changed} />
          <WindowsPanel />
          <PlasticsPanel />
          <Row $gap={22} $wrap>
            <Link to="/workshop/worth">What the workshop made</Link>
            <Link to="/workshop/lessons">What jobs taught of these printers</Link>
            <Link to="/about">What Sagoma is made of, and its licences</Link>
          </Row>
        </Stack>
      </Page>
    </FormProvider>
  );
}

const UNITS: { value: Workshop['unit']; label: string }[] = [
  { value: 'mm', label: 'millimetres' },
  { value: 'in', label: 'inches' },
];

const Page = styled.main`padding: 22px 28px 60px; max-width: 1180px; margin: 0 auto;`;
