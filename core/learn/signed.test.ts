import { describe, expect, test } from 'vitest';
import { gauss, seeded } from '../bench/random';
import type { Observation } from './likelihood';
import { nextVersion } from './next';
import type { GroupPrior } from './posterior';
import { doubtOf, USUAL_SENSE } from './signed';
import { signedNext } from './signed-mate';

/** Here the scatter of prints comes from the prior. */
const prior: GroupPrior = { mean: 0.1, sd: 0.12, wild: 0, scatter: 0.05 };
const mate = (more: Partial<Parameters<typeof signedNext>[0]> = {}) =>
  signedNext({
    id: 'lugs',
    kind: 'length',
    group: 'signed/mm',
    target: { value: 12, u: 0.08 },
    tolerance: { min: -0.1, max: 0.3 },
    sense: USUAL_SENSE.length,
    rate: 1,
    name: 'Gap between the lugs',
    ...more,
  });
const ask = (seen: Observation[], of = mate(), belief = prior) =>
  nextVersion({
    mates: [of],
    priors: { 'signed/mm': belief },
    repeatability: 0.04,
    trials: seen.map(o => ({ mates: { lugs: o } })),
  }).mates.lugs!;

describe('a mate that is judged by an amount', () => {
  test('is drawn so that the middle of its tolerance is met, with what the printer takes', () => {
    expect(ask([]).model).toBeCloseTo(12 + 0.1 + 0.1, 2);
  });

  // The conjugate normal: precisions add up (Gelman et al., Bayesian Data Analysis, 2.5).
  test('learns from an amount as the closed form says', () => {
    const off = { value: 0.5, u: 0.1 };
    const own = prior.sd ** 2 + 0.08 ** 2;
    const seen = off.u ** 2 + prior.scatter! ** 2;
    const beta = 12.2 - 12 - off.value;
    const mean = (prior.mean / own + beta / seen) / (1 / own + 1 / seen);
    const { bias, model } = ask([{ model: 12.2, off }]);
    // A few percent of the amounts are assumed to be slips, which takes a little off.
    expect(bias.mean).toBeCloseTo(mean, 1);
    expect(Math.abs(bias.mean - mean)).toBeLessThan(0.03);
    expect(bias.sd).toBeCloseTo(Math.sqrt(1 / (1 / own + 1 / seen)), 1);
    expect(model).toBeCloseTo(12.1 + bias.mean, 2);
  });

  test('follows the number that moves its surface twice as far, or the other way', () => {
    const twice = ask([{ model: 12, off: { value: 0.8, u: 0.05 } }], mate({ rate: 2 }));
    const back = ask([{ model: 12, off: { value: 0.8, u: 0.05 } }], mate({ rate: -1 }));
    const once = ask([{ model: 12, off: { value: 0.8, u: 0.05 } }]);
    expect(12 - twice.model).toBeCloseTo((12 - once.model) / 2, 2);
    expect(back.model).toBeGreaterThan(12.2);
  });

  test('keeps its number while it sat within its tolerance', () => {
    expect(ask([{ model: 12.2, off: { value: 0.15, u: 0.03 } }]).model).toBe(12.2);
  });

  test('says what was said in the words of the bench', () => {
    const flush = mate({ kind: 'flush', sense: USUAL_SENSE.flush, target: { value: 4, u: 0.05 } });
    const { reason } = ask([{ model: 4, off: { value: 0.6, u: 0.1 } }], flush);
    expect(reason).toMatch(/^Gap between the lugs: the last try was 0.6 mm proud, .* changes by −0\.\d/);
  });

  test('believes a second amount that contradicts what is believed of the printer', () => {
    const far: Observation = { model: 12, off: { value: 3, u: 0.3 } };
    const { model } = ask([far, far], mate(), { ...prior, wild: 0.15 });
    expect(model).toBeLessThan(9.5);
    expect(model).toBeGreaterThan(8.5);
  });

  test('the eye is believed less the more there is to see', () => {
    expect(doubtOf('eye', 4, 'mm')).toBeGreaterThan(1);
    expect(doubtOf('caliper', 4, 'mm')).toBe(0.05);
  });

  test('within its prior the second print is right as often as it says', () => {
    const random = seeded(5);
    let [told, was] = [0, 0];
    for (let i = 0; i < 300; i++) {
      const beta = gauss(random, prior.mean, Math.hypot(prior.sd, 0.08));
      const print = (model: number) => model - 12 - beta + gauss(random, 0, prior.scatter!);
      const first = ask([]).model;
      const off = { value: gauss(random, print(first), 0.1), u: 0.1 };
      const next = ask([{ model: first, off }]);
      const then = print(next.model);
      told += next.pRight;
      was += then >= -0.1 && then <= 0.3 ? 1 : 0;
    }
    expect(Math.abs(told - was) / 300).toBeLessThan(0.05);
  });
});

describe('mates that share one number', () => {
  const two = [
    mate({ number: 'gap' }),
    mate({ id: 'leaf', name: 'Leaf', number: 'gap', target: { value: 12.3, u: 0.08 } }),
  ];
  test('get one that is best for both, and say so', () => {
    const { mates } = nextVersion({
      mates: two,
      priors: { 'signed/mm': prior },
      repeatability: 0.04,
      trials: [],
    });
    expect(mates.lugs!.model).toBe(mates.leaf!.model);
    expect(mates.lugs!.model).toBeCloseTo(12.35, 1);
    expect(mates.lugs!.reason).toContain('shares its number with “Leaf”; alone it would be 12.20');
    expect(mates.lugs!.pRight).toBeLessThan(ask([]).pRight);
  });

  test('a surer one pulls it its way', () => {
    const narrow = mate({
      id: 'leaf',
      number: 'gap',
      target: { value: 12.3, u: 0.01 },
      tolerance: { min: 0, max: 0.05 },
    });
    const { mates } = nextVersion({
      mates: [two[0]!, narrow],
      priors: { 'signed/mm': prior },
      repeatability: 0.04,
      trials: [],
    });
    expect(mates.leaf!.model).toBeGreaterThan(12.355);
  });
});
