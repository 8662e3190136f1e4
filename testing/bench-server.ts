import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { createApp } from '../server/app';
import { ROOT } from '../server/root';
import { KernelPool } from '../server/solids/pool';
import { openStore } from '../server/store/database';

/**
 * Servers for browser tests, one process for many: each has an empty data folder and a port of its own; all share the
 * kernel threads, which are warm after the first. Controlled by messages: `{ open: n }` answers `{ opened: n, url }`,
 * `{ shut: n }` answers `{ shut: n }`.
 */
interface Bench {
  server: Server;
  folder: string;
  close(): Promise<void>;
}

const pool = new KernelPool();
const reader = KernelPool.forReading();
const benches = new Map<number, Bench>();

async function open(number: number): Promise<string> {
  const folder = mkdtempSync(join(tmpdir(), 'sagoma-bench-'));
  const { express, close } = createApp(await openStore(folder), {
    log: pino({ level: 'error' }),
    version: 'test',
    page: join(ROOT, 'dist'),
    pool,
    reader,
  });
  const server = createServer(express);
  await new Promise<void>(done => server.listen(0, '127.0.0.1', done));
  benches.set(number, { server, folder, close });
  return `http://localhost:${(server.address() as AddressInfo).port}`;
}

async function shut(number: number): Promise<void> {
  const bench = benches.get(number);
  if (!bench) return;
  benches.delete(number);
  bench.server.closeAllConnections();
  await new Promise(done => bench.server.close(done));
  await bench.close();
  rmSync(bench.folder, { recursive: true, force: true });
}

process.on('message', async (message: { open?: number; shut?: number }) => {
  if (message.open !== undefined) process.send?.({ opened: message.open, url: await open(message.open) });
  if (message.shut !== undefined) {
    await shut(message.shut);
    process.send?.({ shut: message.shut });
  }
});
// The process that started it is gone.
process.on('disconnect', () => process.exit(0));
