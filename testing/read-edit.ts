import type { Reading } from '../core/job/document';
import type { Edit } from '../core/job/edits';

type ReadingEdit = Extract<Edit, { kind: 'add-reading' }>;

let made = 0;

/** A reading of the seat with the calipers, as an edit: for tests. */
export const readEdit = (dimensionId: string, value: number, more: Partial<Reading> = {}): ReadingEdit => ({
  kind: 'add-reading',
  dimensionId,
  reading: {
    id: `r${made++}`,
    value,
    text: String(value),
    unit: 'mm',
    at: '2026-01-01T00:00:00.000Z',
    instrumentId: 'calipers',
    source: 'seat',
    via: 'typed',
    struck: null,
    ...more,
  },
});
