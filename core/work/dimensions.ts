import type { JobDocument } from '../job/document';
import { workOut } from './derived';
import { type DimensionState, evaluateDimension, type Known, sizedOf } from './dimension';

/** All dimensions of a job, the derived ones worked out from the measured ones. */
export function evaluateDimensions(document: JobDocument, workshop: Known): Map<string, DimensionState> {
  const states = new Map<string, DimensionState>();
  const open: string[] = [];
  const stateOf = (id: string): DimensionState | 'circle' | undefined => {
    const known = states.get(id);
    if (known) return known;
    if (open.includes(id)) return 'circle';
    const dimension = document.dimensions.find(d => d.id === id);
    if (!dimension) return undefined;
    open.push(id);
    const state = dimension.derived
      ? workOut(dimension, dimension.derived, document, stateOf)
      : evaluateDimension(dimension, workshop, sizedOf(document));
    open.pop();
    states.set(id, state);
    return state;
  };
  // In the document's order, not in the order of evaluation.
  return new Map(document.dimensions.map(d => [d.id, stateOf(d.id) as DimensionState]));
}
