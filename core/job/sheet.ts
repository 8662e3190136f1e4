import type { Drawing } from '../shape/drawing/drawing';
import type { DimensionState } from './dimensions';
import type { JobDocument } from './document';
import { neededDimensions, type ResolvedPart } from './resolve';
import { showSize, valueWords } from './show';
import { describeThread, likelyThread, threadState } from './threads';
import type { Workshop } from './workshop';

/** The measuring sheet as data: the page prints it and the PDF is made of it. */
export interface Sheet {
  title: string;
  object: string;
  note: string;
  drawing: Drawing;
  /** Sizes by drawing key, as the drawing's labels show them. */
  values: Record<string, string>;
  rows: SheetRow[];
  threads: { label: string; words: string; standard: string }[];
  /** What is still to be read. */
  open: string[];
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

const SOURCES = { seat: 'the seat', 'old-part': 'the old part', said: 'said' } as const;

export function sheetOf(document: JobDocument, resolved: ResolvedPart, workshop: Workshop): Sheet {
  const states = neededDimensions(document, resolved);
  const measured: Record<string, number> = {};
  const values: Record<string, string> = {};
  for (const [id, { evaluation, dimension }] of resolved.dimensions) {
    if (!evaluation) continue;
    measured[id] = evaluation.value;
    values[id] = showSize(dimension.kind, evaluation.value, workshop.unit);
  }
  // The drawing knows its dimensions by the recipe's keys.
  for (const [key, id] of Object.entries(resolved.part.binds)) {
    measured[key] = measured[id] as number;
    values[key] = values[id] ?? '';
  }
  return {
    title: document.title,
    object: document.object.name,
    note: document.object.note,
    drawing: resolved.recipe.objectDrawing(measured, resolved.parameters),
    values,
    rows: states.map(s => rowOf(s, resolved, workshop)),
    threads: document.threads.map(t => {
      const state = threadState(t, resolved.dimensions);
      const likely = likelyThread(state);
      const standard =
        t.standard === 'odd'
          ? 'odd, as measured'
          : (t.standard ?? (likely ? `likely ${likely.designation}` : 'not named yet'));
      return { label: t.label, words: describeThread(state, resolved.dimensions), standard };
    }),
    open: states.filter(s => !s.evaluation).map(s => s.dimension.label),
  };
}

function rowOf(state: DimensionState, resolved: ResolvedPart, workshop: Workshop): SheetRow {
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
      : (resolved.recipe.guide.find(g => g.key === dimension.guide)?.how ?? ''),
    note: dimension.note,
  };
}
