import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The project's own folder, from the sources as well as from the bundle. */
export const ROOT: string = (() => {
  let folder = dirname(fileURLToPath(import.meta.url));
  for (;;) {
    const file = join(folder, 'package.json');
    if (existsSync(file) && (JSON.parse(readFileSync(file, 'utf8')) as { name: string }).name === 'sagoma')
      return folder;
    const above = dirname(folder);
    if (above === folder) throw new Error('Sagoma’s own folder is not above the file that runs.');
    folder = above;
  }
})();

/** Whether the sources run rather than the bundle. */
export const FROM_SOURCE: boolean = import.meta.url.endsWith('.ts');
