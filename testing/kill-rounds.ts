import { type ChildProcess, spawn } from 'node:child_process';
import { ROOT } from '../server/root';
import { type Deed, Maker } from './deeds';

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
  /** What the server acknowledged before it was killed, by kind. */
  acknowledged: Readonly<Record<Deed, number>>;
  /** Of those, what is missing after the next start. */
  lost: Deed[];
}

/**
 * Sends one deed after another to a server and kills it with -9 after a random time, again and again; after each start
 * everything that was acknowledged must be there.
 * @param random 0 to 1 @param deeds what is done in turn @param longest until the kill, ms
 */
export async function killRounds(
  folder: string,
  rounds: number,
  random: () => number,
  { deeds = ['edit'], longest = 600 }: { deeds?: readonly Deed[]; longest?: number } = {},
): Promise<KillRound[]> {
  const results: KillRound[] = [];
  for (let round = 0; round < rounds; round++) {
    const { base, child } = await startServer(folder);
    const maker = await Maker.at(base);
    const done: { deed: Deed; isThere: (base: string) => Promise<boolean> }[] = [];
    const act = async (deed: Deed) => done.push({ deed, isThere: await maker.do(deed) });
    // Once each, so that threads and kernels are warm and the kill hits the work.
    for (const deed of new Set(deeds)) await act(deed);
    const timer = setTimeout(() => child.kill('SIGKILL'), random() * longest);
    const over = new Promise(end => child.on('exit', end));
    try {
      for (let n = 0; ; n++) await act(deeds[n % deeds.length]!);
    } catch (error) {
      if (!(error instanceof TypeError)) throw error;
      // The connection broke with the server: what was answered before that counts.
    }
    clearTimeout(timer);
    await over;
    const again = await startServer(folder);
    const acknowledged = { edit: 0, photo: 0, import: 0, version: 0 };
    const lost: Deed[] = [];
    for (const { deed, isThere } of done) {
      acknowledged[deed]++;
      if (!(await isThere(again.base))) lost.push(deed);
    }
    results.push({ acknowledged, lost });
    await killed(again.child, 'SIGTERM');
  }
  return results;
}
