import { describe, expect, test } from 'vitest';
import { featureOf } from '../calibration/piece';
import { requireRecipe } from '../shape/recipes';
import { drawPrinter, pieceSize, tighterBy } from './printer';
import { gauss, seeded, seedOf } from './random';
import { drawWorld, printSizes, readCaliper, tryOn } from './world';

const example = requireRecipe('round-cap').demo.sizes;
const world = drawWorld('job-1', example);
const printer = drawPrinter('printer', 'petg');
const mate = {
  id: 'skirt',
  side: 'inside' as const,
  dimension: 'rim',
  model: 0,
  want: { min: 0.05, max: 0.2, unit: 'mm' as const },
  soft: 'none' as const,
};

describe('the practice bench', () => {
  test('a job has its own object, the same one every time', () => {
    expect(drawWorld('job-1', example)).toEqual(world);
    expect(drawWorld('job-2', example).sizes).not.toEqual(world.sizes);
  });

  test('the caliper reads about the true size, in its own steps, differently each time', () => {
    const readings = Array.from({ length: 200 }, (_, n) => readCaliper(world, 'rim', n, 0.01)!);
    const mean = readings.reduce((a, b) => a + b, 0) / readings.length;
    expect(mean).toBeCloseTo(world.sizes.rim!, 1.7);
    expect(new Set(readings).size).toBeGreaterThan(3);
    expect(readings.every(r => Math.abs(r * 100 - Math.round(r * 100)) < 1e-6)).toBe(true);
    expect(readCaliper(world, 'rim', 0, 0.01)).toBe(readings[0]);
    expect(readCaliper(world, 'nothing', 0, 0.01)).toBeUndefined();
  });

  test('prints carry the hidden bias; hands feel the true clearance', () => {
    const rim = world.sizes.rim!;
    const at = (clearance: number) => {
      return tryOn(world, [{ ...mate, model: rim }], { skirt: rim + clearance }).skirt;
    };
    expect([-0.4, 0, 0.1, 0.3, 0.7].map(at)).toEqual(['wont-go', 'tight', 'right', 'loose', 'drops-off']);
    const sizes = Array.from(
      { length: 200 },
      (_, n) => printSizes(world, printer, [{ ...mate, model: 32 }], n).skirt!,
    );
    expect(sizes.reduce((a, b) => a + b, 0) / 200).toBeCloseTo(
      32 - tighterBy(printer, 'inside', 'round', 32),
      1.5,
    );
  });

  test('a part’s surfaces come out as the piece’s of the same kind did: calibrating pays for flats too', () => {
    const mean = (values: number[]) => values.reduce((a, b) => a + b, 0) / values.length;
    const rounds = Array.from({ length: 300 }, (_, n) => n);
    for (const [side, form, id] of [
      ['inside', 'round', 'hole-8'],
      ['inside', 'flats', 'slot-8-left-right'],
      ['outside', 'round', 'peg-8'],
      ['outside', 'flats', 'rib-8-left-right'],
    ] as const) {
      const onPart = rounds.map(
        n => printSizes(world, printer, [{ ...mate, id: 'm', side, form, model: 8 }], n).m!,
      );
      const onPiece = rounds.map(n => pieceSize(printer, featureOf(id)!, n));
      expect(Math.abs(mean(onPart) - mean(onPiece)), id).toBeLessThan(0.02);
    }
  });

  test('its random numbers are normal enough and depend on the words', () => {
    const random = seeded(1);
    const draws = Array.from({ length: 20_000 }, () => gauss(random, 2, 3));
    const mean = draws.reduce((a, b) => a + b, 0) / draws.length;
    expect(mean).toBeCloseTo(2, 1);
    expect(Math.sqrt(draws.reduce((a, b) => a + (b - mean) ** 2, 0) / draws.length)).toBeCloseTo(3, 1);
    expect(seedOf('a', 1)).not.toBe(seedOf('a', 2));
  });
});
