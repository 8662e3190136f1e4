import { buildPart } from '../core/shape/build';
import { RECIPES } from '../core/shape/recipes';
import { kernels } from '../server/solids/kernels';

/** Warm rebuild for the screen after one number changes, ms, median of nine a recipe: `npx tsx scripts/rebuild.ts`. */
const ROUNDS = 9;
const tools = await kernels();
const median = (values: number[]) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)]!;
const medians: number[] = [];
for (const recipe of RECIPES) {
  const spec = recipe.parameters.find(p => p.name === recipe.mates[0]!.parameter)!;
  const usual = recipe.demo.parameters[spec.name] as number;
  const times: number[] = [];
  for (let i = 0; i <= ROUNDS; i++) {
    const start = performance.now();
    const outcome = buildPart(
      recipe,
      { ...recipe.demo.parameters, [spec.name]: usual + 0.01 * i },
      tools,
      'screen',
    );
    if (!outcome.ok) throw new Error(`${recipe.id}: ${outcome.findings[0]!.message}`);
    // The first one is not warm.
    if (i > 0) times.push(performance.now() - start);
    await new Promise(done => setImmediate(done));
  }
  medians.push(median(times));
  process.stdout.write(
    `${recipe.id.padEnd(16)} ${median(times).toFixed(0).padStart(5)}  most ${Math.max(...times).toFixed(0)}\n`,
  );
}
process.stdout.write(`median over recipes ${median(medians).toFixed(0)} ms\n`);
