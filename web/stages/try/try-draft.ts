import { z } from 'zod';
import type { TryMate } from '../../../core/job/history';
import { BINDS, Happening } from '../../../core/job/history/try';
import { doubtOf, JUDGED_BY, type SignedUnit } from '../../../core/learn/signed';
import { VERDICTS } from '../../../core/learn/verdict';
import { parseQuantity } from '../../../core/quantity/parse';

/** The entries about a print in the form: kept over a reload until they are recorded. */

const Effort = z.enum(['too-easy', 'good', 'too-hard']).optional();
export const WAYS = ['less', 'right', 'more'] as const;
export type Way = (typeof WAYS)[number];

const MateDraft = z.object({
  verdict: z.enum(VERDICTS).optional(),
  /** By how much it missed, as typed. */
  about: z.string().max(60).default(''),
  aboutBy: z.enum(JUDGED_BY).default('paper'),
  binds: z.enum(BINDS).optional(),
  marks: z.boolean().default(false),
  printed: z.string().max(60).default(''),
  /** The gauge that it was tried on; left out, the object. */
  gauge: z.string().max(60).optional(),
  effort: z.object({ on: Effort, off: Effort, home: Effort }).default({}),
  /** For one judged by an amount, or by how far it goes in: the direction, the amount, and how it was judged. */
  way: z.enum(WAYS).optional(),
  amount: z.string().max(60).default(''),
  amountBy: z.enum(JUDGED_BY).default('eye'),
});
export type MateDraft = z.infer<typeof MateDraft>;
export const NO_DRAFT: MateDraft = MateDraft.parse({});

export const TryDraft = z.object({
  mates: z.record(z.string(), MateDraft).default({}),
  happened: z.array(Happening).default([]),
  photos: z.array(z.string()).max(10).default([]),
  by: z.string().max(60).default(''),
  note: z.string().max(2000, 'At most 2000 characters.').default(''),
});
export type TryDraft = z.infer<typeof TryDraft>;

const keyOf = (printId: string) => `sagoma.try.${printId}`;

export function keptDraft(printId: string): TryDraft {
  const kept = sessionStorage.getItem(keyOf(printId));
  try {
    return TryDraft.parse(kept ? JSON.parse(kept) : {});
  } catch (error) {
    // A draft from another version of Sagoma: losing it is better than a page that does not open.
    if (error instanceof z.ZodError || error instanceof SyntaxError) return TryDraft.parse({});
    throw error;
  }
}
export const keepDraft = (printId: string, draft: TryDraft): void =>
  sessionStorage.setItem(keyOf(printId), JSON.stringify(draft));
export const dropDraft = (printId: string): void => sessionStorage.removeItem(keyOf(printId));

type Read = { value: number | null; problem?: string };

const LARGEST = 5000;
export function sizeOf(text: string): Read {
  if (text.trim() === '') return { value: null };
  const typed = parseQuantity(text, 'length');
  if (!typed.ok) return { value: null, problem: typed.message };
  return typed.quantity.value > 0 && typed.quantity.value < LARGEST
    ? { value: typed.quantity.value }
    : { value: null, problem: 'A size is above 0 and below 5 m.' };
}

/** An amount without its sign: a key gives the direction. */
export function amountOf(text: string, unit: SignedUnit, most: number): Read {
  if (text.trim() === '') return { value: null };
  const typed = parseQuantity(text, unit === 'deg' ? 'angle' : 'length');
  if (!typed.ok) return { value: null, problem: typed.message };
  const { value } = typed.quantity;
  if (value < 0) return { value: null, problem: 'Without a sign: say the side with its key.' };
  return value <= most
    ? { value }
    : { value: null, problem: `At most ${most}${unit === 'deg' ? '°' : ' mm'}.` };
}

/** No miss is larger, mm; beyond it is another part. */
export const MOST_ABOUT = 20;
export const MOST_OFF: Record<SignedUnit, number> = { mm: 500, deg: 180 };

/** The uncertainty of a mate that was called right: that of its eye, paper or caliper. */
export function offSaid(draft: MateDraft, unit: SignedUnit): TryMate['off'] | { problem: string } {
  const { way, amountBy: by } = draft;
  const { value, problem } = amountOf(draft.amount, unit, MOST_OFF[unit]);
  if (problem) return { problem };
  if (!way) return value === null ? undefined : { problem: 'Say to which side.' };
  if (way === 'right') return { value: 0, u: doubtOf(by, 0, unit), by };
  if (value === null || value === 0) return { problem: 'Say by about how much.' };
  const signed = way === 'more' ? value : -value;
  return { value: signed, u: doubtOf(by, value, unit), by };
}
