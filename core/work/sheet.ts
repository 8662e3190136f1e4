import type { Workshop } from '../job/workshop';
import type { Drawing } from '../shape/drawing/drawing';
import type { Recipe } from '../shape/recipes/recipe';
import type { DimensionState } from './dimension';
import type { ResolvedPart } from './resolved';
import { showSize, valueWords } from './show';
import { describeThread, likelyThread, threadState } from './threads';

/** The measuring sheet of a job as data: the page prints it, and the PDF is made from it. */
export interface Sheet {
  title: string;
  object: string;
  note: string;
  /** The object, in the guide drawing of each part. */
  views: SheetView[];
  rows: SheetRow[];
  threads: { label: string; words: string; standard: string }[];
  /** What is still to be read. */
  open: string[];
}

export interface SheetView {
  /** The part's name; empty where the job has one part. */
  part: string;
  drawing: Drawing;
  /** Sizes by drawing key, as the drawing's labels show them. */
  values: Record<string, string>;
}

export interface SheetRow {
  id: string;
  label: string;
  critical: boolean;
  /** “31.70 ± 0.04 mm”; empty while unread. */
  value: string;
  readings: { text: string; struck: boolean }[];
  with: string;
  source: string;
  /** The formula with its numbers, or how to hold the instrument. */
  how: string;
  note: string;
}

const SOURCES = {
  seat: 'the seat',
  'old-part': 'the old part',
  scan: 'a scan',
  photo: 'a photo',
  said: 'said',
} as const;

type SheetPart = ResolvedPart & { objectDrawing: Drawing };

/** @param parts of one job */
export function sheetOf(parts: readonly SheetPart[]): Sheet {
  const [{ document, workshop, dimensions }] = parts as [SheetPart, ...SheetPart[]];
  // A dimension that two parts share is read once.
  const wanted = parts.flatMap(p => p.needed);
  const byId = new Map<string, DimensionState>();
  for (const state of wanted) {
    const known = byId.get(state.dimension.id);
    // One part may need it more than the other.
    if (!known || (state.dimension.critical && !known.dimension.critical))
      byId.set(state.dimension.id, state);
  }
  const states = [...byId.values()];
  const guide = parts.flatMap(p => p.recipe.guide);
  return {
    title: document.title,
    object: document.object.name,
    note: document.object.note,
    views: parts.map(p => ({
      part: parts.length > 1 ? p.part.name : '',
      drawing: p.objectDrawing,
      values: Object.fromEntries(
        Object.entries(p.measured).map(([key, { value, kind }]) => [
          key,
          showSize(kind, value, workshop.unit),
        ]),
      ),
    })),
    rows: states.map(s => rowOf(s, guide, workshop)),
    threads: document.threads.map(t => {
      const state = threadState(t, dimensions);
      const likely = likelyThread(state);
      const standard =
        t.standard === 'odd'
          ? 'odd, as measured'
          : (t.standard ?? (likely ? `likely ${likely.designation}` : 'not named yet'));
      return { label: t.label, words: describeThread(state, dimensions), standard };
    }),
    open: states.filter(s => !s.evaluation).map(s => s.dimension.label),
  };
}

function rowOf(state: DimensionState, guide: Recipe['guide'], workshop: Workshop): SheetRow {
  const { dimension, worked } = state;
  const names = new Set(
    dimension.readings.map(r => workshop.instruments.find(i => i.id === r.instrumentId)?.name ?? 'not said'),
  );
  return {
    id: dimension.id,
    label: dimension.label,
    critical: dimension.critical,
    value: valueWords(state, workshop.unit),
    readings: dimension.derived
      ? []
      : dimension.readings.map(r => ({
          text:
            /[a-z"”′″°]/i.test(r.text) || r.unit === 'mm' || r.unit === 'deg'
              ? r.text
              : `${r.text} ${r.unit}`,
          struck: r.struck !== null,
        })),
    with: dimension.readings.length > 0 && !dimension.derived ? [...names].join(', ') : '',
    source: state.source ? SOURCES[state.source] : '',
    how: worked
      ? 'text' in worked
        ? worked.text
        : worked.problem
      : (guide.find(g => g.key === dimension.guide)?.how ?? ''),
    note: dimension.note,
  };
}
