// npm run backup -- --to FOLDER, npm run restore -- --from FOLDER: may run beside the server.
import { ensureInstalled, ensureServerBuilt } from './setup.mjs';

ensureInstalled();
ensureServerBuilt();
await import('../dist-server/backup.mjs');
