import { zodResolver } from '@hookform/resolvers/zod';
import { useFormContext } from 'react-hook-form';
import type { z } from 'zod';
import { Workshop } from '../../core/job/workshop';
import { parseQuantity } from '../../core/quantity/parse';

/** The workshop as its form holds it: a number that is half typed is a text until it is one. */
export type WorkshopFields = z.input<typeof Workshop>;

export const useWorkshopForm = () => useFormContext<WorkshopFields>();

/** A typed number, or the text where it is not one yet. */
export function numberOr(text: string): number | string {
  const typed = parseQuantity(text, 'count');
  return typed.ok ? typed.quantity.value : text;
}

export const workshopResolver = zodResolver(Workshop, {
  error: issue => {
    if (issue.code !== 'invalid_type' || issue.expected !== 'number') return undefined;
    const typed = parseQuantity(String(issue.input ?? ''), 'count');
    return typed.ok ? undefined : typed.message;
  },
});
