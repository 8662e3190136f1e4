import { Writable } from 'node:stream';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { type Knock, knock } from '../../testing/knock';
import { readEdit } from '../../testing/read-edit';
import { type TestServer, testServer } from '../../testing/server';
import { devices } from '../store/schema';

/** Various visitors at the phones' door: each gets exactly as far as it may. */
let server: TestServer;
let job: string;
let said = '';
beforeAll(async () => {
  const log = pino(
    { level: 'info' },
    new Writable({
      write(chunk, _encoding, done) {
        said += String(chunk);
        done();
      },
    }),
  );
  server = await testServer(undefined, log);
  job = (await server.newJob()).id;
  await server.call('PUT', '/phones', { open: true });
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

const port = () => server.phones.port!;
const at = () => ({ origin: `http://127.0.0.1:${port()}` });
const ask = (asked: Knock) => knock(port(), { ...asked, headers: { ...at(), ...asked.headers } });
const codeNow = async (): Promise<string> => (await server.call('POST', '/phones/codes')).body.code;
const pairWith = (code: string, headers = {}) =>
  ask({ method: 'POST', path: '/api/pair', body: { code }, headers });

async function paired() {
  const answer = await pairWith(await codeNow());
  expect(answer.status).toBe(201);
  const [cookie = ''] = String(answer.headers['set-cookie']).split(';');
  const { id, name } = JSON.parse(answer.text) as { id: string; name: string };
  const as = (asked: Knock) => ask({ ...asked, headers: { cookie, ...asked.headers } });
  return { id, name, cookie, as, set: String(answer.headers['set-cookie']) };
}

const reading = (value: number) => readEdit('rim', value);
const revision = async () => (await server.call('GET', `/jobs/${job}`)).body.revision as number;
const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNk+A8AAQUBAScY42YAAAAASUVORK5CYII=',
  'base64',
);

test('it is shut until the maker opens it, and opens for nobody by itself', async () => {
  const fresh = await testServer();
  expect((await fresh.call('GET', '/phones')).body).toEqual({
    open: false,
    port: null,
    reach: [],
    devices: [],
  });
  expect((await fresh.call('POST', '/phones/codes')).status).toBe(409);
  expect(fresh.phones.port).toBeNull();
  await fresh.stop();
  fresh.remove();
});

test('shut again, nobody is answered; opened again, who was let in still is', async () => {
  const phone = await paired();
  const was = port();
  expect((await server.call('PUT', '/phones', { open: false })).body.open).toBe(false);
  await expect(knock(was, { path: '/' })).rejects.toThrow(/ECONNREFUSED/);
  await server.call('PUT', '/phones', { open: true });
  expect((await phone.as({ path: '/api/on-bench' })).status).toBe(200);
});

describe('who is not let in', () => {
  test.each([
    ['GET', '/api/on-bench'],
    ['GET', '/api/jobs'],
    ['GET', '/api/workshop'],
    ['GET', '/api/events'],
    ['GET', '/api/phones'],
    ['POST', '/api/phones/codes'],
    ['PUT', '/api/workshop'],
    ['POST', '/api/import'],
    ['POST', '/api/device/readings'],
  ])('%s %s is refused', async (method, path) => {
    const answer = await ask({ method, path, ...(method === 'GET' ? {} : { body: {} }) });
    expect(answer.status).toBe(401);
    expect(answer.text).toMatch(/has no access/);
  });

  test('a photo of his is not even read', async () => {
    const answer = await ask({ method: 'POST', path: `/api/jobs/${job}/photos`, body: new Uint8Array(1e6) });
    expect(answer.status).toBe(401);
  });

  test('he is led to where a code is given', async () => {
    const { status, headers } = await ask({ path: '/' });
    expect([status, headers.location]).toEqual([302, '/pair']);
  });

  test.each(['x', 'A'.repeat(43), '../../etc', '%00'])('a made-up cookie “%s” opens nothing', async token => {
    const headers = { cookie: `sagoma_phone=${token}` };
    expect((await ask({ path: '/api/on-bench', headers })).status).toBe(401);
  });
});

describe('pairing', () => {
  test('the code gives a cookie that no script reads and no other site sends; neither is kept', async () => {
    const phone = await paired();
    expect(phone.set).toMatch(/HttpOnly/i);
    expect(phone.set).toMatch(/SameSite=Strict/i);
    expect((await phone.as({ path: '/' })).headers.location).toBe('/phone');
    const kept = JSON.stringify(await server.app.store.db.select().from(devices));
    expect(kept).toContain(phone.id);
    expect(kept).not.toContain(phone.cookie.split('=')[1]);
  });

  test('a code that was taken is not taken again, nor one that a newer one replaced', async () => {
    const code = await codeNow();
    expect((await pairWith(code)).status).toBe(201);
    const replayed = await pairWith(code);
    expect(replayed.status).toBe(403);
    expect(replayed.headers['set-cookie']).toBeUndefined();
    const older = await codeNow();
    await codeNow();
    expect((await pairWith(older)).status).toBe(403);
  });

  test('a code that is shown no more is not taken any more', async () => {
    const code = await codeNow();
    expect((await server.call('DELETE', '/phones/codes')).status).toBe(200);
    expect((await pairWith(code)).status).toBe(403);
  });

  test('two phones with one code at once: one comes in', async () => {
    const code = await codeNow();
    const both = await Promise.all([pairWith(code), pairWith(code)]);
    expect(both.map(a => a.status).toSorted()).toEqual([201, 403]);
  });

  test.each([{}, { code: '' }, { code: 7 }, { code: 'x'.repeat(5000) }, { code: 'x', kind: 'car' }])(
    'what is no code is refused, %#',
    async body => {
      const { status } = await ask({ method: 'POST', path: '/api/pair', body });
      expect([400, 413]).toContain(status);
    },
  );

  test('neither code nor cookie is in the log', async () => {
    said = '';
    const code = await codeNow();
    const { cookie, as } = await paired();
    await pairWith(code);
    await as({ path: '/api/on-bench' });
    expect(said).toContain('"path":"/api/pair"');
    expect(said).not.toContain(code);
    expect(said).not.toContain(cookie.split('=')[1]);
  });
});

describe('a page of somebody else', () => {
  test('in the phone’s own browser changes and learns nothing', async () => {
    const { as } = await paired();
    const edit = { method: 'POST', path: `/api/jobs/${job}/edits` };
    const body = { revision: await revision(), edit: reading(31.7) };
    for (const origin of [
      'http://evil.example',
      'null',
      `http://127.0.0.1:${port() + 1}`,
      `https://127.0.0.1`,
    ])
      expect((await as({ ...edit, body, headers: { origin } })).status, origin).toBe(403);
    expect(await revision()).toBe(body.revision);
    expect((await as({ path: '/api/workshop', headers: { origin: 'http://evil.example' } })).status).toBe(
      403,
    );
  });

  test('who says no origin may look, not change', async () => {
    const { cookie } = await paired();
    const bare = (asked: Knock) => knock(port(), { ...asked, headers: { cookie } });
    expect((await bare({ path: '/api/on-bench' })).status).toBe(200);
    expect((await bare({ method: 'POST', path: `/api/jobs/${job}/edits`, body: {} })).status).toBe(403);
  });

  test('under a name of its own it does not reach us', async () => {
    const { as } = await paired();
    const host = `evil.example:${port()}`;
    for (const path of ['/', '/pair', '/api/on-bench'])
      expect((await as({ path, headers: { host, origin: `http://${host}` } })).status, path).toBe(403);
    const code = await codeNow();
    expect((await pairWith(code, { host, origin: `http://${host}` })).status).toBe(403);
    expect((await pairWith(code)).status).toBe(201);
  });
});

describe('a phone that is let in', () => {
  test('opens the job on the bench, takes readings and verdicts', async () => {
    const { as } = await paired();
    await server.call('PUT', '/on-bench', { jobId: job });
    expect(JSON.parse((await as({ path: '/api/on-bench' })).text)).toEqual({ jobId: job });
    expect((await as({ path: `/api/jobs/${job}` })).status).toBe(200);
    const body = { revision: await revision(), edit: reading(31.72) };
    expect((await as({ method: 'POST', path: `/api/jobs/${job}/edits`, body })).status).toBe(200);
    const { document } = (await server.call('GET', `/jobs/${job}`)).body;
    expect(document.dimensions.find((d: { id: string }) => d.id === 'rim').readings.at(-1).value).toBe(31.72);
    // A verdict reaches the code that checks verdicts.
    const nothing = await as({ method: 'POST', path: `/api/jobs/${job}/tries`, body: {} });
    expect(nothing.status).toBe(400);
  });

  test('sends a photo once, however often it sends it', async () => {
    const { as, name } = await paired();
    const heard: object[] = [];
    const real = server.app.events.send.bind(server.app.events);
    server.app.events.send = event => {
      heard.push(event);
      real(event);
    };
    const path = `/api/jobs/${job}/photos?id=01JZZZZZZZZZZZZZZZZZZZZZZZ&label=seat`;
    const send = () => as({ method: 'POST', path, body: new Uint8Array(PIXEL) });
    expect((await send()).status).toBe(201);
    expect((await send()).status).toBe(200);
    server.app.events.send = real;
    const { photos } = (await server.call('GET', `/jobs/${job}`)).body.document;
    expect(photos.map((p: { id: string; label: string }) => [p.id, p.label])).toEqual([
      ['01JZZZZZZZZZZZZZZZZZZZZZZZ', 'seat'],
    ]);
    expect(heard.filter(e => 'from' in e)).toEqual([{ kind: 'photo', jobId: job, from: name }]);
    const shown = await as({ path: `/api/jobs/${job}/photos/01JZZZZZZZZZZZZZZZZZZZZZZZ` });
    expect(shown.status).toBe(200);
    // The thread that reads photos starts with the first.
  }, 30_000);

  test.each([
    ['GET', '/api/jobs'],
    ['GET', '/api/jobs/search?q=cap'],
    ['GET', '/api/jobs/JOB/raw'],
    ['GET', '/api/jobs/JOB/bundle'],
    ['DELETE', '/api/jobs/JOB'],
    ['POST', '/api/jobs/JOB/undo'],
    ['POST', '/api/jobs/JOB/versions'],
    ['POST', '/api/jobs'],
    ['POST', '/api/import'],
    ['PUT', '/api/workshop'],
    ['PUT', '/api/on-bench'],
    ['GET', '/api/phones'],
    ['POST', '/api/phones/codes'],
    ['PUT', '/api/phones'],
    ['GET', '/api/queue'],
    ['GET', '/api/reference-sheet.pdf?paper=a4&middle=white'],
    ['POST', '/api/device/readings'],
    ['POST', '/api/bench/jobs/JOB/caliper'],
    // The same with other spellings.
    ['GET', '/api/Jobs'],
    ['GET', '/api//jobs'],
    ['GET', '/api/jobs/'],
    ['GET', '/api/%6aobs'],
    ['GET', '/api/on-bench/../jobs'],
    ['GET', '/api/jobs/JOB/photos/..%2f..%2f'],
  ])('%s %s is the bench’s own', async (method, path) => {
    const { as } = await paired();
    const asked = { method, path: path.replace('JOB', job) };
    const answer = await as(method === 'GET' ? asked : { ...asked, body: {} });
    expect(answer.status).toBe(403);
    expect(answer.text).toMatch(/Do this at the bench/);
  });

  test('changes nothing else of the job', async () => {
    const { as } = await paired();
    const edit = { kind: 'rename-job', title: 'Mine now' };
    const body = { revision: await revision(), edit };
    const answer = await as({ method: 'POST', path: `/api/jobs/${job}/edits`, body });
    expect(answer.status).toBe(403);
  });

  test('hears of jobs and of the bench, not of what instruments send', async () => {
    const { as, id } = await paired();
    let heard = '';
    const hear = (text: string) => {
      heard = text;
    };
    const stream = as({ path: '/api/events?tab=phone', hear }).catch((error: Error) => error);
    await expect.poll(() => heard).toContain('retry');
    await server.call('POST', '/device/readings', { text: '12.3' });
    const other = (await server.newJob('Another')).id;
    await server.call('PUT', '/on-bench', { jobId: other });
    await expect.poll(() => heard).toContain(`{"kind":"bench","jobId":"${other}"}`);
    expect(heard).toContain(`{"kind":"job","jobId":"${other}"`);
    expect(heard).not.toContain('12.3');
    // Its stream ends with it.
    expect((await server.call('DELETE', `/phones/devices/${id}`)).status).toBe(200);
    expect(await stream).toBeInstanceOf(Error);
  });
});

test('one that is sent away is refused from then on, and is no longer listed', async () => {
  const phone = await paired();
  const other = await paired();
  expect((await phone.as({ path: '/api/on-bench' })).status).toBe(200);
  const named = await server.call('PUT', `/phones/devices/${phone.id}`, { name: 'The boat-keeper’s' });
  const listed = named.body.devices.find((d: { id: string }) => d.id === phone.id);
  expect(listed.name).toBe('The boat-keeper’s');
  expect(listed.usedAt).not.toBeNull();
  const left = (await server.call('DELETE', `/phones/devices/${phone.id}`)).body.devices;
  expect(left.map((d: { id: string }) => d.id)).not.toContain(phone.id);
  expect((await phone.as({ path: '/api/on-bench' })).status).toBe(401);
  expect((await other.as({ path: '/api/on-bench' })).status).toBe(200);
  expect((await server.call('DELETE', `/phones/devices/${phone.id}`)).status).toBe(404);
});

test('guessing: soon the right code does not help either, and then nobody is listened to', async () => {
  const fresh = await testServer();
  await fresh.call('PUT', '/phones', { open: true });
  const own = fresh.phones.port!;
  const newCode = async () => (await fresh.call('POST', '/phones/codes')).body.code as string;
  const guess = (code: string) =>
    knock(own, {
      method: 'POST',
      path: '/api/pair',
      body: { code },
      headers: { origin: `http://127.0.0.1:${own}` },
    });
  const code = await newCode();
  for (let i = 0; i < 10; i++) expect((await guess(`guess${i}`)).status).toBe(403);
  expect((await guess(code)).status).toBe(403);
  // Correct codes do not count as guesses.
  for (let i = 0; i < 3; i++) expect((await guess(await newCode())).status).toBe(201);
  expect((await guess('guess')).status).toBe(403);
  const late = await guess(await newCode());
  expect(late.status).toBe(429);
  expect(Number(late.headers['retry-after'])).toBeGreaterThan(0);
  await fresh.stop();
  fresh.remove();
});

test('with nothing told, the job last worked on lies on the bench', async () => {
  const fresh = await testServer();
  expect((await fresh.call('GET', '/on-bench')).body).toEqual({ jobId: null });
  const first = await fresh.newJob('First');
  const second = await fresh.newJob('Second');
  expect((await fresh.call('GET', '/on-bench')).body).toEqual({ jobId: second.id });
  await fresh.call('POST', `/jobs/${first.id}/edits`, { revision: 1, edit: reading(31.7) });
  expect((await fresh.call('GET', '/on-bench')).body).toEqual({ jobId: first.id });
  await fresh.call('PUT', '/on-bench', { jobId: second.id });
  expect((await fresh.call('GET', '/on-bench')).body).toEqual({ jobId: second.id });
  await fresh.call('PUT', '/on-bench', { jobId: 'gone' });
  expect((await fresh.call('GET', '/on-bench')).body).toEqual({ jobId: first.id });
  await fresh.stop();
  fresh.remove();
});
