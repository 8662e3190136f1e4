import { expect, ledgerRow, reading, solidVolume, test } from './bench';

test('readings: words, negatives, 0, 1e9, emoji and nothing are refused beside the field, and stay in it', async ({
  page,
  bench,
}) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Cap', recipe: 'round-cap' });
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  const cases: [string, string][] = [
    ['wide', 'is not a number'],
    ['-31.7', 'above 0'],
    ['0', 'above 0'],
    ['1e9', 'is not a number'],
    ['999999', 'over 5 m'],
    ['🦆', 'is not a number'],
    ['1,234.5', 'two decimal marks'],
    ['31.7 kg', 'does not fit here'],
    ['1/0', 'divides by zero'],
  ];
  for (const [text, words] of cases) {
    await reading(page).fill(text);
    await reading(page).press('Enter');
    await expect(page.locator('#reading-help')).toContainText(words);
    await expect(reading(page)).toHaveValue(text);
  }
  await reading(page).fill('');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.locator('#reading-help')).toContainText('Nothing typed yet');
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('not read');
  expect((await bench.api('GET', `/jobs/${id}`)).revision).toBe(1);
});

test('parameters: the problem stands at the field, the last good solid stays, Escape takes it back', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  const volume = await solidVolume(page);
  const wall = page.getByLabel('Skirt wall');
  const cases: [string, string][] = [
    ['lid + 1', 'Nothing here is called “lid”'],
    ['-2', 'at least 0.4 mm'],
    ['0', 'at least 0.4 mm'],
    ['1e9', 'at most 30 mm'],
    ['thick', 'Nothing here is called'],
    ['🦆', 'is not a number'],
    ['endThickness/0', 'division by zero'],
    ['', 'Type a number'],
  ];
  for (const [text, words] of cases) {
    await wall.fill(text);
    await expect(page.getByText(words).first()).toBeVisible();
  }
  // An emptied field waits for a number, however long: nothing is not an edit.
  await page.waitForTimeout(1200);
  expect((await bench.api('GET', `/jobs/${id}`)).document.parts[0].parameters).toEqual({});
  await wall.fill('lid');
  await wall.press('Escape');
  await expect(wall).toHaveValue('1.6');
  expect(Math.abs((await solidVolume(page)) - volume)).toBeLessThan(1);

  // A shape that contradicts itself says so, with a remedy.
  await page.getByText('More sizes').click();
  await page.getByLabel('Lead-in chamfer').fill('1.6');
  await expect(page.getByText('knife edge')).toBeVisible();
  await page.getByRole('button', { name: /^Make “Lead-in chamfer” 1\.3/ }).click();
  await expect(page.getByText('knife edge')).toBeHidden();
});

test('a number that leaves the ledger is found on the solid, and the remedy brings it back', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await page.getByLabel('Skirt, inside diameter').fill('15.85');
  await expect(page.getByText('Was a radius typed for a diameter?')).toBeVisible();
  await page.getByRole('button', { name: /from the ledger/ }).click();
  await expect(page.getByRole('textbox', { name: 'Skirt, inside diameter' })).toHaveValue('rim.model');
  await expect(page.getByText('Was a radius typed for a diameter?')).toBeHidden();
});

test('names: none, 301 characters, and 300 that fit everywhere', async ({ page, bench }) => {
  await page.goto(bench.url);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByRole('button', { name: 'Start measuring' }).click();
  await expect(page.getByText('Give the job a name')).toBeVisible();
  await page.getByLabel('What do you make?').fill('x'.repeat(301));
  await expect(page.getByText('At most 300 characters; this is 301')).toBeVisible();
  await page.getByLabel('What do you make?').fill(`${'long name '.repeat(29)}🦆 and so on`.slice(0, 300));
  await page.getByRole('button', { name: 'Start measuring' }).click();
  await expect(page.getByRole('heading', { name: 'Rim, outside' })).toBeVisible();
  for (const path of [page.url(), bench.url]) {
    await page.goto(path);
    await expect(page.getByText('long name').first()).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
  }
});

test('windows of clearance: empty, turned round and absurd ones', async ({ page, bench }) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  const least = page.getByLabel('Least gap, mm');
  await least.fill('0.5');
  await expect(page.getByText('The least must be below the most.')).toBeVisible();
  await least.fill('snug');
  await expect(page.getByText('is not a number')).toBeVisible();
  await least.fill('-900');
  await expect(page.getByText('At most 50 mm')).toBeVisible();
  await least.fill('0.1');
  await least.press('Enter');
  await expect(ledgerRow(page, 'Skirt over rim')).toContainText('own window');
});

test('a try without a verdict, a version without readings', async ({ page, bench }) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Cap', recipe: 'round-cap' });
  await page.goto(`${bench.url}/jobs/${id}/print`);
  await page.getByRole('button', { name: 'Make version 1' }).click();
  await expect(page.getByText('Not measured yet: Skirt over rim')).toBeVisible();
  await page.goto(`${bench.url}/jobs/${id}/try`);
  await expect(page.getByText('Nothing to try yet')).toBeVisible();
  await page.goto(`${bench.url}/jobs/nowhere/try`);
  await expect(page.getByText('That job is not here')).toBeVisible();
  await page.goto(`${bench.url}/attic`);
  await expect(page.getByText('Nothing hangs here')).toBeVisible();
});
