import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { resolve } from 'node:path';
import { createApp } from './app';
import { createLog } from './log';
import { ROOT } from './root';
import { openStore } from './store/database';

/**
 * Starts the server. `SAGOMA_DATA` is the data folder, `SAGOMA_PORT` the port (0 takes a free one),
 * `SAGOMA_HOST` the address to bind to: this machine only unless the maker asks for more.
 */
const log = createLog();
const folder = resolve(process.env.SAGOMA_DATA ?? 'data');
const host = process.env.SAGOMA_HOST ?? '127.0.0.1';
const { version } = JSON.parse(readFileSync(resolve(ROOT, 'package.json'), 'utf8')) as { version: string };
/** Requests still running at a stop get this long, ms. */
const PATIENCE = 5000;

try {
  const store = await openStore(folder);
  const { express, app, close } = createApp(store, {
    log,
    version,
    page: resolve(ROOT, 'dist'),
    hosts: host === '127.0.0.1' ? [] : [host, ...(process.env.SAGOMA_NAMES ?? '').split(',').filter(Boolean)],
  });
  const server = createServer(express);
  server.on('error', error => {
    const taken = (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
    process.stderr.write(taken ? 'That port is taken: choose another with --port.\n' : `${error.message}\n`);
    process.exit(1);
  });
  server.listen(Number(process.env.SAGOMA_PORT ?? 4317), host, () => {
    const { port } = server.address() as AddressInfo;
    log.info({ folder, port }, 'started');
    process.stdout.write(`Sagoma is at http://localhost:${port}\n`);
  });
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    log.info('stopping');
    app.events.close();
    server.close(() => void close().then(() => process.exit(0)));
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), PATIENCE).unref();
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
}
