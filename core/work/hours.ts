import type { HistoryKindName } from '../job/history';
import { STAGES, type Stage } from './stages';

/** How long the maker was at each stage, from when things were done: nobody has to start a clock. */

export interface Moment {
  at: string;
  stage: Stage;
}

/** A longer pause was spent elsewhere, minutes. Common practice, no source. */
const PAUSE = 12;
/** Before the first thing that is done at a sitting, something was read or fetched, minutes. */
const BEGIN = 2;

/** Minutes by stage. What lies between two moments was spent on what was done at its end. */
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

/** What of a part belongs to printing it; the rest is its shape. */
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

/** The stage at which a value of the document is changed, by its path. */
export function stageOfPath([root, , of]: readonly string[]): Stage {
  if (root === 'parts') return of !== undefined && OF_PRINT.has(of) ? 'print' : 'shape';
  if (root === 'models') return 'shape';
  return (root !== undefined && OF_ROOT[root]) || 'brief';
}

/** The stage at which a row of the history is written. */
export function stageOfRow(kind: HistoryKindName): Stage {
  if (kind === 'try' || kind === 'ladder-try' || kind === 'rework') return 'try';
  if (kind === 'ladder' || kind === 'gauge' || kind === 'gauge-size') return 'fit';
  return kind === 'look' || kind === 'remark' ? 'keep' : 'print';
}
