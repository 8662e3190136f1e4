// npm test: installs what is missing, then types, lint, unit tests, Playwright. `--quick` leaves out Playwright.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { ensureBuilt, ensureInstalled, ensureServerBuilt, options, root, run } from './setup.mjs';

const given = options({ quick: 'flag' });
const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser'];

ensureInstalled();
ensureServerBuilt();
// Compilers and linter side by side: each keeps one core busy for most of its time.
await together([
  ['tsc', '-p', '.'],
  ['tsc', '-p', 'core'],
  ['biome', 'check', '.'],
]);
run('npx', ['vitest', 'run', '--reporter=dot']);
if (!given.quick) {
  ensureChromium();
  ensureBuilt();
  run('npx', ['playwright', 'test']);
}

/** Runs all of them at once, shows what each said once it is done, and ends this process when one fails. */
async function together(commands) {
  const results = await Promise.all(
    commands.map(
      words =>
        new Promise(done => {
          const child = spawn('npx', words, { cwd: root });
          let said = '';
          for (const stream of [child.stdout, child.stderr]) stream.on('data', chunk => (said += chunk));
          child.on('close', code => {
            if (said.trim()) console.log(said.trim());
            done(code ?? 1);
          });
        }),
    ),
  );
  const failed = commands.filter((_, i) => results[i] !== 0);
  if (failed.length === 0) return;
  console.error(`\n${failed.map(words => words.join(' ')).join(' and ')} failed.`);
  process.exit(1);
}

/** Debian's Chromium, installed where this machine lets us; else says exactly what to install. */
function ensureChromium() {
  if (process.env.SAGOMA_CHROMIUM || CHROMIUM.some(existsSync)) return;
  const isRoot = process.getuid?.() === 0;
  if (isRoot && spawnSync('apt-get', ['--version']).status === 0) {
    console.log('Installing Chromium…');
    spawnSync('apt-get', ['update'], { stdio: 'inherit' });
    spawnSync('apt-get', ['install', '-y', '--no-install-recommends', 'chromium'], {
      stdio: 'inherit',
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
    if (CHROMIUM.some(existsSync)) return;
  }
  console.error(
    'The browser tests need Chromium. Install it, then run npm test again:\n\n  sudo apt-get install chromium\n\nor set SAGOMA_CHROMIUM to the path of a Chromium that is installed elsewhere.',
  );
  process.exit(1);
}
