import type { MeasuredThread } from '../job/document';
import { DIAMETER_WORDS, measuredOf } from '../job/threads';
import { formatPlain } from '../quantity/format';
import { type Identified, identifyThread } from '../shelf/threads/identify';
import type { DimensionState } from './dimension';

/** What is known of a thread on the object, from its dimensions. */
export interface ThreadState {
  thread: MeasuredThread;
  /** Outside (external) or hole (internal); null while unread. */
  diameter: { value: number; u: number } | null;
  /** Between neighbouring ridges, along the axis. */
  pitch: { value: number; u: number } | null;
  /** What one turn moves: pitch times starts. */
  lead: number | null;
  identified: Identified | null;
  /** What is still to be measured, in the best order; empty when all is known. */
  open: string[];
}

/** Below this chance of the best candidate no name is proposed. */
const SURE_ENOUGH = 0.5;

export function threadState(
  thread: MeasuredThread,
  dimensions: ReadonlyMap<string, DimensionState>,
): ThreadState {
  const quantity = (id: string | null) => {
    const e = id === null ? null : dimensions.get(id)?.evaluation;
    return e ? { value: e.value, u: e.standardUncertainty } : null;
  };
  const diameter = quantity(thread.diameter);
  const span = quantity(thread.span);
  const pitch = span && { value: span.value / thread.turns, u: span.u / thread.turns };
  const size = { [measuredOf(thread)]: diameter };
  const identified =
    diameter && pitch
      ? identifyThread({ side: thread.side, ...size, pitch, taper: thread.taper, starts: thread.starts })
      : null;
  return {
    thread,
    diameter,
    pitch,
    lead: pitch && pitch.value * thread.starts,
    identified,
    open: [
      diameter ? '' : `the ${DIAMETER_WORDS[thread.side][measuredOf(thread)]}`,
      span ? '' : 'the span over several turns',
      thread.hand ? '' : 'the hand',
      thread.taper === null ? 'whether it tapers' : '',
    ].filter(Boolean),
  };
}

/** The most likely standard thread, if it is likely enough to be named. */
export function likelyThread(state: ThreadState) {
  const best = state.identified?.candidates[0];
  return best && best.probability >= SURE_ENOUGH ? best : null;
}

/** An odd thread in the form that a recipe takes: all of it as measured. */
export function describeThread(state: ThreadState, dimensions: ReadonlyMap<string, DimensionState>): string {
  const { thread, diameter, pitch, lead } = state;
  const size = (id: string | null) => (id === null ? undefined : dimensions.get(id)?.evaluation?.value);
  const [height, width] = [size(thread.ridgeHeight), size(thread.ridgeWidth)];
  return [
    `${thread.side} thread`,
    diameter
      ? `${DIAMETER_WORDS[thread.side][measuredOf(thread)].split(' ')[0]} ${formatPlain(diameter.value)} mm`
      : '',
    pitch ? `pitch ${formatPlain(pitch.value, 3)} mm` : '',
    thread.starts > 1 && lead ? `${thread.starts} starts, lead ${formatPlain(lead, 3)} mm` : '',
    thread.hand ? `${thread.hand} hand` : '',
    thread.taper ? 'tapered' : '',
    height === undefined ? '' : `ridge ${formatPlain(height)} high`,
    width === undefined ? '' : `${formatPlain(width)} wide`,
    thread.crest
      ? `${thread.crest === 'flat' ? 'flattened' : thread.crest === 'round' ? 'rounded' : 'sharp'} crests`
      : '',
  ]
    .filter(Boolean)
    .join(', ');
}
