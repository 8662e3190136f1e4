import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { type KernelWorker, SolidLine } from './solid-line';

/** A worker that answers when the test tells it to. */
class HandWorker implements KernelWorker {
  static all: HandWorker[] = [];
  asked: number[] = [];
  ended = false;
  private settle: ((answer: { heap: number; ok: true; wall: number }) => void) | undefined;
  private broken = () => {};
  constructor() {
    HandWorker.all.push(this);
  }
  api = {
    check: (part: { parameters: { wall: number } }) =>
      new Promise(settle => {
        this.asked.push(part.parameters.wall);
        this.settle = settle;
      }),
  } as never;
  onBreak = (broken: () => void) => {
    this.broken = broken;
  };
  end = () => {
    this.ended = true;
  };
  /** Answers the question it is working on. */
  async answer(heap = 1e8): Promise<void> {
    this.settle!({ heap, ok: true, wall: this.asked.at(-1)! });
    await vi.advanceTimersByTimeAsync(0);
  }
  async break(): Promise<void> {
    this.broken();
    await vi.advanceTimersByTimeAsync(0);
  }
}

let line: SolidLine;
let heard: number[];
/** −1 where the kernel broke; nothing where the question was overtaken. */
const ask = (wall: number) => {
  const part = { recipe: 'round-cap', additions: [], parameters: { wall } };
  void line
    .ask(api => api.check(part, {} as never))
    .then(
      answer => void (answer && heard.push(wall)),
      () => void heard.push(-1),
    );
};
const workers = () => HandWorker.all;

beforeEach(() => {
  vi.useFakeTimers();
  HandWorker.all = [];
  heard = [];
  line = new SolidLine(() => new HandWorker());
});
afterEach(() => void vi.useRealTimers());

describe('the line before the kernels', () => {
  test('one runs, the newest waits, those between are never asked', async () => {
    for (const wall of [1, 2, 3, 4]) ask(wall);
    expect(workers()[0]!.asked).toEqual([1]);
    await workers()[0]!.answer();
    expect(workers()[0]!.asked).toEqual([1, 4]);
    await workers()[0]!.answer();
    expect(heard).toEqual([4]);
  });

  test('an answer to old numbers is dropped', async () => {
    ask(1);
    ask(2);
    await workers()[0]!.answer();
    expect(heard).toEqual([]);
  });

  test('every question is settled once, also those that were overtaken', async () => {
    const asked = [1, 2, 3].map(wall =>
      line.ask(api => api.check({ recipe: 'round-cap', additions: [], parameters: { wall } }, {} as never)),
    );
    await workers()[0]!.answer();
    await workers()[0]!.answer();
    const answers = await Promise.all(asked);
    expect(answers.map(a => a !== null)).toEqual([false, false, true]);
  });

  test('a warm worker that is stuck on old numbers is ended and replaced', async () => {
    ask(1);
    await workers()[0]!.answer();
    ask(2);
    ask(3);
    vi.advanceTimersByTime(1900);
    expect(workers()).toHaveLength(1);
    vi.advanceTimersByTime(300);
    expect(workers()).toHaveLength(2);
    expect(workers()[0]!.ended).toBe(true);
    expect(workers()[1]!.asked).toEqual([3]);
  });

  test('while the kernels start nobody is impatient', () => {
    ask(1);
    ask(2);
    vi.advanceTimersByTime(10_000);
    expect(workers()).toHaveLength(1);
  });

  test('a heap beyond its bound costs the worker its place, and nobody notices', async () => {
    ask(1);
    await workers()[0]!.answer(7e8);
    expect(heard).toEqual([1]);
    expect(workers()[0]!.ended).toBe(true);
    ask(2);
    await workers()[1]!.answer();
    expect(heard).toEqual([1, 2]);
  });

  test('a worker that breaks is said, and the next question gets another', async () => {
    ask(1);
    await workers()[0]!.break();
    expect(heard).toEqual([-1]);
    ask(2);
    await workers()[1]!.answer();
    expect(heard).toEqual([-1, 2]);
  });
});
