import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { resolve } from 'node:path';
import { createApp } from './app';
import { sweepBlobs } from './blobs/sweep';
import { sweepRemoved } from './jobs/sweep-removed';
import { createLog } from './log';
import { isThisMachine, SHORTEST_PASSPHRASE } from './passphrase';
import { ROOT } from './root';
import { openStore } from './store/database';

/**
 * Starts the server. `SAGOMA_DATA` is the data folder, `SAGOMA_PORT` the port (0 takes a free one),
 * `SAGOMA_HOST` the address to bind to: this machine only unless the maker asks for more, and then only with
 * `SAGOMA_PASSPHRASE`. `SAGOMA_LAN=1` lets phones of the same network in from the start, at `SAGOMA_PHONE_PORT`.
 */
const log = createLog();
const folder = resolve(process.env.SAGOMA_DATA ?? 'data');
const host = process.env.SAGOMA_HOST ?? '127.0.0.1';
const port = portOf(process.env.SAGOMA_PORT ?? '4317');
/** Phones use a port of their own, the next one by default. */
const phonePort = portOf(
  process.env.SAGOMA_PHONE_PORT ?? String(port === 0 ? 0 : Math.min(port + 1, 65_535)),
);
const passphrase = process.env.SAGOMA_PASSPHRASE;
if (!isThisMachine(host) && (passphrase ?? '').length < SHORTEST_PASSPHRASE) {
  process.stderr.write(
    `With SAGOMA_HOST other machines can reach the workshop: set SAGOMA_PASSPHRASE to ${SHORTEST_PASSPHRASE} letters or more, which each browser is then asked for once.\n`,
  );
  process.exit(1);
}
const { version } = JSON.parse(readFileSync(resolve(ROOT, 'package.json'), 'utf8')) as { version: string };
/** Requests still running at a stop get this long, ms. */
const PATIENCE = 5000;

try {
  const store = await openStore(folder);
  const removed = await sweepRemoved(store);
  if (removed > 0) log.info({ removed }, 'jobs that were removed from the rack went for good');
  const swept = await sweepBlobs(store);
  const { express, app, phones, close } = createApp(store, {
    log,
    version,
    page: resolve(ROOT, 'dist'),
    phonePort,
    ...(isThisMachine(host) ? {} : { passphrase: passphrase! }),
    hosts: isThisMachine(host) ? [] : [host, ...(process.env.SAGOMA_NAMES ?? '').split(',').filter(Boolean)],
  });
  const server = createServer(express);
  server.on('error', error => {
    const taken = (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
    process.stderr.write(taken ? 'That port is taken: choose another with --port.\n' : `${error.message}\n`);
    process.exit(1);
  });
  // A request that never ends blocks nobody: a body must arrive within a minute.
  server.requestTimeout = 60_000;
  server.headersTimeout = 15_000;
  server.listen(port, host, () => {
    const at = (server.address() as AddressInfo).port;
    log.info({ folder, port: at, swept }, 'started');
    process.stdout.write(`Sagoma is at http://localhost:${at}\n`);
    if (process.env.SAGOMA_LAN === '1') void letPhonesIn();
  });
  const letPhonesIn = async () => {
    try {
      await phones.open();
      process.stdout.write(`Phones are let in at port ${phones.port}: pair one on the workshop page.\n`);
    } catch (error) {
      process.stderr.write(`${(error as Error).message}\n`);
    }
  };
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

function portOf(text: string): number {
  const port = Number(text);
  if (Number.isInteger(port) && port >= 0 && port <= 65_535) return port;
  process.stderr.write(`“${text}” is not a port: give a number from 1 to 65535, or 0 for a free one.\n`);
  return process.exit(1);
}
