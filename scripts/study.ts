// Thousands of made-up jobs through the function that `trial next` calls: how many prints until everything sits right, beside
// usual practice and an ideal reasoner that knows the world; whether what is announced is what happens.
// `npm run study -- [worlds a row]`; what came of it stands in docs/study.md.
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { fileURLToPath } from 'node:url';
import { seeded } from '../core/bench/random';
import { WILD_MEASURED } from '../core/learn/likelihood';
import {
  drawSimulation,
  engine,
  type Known,
  type Oddities,
  particleReasoner,
  printsToFit,
  type SimulationPrior,
  stepper,
} from '../testing/simulate';

const worlds = Number(process.argv[2] ?? 200);
const PARTICLES = 1500;
const began = Date.now();
const practice: SimulationPrior = {
  inside: { mean: 0.22, sd: 0.14 },
  outside: { mean: 0.05, sd: 0.08 },
  signed: { mean: 0, sd: 0.1 },
  repeatability: 0.04,
};
const calibrated: SimulationPrior = {
  inside: { mean: 0.22, sd: 0.03, wild: WILD_MEASURED },
  outside: { mean: 0.05, sd: 0.03, wild: WILD_MEASURED },
  signed: { mean: 0, sd: 0.03 },
  repeatability: 0.04,
};
/** Printers that are this many sd off what is believed of them, and spread as much about that. */
const farOff = (by: number): SimulationPrior => {
  const off = ({ mean, sd }: { mean: number; sd: number }) => ({ mean: mean + by * sd, sd });
  return {
    inside: off(practice.inside),
    outside: off(practice.outside),
    signed: off(practice.signed!),
    repeatability: practice.repeatability,
  };
};

interface World {
  name: string;
  believed: SimulationPrior;
  truth: SimulationPrior;
  odd?: Oddities;
  known?: Known;
  /** The most that ours may take over the ideal. */
  bound: number;
}
const mixed: Oddities = { signed: 0.4 };
const WORLDS: World[] = [
  { name: 'as believed, unknown printer', believed: practice, truth: practice, odd: mixed, bound: 1.05 },
  { name: 'as believed, calibrated', believed: calibrated, truth: calibrated, odd: mixed, bound: 1.05 },
  {
    name: 'as believed, one verdict in 20 a slip',
    believed: practice,
    truth: practice,
    odd: { ...mixed, slips: 0.05 },
    bound: 1.35,
  },
  { name: 'printer 2.5 sd off', believed: practice, truth: farOff(2.5), odd: mixed, bound: 1.35 },
  {
    name: 'readings 3 times worse than said',
    believed: practice,
    truth: practice,
    odd: { ...mixed, readings: 3 },
    known: { readings: 3 },
    bound: 1.35,
  },
  {
    name: 'a hand 0.1 off',
    believed: practice,
    truth: practice,
    odd: { ...mixed, hand: 0.1 },
    known: { hand: 0.1 },
    bound: 1.35,
  },
  {
    name: 'twice the scatter',
    believed: practice,
    truth: { ...practice, repeatability: 0.08 },
    odd: mixed,
    bound: 1.35,
  },
];
const MATES = [1, 3, 5];
const [WINDOW, READING_U] = [0.2, 0.02];

const rows: string[] = [];
/** Announced and what happened, in tenths. */
const bins = Array.from({ length: 10 }, () => ({ told: 0, was: 0, prints: 0 }));
let broken = 0;
for (const { name, believed, truth, odd, known, bound } of WORLDS)
  for (const mates of MATES) {
    const run = (
      make: (random: () => number) => ReturnType<typeof engine>,
      heard?: Parameters<typeof printsToFit>[4],
    ) =>
      Array.from({ length: worlds }, (_, seed) =>
        printsToFit(
          drawSimulation(seeded(seed + 1), truth, mates, WINDOW, READING_U, odd),
          make(seeded(5000 + seed)),
          seeded(9000 + seed),
          15,
          heard,
        ),
      );
    let announced = 0;
    const ours = run(
      () => engine(believed, p => (announced = p)),
      ({ allRight }) => {
        // Only where the beliefs hold is what is announced to be what happens.
        if (bound > 1.05) return;
        const bin = bins[Math.min(9, Math.floor(10 * announced))]!;
        bin.told += announced;
        bin.was += allRight ? 1 : 0;
        bin.prints++;
      },
    );
    const ideal = run(random => particleReasoner(truth, random, PARTICLES, known));
    const usual = run(() => stepper);
    const mean = (prints: number[]) => prints.reduce((sum, p) => sum + p, 0) / prints.length;
    const ratio = mean(ours) / mean(ideal);
    if (ratio > bound) broken++;
    const first = ours.filter(p => p === 1).length / worlds;
    const worst = ours.toSorted((a, b) => a - b)[Math.floor(0.99 * worlds)]!;
    const row = `| ${name} | ${mates} | ${mean(ours).toFixed(2)} | ${mean(ideal).toFixed(2)} | ${ratio.toFixed(2)}${ratio > bound ? ' (over)' : ''} | ${mean(usual).toFixed(2)} | ${Math.round(100 * first)} % | ${worst} |`;
    rows.push(row);
    process.stdout.write(`${row}\n`);
  }
const calibration = bins.flatMap(({ told, was, prints }, i) =>
  prints < 10
    ? []
    : [
        `| ${i / 10} to ${(i + 1) / 10} | ${prints} | ${Math.round((100 * told) / prints)} % | ${Math.round((100 * was) / prints)} % |`,
      ],
);
const minutes = ((Date.now() - began) / 60_000).toFixed(0);
writeFileSync(
  fileURLToPath(new URL('../docs/study.md', import.meta.url)),
  `# Prints to fit

\`npm run study -- ${worlds}\` on ${new Date().toISOString().slice(0, 10)}, Node ${process.version}, ${cpus().length} cores, ${minutes} minutes. Made-up jobs, ${worlds} a
row, through the function that the app and \`trial next\` call. A job has so many mates, four in ten of them lengths that are judged
by an amount, the others fits with a window of ${WINDOW}; it ends when all of them were called right, after 15 prints at the most. The
ideal reasoner knows the world's true figures (particles, by another road); usual practice starts at the nominal size and steps by
0.3 or takes off what stands proud. Where the world is as believed ours may take 5 % more than the ideal, elsewhere 35 %: ${broken === 0 ? 'no row takes more' : `${broken} of ${rows.length} rows take more`}.

| world | mates | ours | ideal | ratio | usual practice | ours right at once | 99 of 100 within |
|---|---|---|---|---|---|---|---|
${rows.join('\n')}

What was announced for a print, and how often all of it was right, where the world is as believed:

| announced | prints | on average | right |
|---|---|---|---|
${calibration.join('\n')}
`,
);
