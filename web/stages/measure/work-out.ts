import { toNestErrors } from '@hookform/resolvers';
import type { Resolver } from 'react-hook-form';
import { derivedProblem } from '../../../core/job/derived';
import type { Derived, Dimension } from '../../../core/job/document';
import { type DeriveKind, type DeriveSlot, deriveKind } from '../../../core/measure/derive';
import { formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import { ownDimension } from './own-dimension';

/** The dialog's entries for deriving a dimension, and the derivation that they give. */

/** A slot is filled from a dimension's id, a new one to read, or a number with its uncertainty. */
export const NEW = 'new';
export const NUMBER = 'number';
/** Instead of one of the formulas. */
export const EXPRESSION = 'expression';

export interface Filling {
  from: string;
  value: string;
  /** Give or take; empty, the usual value. */
  u: string;
}

export interface Said {
  kind: string;
  /** The maker's own sum. */
  text: string;
  slots: Record<string, Partial<Filling>>;
  counts: Record<string, string>;
}

/** The uncertainty of a number where none is entered. Practice. */
export const USUAL_DOUBT = '0.05';

/** The most frequent derivation. Practice. */
const usualKind = ({ kind }: Pick<Dimension, 'kind'>) => (kind === 'angle' ? 'taper' : 'centre-distance');

export const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** The entries when the dialog opens. */
export function saidOf(dimension: Dimension): Said {
  const now = dimension.derived;
  const formula = now?.by === 'formula' ? now : null;
  return {
    kind: formula ? formula.kind : now ? EXPRESSION : usualKind(dimension),
    text: now?.by === 'expression' ? now.expression.text : '',
    slots: Object.fromEntries(
      Object.entries(formula?.inputs ?? {}).map(([key, input]) => [
        key,
        input.of === 'dimension'
          ? { from: input.id }
          : { from: NUMBER, value: formatPlain(input.value, 4), u: formatPlain(input.u * Math.sqrt(3), 4) },
      ]),
    ),
    counts: Object.fromEntries(Object.entries(formula?.counts ?? {}).map(([k, v]) => [k, String(v)])),
  };
}

export interface WrongField {
  /** In the form. */
  path: 'kind' | 'text' | `slots.${string}.value` | `slots.${string}.u` | `counts.${string}`;
  message: string;
}

export type Plan = { ok: true; derived: Derived; fresh: Dimension[] } | { ok: false; wrong: WrongField[] };

/** The derivation from the entries so far, with the dimensions that would be new; or what is wrong, field by field. */
export function planOf(said: Said, dimension: Dimension, taken: readonly Dimension[]): Plan {
  const kind = said.kind === EXPRESSION ? undefined : deriveKind(said.kind);
  const plan = kind ? byFormula(kind, said, dimension, taken) : bySum(said.text, dimension);
  if (!plan.ok) return plan;
  const wrong = derivedProblem(dimension, plan.derived, { dimensions: [...taken, ...plan.fresh] });
  return wrong ? { ok: false, wrong: [{ path: kind ? 'kind' : 'text', message: wrong.message }] } : plan;
}

/** The position where a sum cannot be understood, in characters; null where there is none. */
export function sumWrongAt(text: string, dimension: Dimension, taken: readonly Dimension[]): number | null {
  const plan = bySum(text, dimension);
  const wrong = plan.ok ? derivedProblem(dimension, plan.derived, { dimensions: [...taken] }) : null;
  return wrong?.at ?? null;
}

function bySum(text: string, dimension: Dimension): Plan {
  if (!text.trim())
    return { ok: false, wrong: [{ path: 'text', message: 'Type a sum, such as bore / 2 + 0.4.' }] };
  const unit = dimension.kind === 'angle' ? ('deg' as const) : ('mm' as const);
  return { ok: true, derived: { by: 'expression', expression: { text: text.trim(), unit } }, fresh: [] };
}

function byFormula(kind: DeriveKind, said: Said, dimension: Dimension, taken: readonly Dimension[]): Plan {
  const fresh: Dimension[] = [];
  const inputs: Extract<Derived, { by: 'formula' }>['inputs'] = {};
  const wrong: WrongField[] = [];
  for (const slot of kind.slots) {
    const { from = NEW, value: number = '', u: doubt = '' } = said.slots[slot.key] ?? {};
    if (from === NEW) {
      const own = ownDimension(`${dimension.label}: ${slot.label}`, kindOfSlot(slot), [...taken, ...fresh], {
        note: sentence(slot.how),
      });
      fresh.push(own);
      inputs[slot.key] = { of: 'dimension', id: own.id };
    } else if (from === NUMBER) {
      const [value, u] = [
        parseQuantity(number, 'length'),
        parseQuantity(doubt.trim() || USUAL_DOUBT, 'length'),
      ];
      if (!value.ok) wrong.push({ path: `slots.${slot.key}.value`, message: value.message });
      if (!u.ok || u.quantity.value < 0)
        wrong.push({ path: `slots.${slot.key}.u`, message: 'How sure is it? Type a number such as 0.05.' });
      // “Give or take” is a rectangular distribution, like an instrument's error.
      if (value.ok && u.ok)
        inputs[slot.key] = { of: 'number', value: value.quantity.value, u: u.quantity.value / Math.sqrt(3) };
    } else inputs[slot.key] = { of: 'dimension', id: from };
  }
  const counts: Record<string, number> = {};
  for (const c of kind.counts) {
    const typed = parseQuantity(said.counts[c.key]?.trim() || String(c.default), 'count');
    if (typed.ok) counts[c.key] = typed.quantity.value;
    else wrong.push({ path: `counts.${c.key}`, message: typed.message });
  }
  if (wrong.length > 0) return { ok: false, wrong };
  return { ok: true, derived: { by: 'formula', kind: kind.id, inputs, counts }, fresh };
}

/** For the form library: each wrong field with its sentence. */
export const resolverFor =
  (dimension: Dimension, taken: readonly Dimension[]): Resolver<Said> =>
  (said, _, options) => {
    const plan = planOf(said, dimension, taken);
    if (plan.ok) return { values: said, errors: {} };
    const errors = plan.wrong.map(({ path, message }) => [path, { type: 'custom', message }]);
    return { values: {}, errors: toNestErrors(Object.fromEntries(errors), options) };
  };

/** The jaws for a slot, from its name. */
function kindOfSlot(slot: DeriveSlot): Dimension['kind'] {
  if (/inside|gap|bore/.test(slot.key)) return 'inside';
  if (/deep|shallow/.test(slot.key)) return 'depth';
  if (/height|near|far/.test(slot.key)) return 'step';
  if (/length|span|between|chord|around|[xy]\d/.test(slot.key)) return 'length';
  return 'outside';
}
