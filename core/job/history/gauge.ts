import { z } from 'zod';
import { SURFACE_FORMS } from '../../fit/print-bias';
import { Id } from '../fields';
import { defineRow, Voidable } from './kind';

/** A gauge: a stand-in for an object that is away. Its surface is printed at the size that was read. */
export const Gauge = z.object({
  ...Voidable,
  mateId: Id,
  partId: Id,
  printerId: Id.nullable(),
  materialId: Id.nullable(),
  /** The object's surface that our part goes over or into. */
  side: z.enum(['inside', 'outside']),
  form: z.enum(SURFACE_FORMS),
  /** What was drawn: diameter or width, mm. */
  drawn: z.number().positive().max(5000),
});
export type Gauge = z.infer<typeof Gauge>;

/** What the printed gauge measures: a try on it is about this size, not about the reading of the object. */
export const GaugeSize = z.object({
  ...Voidable,
  gaugeId: Id,
  value: z.number().positive().max(5000),
  u: z.number().min(0).max(100),
});
export type GaugeSize = z.infer<typeof GaugeSize>;

export const gauge = defineRow({
  kind: 'gauge',
  list: 'gauges',
  schema: Gauge,
  about: null,
  words: row => `Made a gauge of the object, ${row.drawn.toFixed(2)} mm`,
});

export const gaugeSize = defineRow({
  kind: 'gauge-size',
  list: 'gaugeSizes',
  schema: GaugeSize,
  about: row => ({ list: 'gauges', id: row.gaugeId }),
  words: row => `Measured a gauge: ${row.value.toFixed(2)} mm`,
});
