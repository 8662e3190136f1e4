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
      /** The expression can be read but has no value. */
      code?: 'not-finite';
      /** The position in the text, when known. */
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
const DEGREE = Math.PI / 180;
/** Functions of an angle in degrees; the result is a plain factor. */
const OF_ANGLE: Record<string, (degrees: number) => number> = {
  sin: a => Math.sin(a * DEGREE),
  cos: a => Math.cos(a * DEGREE),
  tan: a => Math.tan(a * DEGREE),
};
/** Functions of a ratio; the result is an angle in degrees. */
const OF_RATIO: Record<string, (ratio: number) => number> = {
  asin: x => Math.asin(x) / DEGREE,
  acos: x => Math.acos(x) / DEGREE,
  atan: x => Math.atan(x) / DEGREE,
};
const known = (table: Record<string, unknown>, name: string) => Object.hasOwn(table, name);
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
    tree = parse(separated(text));
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, message: error.message };
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
 * One unit rule for sums: a bare number takes the field's unit unless it multiplies or divides, where it is a plain
 * factor: in `bore/2 + 0.4` the 2 is a count and the 0.4 a length.
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
    const [only] = node.args;
    if (known(OF_ANGLE, name) && only)
      return OF_ANGLE[name]!(walk(only, 'deg', 'angle', lookup, names, false));
    if (known(OF_RATIO, name) && only) return OF_RATIO[name]!(go(only, true));
    if (!known(FUNCTIONS, name))
      throw new Refusal(
        `“${shorten(name)}” is not a function here: use min, max, sqrt, abs, round, sin, cos, tan, atan.`,
        name,
      );
    return FUNCTIONS[name]!(...node.args.map(child => go(child)));
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
    // The parser reads `0.4 in` as 0.4 × in.
    const named = isSymbolNode(right) ? unitFromSpelling(right.name) : undefined;
    if (named && unitSuits(named, kind)) return go(left!, true) * factorOf(named);
    // A sine is a factor whatever its argument: the other side keeps its unit.
    if (isFactor(left!) || isFactor(right))
      return go(left!, isFactor(right) ? undefined : true) * go(right, isFactor(left!) ? undefined : true);
    // In a product one side is the length and the others are factors: a bare number next to a name is a factor.
    return hasName(left!) || hasName(right)
      ? go(left!, true) * go(right, true)
      : go(left!, false) * go(right, true);
  }
  if (op === '/') return go(left!, hasName(left!) || undefined) / go(right, true);
  throw new Refusal(`“${op}” cannot be used here: only + − * / and brackets.`);
}

/** A function of an angle. */
const isFactor = (node: MathNode): boolean =>
  isParenthesisNode(node) ? isFactor(node.content) : isFunctionNode(node) && known(OF_ANGLE, node.fn.name);

/**
 * The text with points for decimal commas. In a function's brackets a semicolon, or a comma and a space, separates
 * arguments; a text that can be read both ways is refused.
 */
function separated(text: string): string {
  /** The open brackets: plain ones, or how the arguments of a function are separated. */
  const open: ('none' | 'unclear' | 'semicolons')[] = [];
  let plain = '';
  for (let i = 0; i < text.length; i++) {
    const sign = text[i]!;
    if (sign === '(') {
      const ofFunction = /\p{L}\s*$/u.test(text.slice(0, i));
      open.push(!ofFunction ? 'none' : insideOf(text, i).includes(';') ? 'semicolons' : 'unclear');
    } else if (sign === ')') open.pop();
    const within = open.at(-1) ?? 'none';
    if (sign === '°') plain += ' deg';
    else if (sign === ';' && within !== 'none') plain += ',';
    else if (sign === ',' && /\d$/.test(plain) && /^\d/.test(text.slice(i + 1))) {
      if (within === 'unclear') {
        const [before, after] = [/[\d.]+$/.exec(plain)![0], /^\d+/.exec(text.slice(i + 1))![0]];
        throw new Refusal(
          `“${before},${after}” may be the two numbers ${before}; ${after} or the one number ${before}.${after}: write “${before}; ${after}” or “${before}.${after}”.`,
        );
      }
      plain += '.';
    } else plain += sign;
  }
  return plain;
}

/** The text between a bracket and the one that closes it. */
function insideOf(text: string, from: number): string {
  let depth = 0;
  for (let i = from; i < text.length; i++) {
    if (text[i] === '(') depth++;
    else if (text[i] === ')' && --depth === 0) return text.slice(from + 1, i);
  }
  return text.slice(from + 1);
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
