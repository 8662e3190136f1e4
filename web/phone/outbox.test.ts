// @vitest-environment jsdom
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { ServerSaid, Unreachable } from '../api/client';
import { Outbox, type Shelf, type Waiting } from './outbox';

/** Stored photos stay, as in a browser's database, whatever happens to the page. */
class Cupboard implements Shelf {
  readonly kept = new Map<string, Waiting>();
  all = async () => [...this.kept.values()];
  put = async (photo: Waiting) => void this.kept.set(photo.id, photo);
  remove = async (id: string) => void this.kept.delete(id);
}

const photo = (id: string, at = 0): Waiting => ({
  id,
  jobId: 'job',
  name: `${id}.jpg`,
  trace: null,
  file: new Blob([id]),
  at,
});
const ids = (outbox: Outbox) => outbox.read().waiting.map(w => w.id);

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

test('what can be sent is sent in turn, one at a time, and then kept no longer', async () => {
  const shelf = new Cupboard();
  const sent: string[] = [];
  let atOnce = 0;
  const outbox = new Outbox(shelf, async ({ id }) => {
    expect(++atOnce).toBe(1);
    await new Promise(done => setTimeout(done, 100));
    sent.push(id);
    atOnce--;
  });
  await outbox.start();
  await outbox.add(photo('a'));
  await outbox.add(photo('b'));
  expect(outbox.read().sending).toBe('a');
  expect([...shelf.kept.keys()]).toEqual(['a', 'b']);
  await vi.advanceTimersByTimeAsync(300);
  expect(sent).toEqual(['a', 'b']);
  expect(ids(outbox)).toEqual([]);
  expect(shelf.kept.size).toBe(0);
});

test('without a connection it waits, and goes when it is back', async () => {
  let there = false;
  const send = vi.fn(async () => {
    if (!there) throw new Unreachable();
  });
  const outbox = new Outbox(new Cupboard(), send);
  await outbox.start();
  await outbox.add(photo('a'));
  await vi.advanceTimersByTimeAsync(10);
  expect(outbox.read().trouble).toMatch(/No connection/);
  expect(ids(outbox)).toEqual(['a']);
  await vi.advanceTimersByTimeAsync(3000);
  expect(send).toHaveBeenCalledTimes(2);
  there = true;
  outbox.hurry();
  await vi.advanceTimersByTimeAsync(10);
  expect(ids(outbox)).toEqual([]);
  expect(outbox.read().trouble).toBeNull();
});

test('a page that was closed meanwhile sends it at its next visit, oldest first', async () => {
  const shelf = new Cupboard();
  const dead = new Outbox(shelf, () => new Promise(() => {}));
  await dead.start();
  await dead.add(photo('later', 2));
  await dead.add(photo('first', 1));
  const sent: string[] = [];
  const outbox = new Outbox(shelf, async ({ id }) => void sent.push(id));
  await outbox.start();
  // The page starts it wherever it is needed.
  await outbox.start();
  await vi.advanceTimersByTimeAsync(10);
  expect(sent).toEqual(['first', 'later']);
  expect(shelf.kept.size).toBe(0);
});

test.each([401, 429, 503, 507])('an answer of %i is not the photo’s fault', async status => {
  const outbox = new Outbox(new Cupboard(), async () => {
    throw new ServerSaid(status, 'x', 'Not just now.');
  });
  await outbox.start();
  await outbox.add(photo('a'));
  await vi.advanceTimersByTimeAsync(10);
  expect(outbox.read().trouble).toBe('Not just now.');
  expect(outbox.read().refused.size).toBe(0);
  expect(ids(outbox)).toEqual(['a']);
});

test('one that is refused says why, holds nobody up, and is tried again or thrown away', async () => {
  const shelf = new Cupboard();
  let willing = false;
  const outbox = new Outbox(shelf, async ({ id }) => {
    if (id === 'bad' && !willing) throw new ServerSaid(422, 'bad-photo', 'This is not a photo.');
  });
  await outbox.start();
  await outbox.add(photo('bad'));
  await outbox.add(photo('good'));
  await vi.advanceTimersByTimeAsync(10);
  expect(ids(outbox)).toEqual(['bad']);
  expect(outbox.read().refused.get('bad')).toBe('This is not a photo.');
  willing = true;
  outbox.again('bad');
  await vi.advanceTimersByTimeAsync(10);
  expect(ids(outbox)).toEqual([]);
  willing = false;
  await outbox.add(photo('bad'));
  await vi.advanceTimersByTimeAsync(10);
  await outbox.remove('bad');
  expect(ids(outbox)).toEqual([]);
  expect(shelf.kept.size).toBe(0);
});

test('where the browser keeps nothing it is sent all the same, and that is said', async () => {
  const no = async () => Promise.reject(new Error('no database here'));
  const sent: string[] = [];
  const outbox = new Outbox({ all: no, put: no, remove: no }, async ({ id }) => void sent.push(id));
  await outbox.start();
  expect(outbox.read().kept).toBe(false);
  await outbox.add(photo('a'));
  await vi.advanceTimersByTimeAsync(10);
  expect(sent).toEqual(['a']);
  expect(ids(outbox)).toEqual([]);
});
