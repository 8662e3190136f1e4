export const SIZE_KINDS = ['hole', 'slot', 'peg', 'rib', 'height'] as const;
/** The kinds of size that a printer gets wrong in the same way. */
export type SizeKind = (typeof SIZE_KINDS)[number];
