import { type Evaluation, evaluateReadings } from '../measure/evaluate';
import type { Dimension, Reading } from './document';
import type { Workshop } from './workshop';

export interface DimensionState {
  dimension: Dimension;
  /** Readings that count: not struck, and of the seat where a seat was read. */
  counted: Reading[];
  /** What the counted readings measured; null while there are none. */
  source: Reading['source'] | null;
  evaluation: Evaluation | null;
}

/** Coarsest first guess where a reading names no instrument: a cheap pair of calipers. Practice. */
const UNKNOWN_INSTRUMENT = { resolution: 0.01, maxError: 0.03 };
/** A label or a data sheet gives a nominal size: doubt, ± mm. Common practice, no source. */
const SAID_ERROR = 0.2;

/** Readings of a dimension to its value. A seat outranks an old part, and both outrank what was said. */
export function evaluateDimension(
  dimension: Dimension,
  workshop: Pick<Workshop, 'instruments' | 'operatorRepeatability'>,
): DimensionState {
  const standing = dimension.readings.filter(r => r.struck === null);
  const source =
    (['seat', 'old-part', 'said'] as const).find(s => standing.some(r => r.source === s)) ?? null;
  const counted = standing.filter(r => r.source === source);
  if (counted.length === 0) return { dimension, counted, source: null, evaluation: null };
  const used = counted.map(
    r => workshop.instruments.find(i => i.id === r.instrumentId) ?? UNKNOWN_INSTRUMENT,
  );
  const limits = {
    // Readings off several instruments are trusted as far as the worst of them.
    resolution: Math.max(...used.map(i => i.resolution)),
    maxError: source === 'said' ? SAID_ERROR : Math.max(...used.map(i => i.maxError)),
  };
  const evaluation = evaluateReadings(
    counted.map(r => r.value),
    limits,
    { critical: dimension.critical, repeatability: workshop.operatorRepeatability },
  );
  return { dimension, counted, source, evaluation };
}
