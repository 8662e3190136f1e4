import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { test as base, expect, type Locator, type Page } from '@playwright/test';

const root = fileURLToPath(new URL('..', import.meta.url));

/** A server over an empty folder, and what tests do with it. */
export class TestBench {
  constructor(public url = '') {}

  // biome-ignore lint/suspicious/noExplicitAny: answers of several routes
  async api(method: string, path: string, body?: object): Promise<any> {
    const response = await fetch(`${this.url}/api${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      body: body && JSON.stringify(body),
    });
    const answer = await response.json();
    // A change says only what it changed: tests look at the job as it is then.
    const job = /^\/jobs\/([\w-]+)\//.exec(path)?.[1];
    if (!job || answer.changes === undefined) return answer;
    return { ...answer, ...(await this.api('GET', `/jobs/${job}`)) };
  }

  /** A job with its rim read three times and its height once. */
  async measuredJob(title = 'Vent-port cap'): Promise<string> {
    const { id } = await this.api('POST', '/jobs', { title, recipe: 'round-cap', object: 'hull vent port' });
    await this.read(id, [
      ['rim', 31.7],
      ['rim', 31.72],
      ['rim', 31.68],
      ['rim_height', 14],
    ]);
    return id;
  }

  /** Readings of a job, a new one or of that revision, one after the other, in mm. @returns the revision after them */
  async read(
    id: string,
    readings: readonly (readonly [dimensionId: string, value: number])[],
    from = 1,
  ): Promise<number> {
    let revision = from;
    for (const [n, [dimensionId, value]] of readings.entries()) {
      const reading = {
        id: `r${n}`,
        value,
        text: String(value),
        unit: 'mm',
        at: new Date().toISOString(),
        instrumentId: 'calipers',
        source: 'seat',
        via: 'typed',
        struck: null,
      };
      ({ revision } = await this.api('POST', `/jobs/${id}/edits`, {
        revision,
        edit: { kind: 'add-reading', dimensionId, reading },
      }));
    }
    return revision;
  }

  async switchOnPractice(): Promise<void> {
    const { revision, workshop } = await this.api('GET', '/workshop');
    await this.api('PUT', '/workshop', { revision, workshop: { ...workshop, practiceBench: true } });
  }
}

/** A server in a process of its own: it can be killed and started again on the same port. */
export class KillableBench extends TestBench {
  private child: ChildProcess | undefined;
  private readonly folder = mkdtempSync(join(tmpdir(), 'sagoma-e2e-'));

  async start(): Promise<void> {
    const port = this.url ? new URL(this.url).port : '0';
    const child = spawn(process.execPath, ['dist-server/server.mjs'], {
      cwd: root,
      env: { ...process.env, SAGOMA_DATA: this.folder, SAGOMA_PORT: port, SAGOMA_LOG: 'error' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.child = child;
    this.url = await new Promise<string>((done, fail) => {
      let said = '';
      child.stdout!.on('data', chunk => {
        said += String(chunk);
        const at = /http:\/\/localhost:\d+/.exec(said);
        if (at) done(at[0]);
      });
      child.on('exit', code => fail(new Error(`The server ended with ${code}.`)));
    });
  }

  async kill(): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null) return;
    await new Promise(done => {
      child.on('exit', done);
      child.kill('SIGKILL');
    });
  }

  async end(): Promise<void> {
    await this.kill();
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** One process with servers for all tests of a Playwright worker; the kernels in it are warm after the first. */
class BenchProcess {
  private readonly child = spawn(process.execPath, ['dist-server/bench.mjs'], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  private last = 0;
  private readonly ended = new Promise<never>((_, fail) => {
    this.child.on('exit', code => fail(new Error(`The bench process ended with ${code}.`)));
  });

  private ask<T>(message: object, isAnswer: (answer: Record<string, unknown>) => boolean): Promise<T> {
    const answered = new Promise<T>(done => {
      const heard = (answer: Record<string, unknown>) => {
        if (!isAnswer(answer)) return;
        this.child.off('message', heard);
        done(answer as T);
      };
      this.child.on('message', heard);
      this.child.send(message);
    });
    return Promise.race([answered, this.ended]);
  }

  async open(): Promise<{ number: number; url: string }> {
    const number = ++this.last;
    const { url } = await this.ask<{ url: string }>({ open: number }, a => a.opened === number);
    return { number, url };
  }

  shut = (number: number) => this.ask({ shut: number }, a => a.shut === number);
  end(): void {
    this.ended.catch(() => undefined);
    this.child.kill();
  }
}

interface Fixtures {
  /** An empty workshop of the test's own. */
  bench: TestBench;
  /** The same in a process of its own. */
  killable: KillableBench;
  quiet: undefined;
}

export const test = base.extend<Fixtures, { benches: BenchProcess }>({
  benches: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright wants a pattern even where nothing is taken
    async ({}, use) => {
      const process = new BenchProcess();
      await use(process);
      process.end();
    },
    { scope: 'worker' },
  ],
  bench: async ({ benches }, use) => {
    const { number, url } = await benches.open();
    await use(new TestBench(url));
    await benches.shut(number);
  },
  // biome-ignore lint/correctness/noEmptyPattern: Playwright wants a pattern even where nothing is taken
  killable: async ({}, use) => {
    const bench = new KillableBench();
    await bench.start();
    await use(bench);
    await bench.end();
  },
  /** A page that throws has failed, whatever it shows. */
  quiet: [
    async ({ page }, use) => {
      const thrown: string[] = [];
      page.on('pageerror', error => thrown.push(error.message));
      await use(undefined);
      expect(thrown).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

export const reading = (page: Page) => page.locator('input[data-reading]');

/** Types a reading and keeps it, as at the bench. */
export async function read(page: Page, ...values: string[]): Promise<void> {
  for (const value of values) {
    await reading(page).fill(value);
    await reading(page).press('Enter');
    await expect(reading(page)).toHaveValue('');
  }
}

/** The row of the ledger that begins with a name. */
export const ledgerRow = (page: Page, name: string) =>
  page.getByRole('complementary', { name: 'Ledger' }).getByRole('button', { name: new RegExp(`^${name}`) });

/** Waits for the solid of the present numbers and gives its volume, mm³. */
export async function solidVolume(page: Page): Promise<number> {
  const facts = page.getByTestId('solid-facts');
  await expect(facts).toHaveAttribute('data-busy', 'false');
  return Number(await facts.getAttribute('data-volume'));
}

/** Presses on what is drawn on a canvas, once it is drawn. @param across, down shares of its width and height */
export async function pressOn(
  view: Locator,
  across: number,
  down: number,
  /** The side it is seen from by then. */
  from = '',
): Promise<void> {
  await expect(view).toHaveAttribute('data-drawn', from || /./);
  const { width, height } = (await view.boundingBox())!;
  await view.click({ position: { x: across * width, y: down * height } });
}
