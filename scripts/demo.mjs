// npm run demo: installs, builds, fills a fresh demo workshop if there is none, starts.
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { ensureBuilt, ensureInstalled, options, root, run, serve } from './setup.mjs';

const given = options({ fresh: 'flag', port: 'value', data: 'value' });
const data = resolve(given.data ?? join(root, 'demo-data'));

ensureInstalled();
ensureBuilt();
if (given.fresh) {
  // Only ever what Sagoma itself put there: the folder may be the maker's own.
  for (const name of ['sagoma.db', 'sagoma.db-wal', 'sagoma.db-shm', 'blobs'])
    rmSync(join(data, name), { recursive: true, force: true });
}
if (!existsSync(join(data, 'sagoma.db'))) {
  console.log('Filling the boathouse workshop…');
  // Filled aside and moved when whole: an interrupted start leaves no half workshop behind.
  const filling = `${data}.filling`;
  rmSync(filling, { recursive: true, force: true });
  run(process.execPath, ['--import', 'tsx', 'demo/fill.ts', filling]);
  mkdirSync(data, { recursive: true });
  for (const name of readdirSync(filling)) renameSync(join(filling, name), join(data, name));
  rmSync(filling, { recursive: true, force: true });
}
serve({ SAGOMA_DATA: data, SAGOMA_PORT: given.port ?? process.env.SAGOMA_PORT ?? '4317' });
