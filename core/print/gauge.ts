import type { SurfaceForm } from '../fit/print-bias';
import { chanceWithin } from '../fit/probability';
import type { Side } from '../fit/wants';
import type { MateLedger } from '../work/ledger';
import { solidMinutes } from './estimate';

/**
 * A gauge of the object: its surface alone, at the size that was read, on a foot to hold it by. Lengths mm. It is
 * printed, measured, and tried on instead of the object.
 */
export const GAUGE = {
  /** Height of the surface above the foot. */
  height: 16,
  /** Wall of a hole or a gap, and of a thick outside. */
  wall: 3,
  foot: { height: 2.4, beyond: 5 },
  /** The tongue carries the size, towards the front. */
  tongue: 8,
  /** A round outside is hollow from this inside diameter on. */
  hollow: 8,
  /** Flats are at least this share of their width long. */
  long: 24,
};

/** From the bed to its top, mm. */
export const GAUGE_HEIGHT = GAUGE.foot.height + GAUGE.height;

/** What a gauge cannot replace: an object that gives, a thread, a hook. Another part of ours is at hand anyway. */
export const hasGauge = ({ mate, reading }: Pick<MateLedger, 'mate' | 'reading'>): boolean =>
  mate.other.of === 'object' &&
  mate.soft !== 'theirs' &&
  !['click', 'screw', 'insert'].includes(mate.want.name) &&
  reading.value >= 2;

/** The object's side of a mate. */
const objectSide = (ours: Side): Side => (ours === 'inside' ? 'outside' : 'inside');

export interface GaugeAsked {
  side: Side;
  form: SurfaceForm;
  /** Diameter or width, mm. */
  size: number;
}

/** Size of its foot, without the tongue; mm. */
export function gaugeFoot({ side, form, size }: GaugeAsked): { width: number; depth: number } {
  const across = size + 2 * ((side === 'inside' ? GAUGE.wall : 0) + GAUGE.foot.beyond);
  return { width: across, depth: form === 'round' ? across : GAUGE.long + 2 * GAUGE.foot.beyond };
}

export function fitsBed(asked: GaugeAsked, bed: { width: number; depth: number }): boolean {
  const { width, depth } = gaugeFoot(asked);
  return width <= bed.width && depth + GAUGE.tongue <= bed.depth;
}

/** The tongue is about this wide, from its figures; mm. */
const TONGUE_WIDE = 19;

/** mm³, chamfers and figures left out. */
export function gaugeVolume(asked: GaugeAsked): number {
  const { side, form, size } = asked;
  const { width, depth } = gaugeFoot(asked);
  const disc = (diameter: number) => (Math.PI / 4) * diameter ** 2;
  const foot = form === 'round' ? disc(width) : width * depth;
  const inner = size - 2 * GAUGE.wall;
  const hole = form !== 'round' ? 0 : side === 'inside' ? disc(size) : inner > GAUGE.hollow ? disc(inner) : 0;
  const wall =
    form === 'round'
      ? (side === 'inside' ? disc(size + 2 * GAUGE.wall) : disc(size)) - hole
      : (side === 'inside' ? 2 * GAUGE.wall : size) * GAUGE.long;
  const tongue = TONGUE_WIDE * GAUGE.tongue;
  return (foot - hole + tongue) * GAUGE.foot.height + wall * GAUGE.height;
}

/** The gauge that would stand in for a mate’s object. @param mates of the recipe */
export const gaugeAsked = (
  { mate, reading }: Pick<MateLedger, 'mate' | 'reading'>,
  mates: readonly { id: string; form?: SurfaceForm }[],
): GaugeAsked => ({
  side: objectSide(mate.side),
  form: mates.find(m => m.id === mate.ours.surface)?.form ?? 'round',
  size: Number(reading.value.toFixed(2)),
});

/** Time to measure it and note that, minutes. Common practice, no source. */
const MEASURING = 2;

/** Minutes to print a gauge and measure it. */
export const gaugeMinutes = (asked: GaugeAsked, nozzle: number, layer: number): number =>
  solidMinutes(gaugeVolume(asked), nozzle, layer) + MEASURING;

/** The middle ±4 sd of the normal. */
const STEPS = 60;

/**
 * How a gauge divides the uncertainty: the chance that the next print sits right on it, where the reading's error plays
 * no part, and that a print which sits right on it sits right on the object, where the printer's error plays no part.
 */
export function chancesWithGauge({
  window: { min, max },
  clearance,
  sd,
  scatter,
  reading,
}: Pick<MateLedger, 'window' | 'clearance' | 'sd' | 'scatter' | 'reading'>): {
  onGauge: number;
  onObject: number;
} {
  const printed = Math.sqrt(Math.max(scatter ** 2, sd ** 2 - reading.u ** 2));
  const onGauge = chanceWithin(min, max, clearance, printed);
  let [there, both] = [0, 0];
  for (let i = 0; i <= STEPS; i++) {
    const z = -4 + (8 * i) / STEPS;
    const at = clearance + z * printed;
    if (at < min || at > max) continue;
    const share = Math.exp((-z * z) / 2);
    there += share;
    both += share * chanceWithin(min, max, at, reading.u);
  }
  // No print is inside the window: the distribution is first moved into its middle.
  return { onGauge, onObject: there > 0 ? both / there : chanceWithin(min, max, (min + max) / 2, reading.u) };
}
