// Kills, edits and hostile requests for a long time: `npm run soak [-- ROUNDS REQUESTS]`, with everything built.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { seeded } from '../core/bench/random';
import { DEEDS } from '../testing/deeds';
import { fuzz } from '../testing/fuzz';
import { killed, killRounds, startServer } from '../testing/kill-rounds';

const [rounds = 100, requests = 5000] = process.argv.slice(2).map(Number);
const say = (words: string) => process.stdout.write(`${words}\n`);
/** Resident memory of a process, MB; only Linux tells. */
const memoryOf = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

say(`${new Date().toISOString().slice(0, 10)}, Node ${process.version}, ${cpus().length} cores`);
const folder = mkdtempSync(join(tmpdir(), 'sagoma-soak-'));
const deeds = ['edit', 'edit', 'photo', 'edit', 'import', 'edit', 'version'] as const;
const killings = await killRounds(folder, rounds, seeded(7), { deeds, longest: 4000 });
const lost = killings.flatMap(k => k.lost);
const sums = DEEDS.map(d => `${killings.reduce((sum, k) => sum + k.acknowledged[d], 0)} ${d}s`).join(', ');
say(`${rounds} rounds ended by kill -9: ${sums} acknowledged, lost: ${lost.join(', ') || 'none'}`);

const { base, child } = await startServer(folder);
await fuzz(base, 100, seeded(1));
const before = memoryOf(child.pid!);
const { by, failed } = await fuzz(base, requests, seeded(2));
const busy = memoryOf(child.pid!);
// Threads that had nothing to do for two minutes end, and give back what their kernels took.
await new Promise(done => setTimeout(done, 150_000));
const after = memoryOf(child.pid!);
say(`${requests} spoiled requests: ${JSON.stringify(by)}, ${failed.length} failed or over 10 s`);
for (const f of failed.slice(0, 20)) say(JSON.stringify(f));
say(
  `memory ${before.toFixed(0)} MB before, ${busy.toFixed(0)} MB right after, ${after.toFixed(0)} MB when idle again`,
);
await killed(child, 'SIGTERM');
rmSync(folder, { recursive: true, force: true });
process.exitCode = lost.length > 0 || failed.length > 0 ? 1 : 0;
