import { z } from 'zod';

/** The print settings that matter for time, plastic and strength. Lengths mm, speeds mm/s. */

export const PrintSettings = z.object({
  layer: z.number().min(0.03).max(1),
  firstLayer: z.number().min(0.03).max(1),
  lineWidth: z.number().min(0.1).max(3),
  /** Passes round each outline. */
  walls: z.number().int().min(1).max(40),
  /** Solid layers above and below. */
  top: z.number().int().min(0).max(200),
  bottom: z.number().int().min(0).max(200),
  /** Share of the inside that is plastic, 0 to 1. */
  infill: z.number().min(0).max(1),
});
export type PrintSettings = z.infer<typeof PrintSettings>;

/** How a printer moves. */
export const Machine = z.object({
  outer: z.number().min(1).max(1500),
  inner: z.number().min(1).max(1500),
  infill: z.number().min(1).max(1500),
  skin: z.number().min(1).max(1500),
  first: z.number().min(1).max(1500),
  travel: z.number().min(1).max(2000),
  /** mm/s² */
  acceleration: z.number().min(20).max(100_000),
  /** How far it may cut a corner, mm; this sets the speed round it. */
  deviation: z.number().min(0.001).max(1),
  /** A layer takes at least this long, s, so that it can cool; but the head never moves slower than `slowest`. */
  leastLayer: z.number().min(0).max(120),
  slowest: z.number().min(1).max(200),
  /** Retracting and priming, s, both together. */
  retraction: z.number().min(0).max(5),
  /** Heating up and homing, minutes. */
  start: z.number().min(0).max(60),
});
export type Machine = z.infer<typeof Machine>;

/** Neither slow nor fast: assumed for a printer that was not described. Common practice, no source. */
export const USUAL_MACHINE: Machine = {
  outer: 50,
  inner: 80,
  infill: 100,
  skin: 80,
  first: 25,
  travel: 150,
  acceleration: 2500,
  deviation: 0.03,
  leastLayer: 8,
  slowest: 10,
  retraction: 0.1,
  start: 4,
};

export const Quality = z.enum(['draft', 'usual', 'fine']);
export type Quality = z.infer<typeof Quality>;

/** As a share of the line's width: the layer; and the passes and infill that go with it. Common practice, no source. */
const OF_QUALITY: Readonly<
  Record<Quality, Pick<PrintSettings, 'walls' | 'infill'> & { share: number; skin: number }>
> = {
  draft: { share: 0.7, walls: 2, infill: 0.12, skin: 0.8 },
  usual: { share: 0.5, walls: 3, infill: 0.2, skin: 0.8 },
  fine: { share: 0.3, walls: 4, infill: 0.25, skin: 0.9 },
};

/** Layers come in steps of this, mm. */
const STEP = 0.04;

/** The settings of a quality with a line of this width, mm. @param skin thickness that is solid above and below, mm */
export function settingsFor(quality: Quality, lineWidth: number): PrintSettings {
  const { share, walls, infill, skin } = OF_QUALITY[quality];
  const layer = Math.max(STEP, Number((Math.round((share * lineWidth) / STEP) * STEP).toFixed(3)));
  const solid = Math.max(2, Math.ceil(skin / layer - 1e-9));
  return { layer, firstLayer: Math.max(layer, 0.2), lineWidth, walls, top: solid, bottom: solid, infill };
}
