import type { Dimension } from '../../../core/job/document';

const LENGTHS: readonly Dimension['kind'][] = ['length', 'step', 'depth'];

/** Whether a size of that kind, from a scan or a photo, can be a reading of a dimension of this kind. */
export function answers(dimension: Dimension['kind'], size: Dimension['kind']): boolean {
  if (dimension === size) return true;
  if (size === 'angle' || dimension === 'angle') return false;
  return LENGTHS.includes(dimension) && (LENGTHS.includes(size) || size === 'outside' || size === 'inside');
}
