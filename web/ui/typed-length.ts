import { z } from 'zod';
import { parseQuantity } from '../../core/quantity/parse';

/** A length in a form: kept as typed, and refused where it is not one. @param refuse what else is wrong with it, mm */
export const typedLength = (refuse?: (value: number) => string | undefined) =>
  z.string().superRefine((text, context) => {
    const typed = parseQuantity(text, 'length');
    const problem = typed.ok ? refuse?.(typed.quantity.value) : typed.message;
    if (problem) context.addIssue({ code: 'custom', message: problem });
  });

/** mm; null while the text is not a length. */
export function lengthIn(text: string): number | null {
  const typed = parseQuantity(text, 'length');
  return typed.ok ? typed.quantity.value : null;
}
