// Only Node's own modules here: this runs before anything is installed.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';

export const root = fileURLToPath(new URL('..', import.meta.url));
const STAMP = join(root, 'node_modules', '.sagoma-installed');

/** Runs a command with its output shown; ends this process when it fails. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (result.status !== 0) {
    console.error(`\n${command} ${args.join(' ')} failed.`);
    process.exit(result.status ?? 1);
  }
}

/** Installs the packages of the lockfile when they are not there, or others are. */
export function ensureInstalled() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(`Sagoma needs Node 20.19 or newer; this is ${process.versions.node}.`);
    process.exit(1);
  }
  const wanted = hashOf([join(root, 'package-lock.json')]);
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return;
  console.error('Installing packages…');
  run('npm', ['ci', '--no-audit', '--no-fund']);
  writeFileSync(STAMP, wanted);
}

/** Builds the page when its sources changed since the last build. */
export const ensureBuilt = () =>
  ensureFresh('dist', 'Building the page…', 'scripts/build.mjs', [
    'web',
    'core',
    'contract',
    'vite.config.ts',
  ]);

/** Bundles server and command line when their sources changed since the last time. */
export const ensureServerBuilt = () =>
  ensureFresh('dist-server', 'Bundling the server…', 'scripts/build-server.mjs', [
    ...['core', 'contract', 'server', 'kernels', 'cli', 'demo', 'testing'],
    'scripts/build-server.mjs',
  ]);

function ensureFresh(folder, words, script, sources) {
  const stamp = join(root, folder, '.built-from');
  const files = [...sources, 'package-lock.json'].flatMap(source => filesIn(join(root, source)));
  const wanted = hashOf(files.filter(path => !/\.test\.tsx?$/.test(path)));
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  // On standard error: the command line's own output is JSON and nothing else.
  console.error(words);
  run('node', [script], { stdio: ['ignore', 2, 2] });
  mkdirSync(join(root, folder), { recursive: true });
  writeFileSync(stamp, wanted);
}

/** Fills the demo workshop where there is none. */
export function ensureDemo(data) {
  if (existsSync(join(data, 'sagoma.db'))) return;
  console.log('Filling the boathouse workshop…');
  // Filled aside and moved when whole: an interrupted start leaves no half workshop behind.
  const filling = `${data}.filling`;
  rmSync(filling, { recursive: true, force: true });
  run(process.execPath, ['dist-server/fill.mjs', filling]);
  mkdirSync(data, { recursive: true });
  for (const name of readdirSync(filling)) renameSync(join(filling, name), join(data, name));
  rmSync(filling, { recursive: true, force: true });
}

/** Starts the server and hands its end on; Ctrl-C reaches it too, since it shares our terminal. */
export function serve(env) {
  const child = spawn(process.execPath, ['dist-server/server.mjs'], {
    cwd: root,
    stdio: 'inherit',
    env: { SAGOMA_LOG: 'warn', ...process.env, ...env },
  });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  child.on('exit', (code, signal) => process.exit(signal === 'SIGINT' ? 0 : (code ?? 0)));
}

/** `--name value` and `--flag` from the command line; says which there are where another one is given. */
export function options(names) {
  try {
    const types = Object.entries(names).map(([name, kind]) => [
      name,
      { type: kind === 'flag' ? 'boolean' : 'string' },
    ]);
    return { ...parseArgs({ options: Object.fromEntries(types) }).values };
  } catch (error) {
    console.error(
      `${error.message} There are: ${Object.keys(names)
        .map(n => `--${n}`)
        .join(', ')}`,
    );
    process.exit(2);
  }
}

function filesIn(folder) {
  if (!statSync(folder).isDirectory()) return [folder];
  return readdirSync(folder, { withFileTypes: true }).flatMap(entry => {
    const path = join(folder, entry.name);
    return entry.isDirectory() ? filesIn(path) : [path];
  });
}

function hashOf(paths) {
  const hash = createHash('sha256');
  for (const path of paths.sort())
    hash
      .update(path)
      .update(String(statSync(path).size))
      .update(readFileSync(path));
  return hash.digest('hex');
}
