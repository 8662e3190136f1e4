import { z } from 'zod';
import { correctedForJaws, evaluateReadings } from '../core/measure/evaluate';
import { formatPlain } from '../core/quantity/format';
import { parseQuantity } from '../core/quantity/parse';
import { BadInput, type Command } from './command';

const Input = z.object({
  readings: z
    .array(z.union([z.number(), z.string()]))
    .min(1, 'Give at least one reading.')
    .max(10_000),
  unit: z.enum(['mm', 'cm', 'm', 'in', 'thou']).default('mm'),
  kind: z.string().optional(),
  critical: z.boolean().default(false),
  instrument: z
    .object({
      resolution: z.number().positive(),
      maxError: z.number().min(0),
      /** Flats of the inside jaws, mm. */
      jawLand: z.number().min(0).max(20).optional(),
    })
    .default({ resolution: 0.01, maxError: 0.03 }),
  repeatability: z.number().positive().optional(),
  /** How far the object was turned at each reading, degrees. */
  turns: z.array(z.number()).optional(),
  /** Take the flats of the inside jaws into account. */
  correctJaws: z.boolean().default(false),
});

export const measureEvaluate: Command<z.infer<typeof Input>> = {
  name: 'measure evaluate',
  about: 'Readings of one dimension to a value with its uncertainty.',
  example: {
    readings: [31.7, 31.72, '1 1/4 in'],
    unit: 'mm',
    kind: 'outside',
    instrument: { resolution: 0.01, maxError: 0.03 },
  },
  input: Input,
  run({ readings, unit, kind, instrument, critical, repeatability, turns, correctJaws }) {
    const land = kind === 'inside' ? (instrument.jawLand ?? 0) : 0;
    if (turns && turns.length !== readings.length)
      throw new BadInput(
        `Got ${turns.length} turns for ${readings.length} readings: give one each.`,
        'turns',
      );
    const inches: boolean[] = [];
    const values = readings.map((reading, index) => {
      const typed = parseQuantity(String(reading), 'length', unit);
      if (!typed.ok) throw new BadInput(typed.message, `readings.${index}`);
      if (kind !== undefined && typed.quantity.value <= 0)
        throw new BadInput('A size is above 0: read it again.', `readings.${index}`);
      inches.push(typed.quantity.unit === 'in' || typed.quantity.unit === 'thou');
      return correctJaws ? correctedForJaws(typed.quantity.value, land) : typed.quantity.value;
    });
    const {
      advice,
      budget: _,
      ...evaluation
    } = evaluateReadings(values, instrument, { critical, repeatability, turns, inches });
    const short = correctJaws ? 0 : correctedForJaws(evaluation.value, land) - evaluation.value;
    const jaws =
      short >= 0.01
        ? [`The flats of the inside jaws read ${formatPlain(short, 3)} mm short here: ask with correctJaws.`]
        : [];
    return { ...evaluation, advice: [...advice.map(a => a.message), ...jaws] };
  },
};
