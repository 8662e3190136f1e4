import { ulid } from 'ulid';
import type { Reading } from '../../../core/job/document';
import { formatPlain } from '../../../core/quantity/format';
import type { Found } from '../../../core/shelf/search';

type Item = Found['item'];

/** A standard size as a stated value, with its tolerance as uncertainty. */
export const shelfReading = (item: Item, size: Item['sizes'][0]): Reading => ({
  id: ulid(),
  value: size.value,
  text: `${formatPlain(size.value, 3)} ${item.name}`.slice(0, 60),
  unit: 'mm',
  at: new Date().toISOString(),
  instrumentId: null,
  source: 'said',
  via: 'typed',
  struck: null,
  // A tolerance is a rectangular distribution around the size.
  u: size.tolerance / Math.sqrt(3),
});
