import { parseQuantity } from '../../core/quantity/parse';

/** What is wrong with a plain number as typed; undefined where nothing is. */
export function numberProblem(text: string, min: number, max: number, whole = false): string | undefined {
  const typed = parseQuantity(text, 'count');
  if (!typed.ok) return typed.message;
  const { value } = typed.quantity;
  if (whole && !Number.isInteger(value)) return 'A whole number of pieces.';
  return value < min || value > max ? `Between ${min} and ${max}.` : undefined;
}

/** A plain number; null where none was typed. */
export function valueFor(text: string): number | null {
  const typed = parseQuantity(text, 'count');
  return typed.ok ? typed.quantity.value : null;
}
