import { z } from 'zod';
import { formatPlain } from '../../quantity/format';
import { type Dimension, type JobDocument, Reading } from '../document';
import { Id } from '../fields';
import { defineEdit } from './define';
import { EditRefused, nameOf, withDimension } from './tools';

/** Edits of the readings of a dimension. */

function withReading(document: JobDocument, dimensionId: string, reading: Reading): JobDocument {
  return withDimension(document, dimensionId, d => {
    if (d.readings.some(r => r.id === reading.id)) throw new EditRefused('This reading is already there.');
    if (reading.value <= 0) throw new EditRefused('A size is above 0: take the reading again.');
    return { ...d, readings: [...d.readings, reading] };
  });
}

function requireReading(dimension: Dimension, id: string): void {
  if (!dimension.readings.some(r => r.id === id)) throw new EditRefused('That reading is no longer there.');
}

const readingsOf = (document: JobDocument, dimensionId: string): readonly Reading[] =>
  document.dimensions.find(d => d.id === dimensionId)?.readings ?? [];

const typed = (document: JobDocument, dimensionId: string, id: string): string =>
  readingsOf(document, dimensionId).find(r => r.id === id)?.text ?? '';

export const addReading = defineEdit(
  z.object({ kind: z.literal('add-reading'), dimensionId: Id, reading: Reading }),
  {
    apply: (document, { dimensionId, reading }) => withReading(document, dimensionId, reading),
    words: ({ dimensionId, reading }, document) =>
      `Read ${formatPlain(reading.value, 4)} on ${nameOf.dimension(document, dimensionId)}`,
    isThere: (document, { dimensionId, reading }) =>
      readingsOf(document, dimensionId).some(r => r.id === reading.id),
  },
);

export const addReadings = defineEdit(
  z.object({
    kind: z.literal('add-readings'),
    readings: z
      .array(z.object({ dimensionId: Id, reading: Reading }))
      .min(1, 'There is no reading in it.')
      .max(2000, 'At most 2000 readings at once.'),
  }),
  {
    apply: (document, { readings }) =>
      readings.reduce((next, r) => withReading(next, r.dimensionId, r.reading), document),
    words: ({ readings }) => `Took in ${readings.length} ${readings.length === 1 ? 'reading' : 'readings'}`,
    isThere: (document, { readings }) =>
      readings.every(r => readingsOf(document, r.dimensionId).some(x => x.id === r.reading.id)),
  },
);

export const takeBackReading = defineEdit(
  z.object({ kind: z.literal('take-back-reading'), dimensionId: Id, readingId: Id }),
  {
    apply: (document, { dimensionId, readingId }) =>
      withDimension(document, dimensionId, d => {
        requireReading(d, readingId);
        return { ...d, readings: d.readings.filter(r => r.id !== readingId) };
      }),
    words: ({ dimensionId, readingId }, document) =>
      `Took back ${typed(document, dimensionId, readingId)} on ${nameOf.dimension(document, dimensionId)}`,
    isThere: (document, { dimensionId, readingId }) =>
      !readingsOf(document, dimensionId).some(r => r.id === readingId),
  },
);

export const strikeReading = defineEdit(
  z.object({
    kind: z.literal('strike-reading'),
    dimensionId: Id,
    readingId: Id,
    reason: z.string().trim().min(1, 'Say why.').max(300).nullable(),
  }),
  {
    apply: (document, { dimensionId, readingId, reason }) =>
      withDimension(document, dimensionId, d => {
        requireReading(d, readingId);
        return {
          ...d,
          readings: d.readings.map(r => (r.id === readingId ? { ...r, struck: reason } : r)),
        };
      }),
    words({ dimensionId, readingId, reason }, document) {
      const what = typed(document, dimensionId, readingId);
      const where = nameOf.dimension(document, dimensionId);
      return reason === null
        ? `Counted ${what} again on ${where}`
        : `Struck out ${what} on ${where}: ${reason}`;
    },
  },
);
