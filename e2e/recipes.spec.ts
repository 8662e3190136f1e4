import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { readStl } from '../core/files/reading-back';
import { boundsOf } from '../core/shape/mesh/mesh';
import { loopNear, sectionAtZ } from '../core/shape/mesh/section';
import { expect, ledgerRow, test } from './bench';

test('a knob for a worn bolt: chosen by its picture, measured across the flats, made and downloaded', async ({
  page,
  bench,
}) => {
  await page.goto(bench.url);
  await page.getByRole('button', { name: 'New job' }).first().click();
  await page.getByLabel('What do you make?').fill('Wing knob');
  await page.getByRole('radio', { name: 'Socket knob' }).click();
  await expect(page.getByText('Turns a shaft or a bolt head by hand')).toBeVisible();
  await page.getByRole('button', { name: 'Start measuring' }).click();
  await expect(page.getByRole('heading', { name: 'Across the flats' })).toBeVisible();
  for (const reading of ['12.86', '12.84', '12.85']) {
    await page.keyboard.type(reading);
    await page.keyboard.press('Enter');
    await expect(page.getByText(reading).first()).toBeVisible();
  }
  await page.keyboard.press('Tab');
  await expect(page.getByRole('heading', { name: 'Length that stands out' })).toBeVisible();
  await page.keyboard.type('10');
  await page.keyboard.press('Enter');
  await expect(ledgerRow(page, 'Socket over flats')).toContainText('13.');
  await page.keyboard.press('g');
  await page.keyboard.press('f');
  await expect(page.getByText(/Clearance is across the whole width/)).toBeVisible();
  await page.goto(page.url().replace('/fit', '/shape'));
  await expect(page.getByTestId('solid-facts')).toContainText('× 14 mm');
  await page.getByLabel('Lobes', { exact: true }).fill('3.5');
  await expect(page.getByText('Lobes must be a whole number.')).toBeVisible();
  await page.getByLabel('Lobes', { exact: true }).fill('3');
  await page.getByRole('button', { name: 'Look from' }).click();
  await page.getByRole('menuitem', { name: 'below', exact: true }).click();
  await page.getByRole('button', { name: 'Whole part' }).click();
  await page.getByLabel('Cut away from the front, %').fill('50');
  await page.getByLabel('Grip, across').fill('14');
  await expect(page.getByText('The grip leaves no wall around the socket’s corners')).toBeVisible();
  await page.getByRole('button', { name: /^Make “/ }).click();
  await expect(page.getByText('The grip leaves no wall')).toBeHidden();
  const drawing = page.waitForEvent('download');
  await page.getByRole('link', { name: 'DXF' }).click();
  expect(readFileSync(await (await drawing).path(), 'utf8')).toContain('$INSUNITS');
});

test('every recipe makes a job that opens on its drawing and builds its solid', async ({ page, bench }) => {
  test.setTimeout(480_000);
  await page.goto(bench.url);
  await page.getByRole('button', { name: 'New job' }).first().click();
  await expect(page.getByRole('radio', { name: 'Round cap or plug' })).toBeVisible();
  const titles = await page
    .getByRole('radiogroup', { name: 'Recipe' })
    .getByRole('radio')
    .evaluateAll(list => list.map(x => x.getAttribute('aria-label')));
  expect(titles.length).toBeGreaterThanOrEqual(16);
  const listed = execFileSync(process.execPath, ['--import', 'tsx', 'cli/main.ts', 'part', 'list'], {
    encoding: 'utf8',
  });
  const { recipes } = JSON.parse(listed);
  expect(recipes).toHaveLength(titles.length);
  for (const { id, title } of recipes) await bench.api('POST', '/jobs', { title, recipe: id });
  await page.goto(bench.url);
  for (const { title } of recipes) {
    await page.getByRole('link', { name: title }).first().click();
    await expect(page.getByText('the fit depends on it, ? not read yet'), title).toBeVisible();
    await page.getByRole('link', { name: /^Shape/ }).click();
    await expect(page.getByRole('heading', { name: title })).toBeVisible();
    await expect(page.getByTestId('solid-facts'), title).toContainText('cm³');
    await page.getByTitle('Back to the rack').click();
  }
});

test('the mate on a horizontal axis is lit, measured and made as the ledger says', async ({ bench }) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Hinge', recipe: 'hinge-leaf' });
  const revision = await bench.read(id, [
    ['pin', 5],
    ['pin', 5.02],
    ['pin', 4.98],
    ['between', 30],
    ['screw', 4],
  ]);
  const { history } = await bench.api('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
  const [version] = history.versions;
  const stl = await fetch(`${bench.url}/api/jobs/${id}/versions/${version.id}/files/stl`);
  const mesh = readStl(new Uint8Array(await stl.arrayBuffer()));
  // Turned over so that the pin stands up: x, z, −y.
  const turned = {
    ...mesh,
    positions: mesh.positions.map((_, i, all) =>
      i % 3 === 0 ? all[i]! : i % 3 === 1 ? all[i + 1]! : -all[i - 1]!,
    ),
  };
  const { max } = boundsOf(mesh);
  const barrel = max[2] - version.mates[0].model / 2 - 2.4;
  const bore = loopNear(sectionAtZ(turned, 0.5), [0, barrel], version.mates[0].model, 'inside')!;
  expect(Math.abs(bore.diameter - version.mates[0].model)).toBeLessThan(0.02);
});
