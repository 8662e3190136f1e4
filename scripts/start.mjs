// npm start: your own workshop, without demo data.
import { join, resolve } from 'node:path';
import { ensureBuilt, ensureInstalled, ensureServerBuilt, options, root, serve } from './setup.mjs';

const given = options({ port: 'value', data: 'value', lan: 'flag' });
ensureInstalled();
ensureBuilt();
ensureServerBuilt();
serve({
  SAGOMA_DATA: resolve(given.data ?? process.env.SAGOMA_DATA ?? join(root, 'data')),
  SAGOMA_PORT: given.port ?? process.env.SAGOMA_PORT ?? '4317',
  ...(given.lan ? { SAGOMA_LAN: '1' } : {}),
});
