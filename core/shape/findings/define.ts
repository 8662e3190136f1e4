/** How a kind of finding is defined; see register.ts for the list. */

export type FieldValue = string | number | boolean;

/**
 * Its cost if nobody notices it, the worst first: somebody is hurt; there is no solid; it does not fit; it collides in
 * its place; something that was asked for is missing; it prints or holds badly; worth knowing.
 */
export const COSTS = [
  'hurts',
  'no-solid',
  'no-fit',
  'no-room',
  'missing',
  'prints-badly',
  'to-know',
] as const;
export type Cost = (typeof COSTS)[number];

/** What one press changes to cure it. */
export interface Remedy {
  label: string;
  parameter: string;
  text: string;
}

export interface FindingKind<Fields extends Record<string, FieldValue>> {
  cost: Cost;
  /** The cause and what to do, as sentences for the maker. */
  words(fields: Fields): string;
  /** The change that one press makes, if one does it. */
  cure?(fields: Fields): Remedy | undefined;
}

export const define = <Fields extends Record<string, FieldValue>>(kind: FindingKind<Fields>) => kind;
