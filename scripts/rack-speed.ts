// How fast rack, search and job answer with thousands of jobs, each with ten readings and four tries:
// `node --import tsx scripts/rack-speed.ts [JOBS]`, with everything built.
import { mkdtempSync, rmSync, utimesSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ulid } from 'ulid';
import { fitsOf, type JobDocument } from '../core/job/document';
import { applyEdit } from '../core/job/edits';
import { newJob } from '../core/job/new-job';
import { FIRST_WORKSHOP } from '../core/job/workshop';
import { RECIPES } from '../core/shape/recipes';
import { Blobs } from '../server/blobs/blobs';
import { sweepBlobs } from '../server/blobs/sweep';
import { openStore } from '../server/store/database';
import { history, jobs } from '../server/store/schema';
import { killed, startServer } from '../testing/kill-rounds';
import { readEdit } from '../testing/read-edit';
import { aPrint, aTry, aVersion } from '../testing/rows';

const count = Number(process.argv[2] ?? 2000);
const folder = mkdtempSync(join(tmpdir(), 'sagoma-rack-'));
const store = await openStore(folder);
let readings = 0;
let tries = 0;
const past: (typeof history.$inferInsert)[] = [];

/** One version, printed and tried four times, as if it had been. */
function addHistory(jobId: string, document: JobDocument, at: string): void {
  const fit = fitsOf(document)[0];
  const about = () => ({ id: ulid(), at, voided: null });
  const { id: partId, recipe, printerId, materialId } = document.parts[0]!;
  const mates = fit
    ? [
        {
          mateId: fit.id,
          surface: fit.ours.surface,
          want: fit.want,
          reading: { value: 20, u: 0.03 },
          model: 20.3,
          pRight: 0.5,
          ledger: [],
          prior: { mean: 0.2, sd: 0.1 },
        },
      ]
    : [];
  const version = aVersion({ ...about(), partId, recipe, printerId, materialId, mates });
  const keep = (kind: string, row: { id: string }) =>
    past.push({ id: row.id, jobId, kind, at, document: JSON.stringify(row) });
  keep('version', version);
  for (let n = 1; n <= 4; n++) {
    const print = aPrint({ ...about(), versionId: version.id, number: n });
    keep('print', print);
    const row = aTry({
      ...about(),
      printId: print.id,
      mates: fit ? { [fit.id]: { verdict: n === 4 ? 'right' : 'tight' } } : {},
      note: `try ${n} of word${jobId.slice(-4)}`,
    });
    keep('try', row);
    tries++;
  }
}

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
  const id = ulid();
  addHistory(id, document, at);
  return {
    id,
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
for (let i = 0; i < past.length; i += 500)
  await store.write(tx => tx.insert(history).values(past.slice(i, i + 500)));
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
process.stdout.write(`${count} jobs, ${readings} readings, ${tries} tries\n`);
said('first rack ever, every tag worked out', await timed(base, '/jobs'));
await killed(child, 'SIGTERM');
({ base, child } = await startServer(folder));
said('first rack after a start', await timed(base, '/jobs'));
/** The time under which 95 of 100 answers come. */
async function most(what: string, times: number, path: (i: number) => string): Promise<void> {
  const taken: number[] = [];
  for (let i = 0; i < times; i++) taken.push(await timed(base, path(i)));
  said(`${what}, 95 of 100 within`, taken.toSorted((a, b) => a - b)[Math.floor(0.95 * times)]!);
}
await most('rack again', 40, () => '/jobs');
await most(
  'search',
  100,
  i => `/jobs/search?q=${encodeURIComponent(`word${rows[(i * 37) % count]!.id.slice(-4)}`)}`,
);
await most('one job', 100, i => `/jobs/${rows[(i * 53) % count]!.id}`);
await most('all lessons', 20, () => '/lessons');
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
// What the start does before anybody is answered.
const kept = await openStore(folder);
const blobs = new Blobs(kept);
const old = new Date(Date.now() - 60 * 24 * 3_600_000);
for (let i = 0; i < 500; i++) {
  const sha256 = await blobs.put(new TextEncoder().encode(`forgotten ${i}`));
  utimesSync(blobs.path(sha256), old, old);
}
const began = performance.now();
const swept = await sweepBlobs(kept);
said(`looking through everything for ${swept} files that nothing names`, performance.now() - began);
await kept.close();
rmSync(folder, { recursive: true, force: true });
