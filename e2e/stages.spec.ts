import { readFile } from 'node:fs/promises';
import AxeBuilder from '@axe-core/playwright';
import { expect, ledgerRow, read, reading, solidVolume, test } from './bench';

test('Brief: what it must do is kept, and what may hurt is cautioned at once', async ({ page, bench }) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/brief`);
  await page.getByLabel('What must the part do?').fill('Keep spray out.');
  await page.getByText('Injury', { exact: true }).click();
  await expect(page.getByText('ask somebody licensed')).toBeVisible();
  await page.getByText('Damage', { exact: true }).click();
  await expect(page.getByText('ask somebody licensed')).toBeHidden();
  await page.locator('label', { hasText: /^water$/ }).click();
  await expect(page.getByText('Printed walls weep')).toBeVisible();
  const hottest = page.getByRole('textbox', { name: 'Hottest it gets, °C' });
  await hottest.fill('warm');
  await expect(page.getByText('is not a number')).toBeVisible();
  await hottest.fill('70');
  await hottest.blur();
  await expect(page.getByText('PLA softens at about 55 °C')).toBeVisible();

  await page.getByRole('button', { name: 'Add: What pulls or pushes on it?' }).click();
  await expect(page.getByText('Say it in a few words.')).toBeVisible();
  await page.getByLabel('In words').first().fill('pulled by the tab');
  await page.getByLabel('About', { exact: true }).fill('30');
  await page.getByRole('button', { name: 'Add: What pulls or pushes on it?' }).click();
  await expect(page.getByRole('button', { name: 'Remove pulled by the tab' })).toBeVisible();
  await page.reload();
  await expect(page.getByText('Keep spray out.')).toBeVisible();
  await expect(page.getByText('30 N')).toBeVisible();
  await page.getByRole('button', { name: 'Remove pulled by the tab' }).click();
  await expect(page.getByText('Nothing said yet: a hand')).toBeVisible();
});

test('Measure: a slip is struck out with a line through it, and the advice goes with it', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await ledgerRow(page, 'Rim, outside').click();
  await read(page, '37.1');
  await expect(page.getByRole('main').getByText('37.1 stands apart from the others')).toBeVisible();
  await expect(page.getByRole('banner')).toContainText('Measure “Rim, outside” again');
  await page.getByRole('button', { name: 'Strike out 37.1' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'A slip of the jaws' }).click();
  await expect(page.getByRole('main').getByText('37.1 stands apart')).toBeHidden();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('31.70');
  await page.getByRole('button', { name: 'Count 37.1 again' }).click();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('4 readings');
  await page.getByRole('button', { name: 'Take back 37.1' }).click();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('3 readings');
});

test('Measure: an old part is copied without allowance, and the seat is asked for', async ({
  page,
  bench,
}) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Cap', recipe: 'round-cap' });
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await page.getByRole('button', { name: /What was measured/ }).click();
  await page.getByRole('option', { name: 'the old part' }).click();
  await read(page, '32.1');
  await expect(page.getByText('If you can reach the seat, read that')).toBeVisible();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('old part');
  // Opened by its dimension: the chain shows no allowance.
  await expect(page.getByRole('complementary', { name: 'Ledger' })).toContainText('±0.00');
});

test('Fit: rather loose than tight moves the number, and inches show it in inches', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  const model = async () =>
    Number(/(\d+\.\d+)$/.exec((await ledgerRow(page, 'Skirt over rim').textContent())!)![1]);
  const before = await model();
  await page.getByRole('button', { name: /If it misses/ }).click();
  await page.getByRole('option', { name: 'rather loose than tight' }).click();
  await expect.poll(model).toBeGreaterThan(before + 0.02);
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('u');
  await expect.poll(model).toBeLessThan(2);
});

test('Fit: flexible plastic turns clearance into stretch, and a stiff one is warned of it', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  await page.getByRole('radio', { name: /^stretch:/ }).click();
  await expect(page.getByText('PLA is stiff')).toBeVisible();
  await page.getByRole('radio', { name: /^snug:/ }).click();
  await page.goto(`${bench.url}/jobs/${id}/print`);
  await page.getByRole('button', { name: /Plastic/ }).click();
  await page.getByRole('option', { name: 'TPU 95A, flexible' }).click();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  await expect(ledgerRow(page, 'Skirt over rim')).toContainText('stretch');
  await expect(page.getByLabel('Least stretch, %')).toHaveValue('1.5');
  await ledgerRow(page, 'Skirt over rim').click();
  await expect(page.getByText(/Stretched by \d/)).toBeVisible();
});

test('Shape: choices change what there is, expressions follow, and a reset brings the recipe back', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  const plain = await solidVolume(page);
  await page.getByRole('button', { name: /Snap lip/ }).click();
  await page.getByRole('option', { name: 'inside the skirt' }).click();
  await expect(page.getByRole('textbox', { name: 'Lip, inside diameter' })).toHaveValue('groove.model');
  await expect(page.getByText('example size').first()).toBeVisible();
  await expect.poll(() => solidVolume(page)).toBeGreaterThan(plain);
  await expect(ledgerRow(page, 'Groove, outside')).toContainText('not read');
  const end = page.getByRole('textbox', { name: 'End thickness' });
  await end.fill('wall * 2');
  await expect(page.getByText('= 3.20 mm')).toBeVisible();
  await page.getByRole('button', { name: 'End thickness: back to the recipe’s own' }).click();
  await expect(end).toHaveValue('2');
  // Picking a mate in the ledger lights its field.
  await ledgerRow(page, 'Skirt over rim').click();
  await expect(page.locator('[data-lit]', { hasText: 'Skirt, inside diameter' })).toHaveCount(1);
});

test('Print: what the checks stop can be made all the same, with a reason that stays', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  const expression = { text: '15.85', unit: 'mm' };
  await bench.api('POST', `/jobs/${id}/edits`, {
    revision,
    edit: { kind: 'parameter', partId: 'part-1', name: 'skirtDiameter', expression },
  });
  await page.goto(`${bench.url}/jobs/${id}/print`);
  await page.getByRole('main').getByRole('button', { name: 'Make version 1' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Was a radius typed for a diameter?');
  // The way out of it is the number itself.
  await dialog.getByRole('button', { name: 'Mend it first' }).click();
  await expect(page.getByRole('textbox', { name: 'Skirt, inside diameter' })).toBeFocused();
  await page.goBack();
  await page.getByRole('main').getByRole('button', { name: 'Make version 1' }).click();
  await dialog.getByRole('button', { name: 'Make it all the same' }).click();
  await expect(dialog).toContainText('Say why it is right all the same.');
  await dialog.getByLabel('Right all the same, because').fill('a gauge, half the size');
  await dialog.getByRole('button', { name: 'Make it all the same' }).click();
  await expect(page.getByRole('heading', { name: 'Version 1 PLA' })).toBeVisible();
  await expect(dialog).toBeHidden();
  const { history } = await bench.api('GET', `/jobs/${id}`);
  // Half the size is a slip; the surface itself is whole, as it was asked for.
  expect(history.versions[0].accepted).toMatchObject([{ code: 'slip', reason: 'a gauge, half the size' }]);
  expect(history.versions[0].mates[0]).toMatchObject({ model: 15.85 });
  expect(history.versions[0].mates[0].pRight).toBeLessThan(0.01);
});

test('Keep: what it cost stands beside the price and the days of a bought one', async ({ page, bench }) => {
  const id = await bench.measuredJob();
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  const { history } = await bench.api('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
  const versionId = history.versions[0].id;
  await bench.api('POST', `/jobs/${id}/prints`, { versionId, hours: 1, grams: 10, failed: 'clogged' });
  await bench.api('POST', `/jobs/${id}/prints`, { versionId, hours: 2, grams: 20 });
  await page.goto(`${bench.url}/jobs/${id}/brief`);
  await page.getByLabel('Price to buy one, if it can be bought').fill('12');
  await page.keyboard.press('Tab');
  await page.getByLabel('Days until it would be here').fill('9');
  await page.keyboard.press('Tab');
  await page.getByRole('link', { name: /^Keep/ }).click();
  const worth = page.getByRole('region', { name: 'Worth it?' });
  await expect(worth).toContainText('3 h of the printer’s');
  await expect(worth).toContainText('one failed print');
  await expect(worth).toContainText('12.00 €, 9 days to wait');
  await worth.getByLabel('Your hours, where you know better').fill('2');
  await page.keyboard.press('Tab');
  await expect(worth).toContainText('2 h of yours');
  await expect(worth).toContainText(/Making it saves [\d.]+ €: [\d.]+ € for each of your hours/);
});

test('Keep: what does not count any more stays in the logbook, and nothing is learned from it', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  const job = await bench.api('GET', `/jobs/${id}`);
  const { history } = await bench.api('POST', `/jobs/${id}/versions`, {
    revision: job.revision,
    partId: 'part-1',
  });
  const printed = await bench.api('POST', `/jobs/${id}/prints`, { versionId: history.versions[0].id });
  await bench.api('POST', `/jobs/${id}/tries`, {
    printId: printed.history.prints[0].id,
    mates: { skirt: { verdict: 'wont-go' } },
  });
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  const row = ledgerRow(page, 'Skirt over rim');
  const taught = await row.textContent();
  await page.getByRole('link', { name: /^Keep/ }).click();
  await page.getByRole('button', { name: 'Does not count…' }).last().click();
  await page.getByRole('button', { name: 'It does not count' }).click();
  await expect(page.getByText('Say why it does not count.')).toBeVisible();
  await page.getByLabel('Reason').fill('printed with the wrong spool');
  await page.getByRole('button', { name: 'It does not count' }).click();
  await expect(page.getByText('does not count: printed with the wrong spool', { exact: true })).toBeVisible();
  await page.getByRole('link', { name: /^Fit/ }).click();
  expect(await row.textContent()).not.toBe(taught);
  await page.getByRole('link', { name: /^Keep/ }).click();
  await page.getByLabel('Anything else').fill('still tight after two weeks');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByText(/in service: it holds; still tight after two weeks/)).toBeVisible();
  await page.getByText('Every edit').click();
  await expect(page.getByText('Looked at version 1 in service: it holds')).toBeVisible();
  await expect(page.getByText('Made version 1')).toBeVisible();
});

test('Keep: a job is saved as a recipe, and another workshop begins a job from it', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/keep`);
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'save it as a recipe' }).click();
  const file = await (await saved).path();
  await page.goto(bench.url);
  const choosing = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Import a job' }).click();
  // The file has no name of its own here; a browser gives it the one that it was sent with.
  await (await choosing).setFiles({
    name: 'recipe.zip',
    mimeType: 'application/zip',
    buffer: await readFile(file),
  });
  await expect(page.getByRole('dialog')).toContainText(/taken in|added/i);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('link', { name: /not named yet/ })).toHaveCount(0);
  await page.getByRole('button', { name: /Which jobs/ }).click();
  await page.getByRole('option', { name: 'kept as recipes' }).click();
  await expect(page.getByRole('link', { name: /not named yet/ })).toHaveCount(1);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('What do you make?').fill('From the recipe');
  await page
    .getByRole('radio', { name: /^Again: / })
    .first()
    .click();
  await page.getByRole('button', { name: 'Start measuring' }).click();
  await expect(page.getByRole('banner')).toContainText('From the recipe');
});

test('Print: going on from an earlier version makes a branch, which is drawn', async ({ page, bench }) => {
  const id = await bench.measuredJob();
  const make = async () => {
    const { revision } = await bench.api('GET', `/jobs/${id}`);
    await bench.api('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
  };
  await make();
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await page.getByLabel('Skirt wall').fill('3');
  await page.keyboard.press('Tab');
  await expect
    .poll(async () => (await bench.api('GET', `/jobs/${id}`)).document.parts[0].parameters.wall?.text)
    .toBe('3');
  await make();
  await page.goto(`${bench.url}/jobs/${id}/print`);
  const tree = page.getByLabel('How the versions came out of each other');
  await expect(page.getByRole('heading', { name: /^Version 2/ })).toBeVisible();
  await expect(tree).toBeHidden();
  await page.getByRole('button', { name: 'Go on from this version' }).click();
  await expect(page.getByRole('banner')).toContainText('Vent-port cap');
  await expect
    .poll(async () => (await bench.api('GET', `/jobs/${id}`)).document.parts[0].parameters.wall)
    .toBeUndefined();
  await make();
  await page.goto(`${bench.url}/jobs/${id}/print`);
  await expect(tree.getByRole('listitem').first()).toContainText('from version 1');
  const { history } = await bench.api('GET', `/jobs/${id}`);
  expect(history.versions[2].follows).toBe(history.versions[0].id);
  expect(history.versions[1].follows).toBe(history.versions[0].id);
});

test('Workshop: what it made adds up by month, in charts and as a table', async ({ page, bench }) => {
  await page.goto(`${bench.url}/workshop/worth`);
  await expect(page.getByText('Nothing made in the last twelve months')).toBeVisible();
  const id = await bench.measuredJob();
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  const { history } = await bench.api('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
  await bench.api('POST', `/jobs/${id}/prints`, { versionId: history.versions[0].id, pieces: 3, grams: 21 });
  await page.goto(`${bench.url}/workshop`);
  await page.getByRole('link', { name: 'What the workshop made' }).click();
  await expect(page.getByText(/In twelve months 3 pieces came out/)).toBeVisible();
  await expect(page.getByRole('img', { name: /Pieces that came out/ })).toBeVisible();
  await page.getByText('The same as a table').click();
  await expect(page.getByRole('row').nth(1).getByRole('cell').nth(4)).toHaveText('21');
  expect((await new AxeBuilder({ page }).include('main').analyze()).violations).toEqual([]);
});

test('the theme is kept over a reload', async ({ page, bench }) => {
  await page.goto(bench.url);
  const paper = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
  const day = await paper();
  await page.getByRole('button', { name: 'Night colours' }).click();
  const night = await paper();
  expect(night).not.toBe(day);
  await page.reload();
  expect(await paper()).toBe(night);
});

test('the rack finds jobs by words and number, and says when it finds none', async ({ page, bench }) => {
  for (const title of ['Vent-port cap', 'Rail end cap', 'Drain plug'])
    await bench.api('POST', '/jobs', { title, recipe: 'round-cap' });
  await page.goto(bench.url);
  await expect(page.getByRole('link', { name: /cap|plug/ })).toHaveCount(3);
  await page.getByLabel('Find a job').fill('RAIL');
  await expect(page.getByRole('link', { name: /Rail end cap/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /Drain plug/ })).toHaveCount(0);
  await page.getByLabel('Find a job').fill('teapot');
  await expect(page.getByText('Nothing like “teapot” was written in any of these jobs.')).toBeVisible();
  // What was written inside a job is found too.
  await page.getByLabel('Find a job').fill('groove');
  await expect(page.getByRole('link', { name: /cap|plug/ })).toHaveCount(3);
  await page.getByLabel('Find a job').fill('');
  await page.getByRole('link', { name: /Drain plug/ }).click();
  await expect(reading(page)).toBeFocused();
});

test('About: what Sagoma is made of, with each licence’s text', async ({ page, bench }) => {
  await page.goto(`${bench.url}/workshop`);
  await page.getByRole('link', { name: 'What Sagoma is made of, and its licences' }).click();
  await page.getByLabel('Find a package or a licence').fill('lgpl-2');
  await expect(page.getByRole('status')).toContainText('1 of ');
  await page.getByText('replicad-opencascadejs').click();
  await expect(page.getByText('GNU LESSER GENERAL PUBLIC LICENSE').first()).toBeVisible();
  await page.getByLabel('Find a package or a licence').fill('teapot');
  await expect(page.getByText('Nothing is called that. Try a shorter word.')).toBeVisible();
});

test('Rack: of many jobs some are shown, and more on a press', async ({ page, bench }) => {
  for (let n = 1; n <= 62; n++) await bench.api('POST', '/jobs', { title: `Spacer ${n}`, recipe: 'bush' });
  await page.goto(bench.url);
  const tags = page.getByRole('link', { name: /Spacer \d+/ });
  await expect(tags).toHaveCount(60);
  await page.getByRole('button', { name: '2 more of 62' }).click();
  await expect(tags).toHaveCount(62);
  await page.getByLabel('Find a job').fill('Spacer 62');
  await expect(tags).toHaveCount(1);
});
