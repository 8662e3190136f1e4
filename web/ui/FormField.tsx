import { type Control, type FieldPath, type FieldValues, useController } from 'react-hook-form';
import { type FieldProps, TextField } from './controls';

type Props<V extends FieldValues> = Omit<FieldProps, 'value' | 'onChange' | 'onBlur' | 'problem'> & {
  control: Control<V, unknown, unknown>;
  name: FieldPath<V>;
};

/** A text field of a form: its value, and what its schema says is wrong with it; the first wrong one gets the focus. */
export function FormField<V extends FieldValues>({ control, name, ...props }: Props<V>) {
  const { field, fieldState } = useController({ control, name });
  return (
    <TextField
      {...props}
      inputRef={field.ref}
      value={String(field.value ?? '')}
      onChange={field.onChange}
      onBlur={field.onBlur}
      problem={fieldState.error?.message}
    />
  );
}
