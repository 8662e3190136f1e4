import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { openLasting } from './lasting-source';

/** A browser's event source, controlled by the test. */
class Source {
  readyState = 0;
  onmessage?: (message: { data: string }) => void;
  onopen?: () => void;
  onerror?: () => void;
}
const made: Source[] = [];
const make = () => {
  const source = new Source();
  made.push(source);
  // biome-ignore lint/suspicious/noExplicitAny: only what is used of it
  return source as any;
};

beforeEach(() => {
  made.length = 0;
  vi.useFakeTimers();
});
afterEach(() => void vi.useRealTimers());

test('what comes is told; a connection that broke is left to the browser', async () => {
  const heard = { told: vi.fn(), connected: vi.fn() };
  openLasting('/api/events', heard, make);
  const [source] = made;
  source!.onopen!();
  source!.onmessage!({ data: '{"kind":"bench","jobId":"one"}' });
  expect(heard.told).toHaveBeenCalledWith({ kind: 'bench', jobId: 'one' });
  source!.readyState = 0;
  source!.onerror!();
  await vi.advanceTimersByTimeAsync(60_000);
  expect(made).toHaveLength(1);
  expect(heard.connected.mock.calls).toEqual([[true], [false]]);
});

test('one that was refused is asked for again, until it is let in', async () => {
  const heard = { told: vi.fn(), connected: vi.fn() };
  openLasting('/api/events', heard, make);
  for (const times of [1, 2, 3]) {
    expect(made).toHaveLength(times);
    made.at(-1)!.readyState = 2;
    made.at(-1)!.onerror!();
    await vi.advanceTimersByTimeAsync(3000);
  }
  made.at(-1)!.onopen!();
  await vi.advanceTimersByTimeAsync(60_000);
  expect(made).toHaveLength(4);
  expect(heard.connected).toHaveBeenLastCalledWith(true);
});
