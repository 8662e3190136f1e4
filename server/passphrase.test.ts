import { spawnSync } from 'node:child_process';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import express from 'express';
import { pino } from 'pino';
import { afterEach, expect, test } from 'vitest';
import { errorHandler } from './errors';
import { passphraseGate } from './passphrase';
import { ROOT } from './root';

const open: (() => void)[] = [];
afterEach(() => {
  for (const close of open.splice(0)) close();
});

async function gated() {
  const app = express();
  app.use(passphraseGate('oar and rigger'));
  app.get('/api/jobs', (_req, res) => void res.json({ jobs: [] }));
  app.get('/', (_req, res) => void res.send('the page'));
  app.use(errorHandler(pino({ level: 'silent' })));
  const server = createServer(app);
  await new Promise<void>(done => server.listen(0, '127.0.0.1', done));
  open.push(() => server.close());
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const get = (path: string, cookie?: string) =>
    fetch(base + path, { redirect: 'manual', headers: cookie ? { cookie } : {} });
  const enter = (passphrase: string) =>
    fetch(`${base}/enter`, { method: 'POST', redirect: 'manual', body: new URLSearchParams({ passphrase }) });
  return { get, enter };
}

test('who has not said the passphrase gets neither page nor data; who has is remembered by a cookie no script can read', async () => {
  const { get, enter } = await gated();
  expect((await get('/api/jobs')).status).toBe(401);
  expect(await (await get('/')).text()).toContain('passphrase');
  const came = await enter('oar and rigger');
  expect(came.status).toBe(303);
  const set = came.headers.get('set-cookie')!;
  expect(set).toMatch(/HttpOnly/i);
  expect(set).toMatch(/SameSite=Strict/i);
  const cookie = set.split(';')[0]!;
  expect((await get('/api/jobs', cookie)).status).toBe(200);
  expect(await (await get('/', cookie)).text()).toBe('the page');
  expect((await get('/api/jobs', `${cookie}x`)).status).toBe(401);
});

test('guessing is slow and soon stopped, for the right answer too', async () => {
  const { enter } = await gated();
  for (let i = 0; i < 5; i++) expect((await enter(`guess ${i}`)).status).toBe(401);
  const late = await enter('oar and rigger');
  expect(late.status).toBe(429);
  expect(Number(late.headers.get('retry-after'))).toBeGreaterThan(50);
  expect(await late.text()).toContain('Too many wrong answers');
});

test('beyond this machine the server starts only with one', () => {
  const start = (env: Record<string, string>) =>
    spawnSync(process.execPath, ['dist-server/server.mjs'], {
      cwd: ROOT,
      env: { ...process.env, SAGOMA_PORT: '0', ...env },
      encoding: 'utf8',
      timeout: 20_000,
    });
  expect(start({ SAGOMA_HOST: '0.0.0.0', SAGOMA_PASSPHRASE: 'short' }).stderr).toMatch(
    /set SAGOMA_PASSPHRASE/,
  );
  expect(start({ SAGOMA_PORT: 'soon' }).stderr).toMatch(/“soon” is not a port/);
});
