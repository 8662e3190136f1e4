import type { Expression, Lookup } from '../../core/quantity/expression';
import { formatPlain } from '../../core/quantity/format';
import { ownUnit } from '../../core/quantity/units';
import { amountOf, keptText } from '../../core/work/written';
import { CommittedField } from './CommittedField';

interface Props {
  label: string;
  /** mm, or degrees of an angle; null while nobody said it. */
  value: number | null;
  angle?: boolean;
  least: number;
  most: number;
  /** What it is made from, where it was written as an expression. */
  text?: Expression;
  /** Sizes by name that an expression may use; left out, it is a plain number. */
  lookup?: Lookup;
  onCommit(value: number, text: Expression | null): void;
}

/** A size in mm, or an angle, that belongs to no parameter; takes inches, fractions and expressions too. */
export function SizeField({ label, value, least, most, angle = false, text, lookup, onCommit }: Props) {
  const unit = angle ? '°' : ' mm';
  const kind = angle ? 'angle' : 'length';
  const read = (typed: string) =>
    amountOf({ text: typed, unit: ownUnit(kind) }, kind, lookup ?? (() => undefined));
  const problem = (typed: string): string | undefined => {
    const size = read(typed);
    if (typeof size !== 'number') return size.problem;
    if (size < least) return `At least ${formatPlain(least)}${unit}.`;
    return size > most ? `At most ${formatPlain(most)}${unit}.` : undefined;
  };
  const now = text && read(text.text);
  return (
    <CommittedField
      label={`${label},${angle ? ' °' : unit}`}
      value={text?.text ?? (value === null ? '' : formatPlain(value, 3))}
      hint={
        now === undefined
          ? undefined
          : typeof now === 'number'
            ? `= ${formatPlain(now, 2)}${unit}`
            : `${now.problem}${value === null ? '' : ` It stays at ${formatPlain(value, 2)}${unit}.`}`
      }
      check={problem}
      onCommit={typed => {
        const size = read(typed);
        if (typeof size === 'number') onCommit(size, lookup ? keptText(typed, kind) : null);
      }}
    />
  );
}
