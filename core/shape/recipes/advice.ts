import { formatPlain } from '../../quantity/format';
import type { ParameterSpec, Sensible } from './parameters';

/** Usual values for most printed parts. Common practice, no source. */
export const WALL: Sensible = {
  least: 1.2,
  most: 6,
  usual: 2,
  below: 'bends and may leak; it is under three passes of most nozzles',
  above: 'takes long and shrinks unevenly; a rib is stiffer',
};
export const CHAMFER: Sensible = {
  least: 0.3,
  most: 1.5,
  usual: 0.6,
  below: 'does not lead anything in past the first layer’s bulge',
  above: 'takes from what holds',
};
export const PLATE: Sensible = {
  least: 1.6,
  most: 12,
  usual: 4,
  below: 'bends under a screw’s head',
  above: 'takes long; a rib is stiffer',
};

/** A remark on a number that can be built but is unusual, mm; null for a usual number. */
export function adviceOn(spec: ParameterSpec, value: unknown): { text: string; usual: number } | null {
  if (spec.kind !== 'length' || !spec.sensible || typeof value !== 'number') return null;
  const { least, most, usual, below, above } = spec.sensible;
  // 0 was chosen, not mistyped.
  if (value === 0 || (value >= least && value <= most)) return null;
  const why = value < least ? below : above;
  return {
    text: `${formatPlain(value)} mm ${why}. Usual are ${formatPlain(least)} to ${formatPlain(most)}.`,
    usual,
  };
}
