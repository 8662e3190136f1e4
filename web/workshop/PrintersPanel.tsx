import { useFieldArray, useWatch } from 'react-hook-form';
import { ulid } from 'ulid';
import type { Printer } from '../../core/job/workshop';
import { machineOf, rulesOf } from '../../core/print/of-printer';
import { FormField } from '../ui/FormField';
import { Panel } from '../ui/layout';
import { Grid, Item, ListHead, Remove, Tail } from './list-look';
import { NumberField, NumberOfGroup } from './NumberField';
import { useWorkshopForm } from './workshop-form';

const NEW: Omit<Printer, 'id'> = {
  name: 'New printer',
  bed: { width: 220, depth: 220, height: 220 },
  nozzle: 0.4,
  lineWidth: 0.4,
};

/** The workshop's printers, and the belief about a printer that is not calibrated. */
export function PrintersPanel() {
  const { control } = useWorkshopForm();
  const { fields, append, remove } = useFieldArray({ control, name: 'printers', keyName: 'key' });
  return (
    <Panel>
      <ListHead title="Printers" onAdd={() => append({ id: ulid(), ...NEW }, { shouldFocus: false })} />
      {fields.map(({ key }, i) => (
        <OnePrinter key={key} at={i} last={fields.length === 1} onRemove={() => remove(i)} />
      ))}
      <p className="soft" style={{ fontSize: 14, marginTop: 8 }}>
        Head beside and above: what the head needs beside its nozzle, and how high a finished part may stand
        before its frame touches it. Then parts can be printed one after the other; 0 beside it means never.
      </p>
      <h3 style={{ marginTop: 16 }}>Before a printer is calibrated</h3>
      <p className="soft" style={{ fontSize: 14, marginBottom: 8 }}>
        How much tighter than drawn a print comes out, across the whole diameter. Common practice, no source;
        your tries correct it job by job.
      </p>
      <Grid>
        <NumberField label="Holes print small by, mm" name="belief.inside.mean" />
        <NumberField label="give or take, mm" name="belief.inside.sd" />
        <NumberField label="Outsides print large by, mm" name="belief.outside.mean" />
        <NumberField label="give or take, mm " name="belief.outside.sd" />
        <NumberField label="Print to print (sd, mm)" name="belief.repeatability" />
      </Grid>
    </Panel>
  );
}

interface OneProps {
  at: number;
  last: boolean;
  onRemove(): void;
}

function OnePrinter({ at, last, onRemove }: OneProps) {
  const { control, setValue } = useWorkshopForm();
  const printer = useWatch({ control, name: `printers.${at}` });
  const head = (side: 'beside' | 'above') => (value: number | string) => {
    const both = { ...USUAL_CLEARANCE, ...printer.clearance, [side]: value };
    setValue(`printers.${at}.clearance`, both.beside === 0 ? undefined : both);
  };
  return (
    <Item>
      <FormField control={control} name={`printers.${at}.name`} label="Name" />
      <NumberField label="Bed width, mm" name={`printers.${at}.bed.width`} />
      <NumberField label="Bed depth, mm" name={`printers.${at}.bed.depth`} />
      <NumberField label="Height, mm" name={`printers.${at}.bed.height`} />
      <NumberField label="Line width, mm" name={`printers.${at}.lineWidth`} />
      <NumberField label="Speed, mm/s" name={`printers.${at}.speed`} usual={machineOf(printer).inner} />
      <NumberField
        label="Accel., mm/s²"
        name={`printers.${at}.acceleration`}
        usual={machineOf(printer).acceleration}
      />
      <NumberOfGroup label="Head beside, mm" name={`printers.${at}.clearance.beside`} put={head('beside')} />
      <NumberOfGroup label="Head above, mm" name={`printers.${at}.clearance.above`} put={head('above')} />
      <NumberField label="Overhang, °" name={`printers.${at}.overhang`} usual={rulesOf(printer).overhang} />
      <Tail>
        <Remove name={printer.name} last={last} onRemove={onRemove} />
      </Tail>
    </Item>
  );
}

/** Common practice, no source: assumed for the other while one of the two is typed, mm. */
const USUAL_CLEARANCE = { beside: 40, above: 25 };
