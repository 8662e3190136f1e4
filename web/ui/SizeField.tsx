import { formatPlain } from '../../core/quantity/format';
import { parseQuantity } from '../../core/quantity/parse';
import { CommittedField } from './CommittedField';

interface Props {
  label: string;
  /** mm, or degrees of an angle. */
  value: number;
  angle?: boolean;
  least: number;
  most: number;
  onCommit(value: number): void;
}

/** A plain size in mm, or an angle, that belongs to no parameter; takes inches and fractions too. */
export function SizeField({ label, value, least, most, angle = false, onCommit }: Props) {
  const unit = angle ? '°' : ' mm';
  const read = (text: string) =>
    angle ? parseQuantity(text, 'angle', 'deg') : parseQuantity(text, 'length', 'mm');
  return (
    <CommittedField
      label={`${label},${angle ? ' °' : unit}`}
      value={formatPlain(value, 3)}
      check={text => {
        const typed = read(text);
        if (!typed.ok) return typed.message;
        const size = typed.quantity.value;
        if (size < least) return `At least ${formatPlain(least)}${unit}.`;
        return size > most ? `At most ${formatPlain(most)}${unit}.` : undefined;
      }}
      onCommit={text => {
        const typed = read(text);
        if (typed.ok) onCommit(typed.quantity.value);
      }}
    />
  );
}
