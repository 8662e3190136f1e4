import { readFileSync } from 'node:fs';
import { readStl, readThreeMf } from '../core/files/reading-back';
import { closureOf, volumeOf } from '../core/shape/mesh/mesh';
import { loopNear, sectionAtZ } from '../core/shape/mesh/section';
import { expect, ledgerRow, read, reading, solidVolume, test } from './bench';

test('from a broken cap to version 2, with the server killed in the middle', async ({
  page,
  killable: bench,
}) => {
  await page.goto(bench.url);
  await expect(page.getByText('No jobs yet')).toBeVisible();
  await page.getByRole('button', { name: 'Start the first job' }).click();
  await page.getByLabel('What do you make?').fill('Vent-port cap');
  await page.getByLabel('For which object?').fill('hull vent port');
  await page.getByRole('button', { name: 'Start measuring' }).click();

  // Measure: the dimension in turn, three readings, the next one by Tab.
  await expect(page.getByRole('heading', { name: 'Rim, outside' })).toBeVisible();
  await read(page, '31.70', '31,72', '1.248 in');
  await expect(page.getByText('3 readings')).toBeVisible();
  await reading(page).press('Tab');
  await expect(page.getByRole('heading', { name: 'Rim height' })).toBeVisible();
  await read(page, '14');
  await page.getByRole('button', { name: 'All read: say how it should fit' }).click();

  // Fit: another feel is another number.
  await expect(page.getByRole('heading', { name: 'Skirt over rim: how should it fit?' })).toBeVisible();
  const snug = await ledgerRow(page, 'Skirt over rim').textContent();
  await page.getByRole('radio', { name: /^slide:/ }).click();
  await expect(ledgerRow(page, 'Skirt over rim')).toContainText('slide');
  expect(await ledgerRow(page, 'Skirt over rim').textContent()).not.toBe(snug);
  await page.getByRole('radio', { name: /^snug:/ }).click();

  // Shape: the real solid follows while typing.
  await page.keyboard.press('g');
  await page.keyboard.press('s');
  const before = await solidVolume(page);
  await page.getByRole('textbox', { name: 'Skirt wall' }).fill('2.4');
  await expect.poll(() => solidVolume(page)).toBeGreaterThan(before * 1.15);

  // What is typed outlives the server.
  await expect(page.getByRole('button', { name: 'Skirt wall: back to the recipe’s own' })).toBeVisible();
  await bench.kill();
  await expect(page.getByText('The server does not answer')).toBeVisible();
  await bench.start();
  await expect(page.getByText('The server does not answer')).toBeHidden();
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Skirt wall' })).toHaveValue('2.4');

  // Print: a version, its three files, the print.
  await page.getByRole('link', { name: /^Print/ }).click();
  await page.getByRole('button', { name: 'Make version 1' }).click();
  await expect(page.getByRole('heading', { name: /^Version 1/ })).toBeVisible();
  const files: Record<string, Uint8Array> = {};
  for (const kind of ['3MF', 'STEP', 'STL']) {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: kind, exact: true }).click(),
    ]);
    expect(download.suggestedFilename()).toBe(`1-vent-port-cap-v1-pla-compensated.${kind.toLowerCase()}`);
    files[kind] = new Uint8Array(readFileSync((await download.path())!));
  }
  const model = Number(
    /Skirt over rim(\d+\.\d\d)/.exec(
      (await page
        .locator('li', { hasText: /^Skirt over rim\d/ })
        .first()
        .textContent())!,
    )![1],
  );
  const meshes = [readStl(files.STL!), readThreeMf(files['3MF']!).meshes[0]!];
  for (const mesh of meshes) {
    expect(closureOf(mesh)).toEqual({ openEdges: 0, bodies: 1 });
    expect(Math.abs(loopNear(sectionAtZ(mesh, 9), [0, 0], model, 'inside')!.diameter - model)).toBeLessThan(
      0.01,
    );
  }
  expect(volumeOf(meshes[0]!) / volumeOf(meshes[1]!)).toBeCloseTo(1, 4);
  expect(new TextDecoder().decode(files.STEP)).toContain('MANIFOLD_SOLID_BREP');
  await page.getByLabel('Hours').fill('0,7');
  await page.getByRole('button', { name: 'It is printed' }).click();

  // Try: too tight, so version 2 is larger and says why.
  await expect(page.getByRole('heading', { name: 'How does version 1 sit?' })).toBeVisible();
  await page.getByRole('radio', { name: 'tight', exact: true }).click();
  await page.getByRole('button', { name: 'Record the try' }).click();
  await expect(page.getByText(/the last try was “tight”.*changes by \+0\.\d/)).toBeVisible();
  await page.getByRole('main').getByRole('button', { name: 'Make version 2' }).click();
  await page.getByRole('main').getByRole('button', { name: 'Make version 2' }).click();
  await expect(page.getByRole('heading', { name: /^Version 2 / })).toBeVisible();
  const second = Number(
    /Skirt over rim(\d+\.\d\d)/.exec(
      (await page
        .locator('li', { hasText: /^Skirt over rim\d/ })
        .first()
        .textContent())!,
    )![1],
  );
  expect(second).toBeGreaterThan(model + 0.05);

  // All of it is there after another kill.
  await bench.kill();
  await bench.start();
  await page.goto(bench.url);
  await expect(page.getByRole('link', { name: /Vent-port cap/ })).toContainText('Print version 2');
  await page.getByRole('link', { name: /Vent-port cap/ }).click();
  await page.getByRole('link', { name: /^Keep/ }).click();
  await expect(page.getByText('print 1: 0.7 h')).toBeVisible();
  await expect(page.getByText(/Skirt over rim at \d+\.\d\d tight/)).toBeVisible();
});

test('undo and redo survive a restart of the server and a reload', async ({ page, killable: bench }) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await ledgerRow(page, 'Rim, outside').click();
  await read(page, '31.9');
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('4 readings');
  await bench.kill();
  await bench.start();
  await page.reload();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('3 readings');
  await page.getByRole('button', { name: 'Do again' }).click();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('4 readings');
});

test('an edit made while the server is away is kept, sent later, and survives a reload', async ({
  page,
  killable: bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await ledgerRow(page, 'Rim, outside').click();
  // The page is whole before the server goes: what it has not fetched yet it could not fetch then.
  await expect(reading(page)).toBeVisible();
  await bench.kill();
  await read(page, '31.71');
  await expect(page.getByText(/1 edit is kept here/)).toBeVisible();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('4 readings');
  await bench.start();
  await expect(page.getByText('The server does not answer')).toBeHidden();
  await expect
    .poll(async () => (await bench.api('GET', `/jobs/${id}`)).document.dimensions[0].readings.length)
    .toBe(4);
  await page.reload();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('4 readings');
  expect((await bench.api('GET', `/jobs/${id}`)).document.dimensions[0].readings).toHaveLength(4);
});
