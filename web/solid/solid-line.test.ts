import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { SolidReply, SolidRequest } from '../workers/solid-protocol';
import { SolidLine } from './solid-line';

/** A worker that answers when the test says so. */
class HandWorker {
  static all: HandWorker[] = [];
  asked: SolidRequest[] = [];
  ended = false;
  private readonly listeners: Record<string, (event: { data?: SolidReply }) => void> = {};
  constructor() {
    HandWorker.all.push(this);
  }
  addEventListener = (kind: string, listener: never) => {
    this.listeners[kind] = listener;
  };
  postMessage = (request: SolidRequest) => void this.asked.push(request);
  terminate = () => {
    this.ended = true;
  };
  /** Answers the request it is working on. */
  answer(heap = 1e8): void {
    this.listeners.message!({
      data: { id: this.asked.at(-1)!.id, kind: 'checked', findings: [], loads: [], heap },
    });
  }
  break(): void {
    this.listeners.error!({});
  }
}

const request = (wall: number) => ({
  want: 'check' as const,
  recipe: 'round-cap',
  additions: [],
  parameters: { wall },
  context: {} as never,
});
let line: SolidLine;
let heard: number[];
const ask = (wall: number) =>
  line.ask(request(wall), reply => heard.push(reply.kind === 'failed' ? -1 : wall));
const workers = () => HandWorker.all;

beforeEach(() => {
  vi.useFakeTimers();
  HandWorker.all = [];
  heard = [];
  line = new SolidLine(() => new HandWorker() as unknown as Worker);
});
afterEach(() => void vi.useRealTimers());

describe('the line before the kernels', () => {
  test('one runs, the newest waits, those between are never asked', () => {
    for (const wall of [1, 2, 3, 4]) ask(wall);
    expect(workers()[0]!.asked.map(r => r.parameters.wall)).toEqual([1]);
    workers()[0]!.answer();
    expect(workers()[0]!.asked.map(r => r.parameters.wall)).toEqual([1, 4]);
    workers()[0]!.answer();
    expect(heard).toEqual([4]);
  });

  test('an answer to old numbers is dropped', () => {
    ask(1);
    ask(2);
    workers()[0]!.answer();
    expect(heard).toEqual([]);
  });

  test('a warm worker that is stuck on old numbers is ended and replaced', () => {
    ask(1);
    workers()[0]!.answer();
    ask(2);
    ask(3);
    vi.advanceTimersByTime(1900);
    expect(workers()).toHaveLength(1);
    vi.advanceTimersByTime(300);
    expect(workers()).toHaveLength(2);
    expect(workers()[0]!.ended).toBe(true);
    expect(workers()[1]!.asked.map(r => r.parameters.wall)).toEqual([3]);
  });

  test('while the kernels start nobody is impatient', () => {
    ask(1);
    ask(2);
    vi.advanceTimersByTime(10_000);
    expect(workers()).toHaveLength(1);
  });

  test('a heap beyond its bound costs the worker its place, and nobody notices', () => {
    ask(1);
    workers()[0]!.answer(7e8);
    expect(heard).toEqual([1]);
    expect(workers()[0]!.ended).toBe(true);
    ask(2);
    workers()[1]!.answer();
    expect(heard).toEqual([1, 2]);
  });

  test('a worker that breaks is said, and the next request gets another', () => {
    ask(1);
    workers()[0]!.break();
    expect(heard).toEqual([-1]);
    ask(2);
    workers()[1]!.answer();
    expect(heard).toEqual([-1, 2]);
  });
});
