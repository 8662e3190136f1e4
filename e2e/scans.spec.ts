import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { lathe } from '../core/bench/lathe';
import { scannedBy } from '../core/bench/scanner';
import { writeStl } from '../core/files/stl';
import { joined } from '../core/shape/mesh/mesh';
import type { Point3 } from '../core/shape/vector';
import { box } from '../testing/solids';
import { expect, ledgerRow, type TestBench, test } from './bench';

/** A tube of 31.9 with a flange, as a scanner that makes everything 0.5 % too large brings it; the tube is 31.7. */
const file = join(tmpdir(), 'sagoma-e2e-port.stl');
writeFileSync(
  file,
  writeStl(
    scannedBy(
      lathe([
        [12, 0],
        [30, 0],
        [30, 4],
        [15.85, 4],
        [15.85, 24],
        [12, 24],
      ]),
      { spacing: 0.8, noise: 0.03, warp: 0.02, scale: 1.005, islands: 3 },
    ),
    'port',
  ),
);

async function open(page: Page, bench: TestBench, path: string, recipe = 'round-cap'): Promise<string> {
  const id =
    recipe === 'round-cap'
      ? await bench.measuredJob()
      : (await bench.api('POST', '/jobs', { title: 'Strip', recipe, object: 'strip' })).id;
  await page.goto(`${bench.url}/jobs/${id}${path}`);
  return id;
}
async function addScan(page: Page): Promise<void> {
  await page.getByRole('tab', { name: 'Scans' }).click();
  await page.getByLabel('Scan of the object').setInputFiles(file);
  await expect(page.getByRole('heading', { name: 'What it is' })).toBeVisible({ timeout: 20_000 });
}
const findAll = async (page: Page) => {
  await page.getByRole('button', { name: 'Find all that is on it' }).click();
  await expect(page.getByRole('heading', { name: /things found on it/ })).toBeVisible({ timeout: 30_000 });
};

test('a scan that is too large is found out by one caliper reading, corrected, and its sizes follow', async ({
  page,
  bench,
}) => {
  const id = await open(page, bench, '/measure');
  await addScan(page);
  await expect(page.getByText('3 specks float beside the object.')).toBeVisible();
  await page.getByRole('button', { name: 'Leave them out' }).click();
  await expect(page.getByText('Specks left out')).toBeVisible();
  await findAll(page);
  const list = page.getByRole('list').filter({ hasText: 'Round outside' });
  await list.getByRole('button', { name: /Round outside.*31\.8/ }).click();
  await page.getByRole('button', { name: 'Take as a reading' }).click();
  await expect(page.getByText('It was read with calipers too')).toBeVisible();
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByText(/Too large by 0\.[45]\d %/)).toBeVisible();
  await page.getByRole('button', { name: /^Correct it by −0\.[45]/ }).click();
  await expect(page.getByText(/is multiplied by 0\.99[45]/)).toBeVisible();
  // What is found on it is corrected alike, and the ledger still stands on the calipers.
  await expect(list.getByRole('button', { name: /Round outside.*31\.7/ })).toBeVisible();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('31.7');

  // The flange’s own size becomes a dimension of its own.
  await list.getByRole('button', { name: /Round outside.*(59\.9|60\.0)/ }).click();
  await page.getByRole('button', { name: 'Take as a reading' }).click();
  await page.getByRole('button', { name: /It is a reading of/ }).click();
  await page.getByRole('option', { name: 'a new dimension of your own' }).click();
  await page.getByLabel('What it is called').fill('Flange');
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByText('Flange has a reading off the scan.')).toBeVisible();
  const { document } = await bench.api('GET', `/jobs/${id}`);
  const flange = document.dimensions.find((d: { label: string }) => d.label === 'Flange');
  expect(flange.kind).toBe('outside');
  expect(Math.abs(flange.readings[0].value - 60 * 1.005)).toBeLessThan(0.1);
  expect(flange.readings[0]).toMatchObject({ source: 'scan', scanned: { scan: document.scans[0].id } });
  expect(document.scans[0].trust.factor).toBeCloseTo(1 / 1.005, 2);

  // What was read off it holds the scan; a reload shows the same.
  await page.getByRole('button', { name: 'Remove this scan' }).click();
  await expect(page.getByText('was read off it')).toBeVisible();
  await page.reload();
  await expect(page.getByText(/is multiplied by 0\.99[45]/)).toBeVisible({ timeout: 20_000 });
  const { violations } = await new AxeBuilder({ page })
    .disableRules(['scrollable-region-focusable'])
    .analyze();
  expect(violations.map(v => [v.id, v.nodes[0]?.html])).toEqual([]);
});

test('a job begins with a scan: what it could become, and its sizes filled in as scanned', async ({
  page,
  bench,
}) => {
  await page.goto(bench.url);
  await page.getByRole('button', { name: 'New job' }).first().click();
  await page.getByLabel('Scan to begin with').setInputFiles(file);
  await expect(page.getByText('It could become')).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText(/round outside of (31\.9|60\.3)/)).toBeVisible();
  await page.getByRole('button', { name: /^Round cap or plug/ }).click();
  await page.getByLabel('What do you make?').fill('Cap from a scan');
  await page.getByRole('button', { name: 'Start measuring' }).click();
  await expect(page.getByRole('heading', { name: 'What it is' })).toBeVisible({ timeout: 20_000 });
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('scanned');
  await expect(page.getByText(/Read one large size of the object with calipers/)).toBeVisible();
});

test('two scans from two sides are put together, and a step back parts them', async ({ page, bench }) => {
  const object = joined([box([60, 40, 8]), box([15, 10, 25], [3, 4, 8]), box([8, 20, 12], [45, 12, 8])]);
  const from = (views: readonly Point3[], seed: number) =>
    scannedBy(object, { spacing: 0.9, noise: 0.03, warp: 0.02, views, seed });
  const left = from(
    [
      [-1, -0.6, 0.8],
      [-0.2, -1, 1],
      [-1, 0.5, 0.7],
      [0, 0, 1],
    ],
    1,
  );
  const right = from(
    [
      [1, 0.6, 0.8],
      [0.2, 1, 1],
      [1, -0.5, 0.7],
      [0, 0, 1],
    ],
    2,
  );
  // The other one lay another way.
  const turned = { ...right, positions: right.positions.map((x, i) => (i % 3 === 0 ? x : -x) + 70) };
  await open(page, bench, '/measure');
  await page.getByRole('tab', { name: 'Scans' }).click();
  for (const [name, scan] of [
    ['left side.stl', left],
    ['right side.stl', turned],
  ] as const)
    await page
      .getByLabel('Scan of the object')
      .setInputFiles({ name, mimeType: 'model/stl', buffer: Buffer.from(writeStl(scan, name)) })
      .then(() =>
        expect(page.getByRole('tab', { name: name.slice(0, -4) })).toBeVisible({ timeout: 20_000 }),
      );
  await page.getByRole('tab', { name: 'left side' }).click();
  await expect(page.getByRole('heading', { name: 'What it is' })).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Put together with' }).click();
  await page.getByRole('menuitem', { name: 'right side' }).click();
  const step = page.getByText(/Put together with right side: \d+ % of it lie on this one, 0\.\d+ mm apart/);
  await expect(step).toBeVisible({ timeout: 40_000 });
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(step).toBeHidden();
});

test('a section becomes the outline of a part, and a step is taken back', async ({ page, bench }) => {
  await open(page, bench, '/measure', 'profile-part');
  await addScan(page);
  await page.getByRole('button', { name: 'Cut here' }).click();
  await expect(page.getByText(/a circle of Ø 31\.[789]/)).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Leave out what is below it' }).click();
  await expect(page.getByText('Cropped')).toBeVisible();
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(page.getByText('Cropped')).toBeHidden();
  await page.getByRole('button', { name: 'Cut here' }).click();
  await page.getByRole('button', { name: /Use it as the outline, 31\.\d × 31\.\d mm/ }).click();
  await expect(page).toHaveURL(/shape/);
  await expect(page.getByText('The section is the outline now.')).toBeVisible();
});

test('what is no scan is refused in words, and nothing is lost', async ({ page, bench }) => {
  await open(page, bench, '/measure?by=scans');
  await page
    .getByLabel('Scan of the object')
    .setInputFiles({ name: 'letter.stl', mimeType: 'model/stl', buffer: Buffer.from('Dear Sagoma,') });
  await expect(
    page
      .getByRole('alert')
      .or(page.getByRole('status'))
      .filter({ hasText: /scan|format|read/i })
      .first(),
  ).toBeVisible();
  await expect(page.getByRole('heading', { name: 'No scan yet' })).toBeVisible();
});
