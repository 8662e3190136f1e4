import { describe, expect, test } from 'vitest';
import {
  drawSimulation,
  engine,
  particleReasoner,
  printsToFit,
  type SimulationPrior,
  stepper,
} from '../../testing/simulate';
import { seeded } from '../bench/random';
import { type NextMate, nextVersion } from './next';
import { verdictScale } from './verdict-scale';

const practice: SimulationPrior = {
  inside: { mean: 0.22, sd: 0.14 },
  outside: { mean: 0.05, sd: 0.08 },
  repeatability: 0.04,
};
const skirt: NextMate = {
  id: 'skirt',
  side: 'inside',
  group: 'inside',
  reading: { value: 31.7, u: 0.03 },
  scale: verdictScale({ min: 0.05, max: 0.2 }, 'mm'),
  name: 'Skirt over rim',
};
const ask = (trials: Parameters<typeof nextVersion>[0]['trials'], mate = skirt) =>
  nextVersion({ mates: [mate], priors: { inside: practice.inside }, repeatability: 0.04, trials }).mates
    .skirt!;

describe('the next version', () => {
  test('the first is the window’s middle plus what holes print small', () => {
    const { model, pRight } = ask([]);
    expect(model).toBeCloseTo(31.7 + 0.125 + 0.22, 2);
    expect(pRight).toBeGreaterThan(0.35);
  });

  test('tight makes a hole larger, loose smaller, and right leaves it alone', () => {
    const first = ask([]).model;
    expect(ask([{ mates: { skirt: { model: first, verdict: 'tight' } } }]).model).toBeGreaterThan(
      first + 0.08,
    );
    expect(ask([{ mates: { skirt: { model: first, verdict: 'loose' } } }]).model).toBeLessThan(first - 0.08);
    expect(ask([{ mates: { skirt: { model: first, verdict: 'right' } } }]).model).toBe(first);
    expect(ask([{ mates: { skirt: { model: first, verdict: 'wont-go' } } }]).model).toBeGreaterThan(
      ask([{ mates: { skirt: { model: first, verdict: 'tight' } } }]).model,
    );
  });

  test('tight then loose lands between the two', () => {
    const { model } = ask([
      { mates: { skirt: { model: 32, verdict: 'tight' } } },
      { mates: { skirt: { model: 32.4, verdict: 'loose' } } },
    ]);
    expect(model).toBeGreaterThan(32);
    expect(model).toBeLessThan(32.4);
  });

  test('every verdict makes the next print surer', () => {
    const one = ask([{ mates: { skirt: { model: 32.04, verdict: 'tight' } } }]);
    expect(one.pRight).toBeGreaterThan(ask([]).pRight);
    expect(one.bias.sd).toBeLessThan(ask([]).bias.sd);
  });

  test('a preference moves it', () => {
    expect(ask([], { ...skirt, prefer: 'loose' }).model).toBeGreaterThan(ask([]).model + 0.02);
  });

  test('reasons name the mate, the verdict and the change', () => {
    const { reasons } = nextVersion({
      mates: [skirt],
      priors: { inside: practice.inside },
      repeatability: 0.04,
      trials: [{ mates: { skirt: { model: 32.04, verdict: 'tight' } } }],
    });
    expect(reasons[0]).toMatch(/^Skirt over rim: the last try was “tight”.*changes by \+0\.\d/);
  });

  test('mates that share the printer’s bias are more likely right together than apart', () => {
    const mates = [skirt, { ...skirt, id: 'lip' }];
    const next = nextVersion({ mates, priors: { inside: practice.inside }, repeatability: 0.04, trials: [] });
    expect(next.pAllRight).toBeGreaterThan(next.mates.skirt!.pRight * next.mates.lip!.pRight + 0.05);
    expect(next.pAllRight).toBeLessThan(next.mates.skirt!.pRight);
  });

  test('a group without a prior is refused', () => {
    expect(() => nextVersion({ mates: [skirt], priors: {}, repeatability: 0.04, trials: [] })).toThrow(
      'no prior',
    );
  });
});

describe('prints to fit over simulated jobs (fixed seeds)', () => {
  const WORLDS = 40;
  const mean = (make: (random: () => number) => ReturnType<typeof engine>, truth = practice, mates = 1) => {
    let total = 0;
    for (let seed = 1; seed <= WORLDS; seed++) {
      const world = drawSimulation(seeded(seed), truth, mates, 0.2, 0.02);
      total += printsToFit(world, make(seeded(5000 + seed)), seeded(9000 + seed));
    }
    return total / WORLDS;
  };

  test('within 10 % of an ideal reasoner by particles, and well ahead of stepping by 0.3', () => {
    const ours = mean(() => engine(practice));
    const ideal = mean(random => particleReasoner(practice, random, 1500));
    expect(ours).toBeLessThanOrEqual(1.1 * ideal);
    expect(ours).toBeLessThan(0.8 * mean(() => stepper));
  });

  test('wrong priors still converge: holes that print 0.7 small, outsides 0.3 undersize', () => {
    const truth: SimulationPrior = {
      inside: { mean: 0.7, sd: 0.03 },
      outside: { mean: -0.3, sd: 0.03 },
      repeatability: 0.05,
    };
    let most = 0;
    for (let seed = 1; seed <= 25; seed++) {
      const world = drawSimulation(seeded(seed), truth, 2, 0.2, 0.02);
      most = Math.max(most, printsToFit(world, engine(practice), seeded(100 + seed)));
    }
    expect(most).toBeLessThanOrEqual(8);
  });
});
