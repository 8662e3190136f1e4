import { useController, useFieldArray, useWatch } from 'react-hook-form';
import { ulid } from 'ulid';
import type { Material } from '../../core/job/workshop';
import { POLYMER_SOURCE, POLYMERS, spoolFigures } from '../../core/shelf/polymers';
import { Checkbox, Select } from '../ui/controls';
import { FormField } from '../ui/FormField';
import { Panel, Row } from '../ui/layout';
import { Item, ListHead, Remove } from './list-look';
import { NumberField } from './NumberField';
import { useWorkshopForm } from './workshop-form';

const NEW: Omit<Material, 'id'> = {
  name: 'New plastic',
  flexible: false,
  density: 1.24,
  strainLimit: 0.02,
  softensC: 55,
  pricePerKg: 20,
  source: 'own spool',
};

/** The workshop's plastics with their figures. */
export function PlasticsPanel() {
  const { control } = useWorkshopForm();
  const { fields, append, remove } = useFieldArray({ control, name: 'materials', keyName: 'key' });
  const materials = useWatch({ control, name: 'materials' });
  return (
    <Panel>
      <ListHead title="Plastics" onAdd={() => append({ id: ulid(), ...NEW }, { shouldFocus: false })} />
      {fields.map(({ key }, i) => (
        // Another polymer brings other figures: what was half typed for the previous one goes.
        <OnePlastic
          key={`${key} ${materials[i]?.polymer}`}
          at={i}
          last={fields.length === 1}
          onRemove={() => remove(i)}
        />
      ))}
    </Panel>
  );
}

interface OneProps {
  at: number;
  last: boolean;
  onRemove(): void;
}

function OnePlastic({ at, last, onRemove }: OneProps) {
  const { control, setValue } = useWorkshopForm();
  const material = useWatch({ control, name: `materials.${at}` });
  const currency = useWatch({ control, name: 'currency' });
  const { field: flexible } = useController({ control, name: `materials.${at}.flexible` });
  return (
    <Item>
      <FormField control={control} name={`materials.${at}.name`} label="Name" />
      <NumberField label="Density, g/cm³" name={`materials.${at}.density`} />
      <NumberField label="Bears stretch once, ratio" name={`materials.${at}.strainLimit`} />
      <NumberField label="Softens at, °C" name={`materials.${at}.softensC`} />
      <NumberField label={`Price, ${currency}/kg`} name={`materials.${at}.pricePerKg`} />
      <Select
        label="Its polymer, with its figures"
        value={material.polymer ?? 'none'}
        options={[
          { value: 'none', label: 'not known' },
          ...POLYMERS.map(p => ({ value: p.key, label: p.key })),
        ]}
        onChange={polymer => {
          const figures = spoolFigures(polymer);
          setValue(
            `materials.${at}`,
            figures
              ? { ...material, ...figures, polymer, source: POLYMER_SOURCE.obtained }
              : { ...material, polymer: undefined },
          );
        }}
      />
      <Row $gap={4} style={{ paddingTop: 24 }}>
        <Checkbox isSelected={flexible.value} onChange={flexible.onChange}>
          flexible
        </Checkbox>
        <Remove name={material.name} last={last} onRemove={onRemove} />
      </Row>
    </Item>
  );
}
