import { describe, expect, test } from 'vitest';
import { gauss, seeded } from '../bench/random';
import type { LearnMate } from './likelihood';
import { groupPosterior, type Trial } from './posterior';
import { VERDICTS } from './verdict';
import { chanceOfVerdict, verdictFor, verdictScale } from './verdict-scale';

const scale = verdictScale({ min: 0.05, max: 0.2 }, 'mm');
const mate = (id: string, side: 'inside' | 'outside' = 'inside', u = 0.03): LearnMate => ({
  id,
  side,
  group: side,
  reading: { value: 31.7, u },
  scale,
});
const tried = (model: number, verdict: (typeof VERDICTS)[number]): Trial => ({
  mates: { a: { model, verdict } },
});
/** The closed forms are for normals alone, so completely wrong beliefs are switched off here. */
const prior = { mean: 0.22, sd: 0.14, wild: 0 };
const s = 0.04;

describe('verdicts', () => {
  test('each clearance has its word, at the window’s edges and 0.25 beyond', () => {
    expect([-0.3, -0.1, 0.1, 0.3, 0.6].map(c => verdictFor(c, scale))).toEqual([...VERDICTS]);
  });

  test('the chances of the five verdicts add up to 1 whatever the clearance', () => {
    for (const c of [-1, -0.2, 0.05, 0.125, 0.2, 3]) {
      const total = VERDICTS.reduce((sum, v) => sum + chanceOfVerdict(v, c, 0.04, scale), 0);
      expect(total).toBeCloseTo(1, 9);
    }
  });

  test('no verdict is ever impossible: hands slip', () => {
    expect(chanceOfVerdict('drops-off', -2, 0.04, scale)).toBeCloseTo(0.006, 6);
  });

  test('a strain window’s outer verdicts begin in proportion to its width', () => {
    expect(verdictScale({ min: -1.2, max: -0.4 }, 'strain').beyond).toBeCloseTo(1, 12);
    expect(verdictScale({ min: 0, max: 0.2 }, 'strain').beyond).toBeCloseTo(0.25, 12);
  });
});

describe('the posterior', () => {
  test('without tries it is the prior: shared and own part in squares', () => {
    const { mates, shared } = groupPosterior([mate('a')], prior, s, []);
    expect(mates.get('a')!.mean).toBeCloseTo(0.22, 4);
    expect(mates.get('a')!.sd).toBeCloseTo(Math.hypot(0.14, 0.03), 3);
    expect(shared.sd).toBeCloseTo(0.14, 3);
  });

  test('a measured print is a normal observation of the shared part: closed form', () => {
    // Conjugate normal: precision 1/0.14² + 1/(0.04² + 0.02²); own part stays as it was.
    const trial: Trial = { mates: { a: { model: 32, printed: { value: 31.6, u: 0.02 } } } };
    const { shared, mates } = groupPosterior([mate('a')], prior, s, [trial]);
    const noise = 0.04 ** 2 + 0.02 ** 2;
    const precision = 1 / 0.14 ** 2 + 1 / noise;
    const mean = (0.22 / 0.14 ** 2 + 0.4 / noise) / precision;
    expect(shared.mean).toBeCloseTo(mean, 4);
    expect(shared.sd).toBeCloseTo(1 / Math.sqrt(precision), 4);
    expect(mates.get('a')!.sd).toBeCloseTo(Math.hypot(1 / Math.sqrt(precision), 0.03), 3);
  });

  test('verdicts on two mates agree with a million weighted draws', () => {
    const trials: Trial[] = [
      { mates: { a: { model: 32.04, verdict: 'tight' }, b: { model: 31.95, verdict: 'tight' } } },
      {
        mates: {
          a: { model: 32.2, verdict: 'right' },
          b: { model: 32.1, verdict: 'tight', printed: { value: 31.78, u: 0.03 } },
        },
      },
    ];
    const exact = groupPosterior([mate('a'), mate('b')], prior, s, trials);
    // Importance sampling straight from the model: draw b, δ and every print's ε, weighted by the likelihood of the
    // verdicts.
    const random = seeded(42);
    let total = 0;
    const sums = { a: [0, 0], b: [0, 0] } as Record<'a' | 'b', [number, number]>;
    for (let i = 0; i < 1_000_000; i++) {
      const shared = gauss(random, prior.mean, prior.sd);
      const own = { a: gauss(random, 0, 0.03), b: gauss(random, 0, 0.03) };
      let weight = 1;
      for (const trial of trials) {
        for (const id of ['a', 'b'] as const) {
          const seen = trial.mates[id]!;
          const epsilon = gauss(random, 0, s);
          weight *= chanceOfVerdict(seen.verdict!, seen.model - 31.7 - shared - own[id] - epsilon, 0, scale);
          if (seen.printed)
            weight *= Math.exp(
              -0.5 * ((seen.model - shared - epsilon - seen.printed.value) / seen.printed.u) ** 2,
            );
        }
      }
      total += weight;
      for (const id of ['a', 'b'] as const) {
        const beta = shared + own[id];
        sums[id][0] += weight * beta;
        sums[id][1] += weight * beta * beta;
      }
    }
    for (const id of ['a', 'b'] as const) {
      const mean = sums[id][0] / total;
      const sd = Math.sqrt(sums[id][1] / total - mean * mean);
      expect(exact.mates.get(id)!.mean, id).toBeCloseTo(mean, 2.3);
      expect(exact.mates.get(id)!.sd, id).toBeCloseTo(sd, 2.3);
    }
  });

  test('sides mirror: an outside drawn as much under as a hole is over learns the same', () => {
    const inside = groupPosterior([mate('a')], prior, s, [tried(32.04, 'tight')]);
    const outside = groupPosterior([mate('a', 'outside')], prior, s, [tried(31.7 - 0.34, 'tight')]);
    expect(outside.mates.get('a')!.mean).toBeCloseTo(inside.mates.get('a')!.mean, 9);
  });

  test('what one mate learns carries to its neighbour through the shared part only', () => {
    const mates = [mate('a'), mate('b', 'inside', 0.1)];
    const { mates: learned, shared } = groupPosterior(mates, prior, s, [tried(32.04, 'wont-go')]);
    expect(learned.get('b')!.mean).toBeCloseTo(shared.mean, 2);
    expect(shared.mean).toBeGreaterThan(0.4);
  });

  test('a prior that is far off gives way when verdict after verdict contradicts it', () => {
    // The true β is 0.9, five prior deviations away.
    const models = [32.04, 32.2, 32.4, 32.5];
    const trials = models.map(m => tried(m, verdictFor(m - 31.7 - 0.9, scale)));
    const { mates } = groupPosterior([mate('a')], prior, s, trials);
    expect(mates.get('a')!.mean).toBeGreaterThan(0.75);
  });

  test('a certain prior stays certain', () => {
    const { mates } = groupPosterior([mate('a', 'inside', 0)], { mean: 0.2, sd: 0 }, s, [tried(32, 'tight')]);
    expect(mates.get('a')!).toMatchObject({ mean: 0.2, sd: 0 });
  });

  test('the same question gives the same answer to the last bit', () => {
    const run = () =>
      groupPosterior([mate('a'), mate('b')], prior, s, [tried(32.04, 'tight')]).mates.get('b')!.mean;
    expect(run()).toBe(run());
  });
});
