// Takes every recipe through hundreds of random parameter sets and writes what came of it to docs/recipe-seeds.md:
// `node scripts/many-seeds.mjs --runs 200`. `npm test` takes twenty of the same seeds.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { options, root } from './setup.mjs';

const { runs = '200' } = options({ runs: 'text' });
const folder = mkdtempSync(join(tmpdir(), 'sagoma-seeds-'));
const report = join(folder, 'report.json');
const began = Date.now();
spawnSync(
  'npx',
  ['vitest', 'run', 'core/shape/recipes/any-recipe.kernel', '--reporter=json', `--outputFile=${report}`],
  { cwd: root, stdio: 'inherit', env: { ...process.env, RECIPE_RUNS: runs }, shell: false },
);
const minutes = (Date.now() - began) / 60_000;
const { testResults } = JSON.parse(readFileSync(report, 'utf8'));
rmSync(folder, { recursive: true });
const drawn = /^(near its demo|anywhere in its range|every option in pairs)/;
const rows = new Map();
for (const { ancestorTitles, title, status, duration, failureMessages } of testResults.flatMap(
  file => file.assertionResults,
)) {
  if (!drawn.test(title)) continue;
  const row = rows.get(ancestorTitles.at(-1)) ?? { seconds: 0, failed: [] };
  row.seconds += (duration ?? 0) / 1000;
  if (status !== 'passed') row.failed.push(`${title}: ${(failureMessages[0] ?? '').split('\n')[0]}`);
  rows.set(ancestorTitles.at(-1), row);
}
const failed = [...rows.values()].reduce((sum, r) => sum + r.failed.length, 0);
const commit = spawnSync('git', ['rev-parse', '--short', 'HEAD'], { cwd: root }).stdout.toString().trim();
writeFileSync(
  join(root, 'docs/recipe-seeds.md'),
  `# Recipes and hundreds of seeds

\`node scripts/many-seeds.mjs --runs ${runs}\` at ${commit}: ${rows.size} recipes, each with ${runs} parameter sets near its demo
object, ${runs} anywhere in its range, every option alone and in pairs, and every size at both its ends. A set is
either refused in words, or gives one closed body on the bed whose mates measure as asked. ${minutes.toFixed(0)} minutes on a
machine with two cores and other work; ${failed === 0 ? 'none went wrong' : `${failed} went wrong`}.

| recipe | went wrong | seconds |
|---|---|---|
${[...rows].map(([id, r]) => `| ${id} | ${r.failed.length === 0 ? 'none' : r.failed.join('; ')} | ${r.seconds.toFixed(0)} |`).join('\n')}
`,
);
