import { quantityKind } from '../job/derived';
import type { Derived, Dimension, JobDocument, Reading } from '../job/document';
import { derive, deriveKind, sensitivity } from '../measure/derive';
import type { Evaluation } from '../measure/evaluate';
import { combine, coverageFactor, type Doubt, effectiveDegreesOfFreedom } from '../measure/uncertainty';
import { type Expression, evaluateExpression } from '../quantity/expression';
import { formatPlain } from '../quantity/format';
import type { DimensionState } from './dimension';

type Look = (id: string) => DimensionState | 'circle' | undefined;

/** The state of a derived dimension: its value from others, with their uncertainties propagated. */
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

/** The result is worth as much as the least trusted input. */
const leastTrusted = (sources: readonly Reading['source'][]): Reading['source'] =>
  (['said', 'photo', 'scan', 'old-part'] as const).find(s => sources.includes(s)) ?? 'seat';

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
