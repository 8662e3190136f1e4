import type { SurfaceForm } from '../fit/print-bias';
import { clearanceWindow, type Side, type SoftSide, type Window } from '../fit/wants';
import type { Verdict } from '../learn/verdict';
import { verdictFor, verdictScale } from '../learn/verdict-scale';
import { type PracticePrinter, tighterBy } from './printer';
import { gauss, seeded, seedOf } from './random';

/**
 * The practice bench: an object, a caliper, a printer and a pair of hands that nobody has to own. Their true sizes and
 * biases are drawn from a seed and hidden. The engine must find them as it would at a real bench, and cannot import
 * this folder (the linter makes sure).
 */
export interface World {
  seed: number;
  /** True sizes of the object by dimension name, mm. */
  sizes: Record<string, number>;
  /** A printer of its own, for a test scenario: how much tighter than drawn it makes holes and outsides, mm. */
  printer?: { inside: number; outside: number; repeatability: number };
}

/** Scatter of the hand that closes the caliper, mm. */
const HAND = 0.02;
/** Largest minus smallest diameter of a used object, mm. */
const OUT_OF_ROUND = 0.05;

/** A world of its own for each job: the recipe's example object at another scale. */
export function drawWorld(jobId: string, example: Readonly<Record<string, number>>): World {
  const seed = seedOf('world', jobId);
  const random = seeded(seed);
  const scale = 0.75 + 0.6 * random();
  return {
    seed,
    sizes: Object.fromEntries(
      Object.entries(example).map(([name, size]) => [name, size * scale + gauss(random, 0, 0.08)]),
    ),
  };
}

/**
 * The simulated caliper's `count`-th reading of a dimension, mm: the true size at that turn of the object, plus the
 * hand, in steps of the display.
 */
export function readCaliper(
  world: World,
  dimension: string,
  count: number,
  resolution: number,
): number | undefined {
  const size = world.sizes[dimension];
  if (size === undefined) return undefined;
  const random = seeded(seedOf('caliper', world.seed, dimension, count));
  const turn = (OUT_OF_ROUND / 2) * Math.cos(2 * Math.PI * random());
  const shown = gauss(random, size + turn, HAND);
  return Math.round(shown / resolution) * resolution;
}

export interface BenchMate {
  id: string;
  side: Side;
  /** Round unless stated. */
  form?: SurfaceForm;
  dimension: string;
  /** What was drawn, mm. */
  model: number;
  want: Window;
  soft: SoftSide;
}

/** True sizes of the `count`-th print, mm. @param printer the one it was made on, unless the world has its own */
export function printSizes(
  world: World,
  printer: PracticePrinter,
  mates: readonly BenchMate[],
  count: number,
): Record<string, number> {
  const own = world.printer;
  return Object.fromEntries(
    mates.map(mate => {
      const random = seeded(seedOf('print', world.seed, count, mate.id));
      const bias = own
        ? gauss(random, own[mate.side], own.repeatability)
        : gauss(random, tighterBy(printer, mate.side, mate.form ?? 'round', mate.model), printer.scatter);
      return [mate.id, mate.side === 'inside' ? mate.model - bias : mate.model + bias];
    }),
  );
}

/** How the print feels on the true object. */
export function tryOn(
  world: World,
  mates: readonly BenchMate[],
  printed: Readonly<Record<string, number>>,
): Record<string, Verdict> {
  const verdicts: Record<string, Verdict> = {};
  for (const mate of mates) {
    const object = world.sizes[mate.dimension];
    const size = printed[mate.id];
    if (object === undefined || size === undefined) continue;
    const clearance = mate.side === 'inside' ? size - object : object - size;
    const window = clearanceWindow(mate.want, object, mate.side, mate.soft);
    verdicts[mate.id] = verdictFor(clearance, verdictScale(window, mate.want.unit));
  }
  return verdicts;
}
