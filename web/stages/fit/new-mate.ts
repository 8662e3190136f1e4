import { ulid } from 'ulid';
import { z } from 'zod';
import { type Dimension, type Mate, Tolerance } from '../../../core/job/document';
import type { windowFor } from '../../../core/job/workshop';
import { SIGNED_KINDS } from '../../../core/learn/signed';
import { parseQuantity } from '../../../core/quantity/parse';
import type { Span } from '../../../core/shape/span/span';
import type { Place } from '../../../core/shape/vector';
import { ownDimension } from '../measure/own-dimension';

/** A mate of the maker's own, from the entries in the dialog. */

export const KINDS = ['fit', ...SIGNED_KINDS] as const;
export type Kind = (typeof KINDS)[number];
/** Typed in the dialog, stored with the job as a dimension of its own. */
export const NEW = 'new';

export const Wish = z
  .object({
    name: z.string().trim().min(1, 'Give it a name.').max(120, 'At most 120 characters.'),
    kind: z.enum(KINDS),
    number: z.string().min(1, 'Say which number of the part it is.'),
    dimension: z.string(),
    value: z.string().max(60),
    side: z.enum(['inside', 'outside']),
    round: z.boolean(),
    under: z.string().max(60),
    over: z.string().max(60),
    more: z.string().trim().max(120),
    less: z.string().trim().max(120),
  })
  .superRefine((wish, context) => {
    const say = (path: keyof typeof wish, message: string) =>
      context.addIssue({ code: 'custom', path: [path], message });
    const measure = wish.kind === 'angle' ? 'angle' : 'length';
    if (wish.dimension === NEW && wish.value.trim() !== '') {
      const typed = parseQuantity(wish.value, measure);
      if (!typed.ok) say('value', typed.message);
      else if (wish.kind === 'fit' && typed.quantity.value <= 0) say('value', 'A size is above 0.');
    }
    if (wish.kind === 'fit') return;
    for (const path of ['under', 'over'] as const) {
      const typed = parseQuantity(wish[path], measure);
      if (wish[path].trim() === '') say(path, 'Say how much of it is still right.');
      else if (!typed.ok) say(path, typed.message);
      else if (typed.quantity.value < 0) say(path, 'Without a sign.');
    }
    const bounds = toleranceOf(wish);
    if (bounds && !Tolerance.safeParse(bounds).success) say('over', 'One of the two must be above 0.');
    if (!wish.more) say('more', 'Give it a word.');
    if (!wish.less) say('less', 'Give it a word.');
  });
export type Wish = z.infer<typeof Wish>;

function toleranceOf({ under, over, kind }: Pick<Wish, 'under' | 'over' | 'kind'>) {
  const measure = kind === 'angle' ? 'angle' : 'length';
  const [low, high] = [parseQuantity(under, measure), parseQuantity(over, measure)];
  return low.ok && high.ok ? { min: -low.quantity.value, max: high.quantity.value } : null;
}

export interface PressedOn {
  places: readonly Place[];
  span: Span;
  /** Its target, where that was entered. */
  wanted: number | null;
  /** How much larger it gets per mm or degree of the number. */
  rate: number;
}

/** The size equals the number itself, mm or degrees: screens show hundredths. */
const ITSELF = 0.005;

/** A typed size is an ordinary reading: said, not measured. */
export function newDimension(wish: Wish, taken: readonly Dimension[]): Dimension {
  const kind: Dimension['kind'] =
    wish.kind === 'fit'
      ? wish.side === 'inside'
        ? 'outside'
        : 'inside'
      : wish.kind === 'angle'
        ? 'angle'
        : 'length';
  const typed =
    wish.value.trim() === '' ? null : parseQuantity(wish.value, kind === 'angle' ? 'angle' : 'length');
  const readings: Dimension['readings'] = typed?.ok
    ? [
        {
          id: ulid(),
          value: typed.quantity.value,
          text: wish.value.trim(),
          unit: kind === 'angle' ? 'deg' : 'mm',
          at: new Date().toISOString(),
          instrumentId: null,
          source: 'said',
          via: 'typed',
          struck: null,
          // A decision is not uncertain.
          u: 0,
        },
      ]
    : [];
  return ownDimension(wish.name, kind, taken, { critical: wish.kind === 'fit', readings });
}

/** What a size between pressed faces can be: a feel needs a number that changes it one to one. */
export const canBe = (kind: Kind, { span, rate }: PressedOn) =>
  (kind === 'angle') === (span.kind === 'angle') && (kind !== 'fit' || Math.abs(rate - 1) < 0.02);

const pressedOf = ({
  places,
  span,
  number,
}: PressedOn & { number: number }): NonNullable<Mate['pressed']> => ({
  places: places.map(({ point, normal }) => ({ point: [...point], normal: [...normal] })),
  size: Number(span.size.toFixed(4)),
  number,
});

/** The target of its number, where the size is not the number itself: derived from the size that is read. */
export function countedBy(
  { span: { size }, rate }: PressedOn,
  now: number,
  read: Dimension,
  number: string,
  taken: readonly Dimension[],
): Dimension | null {
  const steady = Number((size - rate * now).toFixed(3));
  const times = Number(rate.toFixed(4));
  if (Math.abs(steady) < ITSELF && Math.abs(times - 1) < 0.02) return null;
  const less = steady === 0 ? read.name : `(${read.name} ${steady > 0 ? '-' : '+'} ${Math.abs(steady)})`;
  const text =
    Math.abs(times - 1) < 0.02
      ? less.replace(/^\(|\)$/g, '')
      : `${less} / ${times < 0 ? `(${times})` : times}`;
  return ownDimension(`${read.label}, as “${number}” counts it`, read.kind, [...taken, read], {
    critical: read.critical,
    derived: { by: 'expression', expression: { text, unit: read.kind === 'angle' ? 'deg' : 'mm' } },
  });
}

export function mateOf(
  wish: Wish,
  partId: string,
  dimension: string,
  {
    flexible,
    window,
    pressed,
  }: {
    flexible: boolean;
    window: ReturnType<typeof windowFor>;
    pressed: (PressedOn & { number: number }) | undefined;
  },
): Mate {
  const id = ulid();
  const about = {
    ...(pressed ? { pressed: pressedOf(pressed) } : {}),
    id,
    name: wish.name,
    ours: { of: 'part' as const, part: partId, surface: id },
    other: { of: 'object' as const, dimension },
  };
  if (wish.kind !== 'fit')
    return {
      ...about,
      kind: wish.kind,
      number: wish.number,
      rate: pressed ? Number(pressed.rate.toFixed(4)) : 1,
      tolerance: toleranceOf(wish)!,
      sense: { more: wish.more, less: wish.less },
    };
  const soft = wish.round && flexible;
  return {
    ...about,
    kind: 'fit',
    side: wish.side,
    soft: soft ? 'ours' : 'none',
    want: { name: soft ? 'stretch' : 'slide', window, prefer: 'none' },
    own: { number: wish.number, form: wish.round ? 'round' : 'flats', lying: false },
  };
}
