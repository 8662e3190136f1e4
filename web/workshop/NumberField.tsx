import { useState } from 'react';
import { type FieldPath, useController, useFormState, useWatch } from 'react-hook-form';
import { TextField } from '../ui/controls';
import { numberOr, useWorkshopForm, type WorkshopFields } from './workshop-form';

interface Props {
  label: string;
  name: FieldPath<WorkshopFields>;
  /** Shown while nothing is set. */
  usual?: number;
}

/** A number of the workshop. */
export function NumberField({ label, name, usual }: Props) {
  const { control } = useWorkshopForm();
  const { field, fieldState } = useController({ control, name });
  return (
    <NumberBox
      label={label}
      value={field.value ?? usual}
      problem={fieldState.error?.message}
      onType={field.onChange}
      onLeave={field.onBlur}
    />
  );
}

/** One of several numbers that exist only together: `put` stores it with the others. */
export function NumberOfGroup({ label, name, usual, put }: Props & { put(value: number | string): void }) {
  const { control, getFieldState } = useWorkshopForm();
  const value = useWatch({ control, name });
  const { message } = getFieldState(name, useFormState({ control })).error ?? {};
  return (
    <NumberBox
      label={label}
      value={value ?? usual}
      problem={typeof message === 'string' ? message : undefined}
      onType={put}
    />
  );
}

interface BoxProps {
  label: string;
  value: unknown;
  problem: string | undefined;
  onType(value: number | string): void;
  onLeave?(): void;
}

/** What was typed stays as it is until the field is left, and as long as it is not a number. */
function NumberBox({ label, value, problem, onType, onLeave }: BoxProps) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <TextField
      label={label}
      value={typed ?? String(value ?? '')}
      onChange={text => {
        setTyped(text);
        onType(numberOr(text));
      }}
      onBlur={() => {
        onLeave?.();
        if (typed !== null && typeof numberOr(typed) === 'number') setTyped(null);
      }}
      problem={problem}
    />
  );
}
