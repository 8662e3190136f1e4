// Kills the server with -9 at random moments of a stream of edits: `npx tsx scripts/kill-stream.ts [rounds]`.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { killRounds } from '../testing/kill-rounds';

const folder = mkdtempSync(join(tmpdir(), 'sagoma-kill-'));
const rounds = await killRounds(folder, Number(process.argv[2] ?? 20), Math.random, 1500);
rmSync(folder, { recursive: true, force: true });
const total = rounds.reduce((sum, r) => sum + r.acknowledged, 0);
const lost = rounds.reduce((sum, r) => sum + r.lost, 0);
console.log(`${rounds.length} kills, ${total} acknowledged edits, ${lost} lost`);
process.exitCode = lost === 0 ? 0 : 1;
