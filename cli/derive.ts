import { z } from 'zod';
import { DERIVE_KINDS, type DerivedQuantity, derive, deriveKind } from '../core/measure/derive';
import { BadInput, type Command } from './command';

const Quantity = z.union([
  z.object({ value: z.number(), u: z.number().min(0, 'An uncertainty is 0 or more.').default(0) }),
  z.number().transform(value => ({ value, u: 0 })),
]);
const Point = z.tuple([z.number(), z.number()]);
const Input = z.looseObject({
  kind: z.string(),
  points: z.array(Point).length(3, 'Give three points.').optional(),
  u: z.number().min(0).optional(),
  sizes: z.array(Quantity).min(2, 'Give at least two sizes.').max(100).optional(),
});

export const measureDerive: Command<z.infer<typeof Input>> = {
  name: 'measure derive',
  about: 'A dimension that cannot be measured directly, from others, with its propagated uncertainty.',
  example: { kind: 'centre-distance', inside: { value: 28.4, u: 0.02 }, outside: { value: 44.1, u: 0.02 } },
  input: Input,
  run(input) {
    const kind = deriveKind(input.kind);
    if (!kind) {
      throw new BadInput(
        `There is no kind “${input.kind}”: take one of ${DERIVE_KINDS.map(k => k.id).join(', ')}.`,
        'kind',
      );
    }
    const quantities: Record<string, DerivedQuantity> = {};
    const given: Record<string, unknown> = { ...input, ...pointsOf(input), ...neighboursOf(input) };
    for (const { key } of kind.slots) {
      const read = Quantity.safeParse(given[key]);
      if (!read.success) throw new BadInput(`“${key}” must be a number or {"value","u"}, in mm.`, key);
      quantities[key] = read.data;
    }
    const counts: Record<string, number> = {};
    for (const { key } of kind.counts) {
      const value = given[key];
      if (value === undefined) continue;
      if (typeof value !== 'number') throw new BadInput(`“${key}” must be a plain number.`, key);
      counts[key] = value;
    }
    const { value, u, worked } = derive(kind, quantities, counts);
    return { value, u, unit: kind.result === 'angle' ? 'deg' : 'mm', formula: kind.formula, worked };
  },
};

function pointsOf({ points, u = 0 }: z.infer<typeof Input>): Record<string, DerivedQuantity> {
  const quantities: Record<string, DerivedQuantity> = {};
  for (const [i, [x, y]] of (points ?? []).entries()) {
    quantities[`x${i + 1}`] = { value: x, u };
    quantities[`y${i + 1}`] = { value: y, u };
  }
  return quantities;
}

/** A family is continued upwards: of more than two sizes, the gap between the two largest is meant. */
function neighboursOf({ sizes }: z.infer<typeof Input>): Record<string, DerivedQuantity> {
  if (!sizes) return {};
  const [below, above] = [...sizes].sort((a, b) => a.value - b.value).slice(-2);
  return { below: below!, above: above! };
}
