import {
  type Geometry,
  geometryOf,
  type JudgeReadings,
  type Response,
  responseOf,
  rowsOfPiece,
  type SizeRow,
  scatterOf,
} from '../calibration/profile';
import type { SizeKind } from '../calibration/size-kind';
import type { Calibration, Instrument, Workshop } from '../job/workshop';
import { correctedForJaws, evaluateReadings } from '../measure/evaluate';

/** The workshop's calibrations: their readings evaluated, and which of them applies to a part. */

/** A profile older than this should be checked, days: nozzles wear and spools differ. Practice. */
export const AGES_AFTER_DAYS = 180;
/** A size that was only typed is taken as read once by practised hands, mm. Common practice, no source. */
const TYPED_U = 0.03;

const instrumentOf = (calibration: Calibration, workshop: Workshop): Instrument =>
  workshop.instruments.find(i => i.id === calibration.piece?.instrumentId) ?? workshop.instruments[0]!;

/** Evaluated like dimensions of the object; a hole that flats on the inside jaws read short is corrected. */
function judgeWith(instrument: Instrument, workshop: Workshop): JudgeReadings {
  const repeatability = instrument.repeatability ?? workshop.operatorRepeatability;
  const zero = instrument.zero?.offset ?? 0;
  const land = instrument.kind === 'calipers' ? (instrument.jawLand ?? 0) : 0;
  return (readings, feature) => {
    const true_ = readings.map(r => (feature.kind === 'hole' ? correctedForJaws(r - zero, land) : r - zero));
    const { value, standardUncertainty } = evaluateReadings(true_, instrument, { repeatability });
    return { value, u: standardUncertainty };
  };
}

/** All sizes of a calibration, from the piece and from pieces of the maker's own. */
export function sizeRows(calibration: Calibration, workshop: Workshop): SizeRow[] {
  const judge = judgeWith(instrumentOf(calibration, workshop), workshop);
  return [
    ...rowsOfPiece(calibration.piece?.readings ?? {}, judge),
    ...calibration.rows.map(r => ({
      ...r,
      u: TYPED_U,
      direction: null,
      label: `${r.kind} ${r.drawn}, own piece`,
    })),
  ];
}

export interface Profile {
  calibration: Calibration;
  rows: SizeRow[];
  responses: Response[];
  geometry: Geometry;
  /** Print-to-print scatter, sd, mm. */
  scatter: number;
}

const KINDS: readonly SizeKind[] = ['hole', 'slot', 'peg', 'rib', 'height'];

/** What a calibration says. */
export function profileOf(calibration: Calibration, workshop: Workshop): Profile {
  const rows = sizeRows(calibration, workshop);
  return {
    calibration,
    rows,
    responses: KINDS.flatMap(kind => responseOf(kind, rows) ?? []),
    geometry: geometryOf(
      calibration.piece?.readings ?? {},
      judgeWith(instrumentOf(calibration, workshop), workshop),
    ),
    scatter: scatterOf(rows, workshop.belief.repeatability),
  };
}
