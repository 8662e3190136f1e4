// npm test: installs what is missing, then types, lint, unit tests, Playwright. `--quick` leaves out Playwright.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { ensureBuilt, ensureInstalled, options, run } from './setup.mjs';

const given = options({ quick: 'flag' });
const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser'];

ensureInstalled();
run('npx', ['tsc', '-p', '.']);
run('npx', ['tsc', '-p', 'core']);
run('npx', ['biome', 'check', '.']);
run('npx', ['vitest', 'run', '--reporter=dot']);
if (!given.quick) {
  ensureChromium();
  ensureBuilt();
  run('npx', ['playwright', 'test']);
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
