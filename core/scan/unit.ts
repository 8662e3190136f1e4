/** The length of one of a scan's units, mm. */
export const SCAN_UNITS = { mm: 1, cm: 10, in: 25.4, m: 1000 } as const;
export type ScanUnit = keyof typeof SCAN_UNITS;
