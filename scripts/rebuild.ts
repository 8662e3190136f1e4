import { buildPart } from '../core/shape/build';
import type { CheckContext } from '../core/shape/checks/context';
import { inspectPart } from '../core/shape/checks/inspect';
import { RECIPES } from '../core/shape/recipes';
import { kernels } from '../kernels/node';
import { PLAIN_CONTEXT } from '../testing/plain-context';

/**
 * Warm, ms, median of nine a recipe: rebuild for the screen after one number changes, and all checks on the file's
 * triangles with a load, a neighbour and a way on: `npx tsx scripts/rebuild.ts`.
 */
const ROUNDS = 9;
const tools = await kernels();
const median = (values: number[]) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)]!;
const timed = async (rounds: number, run: (i: number) => void): Promise<number> => {
  const times: number[] = [];
  for (let i = 0; i <= rounds; i++) {
    const start = performance.now();
    run(i);
    // The first one is not warm.
    if (i > 0) times.push(performance.now() - start);
    await new Promise(done => setImmediate(done));
  }
  return median(times);
};
const asked: CheckContext = {
  ...PLAIN_CONTEXT,
  strength: { name: 'PETG', along: 40, across: 20 },
  loads: [
    { id: 'a', words: 'pull', kind: 'force', amount: 50, towards: 'right', at: 'top', held: 'underside' },
  ],
  neighbours: [
    { id: 'b', name: 'box', form: 'box', width: 9, depth: 9, height: 9, x: 200, y: 0, z: 0, room: 1 },
  ],
  goesOn: { from: 'top', distance: 100 },
};
const [rebuilds, checks]: [number[], number[]] = [[], []];
for (const recipe of RECIPES) {
  const usual = recipe.demo.parameters;
  const { name } = recipe.parameters.find(p => p.name === recipe.mates[0]!.parameter)!;
  const built = (quality: 'screen' | 'file', by: number) => {
    const outcome = buildPart(recipe, { ...usual, [name]: (usual[name] as number) + by }, tools, quality);
    if (!outcome.ok) throw new Error(`${recipe.id}: ${outcome.findings[0]!.message}`);
    return outcome.part;
  };
  const rebuild = await timed(ROUNDS, i => void built('screen', 0.01 * i));
  const part = built('file', 0);
  const check = await timed(ROUNDS, () => void inspectPart(recipe, usual, part, asked, tools));
  rebuilds.push(rebuild);
  checks.push(check);
  process.stdout.write(
    `${recipe.id.padEnd(16)} rebuild ${rebuild.toFixed(0).padStart(5)}  checks ${check.toFixed(0).padStart(5)}\n`,
  );
}
process.stdout.write(
  `median          rebuild ${median(rebuilds).toFixed(0).padStart(6)}  checks ${median(checks).toFixed(0).padStart(5)}\n`,
);
