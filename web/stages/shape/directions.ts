import type { Direction } from '../../../core/job/document';

/** The six directions of a part on the bed, worded to follow “towards” and “from”. */
export const TOWARDS: readonly { value: Direction; label: string }[] = [
  { value: 'underside', label: 'down, to the bed' },
  { value: 'top', label: 'up, off the bed' },
  { value: 'left', label: 'to the left' },
  { value: 'right', label: 'to the right' },
  { value: 'front', label: 'to the front' },
  { value: 'back', label: 'to the back' },
];

export const FROM: readonly { value: Direction; label: string }[] = [
  { value: 'top', label: 'from above' },
  { value: 'underside', label: 'from below' },
  { value: 'left', label: 'from the left' },
  { value: 'right', label: 'from the right' },
  { value: 'front', label: 'from the front' },
  { value: 'back', label: 'from the back' },
];

export const FACES: readonly { value: string; label: string }[] = [
  { value: 'top', label: 'the top' },
  { value: 'underside', label: 'the underside' },
  { value: 'left', label: 'the left side' },
  { value: 'right', label: 'the right side' },
  { value: 'front', label: 'the front' },
  { value: 'back', label: 'the back' },
];
