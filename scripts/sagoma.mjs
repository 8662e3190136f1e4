// npm run -s sagoma: the command line, bundled anew where its sources changed.
import { ensureInstalled, ensureServerBuilt } from './setup.mjs';

ensureInstalled();
ensureServerBuilt();
await import('../dist-server/cli.mjs');
