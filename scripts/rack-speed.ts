// How fast the rack answers with thousands of jobs: `node --import tsx scripts/rack-speed.ts [JOBS]`, with everything built.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ulid } from 'ulid';
import { applyEdit } from '../core/job/edits';
import { newJob } from '../core/job/new-job';
import { FIRST_WORKSHOP } from '../core/job/workshop';
import { RECIPES } from '../core/shape/recipes';
import { openStore } from '../server/store/database';
import { jobs } from '../server/store/schema';
import { killed, startServer } from '../testing/kill-rounds';
import { readEdit } from '../testing/read-edit';

const count = Number(process.argv[2] ?? 2000);
const folder = mkdtempSync(join(tmpdir(), 'sagoma-rack-'));
const store = await openStore(folder);
let readings = 0;
const rows = Array.from({ length: count }, (_, i) => {
  const recipe = RECIPES[i % RECIPES.length]!;
  let document = newJob(`Mend ${i}`, recipe, FIRST_WORKSHOP);
  for (let k = 0; k < 10; k++) {
    const step = recipe.guide[k % recipe.guide.length]!;
    const size = recipe.demo.sizes[step.key] ?? 10;
    document = applyEdit(document, readEdit(step.key, size + k / 100, { id: `r${k}` }), FIRST_WORKSHOP);
    readings++;
  }
  const at = new Date(Date.now() - i * 60_000).toISOString();
  return {
    id: ulid(),
    number: i + 1,
    title: document.title,
    object: '',
    revision: 11,
    schemaVersion: document.schemaVersion,
    document: JSON.stringify(document),
    createdAt: at,
    updatedAt: at,
  };
});
for (let i = 0; i < rows.length; i += 200)
  await store.write(tx => tx.insert(jobs).values(rows.slice(i, i + 200)));
await store.close();

const said = (what: string, ms: number) => process.stdout.write(`${what}: ${ms.toFixed(0)} ms\n`);
async function timed(base: string, path: string, init?: RequestInit): Promise<number> {
  const began = performance.now();
  const answer = await fetch(`${base}/api${path}`, init);
  await answer.text();
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
  return performance.now() - began;
}

let { base, child } = await startServer(folder);
process.stdout.write(`${count} jobs, ${readings} readings\n`);
said('first rack ever, every tag worked out', await timed(base, '/jobs'));
await killed(child, 'SIGTERM');
({ base, child } = await startServer(folder));
said('first rack after a start', await timed(base, '/jobs'));
const again = [];
for (let i = 0; i < 10; i++) again.push(await timed(base, '/jobs'));
said('rack again, median of 10', again.toSorted((a, b) => a - b)[5]!);
const { revision, workshop } = (await (await fetch(`${base}/api/workshop`)).json()) as {
  revision: number;
  workshop: { name: string };
};
const body = JSON.stringify({ revision, workshop: { ...workshop, name: 'Another name' } });
said(
  'saving the workshop',
  await timed(base, '/workshop', { method: 'PUT', headers: { 'content-type': 'application/json' }, body }),
);
said('rack right after it', await timed(base, '/jobs'));
let longest = 0;
const until = performance.now() + 8000;
while (performance.now() < until) longest = Math.max(longest, await timed(base, '/health'));
said('longest wait of another request while all tags follow', longest);
await killed(child, 'SIGTERM');
rmSync(folder, { recursive: true, force: true });
