import type { SizeKind } from '../../../core/calibration/piece';

export const KIND_WORDS: Record<SizeKind, string> = {
  hole: 'holes',
  slot: 'slots',
  peg: 'pegs',
  rib: 'ribs and outlines',
  height: 'heights',
};
