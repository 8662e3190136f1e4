import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** A package that Sagoma brings along, with the licence it comes under. */
export interface Brought {
  name: string;
  version: string;
  /** What its package says: an SPDX name, most of them. */
  licence: string;
  /** Where its source is. */
  source: string;
  /** The licence files in it, one after the other; null where it has none. */
  text: string | null;
}

interface Lock {
  packages: Record<string, { dev?: boolean }>;
}
interface Manifest {
  name: string;
  version: string;
  license?: string;
  homepage?: string;
  repository?: string | { url: string };
}

const A_LICENCE = /^(licen[cs]es?|copying|notice|ofl|copyright)([.-].*)?$/i;

/** Every installed package that the app needs to run, fonts and kernels too, by name. @param root with package-lock.json */
export function broughtAlong(root: string): Brought[] {
  const lock = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')) as Lock;
  const found = new Map<string, Brought>();
  for (const [path, { dev }] of Object.entries(lock.packages)) {
    const folder = join(root, path);
    // What is for another machine is in the lock file, and not here.
    if (path === '' || dev || !existsSync(join(folder, 'package.json'))) continue;
    const manifest = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8')) as Manifest;
    const texts = readdirSync(folder, { withFileTypes: true })
      .filter(f => f.isFile() && A_LICENCE.test(f.name))
      .map(f => readFileSync(join(folder, f.name), 'utf8').trim());
    const { name, version, license = 'not said', homepage, repository } = manifest;
    const url = typeof repository === 'string' ? repository : repository?.url;
    const repositoryPage = url && /^(git\+|git:|ssh:|https?:)/.test(url) ? webAddress(url) : undefined;
    found.set(`${name} ${version}`, {
      name,
      version,
      licence: license,
      source: repositoryPage || homepage || `https://www.npmjs.com/package/${name}`,
      text: texts.join('\n\n') || null,
    });
  }
  return [...found.values()].sort((a, b) => a.name.localeCompare(b.name));
}

const webAddress = (url: string) =>
  url
    .replace(/^git\+/, '')
    .replace(/^(git|ssh):\/\/(git@)?/, 'https://')
    .replace(/\.git$/, '');
