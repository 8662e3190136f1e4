import type { Dimension, JobDocument, Reading } from '../job/document';
import type { Scan } from '../job/scans';
import type { Instrument, Workshop } from '../job/workshop';
import { correctedForJaws, type Evaluation, evaluateReadings } from '../measure/evaluate';

export interface DimensionState {
  dimension: Dimension;
  /**
   * The readings that count: not struck, and only those of the seat where the seat was read. Empty for a derived
   * dimension.
   */
  counted: Reading[];
  /**
   * Their values, in the same order, with the instrument's zero error removed and small bores corrected for the jaws.
   */
  values: number[];
  /** What the counted readings were taken of; null while there are none. */
  source: Reading['source'] | null;
  evaluation: Evaluation | null;
  /** For a derived dimension: the formula with the numbers in it, or why it has no value. */
  worked: { text: string } | { problem: string } | null;
  /** How much inside jaws read short here, mm, where the width of their flats is known and it matters. */
  jawShortfall: number | null;
}

/** Whether it has enough counted readings; a derived dimension or one from a label needs none. */
export const readEnough = (state: DimensionState, readings: number): boolean =>
  state.evaluation !== null &&
  (state.dimension.derived !== undefined || state.source === 'said' || state.counted.length >= readings);

export type Known = Pick<Workshop, 'instruments' | 'operatorRepeatability'>;

/** Used where a reading names no instrument: the coarsest likely one, a cheap pair of calipers. Practice. */
const UNKNOWN_INSTRUMENT = { resolution: 0.01, maxError: 0.03 };
/**
 * The maximum error of an angle that was not read with a protractor, but from a photo, a drawing or a set square,
 * degrees. Common practice, no source.
 */
const UNKNOWN_ANGLE = { resolution: 1, maxError: 1 };
/** The spread of readings of one angle by the same hands, sd, degrees. Common practice, no source. */
const ANGLE_REPEATABILITY = 0.3;
/** A label or a data sheet states a nominal size: uncertainty, ± mm. Common practice, no source. */
const SAID_ERROR = 0.2;
/** Inside jaws that read short by less than this are not mentioned, mm. */
const SHORTFALL_WORTH_SAYING = 0.01;

/** A scan or a traced photo: its true scale. */
export type Sized = Pick<Scan, 'id' | 'trust' | 'refused'>;

/** The scans and traced photos of a job. */
export const sizedOf = ({ scans, traces = [] }: Pick<JobDocument, 'scans' | 'traces'>): readonly Sized[] => [
  ...scans,
  ...traces,
];

/** Taken from a picture of the object rather than from the object. */
const isImaged = (source: Reading['source']) => source === 'scan' || source === 'photo';

/**
 * The value of a dimension from its readings. A seat outranks an old part, both outrank a scan, which outranks a photo,
 * which outranks a stated value.
 * @param sized the job's scans and traced photos, each with a scale of its own
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
    // No jaws were closed on a value from a table or a decision: its stated uncertainty is the only one.
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

/** What it was read from. */
function imageOf(
  { scanned, traced }: Pick<Reading, 'scanned' | 'traced'>,
  sized: readonly Sized[],
): Sized | undefined {
  const own = scanned?.scan ?? traced?.trace;
  return own === undefined ? undefined : sized.find(s => s.id === own);
}

/** A scan's scale before calipers have checked it, sd as a share. Common practice, no source. */
export const UNCHECKED_SCALE = 0.004;

/**
 * A reading from a scan or a photo, corrected by that one's scale; the scale's uncertainty is added to the reading's.
 */
export function imagedSize(
  reading: Pick<Reading, 'value' | 'u' | 'unit' | 'source' | 'scanned' | 'traced'>,
  sized: readonly Sized[],
): { value: number; u: number } {
  const trust = imageOf(reading, sized)?.trust;
  // A scale changes no angle; and a traced size already includes the uncertainty of its scale.
  if (reading.unit === 'deg' || (reading.source === 'photo' && !trust))
    return { value: reading.value, u: reading.u ?? 0 };
  const value = reading.value * (trust?.factor ?? 1);
  return { value, u: Math.hypot(reading.u ?? 0, value * (trust?.u ?? UNCHECKED_SCALE)) };
}

const jawLandOf = (instrument: Instrument | undefined) =>
  instrument?.kind === 'calipers' ? (instrument.jawLand ?? 0) : 0;

/** Readings with several instruments are trusted as far as the worst of them. */
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
  // A value from a table comes with its tolerance; a standard uncertainty u is a rectangle of ± √3 u.
  const said = counted.map(r => (r.u === undefined ? SAID_ERROR : Math.sqrt(3) * r.u));
  return { resolution: 0, maxError: Math.max(...said) };
}

function repeatabilityOf(used: readonly (Instrument | undefined)[], workshop: Known, angle: boolean): number {
  const hands = angle ? ANGLE_REPEATABILITY : workshop.operatorRepeatability;
  return Math.max(...used.map(i => i?.repeatability ?? hands));
}

/** One reading of a printed part, its uncertainty judged like that of any reading. mm */
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
