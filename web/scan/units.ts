import type { ScanUnit } from '../../core/scan/unit';

/** Possible units of a scan's numbers; inches before centimetres, as programs write them. */
export const UNIT_NAMES: { value: ScanUnit; label: string }[] = [
  { value: 'mm', label: 'millimetres' },
  { value: 'in', label: 'inches' },
  { value: 'cm', label: 'centimetres' },
  { value: 'm', label: 'metres' },
];
