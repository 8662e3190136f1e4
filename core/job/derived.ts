import { derive, deriveKind, sensitivity } from '../measure/derive';
import type { Evaluation } from '../measure/evaluate';
import { combine, coverageFactor, type Doubt, effectiveDegreesOfFreedom } from '../measure/uncertainty';
import { type Expression, evaluateExpression, namesIn } from '../quantity/expression';
import { formatPlain } from '../quantity/format';
import type { DimensionState } from './dimensions';
import type { Derived, Dimension, JobDocument, Reading } from './document';

type Look = (id: string) => DimensionState | 'circle' | undefined;

const quantityKind = (dimension: Pick<Dimension, 'kind'>) =>
  dimension.kind === 'angle' ? 'angle' : 'length';

/** A worked-out dimension's state: its value from others, with their doubts carried along. */
export function workOut(
  dimension: Dimension,
  derived: Derived,
  document: JobDocument,
  look: Look,
): DimensionState {
  const blank: DimensionState = {
    dimension,
    counted: [],
    values: [],
    source: null,
    evaluation: null,
    worked: null,
    jawShortfall: null,
  };
  try {
    const { value, budget, text, sources } =
      derived.by === 'formula'
        ? byFormula(derived, look)
        : byExpression(dimension, derived.expression, document, look);
    const u = combine(budget);
    const dof = effectiveDegreesOfFreedom(budget);
    const evaluation: Evaluation = {
      value,
      standardUncertainty: u,
      degreesOfFreedom: Number.isFinite(dof) ? dof : null,
      expandedUncertainty: u * coverageFactor(0.95, dof),
      spread: 0,
      form: null,
      outliers: [],
      budget,
      advice: [],
    };
    return { ...blank, evaluation, source: leastTrusted(sources), worked: { text } };
  } catch (error) {
    if (error instanceof RangeError) return { ...blank, worked: { problem: error.message } };
    throw error;
  }
}

interface Result {
  value: number;
  budget: Doubt[];
  text: string;
  sources: Reading['source'][];
}

/** What was read of the least trusted input is what the result is worth. */
const leastTrusted = (sources: readonly Reading['source'][]): Reading['source'] =>
  (['said', 'old-part'] as const).find(s => sources.includes(s)) ?? 'seat';

function read(id: string, look: Look): { value: number; u: number; dof: number; source: Reading['source'] } {
  const state = look(id);
  if (state === 'circle') throw new RangeError('It is made from itself: that goes round in a circle.');
  if (!state) throw new RangeError('A dimension it is made from is gone: choose another.');
  if (!state.evaluation) throw new RangeError(`${state.dimension.label} has no value yet: measure it first.`);
  const { value, standardUncertainty, degreesOfFreedom } = state.evaluation;
  return { value, u: standardUncertainty, dof: degreesOfFreedom ?? Infinity, source: state.source ?? 'seat' };
}

function byFormula(derived: Extract<Derived, { by: 'formula' }>, look: Look): Result {
  const kind = deriveKind(derived.kind);
  if (!kind) throw new RangeError(`There is no way to work out “${derived.kind}”.`);
  const quantities: Record<string, { value: number; u: number; dof: number }> = {};
  const sources: Reading['source'][] = [];
  for (const { key, label } of kind.slots) {
    const input = derived.inputs[key];
    if (!input) throw new RangeError(`The ${label} is missing: measure it first.`);
    if (input.of === 'number') quantities[key] = { value: input.value, u: input.u, dof: Infinity };
    else {
      const found = read(input.id, look);
      quantities[key] = found;
      sources.push(found.source);
    }
  }
  const { value, budget, worked } = derive(kind, quantities, derived.counts);
  return {
    value,
    budget: budget.map((d, i) => ({ ...d, degreesOfFreedom: quantities[kind.slots[i]!.key]!.dof })),
    text: worked,
    sources,
  };
}

function byExpression(
  dimension: Dimension,
  expression: Expression,
  document: JobDocument,
  look: Look,
): Result {
  const kind = quantityKind(dimension);
  const found = new Map<string, ReturnType<typeof read>>();
  const outcome = evaluateExpression(expression, kind, name => {
    const named = document.dimensions.find(d => d.name === name);
    if (!named) return undefined;
    const known = found.get(name) ?? read(named.id, look);
    found.set(name, known);
    return known.value;
  });
  if (!outcome.ok) throw new RangeError(outcome.message);
  const at = Object.fromEntries([...found].map(([name, f]) => [name, f.value]));
  const again = (values: Record<string, number>) => {
    const result = evaluateExpression(expression, kind, name => values[name]);
    if (!result.ok) throw new RangeError(result.message);
    return result.value;
  };
  const budget = [...found].map(([name, { u, dof }]) => ({
    name: document.dimensions.find(d => d.name === name)!.label,
    u: Math.abs(sensitivity(again, at, name)) * u,
    degreesOfFreedom: dof,
  }));
  const filled = expression.text.replace(/[a-z][a-z0-9_]*/gi, name =>
    found.has(name) ? formatPlain(found.get(name)!.value, 3) : name,
  );
  return {
    value: outcome.value,
    budget,
    text: `${filled} = ${formatPlain(outcome.value, 3)}${kind === 'angle' ? '°' : ' mm'}`,
    sources: [...found.values()].map(f => f.source),
  };
}

/** Dimensions that a worked-out one is made from, by id. */
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

/** Why a dimension cannot be worked out this way, or null. Numbers that are not read yet are no problem. */
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
    // A placeholder can divide by nothing where the real numbers would not.
    if (!outcome.ok && !/division by zero/.test(outcome.message))
      return { message: outcome.message, at: outcome.at };
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

/** Labels of what is made from a dimension: worked-out dimensions and threads. */
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
