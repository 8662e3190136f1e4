import {
  create,
  isAccessorNode,
  isConstantNode,
  isFunctionNode,
  isOperatorNode,
  isParenthesisNode,
  isSymbolNode,
  type MathNode,
  parseDependencies,
} from 'mathjs/number';
import { parseQuantity, shorten } from './parse';
import { factorOf, type QuantityKind, type Unit, unitFromSpelling, unitSuits } from './units';

/**
 * Expressions over names, as typed in a parameter's field: `rim.model`, `bore/2 + 0.4`, `max(wall, 1.2)`.
 * `rim` is what was measured, `rim.model` the number the ledger makes of it. A bare number takes the
 * field's unit when it is typed and keeps it, so a later change of display unit changes nothing.
 */
export interface Expression {
  text: string;
  /** The unit bare numbers in `text` have. */
  unit: Unit;
}

export type ExpressionOutcome =
  | { ok: true; value: number; names: string[] }
  | {
      ok: false;
      message: string;
      /** The sum can be read, and comes to no number. */
      code?: 'not-finite';
      /** Where in the text, when known. */
      at?: number;
      name?: string;
    };

/** Looks a name up; undefined for an unknown name, null when it is known but has no value yet. */
export type Lookup = (name: string) => number | null | undefined;

const { parse } = create({ parseDependencies: parseDependencies! });
const FUNCTIONS: Record<string, (...values: number[]) => number> = {
  min: Math.min,
  max: Math.max,
  sqrt: Math.sqrt,
  abs: Math.abs,
  round: Math.round,
  floor: Math.floor,
  ceil: Math.ceil,
};
/** Longer texts are refused before the parser sees them. */
const LONGEST = 200;

class Refusal extends Error {
  constructor(
    message: string,
    readonly symbol?: string,
  ) {
    super(message);
  }
}

/** A quantity or an expression, evaluated: mm, degrees, count or ratio by kind. */
export function evaluateExpression(
  expression: Expression,
  kind: QuantityKind,
  lookup: Lookup,
): ExpressionOutcome {
  const text = expression.text.trim();
  const typed = parseQuantity(text, kind, expression.unit);
  if (typed.ok) return { ok: true, value: typed.quantity.value, names: [] };
  if (typed.code !== 'not-a-number' || !/[\p{L}(*+/-]/u.test(text))
    return { ok: false, message: typed.message };
  if (text.length > LONGEST) return { ok: false, message: `This is over ${LONGEST} characters: shorten it.` };

  let tree: MathNode;
  try {
    tree = parse(text.replace(/(\d),(\d)/g, '$1.$2'));
  } catch (error) {
    const at = (error as { char?: number }).char;
    return {
      ok: false,
      message: `“${shorten(text)}” cannot be read as a sum: check its signs and brackets.`,
      at,
    };
  }
  const names = new Set<string>();
  try {
    const value = walk(tree, expression.unit, kind, lookup, names);
    if (!Number.isFinite(value))
      return {
        ok: false,
        code: 'not-finite',
        message: 'The result is not a number: check for a division by zero.',
      };
    return { ok: true, value, names: [...names] };
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    const at = error.symbol ? text.indexOf(error.symbol) : -1;
    return { ok: false, message: error.message, at: at < 0 ? undefined : at, name: error.symbol };
  }
}

/** The names an expression uses, without evaluating it; empty when it cannot be read. */
export function namesIn(expression: Expression, kind: QuantityKind): string[] {
  const outcome = evaluateExpression(expression, kind, () => 1);
  return outcome.ok ? outcome.names : [];
}

/**
 * One unit rule for sums: a bare number is scaled by the field's unit unless it multiplies or divides,
 * where it is a plain factor: in `bore/2 + 0.4` the 2 is a count and the 0.4 a length.
 */
function walk(
  node: MathNode,
  unit: Unit,
  kind: QuantityKind,
  lookup: Lookup,
  names: Set<string>,
  asFactor = false,
): number {
  const go = (child: MathNode, factor = asFactor) => walk(child, unit, kind, lookup, names, factor);
  if (isConstantNode(node) && typeof node.value === 'number')
    return asFactor ? node.value : node.value * factorOf(unit);
  if (isParenthesisNode(node)) return go(node.content);
  if (isSymbolNode(node)) return resolve(node.name, lookup, names);
  if (isAccessorNode(node) && isSymbolNode(node.object)) {
    const [field] = node.index.dimensions;
    if (isConstantNode(field) && typeof field.value === 'string')
      return resolve(`${node.object.name}.${field.value}`, lookup, names);
  }
  if (isFunctionNode(node)) {
    const { name } = node.fn;
    const run = Object.hasOwn(FUNCTIONS, name) ? FUNCTIONS[name] : undefined;
    if (!run)
      throw new Refusal(`“${shorten(name)}” is not a function here: use min, max, sqrt, abs, round.`, name);
    return run(...node.args.map(child => go(child)));
  }
  if (isOperatorNode(node)) return operate(node.op, node.args, kind, go);
  throw new Refusal('Only numbers, names, + − * / and brackets can stand here.');
}

function operate(
  op: string,
  args: MathNode[],
  kind: QuantityKind,
  go: (child: MathNode, factor?: boolean) => number,
): number {
  const [left, right] = args;
  if (right === undefined) {
    if (op === '-') return -go(left!);
    if (op === '+') return go(left!);
    throw new Refusal(`“${op}” cannot stand here.`);
  }
  if (op === '+') return go(left!) + go(right);
  if (op === '-') return go(left!) - go(right);
  if (op === '*') {
    // `0.4 in` is read by the parser as 0.4 × in.
    const named = isSymbolNode(right) ? unitFromSpelling(right.name) : undefined;
    if (named && unitSuits(named, kind)) return go(left!, true) * factorOf(named);
    // In a product one side is the length, the others are factors: a bare number beside a name is a factor.
    return hasName(left!) || hasName(right)
      ? go(left!, true) * go(right, true)
      : go(left!, false) * go(right, true);
  }
  if (op === '/') return go(left!, hasName(left!) || undefined) / go(right, true);
  throw new Refusal(`“${op}” cannot be used here: only + − * / and brackets.`);
}

const hasName = (node: MathNode) =>
  node.filter((child: MathNode) => isSymbolNode(child) || isAccessorNode(child)).length > 0;

function resolve(name: string, lookup: Lookup, names: Set<string>): number {
  const value = lookup(name);
  if (value === undefined) throw new Refusal(`Nothing here is called “${shorten(name)}”.`, name);
  if (value === null) throw new Refusal(`“${name}” has no value yet: measure it first.`, name);
  names.add(name);
  return value;
}
