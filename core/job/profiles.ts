import type { SizeKind } from '../calibration/piece';
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
import { correctedForJaws, evaluateReadings } from '../measure/evaluate';
import type { Part } from './document';
import type { Calibration, Instrument, Workshop } from './workshop';

/** Calibrations of the workshop: their readings judged, and which of them holds for a part. */

/** A profile older than this is to be looked at again, days: nozzles wear and spools differ. Practice. */
export const AGES_AFTER_DAYS = 180;
/** A size that was only typed is taken to be read once by practised hands, mm. Common practice, no source. */
const TYPED_U = 0.03;

const instrumentOf = (calibration: Calibration, workshop: Workshop): Instrument =>
  workshop.instruments.find(i => i.id === calibration.piece?.instrumentId) ?? workshop.instruments[0]!;

/** As dimensions of the object are judged; flats on the inside jaws read a hole short, which is worked out. */
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

const read = new WeakMap<Calibration, { workshop: Workshop; profile: Profile }>();

/** What a calibration says; remembered, since every keystroke asks. */
export function profileOf(calibration: Calibration, workshop: Workshop): Profile {
  const known = read.get(calibration);
  if (known?.workshop === workshop) return known.profile;
  const rows = sizeRows(calibration, workshop);
  const profile = {
    calibration,
    rows,
    responses: KINDS.flatMap(kind => responseOf(kind, rows) ?? []),
    geometry: geometryOf(
      calibration.piece?.readings ?? {},
      judgeWith(instrumentOf(calibration, workshop), workshop),
    ),
    scatter: scatterOf(rows, workshop.belief.repeatability),
  };
  read.set(calibration, { workshop, profile });
  return profile;
}

/** The newest calibration of a part's printer, with the nozzle that is in it, and plastic; null without one. */
export function calibrationFor(
  workshop: Workshop,
  part: Pick<Part, 'printerId' | 'materialId'>,
  useful: (calibration: Calibration) => boolean,
): Calibration | null {
  const printer = workshop.printers.find(p => p.id === part.printerId);
  return (
    (workshop.calibrations ?? [])
      .filter(
        c =>
          c.printerId === part.printerId &&
          c.materialId === part.materialId &&
          (c.nozzle === undefined || c.nozzle === printer?.nozzle) &&
          useful(c),
      )
      .sort((a, b) => b.at.localeCompare(a.at))[0] ?? null
  );
}
