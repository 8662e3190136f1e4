import { readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { run } from './run';

process.exitCode = await run(process.argv.slice(2), {
  // 0 is standard input.
  read: file => readFileSync(file ?? 0, 'utf8'),
  lines: () => createInterface({ input: process.stdin }),
  out: text => void process.stdout.write(text),
  err: text => void process.stderr.write(text),
});
