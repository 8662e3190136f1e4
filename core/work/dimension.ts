import type { Dimension, JobDocument, Reading } from '../job/document';
import type { Scan } from '../job/scans';
import type { Instrument, Workshop } from '../job/workshop';
import { correctedForJaws, type Evaluation, evaluateReadings } from '../measure/evaluate';

export interface DimensionState {
  dimension: Dimension;
  /** Readings that count: not struck, and of the seat where a seat was read. Empty where it is worked out. */
  counted: Reading[];
  /** What those come to: the instrument's zero taken off, the jaws corrected for. In the same order. */
  values: number[];
  /** What the counted readings measured; null while there are none. */
  source: Reading['source'] | null;
  evaluation: Evaluation | null;
  /** Where it is worked out from others: the formula with the numbers in it, or why it has no value. */
  worked: { text: string } | { problem: string } | null;
  /** How much inside jaws read short here, mm, where the jaws’ land is known and it matters. */
  jawShortfall: number | null;
}

/** Whether it has that many counting readings; a derived dimension or one from a label needs none. */
export const readEnough = (state: DimensionState, readings: number): boolean =>
  state.evaluation !== null &&
  (state.dimension.derived !== undefined || state.source === 'said' || state.counted.length >= readings);

export type Known = Pick<Workshop, 'instruments' | 'operatorRepeatability'>;

/** Coarsest first guess where a reading names no instrument: a cheap pair of calipers. Practice. */
const UNKNOWN_INSTRUMENT = { resolution: 0.01, maxError: 0.03 };
/** An angle that no protractor gave: off a photo, a drawing or by a set square, degrees. Common practice, no source. */
const UNKNOWN_ANGLE = { resolution: 1, maxError: 1 };
/** How far the same hands read the same angle apart, sd, degrees. Common practice, no source. */
const ANGLE_REPEATABILITY = 0.3;
/** A label or a data sheet gives a nominal size: doubt, ± mm. Common practice, no source. */
const SAID_ERROR = 0.2;
/** A shortfall of the inside jaws below this is not worth a word, mm. */
const SHORTFALL_WORTH_SAYING = 0.01;

/** A scan or a traced photo: how large it truly is. */
export type Sized = Pick<Scan, 'id' | 'trust' | 'refused'>;

/** Scans and traced photos of a job alike. */
export const sizedOf = ({ scans, traces = [] }: Pick<JobDocument, 'scans' | 'traces'>): readonly Sized[] => [
  ...scans,
  ...traces,
];

/** Taken off a picture of the object, not off itself. */
const isImaged = (source: Reading['source']) => source === 'scan' || source === 'photo';

/**
 * Readings of a dimension to its value. A seat outranks an old part, both outrank a scan, that a photo, and that what was said.
 * @param sized what of the job has a size of its own
 */
export function evaluateDimension(
  dimension: Dimension,
  workshop: Known,
  sized: readonly Sized[] = [],
): DimensionState {
  const standing = dimension.readings.filter(r => r.struck === null && !imageOf(r, sized)?.refused);
  const source =
    (['seat', 'old-part', 'scan', 'photo', 'said'] as const).find(s => standing.some(r => r.source === s)) ??
    null;
  const counted = standing.filter(r => r.source === source);
  const empty = {
    dimension,
    counted,
    values: [],
    source: null,
    evaluation: null,
    worked: null,
    jawShortfall: null,
  };
  if (counted.length === 0) return empty;
  const angle = dimension.kind === 'angle';
  const used = counted.map(r =>
    workshop.instruments.find(i => i.id === r.instrumentId && (i.kind === 'protractor') === angle),
  );
  const land = dimension.kind === 'inside' ? Math.max(0, ...used.map(jawLandOf)) : 0;
  const values = counted.map((r, i) => {
    if (isImaged(r.source)) return imagedSize(r, sized).value;
    const shown = r.value - (r.zero ?? 0);
    return dimension.correctJaws && dimension.kind === 'inside'
      ? correctedForJaws(shown, jawLandOf(used[i]))
      : shown;
  });
  const evaluation = evaluateReadings(values, limitsOf(counted, used, source!, angle, sized), {
    critical: dimension.critical,
    // No hand closed on what a table gives, or on what was decided: its own doubt is all there is.
    repeatability: counted.every(r => isImaged(r.source) || (r.source === 'said' && r.u !== undefined))
      ? 0
      : repeatabilityOf(used, workshop, angle),
    turnable: dimension.kind === 'outside' || dimension.kind === 'inside',
    turns: counted.map(r => r.turn),
    inches: counted.map(r => r.unit === 'in'),
  });
  const shortfall = correctedForJaws(evaluation.value, land) - evaluation.value;
  return {
    ...empty,
    values,
    source,
    evaluation,
    jawShortfall: !dimension.correctJaws && shortfall >= SHORTFALL_WORTH_SAYING ? shortfall : null,
  };
}

/** What it was read off. */
function imageOf(
  { scanned, traced }: Pick<Reading, 'scanned' | 'traced'>,
  sized: readonly Sized[],
): Sized | undefined {
  const own = scanned?.scan ?? traced?.trace;
  return own === undefined ? undefined : sized.find(s => s.id === own);
}

/** Before calipers were held against it, a scan's size is known to so much, sd as a share. Common practice, no source. */
export const UNCHECKED_SCALE = 0.004;

/** What a reading off a scan or a photo says of the object: corrected by how large that is, its doubt with the doubt of that. */
export function imagedSize(
  reading: Pick<Reading, 'value' | 'u' | 'unit' | 'source' | 'scanned' | 'traced'>,
  sized: readonly Sized[],
): { value: number; u: number } {
  const trust = imageOf(reading, sized)?.trust;
  // No scale changes an angle; and the doubt of what was traced has its scale's in it.
  if (reading.unit === 'deg' || (reading.source === 'photo' && !trust))
    return { value: reading.value, u: reading.u ?? 0 };
  const value = reading.value * (trust?.factor ?? 1);
  return { value, u: Math.hypot(reading.u ?? 0, value * (trust?.u ?? UNCHECKED_SCALE)) };
}

const jawLandOf = (instrument: Instrument | undefined) =>
  instrument?.kind === 'calipers' ? (instrument.jawLand ?? 0) : 0;

/** Readings off several instruments are trusted as far as the worst of them. */
function limitsOf(
  counted: readonly Reading[],
  used: readonly (Instrument | undefined)[],
  source: Reading['source'],
  angle: boolean,
  sized: readonly Sized[],
) {
  if (isImaged(source))
    return { resolution: 0, maxError: Math.sqrt(3) * Math.max(...counted.map(r => imagedSize(r, sized).u)) };
  const unknown = angle ? UNKNOWN_ANGLE : UNKNOWN_INSTRUMENT;
  const limits = {
    resolution: Math.max(...used.map(i => (i ?? unknown).resolution)),
    maxError: Math.max(...used.map(i => (i ?? unknown).maxError)),
  };
  if (source !== 'said') return limits;
  // What a table gives comes with its tolerance; a standard uncertainty u is a rectangle of ± √3 u.
  const said = counted.map(r => (r.u === undefined ? SAID_ERROR : Math.sqrt(3) * r.u));
  return { resolution: 0, maxError: Math.max(...said) };
}

function repeatabilityOf(used: readonly (Instrument | undefined)[], workshop: Known, angle: boolean): number {
  const hands = angle ? ANGLE_REPEATABILITY : workshop.operatorRepeatability;
  return Math.max(...used.map(i => i?.repeatability ?? hands));
}

/** One reading of a printed part with one instrument, its doubt judged as that of any reading. mm */
export function singleReading(
  value: number,
  kind: 'outside' | 'inside',
  instrumentId: string | null,
  workshop: Known,
): { value: number; u: number } {
  const { evaluation } = evaluateDimension(
    {
      id: 'print',
      name: 'print',
      label: 'The print',
      kind,
      critical: false,
      guide: null,
      note: '',
      readings: [
        {
          id: 'reading',
          value,
          text: String(value),
          unit: 'mm',
          at: '',
          instrumentId,
          source: 'seat',
          via: 'typed',
          struck: null,
        },
      ],
    },
    workshop,
  );
  return { value: evaluation!.value, u: evaluation!.standardUncertainty };
}
