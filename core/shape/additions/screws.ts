import {
  CLEARANCE_HOLES,
  COUNTERSUNK_SOCKET_HEADS,
  HEAT_SET_INSERTS,
  ISO_273,
  ISO_4762,
  ISO_10642,
  PLASTIC_PILOT_RATIO,
  PRACTICE,
  SOCKET_HEADS,
} from '../../shelf/fasteners';
import { given, type Source } from '../../shelf/table';
import { basicMetric, METRIC } from '../../shelf/threads/metric';

/** Screws that holes are made for, from the shelf's tables. mm */
export const SCREWS = ['M2', 'M2.5', 'M3', 'M4', 'M5', 'M6', 'M8', 'M10', 'M12'] as const;

export interface Bored {
  diameter: number;
  source: Source;
}

const rowOf = <T extends { key: string }>(rows: readonly T[], key: string): T | undefined =>
  rows.find(r => r.key === key);

export const nominal = (screw: string): number => Number(screw.slice(1));

/** A hole that the screw passes: ISO 273, medium. */
export const clearanceFor = (screw: string): Bored => ({
  diameter: given(rowOf(CLEARANCE_HOLES, screw)!, 'medium'),
  source: ISO_273,
});

/** A hole in which the screw cuts its own thread in plastic. */
export const pilotFor = (screw: string): Bored => ({
  diameter: Number((PLASTIC_PILOT_RATIO * nominal(screw)).toFixed(2)),
  source: PRACTICE,
});

/** A hole for a brass insert melted in; none for every screw. */
export function insertFor(screw: string): (Bored & { depth: number; boss: number }) | undefined {
  const row = rowOf(HEAT_SET_INSERTS, screw);
  return (
    row && {
      diameter: given(row, 'hole'),
      depth: given(row, 'depth'),
      boss: given(row, 'boss'),
      source: PRACTICE,
    }
  );
}

/** A 90° countersunk head, to its sharp edge. */
export function countersunkFor(screw: string): Bored | undefined {
  const row = rowOf(COUNTERSUNK_SOCKET_HEADS, screw);
  return row && { diameter: given(row, 'head'), source: ISO_10642 };
}

/** A cylinder head, with room around it for a printed counterbore. */
export function headFor(screw: string): (Bored & { height: number }) | undefined {
  const row = rowOf(SOCKET_HEADS, screw);
  return row && { diameter: given(row, 'head'), height: given(row, 'height'), source: ISO_4762 };
}

/** Its coarse thread: ISO 261, ISO 724. */
export function threadFor(screw: string): { major: number; minor: number; pitch: number } | undefined {
  const thread = METRIC.find(t => t.designation === screw);
  if (!thread) return undefined;
  const { pitch } = thread;
  return { major: nominal(screw), minor: basicMetric(nominal(screw), pitch).minorInternal, pitch };
}
