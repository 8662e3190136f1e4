import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { backUp, restore } from './store/backup';

/** `backup` and `restore`: `--data` is the workshop's folder, `--to` or `--from` that of the copy. */
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { data: { type: 'string' }, to: { type: 'string' }, from: { type: 'string' } },
});
const data = resolve(values.data ?? process.env.SAGOMA_DATA ?? 'data');
try {
  if (positionals[0] === 'backup' && values.to) {
    const files = await backUp(data, resolve(values.to));
    process.stdout.write(`The workshop in ${data} is copied to ${resolve(values.to)}: ${files} files new.\n`);
  } else if (positionals[0] === 'restore' && values.from) {
    const files = restore(resolve(values.from), data);
    process.stdout.write(`${data} is the workshop of that backup now: ${files} files.\n`);
  } else {
    process.stderr.write('Say where: npm run backup -- --to FOLDER, or npm run restore -- --from FOLDER.\n');
    process.exitCode = 1;
  }
} catch (error) {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exitCode = 1;
}
