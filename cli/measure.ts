import { z } from 'zod';
import { evaluateReadings } from '../core/measure/evaluate';
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
    .object({ resolution: z.number().positive(), maxError: z.number().min(0) })
    .default({ resolution: 0.01, maxError: 0.03 }),
  repeatability: z.number().positive().optional(),
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
  run({ readings, unit, instrument, critical, repeatability }) {
    const values = readings.map((reading, index) => {
      const typed = parseQuantity(String(reading), 'length', unit);
      if (!typed.ok) throw new BadInput(typed.message, `readings.${index}`);
      return typed.quantity.value;
    });
    const {
      advice,
      budget: _,
      ...evaluation
    } = evaluateReadings(values, instrument, { critical, repeatability });
    return { ...evaluation, advice: advice.map(a => a.message) };
  },
};
