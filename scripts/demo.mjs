// npm run demo: installs, builds, fills a fresh demo workshop if there is none, starts.
import { rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import {
  ensureBuilt,
  ensureDemo,
  ensureInstalled,
  ensureServerBuilt,
  options,
  root,
  serve,
} from './setup.mjs';

const given = options({ fresh: 'flag', port: 'value', data: 'value', lan: 'flag' });
const data = resolve(given.data ?? join(root, 'demo-data'));

ensureInstalled();
ensureBuilt();
ensureServerBuilt();
if (given.fresh) {
  // Only ever what Sagoma itself put there: the folder may be the maker's own.
  for (const name of ['sagoma.db', 'sagoma.db-wal', 'sagoma.db-shm', 'blobs'])
    rmSync(join(data, name), { recursive: true, force: true });
}
ensureDemo(data);
serve({
  SAGOMA_DATA: data,
  SAGOMA_PORT: given.port ?? process.env.SAGOMA_PORT ?? '4317',
  ...(given.lan ? { SAGOMA_LAN: '1' } : {}),
});
