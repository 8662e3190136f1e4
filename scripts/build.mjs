// Builds the page and compresses what it serves, once, so that no request waits for it.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants } from 'node:zlib';
import { root, run } from './setup.mjs';

const QUALITY = 5;
const WORTH_IT = 1024;

run('npx', ['vite', 'build', '--logLevel', 'warn']);
compress(join(root, 'dist'));

function compress(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) compress(path);
    else if (/\.(js|css|html|svg|wasm)$/.test(entry.name) && statSync(path).size > WORTH_IT) {
      const options = { params: { [constants.BROTLI_PARAM_QUALITY]: QUALITY } };
      writeFileSync(`${path}.br`, brotliCompressSync(readFileSync(path), options));
    }
  }
}
