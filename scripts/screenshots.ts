// Makes docs/screenshots/ from a fresh demo workshop: `npm run screenshots`, with the page built.
import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import type { Rack } from '../contract/rack';
import config from '../playwright.config';
import { killed, startServer } from '../testing/kill-rounds';

const root = fileURLToPath(new URL('..', import.meta.url));
const out = join(root, 'docs/screenshots');
const folder = mkdtempSync(join(tmpdir(), 'sagoma-shots-'));
mkdirSync(out, { recursive: true });
spawnSync(process.execPath, ['--import', 'tsx', 'demo/fill.ts', folder], { cwd: root, stdio: 'inherit' });
const { base, child } = await startServer(folder);
const { jobs } = (await (await fetch(`${base}/api/jobs`)).json()) as Rack;
const job = (title: string) => `/jobs/${jobs.find(j => j.title.startsWith(title))!.id}`;
const cap = job('Vent-port cap');

const browser = await chromium.launch(config.use!.launchOptions);
const views: [
  name: string,
  path: string,
  options?: { select?: string; open?: string; check?: string; dark?: boolean; width?: number },
][] = [
  ['rack', '/'],
  ['brief', `${cap}/brief`],
  ['measure', `${cap}/measure`, { select: 'Groove, outside' }],
  ['scans', `${cap}/measure?by=scans`],
  ['photos', `${job('Rubbing')}/measure?by=photos`],
  ['sheet', `${job('Rail')}/sheet`],
  ['shelf', `/shelf?ask=${encodeURIComponent('5.5 across flats')}`],
  ['fit', `${cap}/fit`, { select: 'Skirt over rim' }],
  ['shape', `${cap}/shape`, { select: 'Skirt over rim' }],
  ['shape-additions', `${job('Rubbing')}/shape`, { open: 'Which side' }],
  ['print', `${job('Dehumidifier')}/print`],
  ['printers', '/queue', { check: 'Rail end cap' }],
  ['try', `${cap}/try`],
  ['keep', `${job('Trestle')}/keep`],
  ['shape-cradle', `${job('Cradle')}/shape`, { select: 'Slab between the sides', dark: true }],
  ['calibration', '/workshop/calibrations/petg-fine'],
  ['lessons', '/workshop/lessons'],
  ['workshop', '/workshop'],
  ['phone', '/phone/readings', { width: 390 }],
];
for (const [name, path, { select, open, check, dark, width } = {}] of views) {
  // Names on the command line: only those.
  if (process.argv.length > 2 && !process.argv.includes(name)) continue;
  const page = await (
    await browser.newContext({
      viewport: { width: width ?? 1280, height: 800 },
      colorScheme: dark ? 'dark' : 'light',
    })
  ).newPage();
  // A phone shows the job on the bench.
  if (name === 'phone')
    await fetch(`${base}/api/on-bench`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ jobId: cap.split('/').at(-1) }),
    });
  await page.goto(base + path);
  await page.getByRole('heading').first().waitFor();
  if (path.endsWith('shape')) {
    await page.locator('[data-testid="solid-facts"][data-busy="false"]').waitFor();
    await page.getByTestId('takes').waitFor();
  }
  if (path.endsWith('print')) {
    await page.getByText('Checking the finished solid').waitFor({ state: 'detached' });
    await page
      .getByRole('group', { name: /^Orientation/ })
      .first()
      .waitFor();
  }
  if (name === 'scans') {
    await page.getByRole('button', { name: 'Find all that is on it' }).click({ timeout: 60_000 });
    await page.getByRole('button', { name: /^Round outside diameter 31/ }).click({ timeout: 60_000 });
  }
  if (name === 'photos') {
    await page.getByRole('button', { name: /^Hole 1/ }).click({ timeout: 60_000 });
    await page.getByRole('button', { name: 'Lay it over' }).click();
    await page.getByRole('button', { name: 'Move the part' }).waitFor({ timeout: 60_000 });
    await page.getByRole('heading', { name: 'Photos to trace' }).scrollIntoViewIfNeeded();
  }
  if (check) {
    await page.getByText(check).click();
    await page.getByRole('region', { name: 'Plate' }).getByRole('img').waitFor();
  }
  if (select)
    await page
      .getByRole('complementary', { name: 'Ledger' })
      .getByRole('button', { name: new RegExp(`^${select}`) })
      .click();
  if (open) {
    await page.getByRole('button', { name: new RegExp(`^${open}`) }).click();
    await page
      .getByRole('region', { name: 'Additions' })
      .evaluate(region => region.scrollIntoView({ block: 'center' }));
  }
  // The checks on a solid come after it.
  await page.waitForTimeout(/(shape|print)$/.test(path) ? 5000 : 1500);
  await page.screenshot({ path: join(out, `${name}.png`) });
  await page.close();
}
await browser.close();
await killed(child, 'SIGTERM');
rmSync(folder, { recursive: true, force: true });
