import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { run } from './run';

/** ms */
const PATIENCE = 400;

process.exitCode = await run(process.argv.slice(2), {
  // 0 is standard input.
  read: file => readFileSync(file ?? 0, 'utf8'),
  atOnce: () => soon(process.stdin),
  lines: () => createInterface({ input: process.stdin }),
  out: text => void process.stdout.write(text),
  err: text => void process.stderr.write(text),
});

/** A program that starts this one may keep its input open and never write: that counts as no input. */
function soon(input: NodeJS.ReadStream): Promise<string> {
  if (input.isTTY) return Promise.resolve('');
  return new Promise((done, failed) => {
    let text = '';
    const patience = setTimeout(() => {
      input.destroy();
      done('');
    }, PATIENCE);
    input.setEncoding('utf8');
    input.on('data', chunk => {
      clearTimeout(patience);
      text += chunk;
    });
    input.on('end', () => {
      clearTimeout(patience);
      done(text);
    });
    input.on('error', failed);
  });
}
