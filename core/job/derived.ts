import { deriveKind } from '../measure/derive';
import { evaluateExpression, namesIn } from '../quantity/expression';
import type { Derived, Dimension, JobDocument } from './document';

export const quantityKind = (dimension: Pick<Dimension, 'kind'>) =>
  dimension.kind === 'angle' ? 'angle' : 'length';

/** The ids of the dimensions that a derived dimension is made from. */
export function inputsOf(
  derived: Derived,
  dimension: Pick<Dimension, 'kind'>,
  document: Pick<JobDocument, 'dimensions'>,
): string[] {
  if (derived.by === 'formula')
    return Object.values(derived.inputs).flatMap(i => (i.of === 'dimension' ? [i.id] : []));
  return namesIn(derived.expression, quantityKind(dimension)).flatMap(name => {
    const found = document.dimensions.find(d => d.name === name);
    return found ? [found.id] : [];
  });
}

export interface DeriveProblem {
  message: string;
  /** Where in an expression's text, when known. */
  at?: number;
}

/** Why a dimension cannot be derived this way, or null. Numbers that are not read yet are not a problem. */
export function derivedProblem(
  dimension: Pick<Dimension, 'id' | 'kind'>,
  derived: Derived,
  document: Pick<JobDocument, 'dimensions'>,
): DeriveProblem | null {
  if (derived.by === 'formula') {
    const kind = deriveKind(derived.kind);
    if (!kind) return { message: `There is no way to work out “${derived.kind}”.` };
    if ((kind.result === 'angle') !== (dimension.kind === 'angle'))
      return {
        message:
          kind.result === 'angle'
            ? 'This gives an angle, and the dimension is a length.'
            : 'This gives a length, and the dimension is an angle.',
      };
    for (const { key, label } of kind.slots) {
      const input = derived.inputs[key];
      if (!input) return { message: `Say where the ${label} comes from.` };
      if (input.of === 'dimension' && !document.dimensions.some(d => d.id === input.id))
        return { message: `The dimension for the ${label} is no longer there.` };
    }
  } else {
    const outcome = evaluateExpression(derived.expression, quantityKind(dimension), name =>
      document.dimensions.some(d => d.name === name) ? 1.25 : undefined,
    );
    // A placeholder can divide by zero where the real numbers would not.
    if (!outcome.ok && outcome.code !== 'not-finite') return { message: outcome.message, at: outcome.at };
  }
  return circleProblem(dimension, derived, document);
}

function circleProblem(
  dimension: Pick<Dimension, 'id' | 'kind'>,
  derived: Derived,
  document: Pick<JobDocument, 'dimensions'>,
): DeriveProblem | null {
  const waiting = inputsOf(derived, dimension, document).map(id => ({ id, via: id }));
  const seen = new Set<string>();
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { id, via } = next;
    if (id === dimension.id) {
      const first = document.dimensions.find(d => d.id === via)!;
      const at =
        derived.by === 'expression' ? derived.expression.text.search(new RegExp(`\\b${first.name}\\b`)) : -1;
      return {
        message: `“${first.label}” is made from this dimension: that goes round in a circle.`,
        at: at < 0 ? undefined : at,
      };
    }
    if (seen.has(id)) continue;
    seen.add(id);
    const found = document.dimensions.find(d => d.id === id);
    if (found?.derived) waiting.push(...inputsOf(found.derived, found, document).map(i => ({ id: i, via })));
  }
  return null;
}

/** Labels of what is made from a dimension: derived dimensions and threads. */
export function usersOf(id: string, document: JobDocument): string[] {
  return [
    ...document.dimensions
      .filter(d => d.derived && inputsOf(d.derived, d, document).includes(id))
      .map(d => d.label),
    ...document.threads
      .filter(t => [t.diameter, t.span, t.ridgeHeight, t.ridgeWidth].includes(id))
      .map(t => t.label),
  ];
}
