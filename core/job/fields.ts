import { z } from 'zod';
import { LONGEST_OUTLINE } from '../shape/outline-text';

/** Building blocks of a job's document. Lengths mm. */

export const Id = z
  .string()
  .min(1)
  .max(40)
  .regex(/^[\w-]+$/);
export const Title = z.string().trim().min(1, 'Give it a name.').max(300, 'At most 300 characters.');
export const Note = z.string().max(4000, 'At most 4000 characters.');
export const Label = z.string().trim().min(1).max(120);
/** The name of a dimension in expressions. */
export const DimensionName = z
  .string()
  .regex(/^[a-z][a-z0-9_]{0,39}$/, 'A short name of small letters, digits and _, starting with a letter.');

/** A workshop’s batch, not a factory’s. */
export const MOST_PIECES = 1000;

export const Coordinate = z.number().min(-100_000).max(100_000);

/** Nothing on a bench measures more than this, mm; a larger number is a wrong unit or a typing slip. */
export const LARGEST_READING = 5000;

/** Every edit addresses members by their id, so two members with one id are refused. */
export const listOf = <T extends z.ZodType<{ id: string }>>(member: T, most: number) =>
  z
    .array(member)
    .max(most, `At most ${most}.`)
    .refine(list => new Set(list.map(x => x.id)).size === list.length, 'Two of them have the same id.');

export const Unit = z.enum(['mm', 'cm', 'm', 'in', 'thou', 'deg', 'rad', 'none', 'percent']);

export const Expression = z.object({ text: z.string().max(200), unit: Unit });

/** The text of a parameter's field: an expression, or a written outline with an expression for each number. */
export const ParameterText = Expression.extend({ text: z.string().max(LONGEST_OUTLINE) });

export const Place3 = z.tuple([Coordinate, Coordinate, Coordinate]);
