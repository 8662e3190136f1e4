// How many prints until everything sits right: ours, an ideal reasoner, and stepping by 0.3.
// `npm run bench:convergence -- [worlds]`. Simulated jobs; not part of the tests.
import { seeded } from '../core/bench/random';
import {
  drawSimulation,
  engine,
  particleReasoner,
  printsToFit,
  type SimulationPrior,
  stepper,
} from '../testing/simulate';

const worlds = Number(process.argv[2] ?? 400);
const practice: SimulationPrior = {
  inside: { mean: 0.22, sd: 0.14 },
  outside: { mean: 0.05, sd: 0.08 },
  repeatability: 0.04,
};
const calibrated: SimulationPrior = {
  inside: { mean: 0.22, sd: 0.03 },
  outside: { mean: 0.05, sd: 0.03 },
  repeatability: 0.04,
};

for (const [name, truth] of Object.entries({ practice, calibrated })) {
  for (const mates of [1, 2, 3]) {
    const mean = (make: (random: () => number) => ReturnType<typeof engine>) => {
      let total = 0;
      for (let seed = 1; seed <= worlds; seed++)
        total += printsToFit(
          drawSimulation(seeded(seed), truth, mates, 0.2, 0.02),
          make(seeded(5000 + seed)),
          seeded(9000 + seed),
        );
      return total / worlds;
    };
    const ours = mean(() => engine(truth));
    const ideal = mean(random => particleReasoner(truth, random, 2000));
    console.log(
      `${name}, ${mates} mate(s): ours ${ours.toFixed(2)}, ideal ${ideal.toFixed(2)} (ratio ${(ours / ideal).toFixed(3)}), stepping ${mean(() => stepper).toFixed(2)}`,
    );
  }
}
