import { describe, expect, test } from 'vitest';
import { gauss, seeded } from '../bench/random';
import { clearanceWindow } from '../fit/wants';
import { drawnClearance } from './likelihood';
import { type NextMate, nextVersion } from './next';
import type { Trial } from './posterior';
import { MARK_OF } from './verdict';
import { verdictFor, verdictScale } from './verdict-scale';

/** Truths that the prior hardly allows: a printer far from the belief, or a reading of something else. */
const SURFACES: Record<
  string,
  { mate: Omit<NextMate, 'id' | 'group'>; prior: { mean: number; sd: number } }
> = {
  'a bore': {
    mate: {
      side: 'inside',
      reading: { value: 31.7, u: 0.03 },
      scale: verdictScale({ min: 0.05, max: 0.2 }, 'mm'),
    },
    prior: { mean: 0.22, sd: 0.14 },
  },
  'a peg': {
    mate: {
      side: 'outside',
      reading: { value: 20, u: 0.03 },
      scale: verdictScale({ min: 0.2, max: 0.45 }, 'mm'),
    },
    prior: { mean: 0.05, sd: 0.08 },
  },
  'a coarse thread': {
    mate: {
      side: 'inside',
      reading: { value: 108, u: 0.04 },
      scale: verdictScale({ min: 0.4, max: 0.87 }, 'mm'),
    },
    prior: { mean: 0.22, sd: 0.14 },
  },
  'a stretched ring': {
    mate: {
      side: 'inside',
      reading: { value: 60, u: 0.05 },
      scale: verdictScale(
        clearanceWindow({ min: 0.015, max: 0.04, unit: 'strain' }, 60, 'inside', 'ours'),
        'strain',
      ),
    },
    prior: { mean: 0.22, sd: 0.14 },
  },
  'a calibrated bore': {
    mate: {
      side: 'inside',
      reading: { value: 12, u: 0.02 },
      scale: verdictScale({ min: 0.05, max: 0.2 }, 'mm'),
    },
    prior: { mean: 0.22, sd: 0.03 },
  },
};
const SCATTER = 0.04;

/** Prints until one is right; each answer is checked along the way. @returns how many, 99 where ten were not enough */
function prints(surface: keyof typeof SURFACES, off: number, seed: number, noisy = false): number {
  const { mate: own, prior } = SURFACES[surface]!;
  const mate: NextMate = { ...own, id: 'a', group: 'g' };
  const random = seeded(seed);
  const beta = prior.mean + off + gauss(random, 0, own.reading.u);
  const trials: Trial[] = [];
  let before: { model: number; clearance: number } | null = null;
  for (let print = 1; print <= 10; print++) {
    const next = nextVersion({ mates: [mate], priors: { g: prior }, repeatability: SCATTER, trials }).mates
      .a!;
    const model = Number(next.model.toFixed(2));
    const clearance = drawnClearance(mate, model);
    const last = trials.at(-1)?.mates.a?.verdict;
    if (last && before) {
      const least = last === 'wont-go' || last === 'drops-off' ? 0.05 : 0.02;
      const moved = (clearance - before.clearance) * (MARK_OF[last] === 'tight' ? 1 : -1);
      expect(moved, `${surface}, off ${off}, after “${last}” at ${before.model}: ${model}`).toBeGreaterThan(
        least - 0.006,
      );
    }
    const real = clearance - beta;
    const felt = noisy ? gauss(random, real - gauss(random, 0, SCATTER), 0.02) : real;
    const verdict = verdictFor(felt, mate.scale);
    trials.push({ mates: { a: { model, verdict } } });
    if (verdict === 'right') return print;
    before = { model, clearance };
  }
  return 99;
}

describe('where the truth is far from what is believed', () => {
  test.each(Object.keys(SURFACES))(
    '%s is right within six prints, and every verdict moves its number',
    surface => {
      const counts = [-1.5, -1, -0.5, 0.5, 1, 1.5].flatMap(off =>
        [1, 2].map(seed => ({ off, seed, count: prints(surface, off, seed) })),
      );
      expect(counts.filter(c => c.count > 6)).toEqual([]);
    },
  );

  test('with the scatter of prints and hands it takes about as many', () => {
    const counts = Object.keys(SURFACES).flatMap(surface =>
      [-1.5, -0.7, 0.7, 1.5].flatMap(off => [11, 12].map(seed => prints(surface, off, seed, true))),
    );
    expect(counts.reduce((sum, n) => sum + n) / counts.length).toBeLessThan(5);
  });

  test('a second “won’t go” is believed: the steps grow', () => {
    const { mate: own, prior } = SURFACES['a bore']!;
    const mate: NextMate = { ...own, id: 'a', group: 'g' };
    const trials: Trial[] = [];
    const models = Array.from({ length: 4 }, () => {
      const next = nextVersion({ mates: [mate], priors: { g: prior }, repeatability: SCATTER, trials });
      const { model } = next.mates.a!;
      trials.push({ mates: { a: { model, verdict: 'wont-go' } } });
      return model;
    });
    const steps = models.slice(1).map((m, i) => m - models[i]!);
    expect(steps[1]! + steps[2]!).toBeGreaterThan(0.6);
  });

  test('one mate of three that is off by itself does not drag the others along, and gets there', () => {
    const { mate: own, prior } = SURFACES['a bore']!;
    const mates = ['a', 'b', 'c'].map((id): NextMate => ({ ...own, id, group: 'g' }));
    const beta = { a: 0.22 + 0.9, b: 0.22, c: 0.24 } as Record<string, number>;
    const trials: Trial[] = [];
    for (let print = 1; print <= 7; print++) {
      const next = nextVersion({ mates, priors: { g: prior }, repeatability: SCATTER, trials });
      const said = Object.fromEntries(
        mates.map(m => {
          const { model } = next.mates[m.id]!;
          return [m.id, { model, verdict: verdictFor(drawnClearance(m, model) - beta[m.id]!, m.scale) }];
        }),
      );
      trials.push({ mates: said });
      if (Object.values(said).every(s => s.verdict === 'right')) break;
    }
    expect(trials.length).toBeLessThanOrEqual(7);
    expect(trials.slice(1).every(t => t.mates.b!.verdict === 'right')).toBe(true);
  });
});
