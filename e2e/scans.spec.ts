import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { lathe } from '../core/bench/lathe';
import { scannedBy } from '../core/bench/scanner';
import { writeStl } from '../core/files/stl';
import { joined, type TriangleMesh } from '../core/shape/mesh/mesh';
import type { Point3 } from '../core/shape/vector';
import { box } from '../testing/solids';
import { expect, ledgerRow, pressOn, type TestBench, test } from './bench';

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

/** A lens-shaped thing of 50 × 40 × 16 on a speckled scan. */
const lens = join(tmpdir(), 'sagoma-e2e-lens.stl');
writeFileSync(
  lens,
  writeStl(
    scannedBy(
      squeezed(
        lathe(
          Array.from({ length: 25 }, (_, i): [number, number] => {
            const a = Math.PI * (i / 24 - 0.5);
            return [Math.max(0.01, 25 * Math.cos(a)), 8 * Math.sin(a)];
          }),
        ),
        0.8,
      ),
      { spacing: 0.9, noise: 0.03, warp: 0.02, islands: 2 },
    ),
    'lens',
  ),
);
function squeezed({ positions, triangles }: TriangleMesh, by: number): TriangleMesh {
  return { positions: positions.map((x, i) => (i % 3 === 1 ? by * x : x)), triangles };
}

test('a recess follows a scan: its sizes become readings, and the object is proven to come out', async ({
  page,
  bench,
}) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Rest', recipe: 'recess', object: 'lens' });
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await expect(page.getByText('An example stands in for your object')).toBeVisible({ timeout: 30_000 });
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await page.getByRole('tab', { name: 'Scans' }).click();
  await page.getByLabel('Scan of the object').setInputFiles(lens);
  await page.getByRole('button', { name: 'Let the part follow this scan' }).click({ timeout: 30_000 });
  await page.waitForURL(/shape/, { timeout: 30_000 });
  await expect(ledgerRow(page, 'Its width, front to back as it lies')).toContainText(/39\.\d|40\.\d/);
  await expect(page.getByText('the object comes free')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('An example stands in')).toHaveCount(0);
  // Prepared otherwise, it says that the part is as old as the scan was.
  await page.goto(`${bench.url}/jobs/${id}/measure?by=scans`);
  await page.getByRole('button', { name: 'Smooth it' }).click({ timeout: 30_000 });
  await expect(page.getByText(/corners moved by/)).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText('prepared differently after the part took it')).toBeVisible();
  await page.getByRole('button', { name: 'Take it again' }).click();
  await page.waitForURL(/shape/, { timeout: 30_000 });
  const { document } = await bench.api('GET', `/jobs/${id}`);
  expect(document.models).toHaveLength(2);
  expect(document.dimensions.filter((d: { readings: unknown[] }) => d.readings.length === 1)).toHaveLength(3);
  // In use, neither can be thrown away unseen.
  await page.getByRole('button', { name: /It lies in the recess/ }).click();
  await page.getByRole('option', { name: 'on its front' }).click();
  await expect(page.getByText(/does not go into this opening|would rattle about/).first()).toBeVisible({
    timeout: 30_000,
  });
});

test('a section is printed thin, laid on the object, and says how large the scan is', async ({
  page,
  bench,
}) => {
  await open(page, bench, '/measure');
  await addScan(page);
  await page.getByRole('button', { name: 'Cut here' }).click();
  await page.getByRole('button', { name: 'Test piece, 2 mm thick' }).click({ timeout: 30_000 });
  const form = page.getByRole('dialog');
  await form.getByLabel(/Clearance, mm/).fill('9');
  await form.getByRole('button', { name: 'Save its file' }).click();
  await expect(form.getByText('From 0 to 3 mm, across the whole width.')).toBeVisible();
  await form.getByLabel(/Clearance, mm/).fill('0,3');
  const saved = page.waitForEvent('download');
  await form.getByRole('button', { name: 'Save its file' }).click();
  expect((await saved).suggestedFilename()).toMatch(/test piece 1\.3mf$/);
  await expect(page.getByText('Not laid on the object yet.')).toBeVisible();
  await page.getByRole('button', { name: 'How did it lie?' }).click();
  await form.getByLabel('Play, mm').first().fill('a lot');
  await form.getByRole('button', { name: 'Keep it' }).click();
  await expect(form.getByText(/From −5 to 5 mm/)).toBeVisible();
  await form.getByLabel('Play, mm').first().fill('0.1');
  await form.getByLabel('Play, mm').last().fill('0.1');
  await form.getByText('left', { exact: true }).click();
  await form.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText(/Off at its left\./)).toBeVisible();
  await expect(page.getByRole('cell', { name: 'Test piece 1, left to right' })).toBeVisible();
});

test('a scan is prepared step by step, each told and taken back', async ({ page, bench }) => {
  await open(page, bench, '/measure');
  await addScan(page);
  await page.getByRole('button', { name: 'Close them' }).click();
  await expect(page.getByText(/Holes up to 3 mm closed/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Thin it out' }).click();
  await expect(page.getByText(/% of its triangles/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(page.getByText(/% of its triangles/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Stand it on three places' }).click();
  await expect(page.getByText('Press on three places that are level: 0 of 3.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Make these three level' })).toBeDisabled();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText(/Press on a bore/)).toBeVisible();
});

/** A piece of deck that falls away to its sides. */
const deck = join(tmpdir(), 'sagoma-e2e-deck.stl');
writeFileSync(deck, writeStl(deckPiece(), 'deck'));
function deckPiece(): TriangleMesh {
  const [columns, rows, step] = [61, 41, 2];
  const positions: number[] = [];
  const triangles: number[] = [];
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      const [x, y] = [(i - 30) * step, (j - 20) * step];
      positions.push(x, y, -0.004 * y * y + 0.05 * x);
    }
  for (let j = 0; j + 1 < rows; j++)
    for (let i = 0; i + 1 < columns; i++) {
      const a = j * columns + i;
      triangles.push(a, a + 1, a + columns + 1, a, a + columns + 1, a + columns);
    }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

test('a foot follows a deck, and posts stand under the places that were pressed', async ({ page, bench }) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Foot', recipe: 'contour-foot', object: 'deck' });
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await page.getByRole('tab', { name: 'Scans' }).click();
  await page.getByLabel('Scan of the object').setInputFiles(deck);
  await page.getByRole('button', { name: 'Let the part follow this scan' }).click({ timeout: 30_000 });
  await page.waitForURL(/shape/, { timeout: 30_000 });
  await expect(page.getByText('the object comes free')).toBeVisible({ timeout: 60_000 });
  await page.goto(`${bench.url}/jobs/${id}/measure?by=scans`);
  await page.getByRole('button', { name: 'Choose places for posts' }).click({ timeout: 30_000 });
  const view = page.locator('canvas').first();
  await pressOn(view, 0.45, 0.5);
  await expect(page.getByText('Press where posts are to stand: 1 so far.')).toBeVisible();
  await pressOn(view, 0.55, 0.5);
  await page.getByRole('button', { name: 'Posts at these 2 places' }).click();
  await page.waitForURL(/shape/, { timeout: 30_000 });
  // Edits are shown before the server has them.
  const kept = async () => {
    const { document } = await bench.api('GET', `/jobs/${id}`);
    const [part] = document.parts;
    return `${part.parameters.form?.text} ${part.parameters.posts?.text.split(';').length}`;
  };
  await expect.poll(kept).toBe('posts 2');
  await expect(page.getByText('the object comes free')).toBeVisible({ timeout: 60_000 });
});

test('round things that fit in every turn are put together by three pairs of places', async ({
  page,
  bench,
}) => {
  await open(page, bench, '/measure');
  await addScan(page);
  await page.getByLabel('Scan of the object').setInputFiles(file);
  await expect(page.getByRole('tab', { name: /port/ })).toHaveCount(2, { timeout: 20_000 });
  await expect(page.getByRole('heading', { name: 'What it is' })).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Put together with' }).click();
  await page.getByRole('menuitem').first().click();
  await expect(page.getByText(/pick three pairs of places/i).first()).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Pick three pairs' }).click();
  const form = page.getByRole('dialog');
  await expect(form.locator('canvas')).toHaveCount(2, { timeout: 30_000 });
  await expect(form.getByText('Press on place 1.')).toBeVisible();
  for (const [u, v] of [
    [0.42, 0.6],
    [0.6, 0.62],
    [0.5, 0.4],
  ] as const)
    for (const i of [0, 1]) await pressOn(form.locator('canvas').nth(i), u, v);
  await expect(form.getByText('3 of 3 pairs at least.')).toBeVisible();
  await form.getByRole('button', { name: 'Lay it on by these' }).click();
  await expect(page.getByText(/Put together with/).last()).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/of it lie on this one/)).toBeVisible({ timeout: 60_000 });
});

test('without a scanner: the practice scanner brings the hidden object, and what may be meant is offered', async ({
  page,
  bench,
}) => {
  await bench.switchOnPractice();
  const { id } = await bench.api('POST', '/jobs', {
    title: 'Sleeve',
    recipe: 'stepped-sleeve',
    object: 'bore',
  });
  await page.goto(`${bench.url}/jobs/${id}/measure?by=scans`);
  await page.getByRole('button', { name: 'Practice scanner' }).click();
  await expect(page.getByRole('tab', { name: 'practice scan 1' })).toBeVisible({ timeout: 30_000 });
  await findAll(page);
  await page.getByRole('button', { name: /^Bore/ }).first().click();
  await expect(page.getByText(/On one axis with the round outside/)).toBeVisible();
  // Another recipe’s object nobody made.
  const other = await bench.api('POST', '/jobs', { title: 'Plate', recipe: 'wall-plate', object: 'wall' });
  await page.goto(`${bench.url}/jobs/${other.id}/measure?by=scans`);
  await page.getByRole('button', { name: 'Practice scanner' }).click();
  await expect(page.getByText('The practice scanner has no object for this recipe')).toBeVisible();
});
