import type { Dimension } from '../job/document';
import { dimensionOf } from '../job/parts';
import { CRITICAL_READINGS } from '../measure/evaluate';
import { type DimensionState, readEnough } from './dimension';
import type { ResolvedPart } from './resolved';
import { type Shaped, usesOf } from './uses';

/** The guide dimensions that this part needs, in measuring order, then the maker's own. */
export function neededDimensions(resolved: Shaped & Pick<ResolvedPart, 'dimensions'>): DimensionState[] {
  const { document, part, recipe, parameters, dimensions } = resolved;
  return document.dimensions.flatMap(d => {
    const step = recipe.guide.find(g => dimensionOf(part, g.key) === d.id);
    // Another part's guide asks for it, or this part does not need it with its current choices.
    if (d.guide !== null && !step?.needed(parameters)) return [];
    if (d.guide !== null && goesWithAnother(resolved, d.id)) return [];
    if (d.guide !== null && isLetGo(resolved, d)) return [];
    return [asCritical(resolved, dimensions.get(d.id)!)];
  });
}

/** Whether no surface has to fit it and nothing else is made from it: then it need not be read. */
function isLetGo(resolved: Shaped, dimension: Dimension): boolean {
  const { document, part, recipe } = resolved;
  const specs = recipe.mates.filter(m => dimensionOf(part, m.dimension) === dimension.id);
  const kept = document.mates.some(m => m.ours.part === part.id && specs.some(s => s.id === m.ours.surface));
  return specs.length > 0 && !kept && usesOf(resolved, dimension).length === 0;
}

/** Where no surface in use depends on a size, one reading is enough, whatever else the recipe could do with it. */
function asCritical(
  { part, recipe, parameters }: Pick<ResolvedPart, 'part' | 'recipe' | 'parameters'>,
  state: DimensionState,
): DimensionState {
  const specs = recipe.mates.filter(m => dimensionOf(part, m.dimension) === state.dimension.id);
  const idle = specs.length > 0 && specs.every(m => !m.active(parameters));
  if (!idle || !state.dimension.critical) return state;
  return { ...state, dimension: { ...state.dimension, critical: false } };
}

/** Whether all mates that use a dimension go with another of our parts: then nobody reads it. */
function goesWithAnother(
  { document, part, recipe }: Pick<ResolvedPart, 'document' | 'part' | 'recipe'>,
  dimension: string,
): boolean {
  const specs = recipe.mates.filter(m => dimensionOf(part, m.dimension) === dimension);
  const mates = document.mates.filter(
    m => m.ours.part === part.id && specs.some(s => s.id === m.ours.surface),
  );
  return mates.length > 0 && mates.every(m => m.other.of === 'part');
}

/** What must still be looked at while the object is here: unread, read too few times, or on the maker's list. */
export function stillToRead({ document, needed }: Pick<ResolvedPart, 'document' | 'needed'>): string[] {
  return [
    ...needed.flatMap(state => {
      const { dimension, evaluation, counted } = state;
      if (dimension.derived && evaluation) return [];
      if (!evaluation) return [`${dimension.label} is not read`];
      if (dimension.critical && !readEnough(state, CRITICAL_READINGS))
        return [
          `${dimension.label} was read ${counted.length === 1 ? 'once' : 'twice'}, three times is safer`,
        ];
      return [];
    }),
    ...document.object.toRead.filter(t => !t.done).map(t => t.words),
  ];
}

/** Critical dimensions with only one reading: to be measured again before hours of printing. */
export const measureAgain = ({ needed }: Pick<ResolvedPart, 'needed'>): DimensionState[] =>
  needed.filter(state => state.evaluation && state.dimension.critical && !readEnough(state, 2));
