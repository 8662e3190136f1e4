import { afterAll, beforeAll, expect, test } from 'vitest';
import { seeded } from '../core/bench/random';
import { fuzz } from '../testing/fuzz';
import { type TestServer, testServer } from '../testing/server';

/** A short form of `npm run soak`. */
let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

test('whatever is sent, the server does not fail at it, and stays itself', async () => {
  const { sent, by, failed } = await fuzz(server.base, 600, seeded(20_261_128));
  expect(failed).toEqual([]);
  expect(sent).toBe(600);
  // Most of it is refused, some passes, as something harmless.
  expect(by['4xx']).toBeGreaterThan(200);
  const rack = await server.call('GET', '/jobs');
  expect(rack.status).toBe(200);
  expect(rack.body.unreadable).toEqual([]);
});
