import { formatPlain } from '../../core/quantity/format';
import { parseQuantity } from '../../core/quantity/parse';
import { CommittedField } from './CommittedField';

interface Props {
  label: string;
  /** mm */
  value: number;
  least: number;
  most: number;
  onCommit(value: number): void;
}

/** A plain size in mm that belongs to no parameter; takes inches and fractions too. */
export function SizeField({ label, value, least, most, onCommit }: Props) {
  const read = (text: string) => parseQuantity(text, 'length', 'mm');
  return (
    <CommittedField
      label={`${label}, mm`}
      value={formatPlain(value, 3)}
      check={text => {
        const typed = read(text);
        if (!typed.ok) return typed.message;
        const size = typed.quantity.value;
        if (size < least) return `At least ${formatPlain(least)} mm.`;
        return size > most ? `At most ${formatPlain(most)} mm.` : undefined;
      }}
      onCommit={text => {
        const typed = read(text);
        if (typed.ok) onCommit(typed.quantity.value);
      }}
    />
  );
}
