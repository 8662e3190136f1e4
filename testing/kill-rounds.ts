import { type ChildProcess, spawn } from 'node:child_process';
import { ROOT } from '../server/root';
import { readingEdit } from './server';

/** A server in a process of its own, so that it can be killed. */
export async function startServer(folder: string): Promise<{ base: string; child: ChildProcess }> {
  const child = spawn(process.execPath, ['dist-server/server.mjs'], {
    cwd: ROOT,
    env: { ...process.env, SAGOMA_DATA: folder, SAGOMA_PORT: '0', SAGOMA_LOG: 'silent' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let said = '';
  const base = await new Promise<string>((done, fail) => {
    child.stdout!.on('data', chunk => {
      said += String(chunk);
      const at = /http:\/\/localhost:\d+/.exec(said);
      if (at) done(at[0]);
    });
    child.on('exit', code => fail(new Error(`The server ended with ${code}: ${said}`)));
  });
  return { base, child };
}

export function killed(child: ChildProcess, signal: NodeJS.Signals): Promise<number | null> {
  return new Promise(done => {
    child.removeAllListeners('exit');
    child.on('exit', code => done(code));
    child.kill(signal);
  });
}

export interface KillRound {
  /** Edits the server said yes to before it was killed. */
  acknowledged: number;
  /** Of those, the ones that are not there on re-reading. */
  lost: number;
}

/**
 * Streams edits at a server and kills it with -9 after a random time, again and again; after each start
 * every acknowledged edit must be there. @param random 0 to 1
 */
export async function killRounds(
  folder: string,
  rounds: number,
  random: () => number,
  longest = 600,
): Promise<KillRound[]> {
  const results: KillRound[] = [];
  for (let round = 0; round < rounds; round++) {
    const { base, child } = await startServer(folder);
    const job = await send(base, 'POST', '/jobs', { title: `Round ${round}`, recipe: 'round-cap' });
    const acknowledged: string[] = [];
    let revision = 1;
    const timer = setTimeout(() => child.kill('SIGKILL'), random() * longest);
    const over = new Promise(done => child.on('exit', done));
    try {
      for (let n = 0; ; n++) {
        const id = `k${round}-${n}`;
        const answer = await send(base, 'POST', `/jobs/${job.id}/edits`, {
          revision,
          edit: readingEdit(n % 2 ? 'bore' : 'rim', 10 + n / 100, id),
        });
        revision = answer.revision;
        acknowledged.push(id);
      }
    } catch (error) {
      if (!(error instanceof TypeError)) throw error;
      // The connection broke with the server: what was answered until now counts.
    }
    clearTimeout(timer);
    await over;
    const again = await startServer(folder);
    const found = await send(again.base, 'GET', `/jobs/${job.id}`);
    const there = new Set(
      found.document.dimensions.flatMap((d: { readings: { id: string }[] }) => d.readings.map(r => r.id)),
    );
    results.push({
      acknowledged: acknowledged.length,
      lost: acknowledged.filter(id => !there.has(id)).length,
    });
    await killed(again.child, 'SIGTERM');
  }
  return results;
}

// biome-ignore lint/suspicious/noExplicitAny: answers of several routes
async function send(base: string, method: string, path: string, body?: object): Promise<any> {
  const response = await fetch(`${base}/api${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: body && JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status}`);
  return response.json();
}
