import type { HistoryKindName } from '../job/history';
import { STAGES, type Stage } from './stages';

/** How long the maker spent on each stage, from the times of what was done: nobody has to start a clock. */

export interface Moment {
  at: string;
  stage: Stage;
}

/** A longer pause was spent elsewhere, minutes. Common practice, no source. */
const PAUSE = 12;
/** Time before the first recorded act of a sitting, for reading or fetching, minutes. */
const BEGIN = 2;

/** Minutes by stage. The time between two acts belongs to the stage of the later one. */
export function minutesByStage(moments: readonly Moment[]): Record<Stage, number> {
  const minutes = Object.fromEntries(STAGES.map(s => [s, 0])) as Record<Stage, number>;
  const sorted = [...moments].sort((a, b) => a.at.localeCompare(b.at));
  let last = Number.NEGATIVE_INFINITY;
  for (const { at, stage } of sorted) {
    const now = Date.parse(at) / 60_000;
    const since = now - last;
    minutes[stage] += since > PAUSE ? BEGIN : since;
    last = now;
  }
  return minutes;
}

/** The fields of a part that belong to printing; all others belong to its shape. */
const OF_PRINT = new Set(['materialId', 'printerId', 'pose', 'quality']);
const OF_ROOT: Readonly<Record<string, Stage>> = {
  dimensions: 'measure',
  photos: 'measure',
  scans: 'measure',
  traces: 'measure',
  threads: 'measure',
  mates: 'fit',
  service: 'keep',
  away: 'keep',
};

/** The stage at which a value of the document is changed, by the value's path. */
export function stageOfPath([root, , of]: readonly string[]): Stage {
  if (root === 'parts') return of !== undefined && OF_PRINT.has(of) ? 'print' : 'shape';
  if (root === 'models') return 'shape';
  return (root !== undefined && OF_ROOT[root]) || 'brief';
}

/** The stage at which a history row is written. */
export function stageOfRow(kind: HistoryKindName): Stage {
  if (kind === 'try' || kind === 'ladder-try' || kind === 'rework') return 'try';
  if (kind === 'ladder' || kind === 'gauge' || kind === 'gauge-size') return 'fit';
  return kind === 'look' || kind === 'remark' ? 'keep' : 'print';
}
