import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/** The packages that make solids. package.json pins them exactly: another version may round differently. */
const PACKAGES = ['replicad', 'replicad-opencascadejs', 'manifold-3d'] as const;

/** “replicad 1.1.0, …” as installed here: part of every solid's key. */
export const KERNEL_VERSIONS: string = PACKAGES.map(name => `${name} ${versionOf(name)}`).join(', ');

/** Read beside the package's entry, since not every package lets its package.json be imported. */
function versionOf(name: string): string {
  const marker = `/node_modules/${name}/`;
  const entry = fileURLToPath(import.meta.resolve(name)).replaceAll('\\', '/');
  const root = entry.slice(0, entry.lastIndexOf(marker) + marker.length);
  return (JSON.parse(readFileSync(`${root}package.json`, 'utf8')) as { version: string }).version;
}
