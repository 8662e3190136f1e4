import type { SizeKind } from '../../../core/calibration/size-kind';

export const KIND_WORDS: Record<SizeKind, string> = {
  hole: 'holes',
  slot: 'slots',
  peg: 'pegs',
  rib: 'ribs and outlines',
  height: 'heights',
};
