// npm run dev: on the demo workshop unless SAGOMA_DATA says otherwise, the server restarts and the page reloads as files change.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureInstalled, root } from './setup.mjs';

ensureInstalled();
const env = {
  SAGOMA_DATA: join(root, 'demo-data'),
  ...process.env,
  SAGOMA_PORT: process.env.SAGOMA_PORT ?? '4318',
};
const children = [
  spawn('npx', ['tsx', 'watch', 'server/main.ts'], { cwd: root, stdio: 'inherit', env }),
  spawn('npx', ['vite'], { cwd: root, stdio: 'inherit', env }),
];
for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, () => {
    for (const child of children) child.kill(signal);
    process.exit(0);
  });
}
