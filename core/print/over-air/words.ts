import { formatPlain } from '../../quantity/format';
import type { SupportRules } from '../hangs';
import type { Region } from './regions';

/** What a region is called and what is wrong with it, for the maker. */

export const titleOf = ({ kind, reach, angle }: Pick<Region, 'kind' | 'reach' | 'angle'>): string => {
  if (kind === 'bridge') return `Bridge of ${formatPlain(reach, 1)} mm`;
  if (kind === 'roof') return `Ceiling over ${formatPlain(reach, 1)} mm`;
  if (kind === 'lean') return `Leans out by ${formatPlain(angle, 0)}°`;
  if (kind === 'island') return 'Begins in the air';
  return reach < Infinity ? `Reaches out ${formatPlain(reach, 1)} mm` : 'Carried by nothing';
};

export function saysOf(
  region: Pick<Region, 'kind' | 'area' | 'onPart' | 'begins' | 'meets'>,
  rules: SupportRules,
): string {
  const { kind, area, onPart, begins, meets } = region;
  const supports = `${formatPlain(area / 100, 2)} cm² to support${onPart > 1 ? ', from the part itself: marks stay on both' : ''}`;
  switch (kind) {
    case 'bridge':
      return `spans freely; this printer’s limit is ${formatPlain(rules.span, 0)} mm`;
    case 'roof':
      return `longer than the ${formatPlain(rules.span, 0)} mm that span freely: ${supports}`;
    case 'lean':
      return `this printer holds ${formatPlain(rules.overhang, 0)}° from the upright: ${supports}`;
    case 'overhang':
      return `over air, ${formatPlain(begins, 1)} mm above the bed: ${supports}`;
    case 'island':
      return `${formatPlain(begins, 1)} mm above the bed, and meets the rest ${formatPlain(meets! - begins, 1)} mm higher: without a support it is laid on nothing`;
  }
}
