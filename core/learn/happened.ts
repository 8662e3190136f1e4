/** What may happen when a part is put on, besides how its surfaces feel; none of it is a matter of size. */
export const HAPPENINGS = [
  'cracked',
  'layers-parted',
  'warped',
  'wrong-hand',
  'cannot-get-on',
  'cannot-get-off',
  'tilts',
  'leaks',
  'turns',
  'covers',
] as const;
export type HappeningKind = (typeof HAPPENINGS)[number];

export const HAPPENING_WORDS: Record<HappeningKind, string> = {
  cracked: 'it cracked or broke',
  'layers-parted': 'its layers came apart',
  warped: 'it is warped',
  'wrong-hand': 'it is the wrong hand',
  'cannot-get-on': 'it cannot be brought to its place',
  'cannot-get-off': 'it cannot be got out',
  tilts: 'it tilts or rocks',
  leaks: 'it leaks',
  turns: 'it turns by itself',
  covers: 'it covers something',
};

/** For these the place is asked, and whether the original failed there too. */
export const BREAKS: readonly HappeningKind[] = ['cracked', 'layers-parted'];

/** Why a print failed: it cost its hours and its plastic, and says nothing about any fit. */
export const FAILURES = [
  'clogged',
  'came-loose',
  'ran-out',
  'power',
  'stringing',
  'shifted',
  'other',
] as const;
export type Failure = (typeof FAILURES)[number];

export const FAILURE_WORDS: Record<Failure, string> = {
  clogged: 'the nozzle clogged',
  'came-loose': 'it came loose from the bed',
  'ran-out': 'the filament ran out',
  power: 'the power went',
  stringing: 'it is full of strings or blobs',
  shifted: 'its layers are shifted',
  other: 'something else',
};
