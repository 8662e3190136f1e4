import { type Expression, evaluateExpression, type Lookup } from '../quantity/expression';
import { ownUnit, type QuantityKind } from '../quantity/units';

/** Something with numbers, some of them written as expressions. */
interface Written {
  texts?: Partial<Record<string, Expression>>;
}

/**
 * The numbers as they are now. One whose expression cannot be worked out, such as one over a size that is not read yet,
 * keeps its last value.
 */
export function worked<T extends Written>(row: T, lookup: Lookup): T {
  if (!row.texts) return row;
  const numbers = Object.entries(row.texts).flatMap(([key, text]) => {
    const value = text && amountOf(text, text.unit === 'none' ? 'count' : 'length', lookup);
    return typeof value === 'number' ? [[key, value]] : [];
  });
  return { ...row, ...Object.fromEntries(numbers) };
}

/** A number or an expression. @returns the number, or what is wrong with the text */
export function amountOf(
  expression: Expression,
  kind: QuantityKind,
  lookup: Lookup,
): number | { problem: string } {
  const outcome = evaluateExpression(expression, kind, lookup);
  return outcome.ok ? Number(outcome.value.toFixed(4)) : { problem: outcome.message };
}

/** A field's text as it is stored: null where it is a plain number, which needs no text. */
export const keptText = (text: string, kind: QuantityKind): Expression | null =>
  /[a-z_]{2}/i.test(text.replace(/\b(mm|cm|in|inch|thou|deg|m)\b/gi, ''))
    ? { text, unit: ownUnit(kind) }
    : null;
