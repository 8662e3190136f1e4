import type { SurfaceForm } from '../fit/print-bias';
import type { Side } from '../fit/wants';
import type { MateLedger } from '../work/ledger';

/**
 * A gauge of the object: its surface alone, at the size that was read, on a foot to hold it by. Lengths mm. It is
 * printed, measured, and tried on in the object's place.
 */
export const GAUGE = {
  /** Of the surface, over the foot. */
  height: 16,
  /** Of a hole's or a gap's walls, and of a thick outside's. */
  wall: 3,
  foot: { height: 2.4, beyond: 5 },
  /** It carries the size, towards the front. */
  tongue: 8,
  /** A round outside is hollow from this inside on. */
  hollow: 8,
  /** Flats go on for so much of their width at least. */
  long: 24,
};

/** What cannot stand in: an object that gives, a thread, a hook; and what is another part of ours is at hand. */
export const hasGauge = ({ mate, reading }: Pick<MateLedger, 'mate' | 'reading'>): boolean =>
  mate.other.of === 'object' &&
  mate.soft !== 'theirs' &&
  !['click', 'screw', 'insert'].includes(mate.want.name) &&
  reading.value >= 2;

/** The object's side of a mate. */
export const objectSide = (ours: Side): Side => (ours === 'inside' ? 'outside' : 'inside');

export interface GaugeAsked {
  side: Side;
  form: SurfaceForm;
  /** Diameter or width, mm. */
  size: number;
}

/** Of its foot, without the tongue; mm. */
export function gaugeFoot({ side, form, size }: GaugeAsked): { width: number; depth: number } {
  const across = size + 2 * ((side === 'inside' ? GAUGE.wall : 0) + GAUGE.foot.beyond);
  return { width: across, depth: form === 'round' ? across : GAUGE.long + 2 * GAUGE.foot.beyond };
}

export function fitsBed(asked: GaugeAsked, bed: { width: number; depth: number }): boolean {
  const { width, depth } = gaugeFoot(asked);
  return width <= bed.width && depth + GAUGE.tongue <= bed.depth;
}

/** mm³, edges and figures left out. */
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
  return (foot - hole) * GAUGE.foot.height + wall * GAUGE.height;
}
