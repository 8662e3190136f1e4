export const SIZE_KINDS = ['hole', 'slot', 'peg', 'rib', 'height'] as const;
/** Whose sizes a printer gets wrong in one way. */
export type SizeKind = (typeof SIZE_KINDS)[number];
