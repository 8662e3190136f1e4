import { expect, test } from 'vitest';
import { broughtAlong } from '../scripts/licences';
import { ROOT } from './root';

test('every package that the app brings along has a licence, and the kernels and fonts have its text', () => {
  const all = broughtAlong(ROOT);
  const named = (name: string) => all.find(b => b.name === name)!;
  expect(named('replicad-opencascadejs').licence).toMatch(/^LGPL-2\.1/);
  for (const name of [
    'replicad-opencascadejs',
    'replicad',
    'manifold-3d',
    'dejavu-fonts-ttf',
    '@fontsource/barlow',
    'react',
    'express',
    'jstat',
    'three',
  ])
    expect(named(name).text?.length, name).toBeGreaterThan(400);
  expect(named('replicad-opencascadejs').text).toContain('GNU LESSER GENERAL PUBLIC LICENSE');
  for (const { name, source } of all) expect(source, name).toMatch(/^https?:\/\//);
  // Packages that only tests and builds need are not distributed.
  expect(all.some(b => b.name === '@playwright/test')).toBe(false);
});
