import AxeBuilder from '@axe-core/playwright';
import { expect, ledgerRow, reading, solidVolume, test } from './bench';

test('keyboard only: a job is made, measured, fitted and looked at', async ({ page, bench }) => {
  await page.goto(bench.url);
  await page.getByRole('button', { name: 'New job' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('What do you make?')).toBeFocused();
  await page.keyboard.type('Rail end cap');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Rim, outside' })).toBeVisible();
  await expect(reading(page)).toBeFocused();
  for (const value of ['42.4', '42.41', '42.4', '99']) {
    await page.keyboard.type(value);
    await page.keyboard.press('Enter');
    await expect(reading(page)).toHaveValue('');
  }
  await page.keyboard.press('Backspace');
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('3 readings');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('heading', { name: 'Rim height' })).toBeVisible();
  await expect(reading(page)).toBeFocused();
  await page.keyboard.type('18');
  await page.keyboard.press('Enter');
  // At the last dimension Tab leaves the field: nobody is trapped in it.
  await expect(reading(page)).toHaveValue('');
  await page.keyboard.press('Tab');
  await expect(reading(page)).not.toBeFocused();
  await page.keyboard.press('u');
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('1.6694');
  await page.keyboard.press('u');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('g');
  await page.keyboard.press('f');
  await expect(page.getByRole('heading', { name: 'Skirt over rim: how should it fit?' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(ledgerRow(page, 'Rim height')).toContainText('not read');
  await page.keyboard.press('Control+Shift+z');
  await expect(ledgerRow(page, 'Rim height')).toContainText('18.00');
});

test('the next step leads to where it is done, also on the stage it is done on', async ({ page, bench }) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  const next = page.getByRole('banner').getByRole('button', { name: 'Say what happens if it breaks' });
  await next.click();
  await expect(page.getByRole('heading', { name: 'What is it, and what must it do?' })).toBeVisible();
  await next.click();
  await expect(page.getByRole('radio', { name: /^Nuisance/ })).toBeFocused();
  await page.keyboard.press('Space');
  await expect(page.getByRole('banner').getByRole('button', { name: 'Make version 1' })).toBeVisible();
});

test('a number typed anywhere on Measure is a reading', async ({ page, bench }) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Cap', recipe: 'round-cap' });
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await page.getByRole('heading', { name: 'Rim, outside' }).click();
  await reading(page).blur();
  // A caliper that types: digits in a burst, then Enter.
  await page.keyboard.type('31.72');
  await page.keyboard.press('Enter');
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('31.72');
});

test('a streaming caliper’s number lands on the dimension in turn', async ({ page, bench }) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Cap', recipe: 'round-cap' });
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await expect(reading(page)).toBeVisible();
  await bench.api('POST', '/device/readings', { text: '31,72 mm' });
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('31.72');
  await bench.api('POST', '/device/readings', { text: 'low battery' });
  await expect(page.locator('#reading-help')).toContainText('is not a number');
});

test('the practice bench plays the loop without hardware until it fits', async ({ page, bench }) => {
  await bench.switchOnPractice();
  const { id } = await bench.api('POST', '/jobs', { title: 'Practice cap', recipe: 'round-cap' });
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  for (let n = 1; n <= 3; n++) {
    await page.getByRole('button', { name: 'Practice caliper' }).click();
    await expect(page.getByRole('heading', { name: `Reading ${n + 1}` })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Next: Rim height' }).click();
  await page.getByRole('button', { name: 'Practice caliper' }).click();
  await expect(ledgerRow(page, 'Rim height')).toContainText('read once');
  for (let version = 1; version <= 7; version++) {
    await page.goto(`${bench.url}/jobs/${id}/print`);
    await page
      .getByRole('main')
      .getByRole('button', { name: `Make version ${version}` })
      .click();
    await expect(page.getByRole('heading', { name: `Version ${version} PLA` })).toBeVisible();
    await page.getByRole('button', { name: 'Practice printer' }).first().click();
    await page.getByRole('menuitem', { name: 'print one', exact: true }).click();
    await expect(page.getByText('The practice printer made one')).toBeVisible();
    await page.getByRole('link', { name: /^Try/ }).click();
    await page.getByRole('button', { name: 'Practice hands' }).click();
    await expect(page.locator('[data-mark][data-selected]')).toHaveCount(1);
    await page.getByRole('button', { name: 'Record the try' }).click();
    await expect(page.getByRole('heading', { name: `What version ${version} taught` })).toBeVisible();
    if (await page.getByText('Every surface sits right').isVisible()) break;
  }
  await expect(page.getByText('Every surface sits right')).toBeVisible();
  await page.getByRole('main').getByRole('button', { name: 'Put it in service' }).click();
  await page.getByRole('main').getByRole('button', { name: 'Put it in service' }).click();
  await expect(page.getByText(/In service since/)).toBeVisible();
});

test('kernels load only where a solid is shown', async ({ page, bench }) => {
  const id = await bench.measuredJob();
  const wasm: string[] = [];
  page.on('request', request => request.url().includes('.wasm') && wasm.push(request.url()));
  for (const stage of ['', `/jobs/${id}/brief`, `/jobs/${id}/measure`, `/jobs/${id}/fit`, '/workshop']) {
    await page.goto(`${bench.url}${stage}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  }
  expect(wasm).toEqual([]);
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await solidVolume(page);
  expect(wasm.length).toBeGreaterThan(0);
});

test('a job leaves in a bundle and comes in again', async ({ page, bench }) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/keep`);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Export the job' }).click(),
  ]);
  const path = (await download.path())!;
  await page.goto(bench.url);
  const bring = async (files: string | { name: string; mimeType: string; buffer: Buffer }) => {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name: 'Import a job' }).click(),
    ]);
    await chooser.setFiles(files as string);
  };
  await bring(path);
  await expect(page.getByText('Already here, nothing to do')).toBeVisible();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await bring({ name: 'x.zip', mimeType: 'application/zip', buffer: Buffer.from('nonsense') });
  await expect(page.getByText('This is not a Sagoma bundle')).toBeVisible();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  // Worked on since: both sides are shown before anything is written.
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  await bench.api('POST', `/jobs/${id}/edits`, {
    revision,
    edit: { kind: 'rename', title: 'Renamed since' },
  });
  await bring(path);
  const choice = page.getByRole('dialog', { name: 'Already here, but different' });
  await expect(choice.getByRole('row', { name: /Title Renamed since Vent-port cap/ })).toBeVisible();
  await choice.getByRole('button', { name: /What to do with/ }).click();
  await page.getByRole('option', { name: 'Keep both, side by side on the rack' }).click();
  await choice.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByText('Both are kept')).toBeVisible();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await expect(page.getByText('Vent-port cap (from a bundle)')).toBeVisible();
  await expect(page.getByText('Renamed since')).toBeVisible();
});

test('the workshop is saved, and refuses what is no number', async ({ page, bench }) => {
  await page.goto(`${bench.url}/workshop`);
  await page.getByLabel('Name').first().fill('The boathouse');
  await page.getByLabel('Shows steps of, mm').first().fill('fine');
  await expect(page.getByText('is not a number')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save the workshop' })).toBeDisabled();
  await page.getByLabel('Shows steps of, mm').first().fill('0,02');
  await page.getByRole('button', { name: 'Save the workshop' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Name').first()).toHaveValue('The boathouse');
  await expect(page.getByLabel('Shows steps of, mm').first()).toHaveValue('0.02');
});

for (const theme of ['light', 'dark'] as const) {
  test(`no accessibility faults on any stage, ${theme}`, async ({ page, bench }) => {
    await page.emulateMedia({ colorScheme: theme, reducedMotion: 'reduce' });
    const id = await bench.measuredJob();
    for (const path of [
      '/',
      '/workshop',
      ...['brief', 'measure', 'fit', 'shape', 'print', 'try', 'keep'].map(s => `/jobs/${id}/${s}`),
    ]) {
      await page.goto(`${bench.url}${path}`);
      await expect(page.getByRole('heading').first()).toBeVisible();
      const { violations } = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21aa'])
        .analyze();
      expect(
        violations.map(v => `${path} ${v.id}: ${v.nodes.map(n => n.html.slice(0, 120)).join(' | ')}`),
      ).toEqual([]);
    }
  });
}

test('on a phone Brief, Measure and Try work with a thumb', async ({ page, bench }) => {
  await page.setViewportSize({ width: 390, height: 800 });
  const id = await bench.measuredJob();
  for (const stage of ['brief', 'measure', 'try']) {
    await page.goto(`${bench.url}/jobs/${id}/${stage}`);
    await expect(page.getByRole('heading').first()).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth), stage).toBe(true);
  }
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await page.getByRole('button', { name: 'Ledger', exact: true }).click();
  await ledgerRow(page, 'Rim, outside').click();
  await page.getByRole('button', { name: 'Close the ledger' }).click();
  await reading(page).fill('31.7');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('31.7', { exact: true })).toHaveCount(2);
});
