import type { Page } from '@playwright/test';
import { expect, ledgerRow, read, test } from './bench';

test('what one window does shows in the other', async ({ page, bench, context }) => {
  const id = await bench.measuredJob();
  const other = await context.newPage();
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await other.goto(`${bench.url}/jobs/${id}/measure`);
  await ledgerRow(page, 'Rim, outside').click();
  await read(page, '31.74');
  await expect(ledgerRow(other, 'Rim, outside')).toContainText('4 readings');
  // The other window has nothing of its own to undo.
  await expect(other.getByRole('button', { name: 'Undo' })).toBeDisabled();
});

test('the later of two edits is told, and the maker decides', async ({ page, bench, context }) => {
  const id = await bench.measuredJob('Cap');
  const other = await context.newPage();
  // This window does not hear of the other one's edits.
  await other.addInitScript(() => Reflect.deleteProperty(window, 'SharedWorker'));
  await other.route('**/api/events*', route => route.abort());
  await page.goto(`${bench.url}/jobs/${id}/brief`);
  await other.goto(`${bench.url}/jobs/${id}/measure`);
  await ledgerRow(other, 'Rim, outside').click();
  await page.getByLabel('Name of the job').fill('Vent-port cap');
  await page.getByLabel('Name of the job').blur();
  await expect(page.getByRole('link', { name: /1 · Vent-port cap/ })).toBeVisible();
  await expect.poll(async () => (await bench.api('GET', `/jobs/${id}`)).document.title).toBe('Vent-port cap');

  await other.locator('input[data-reading]').fill('31.75');
  await other.locator('input[data-reading]').press('Enter');
  const dialog = other.getByRole('dialog');
  await expect(dialog).toContainText('Another window was quicker');
  await expect(dialog).toContainText('Renamed to “Vent-port cap”');
  await expect(dialog).toContainText('Read 31.75 on Rim, outside');
  await dialog.getByRole('button', { name: 'Keep both: put mine on top' }).click();
  await expect(dialog).toBeHidden();
  const job = await expect
    .poll(async () => (await bench.api('GET', `/jobs/${id}`)).document.dimensions[0].readings.length)
    .toBe(4)
    .then(() => bench.api('GET', `/jobs/${id}`));
  expect(job.document.title).toBe('Vent-port cap');
});

test('leaving mine out keeps theirs and nothing of mine', async ({ page, bench }) => {
  const id = await bench.measuredJob('Cap');
  await page.addInitScript(() => Reflect.deleteProperty(window, 'SharedWorker'));
  await page.route('**/api/events*', route => route.abort());
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await bench.api('POST', `/jobs/${id}/edits`, { revision: 5, edit: { kind: 'rename', title: 'Theirs' } });
  await read(page, '14.2');
  await page.getByRole('button', { name: 'Leave mine out' }).click();
  await expect(page.getByRole('link', { name: /1 · Theirs/ })).toBeVisible();
  expect((await bench.api('GET', `/jobs/${id}`)).revision).toBe(6);
});

test('ten windows of one browser: each is answered, and hears of the others', async ({ bench, context }) => {
  const id = await bench.measuredJob();
  const windows = await Promise.all(Array.from({ length: 10 }, () => context.newPage()));
  for (const window of windows) {
    await window.goto(`${bench.url}/jobs/${id}/measure`);
    await expect(ledgerRow(window, 'Rim, outside')).toContainText('3 readings');
  }
  await ledgerRow(windows[0]!, 'Rim, outside').click();
  await read(windows[0]!, '31.74');
  for (const window of windows) await expect(ledgerRow(window, 'Rim, outside')).toContainText('4 readings');
  // What the first one did is its own to undo, as long as it is there.
  const undoOf = async (window: Page) => {
    const tab = await window.evaluate(() => sessionStorage.getItem('sagoma.tab'));
    const answer = await window.request.get(`${bench.url}/api/jobs/${id}`, {
      headers: { 'x-sagoma-tab': tab! },
    });
    return (await answer.json()).undo?.words ?? 'nothing';
  };
  expect(await undoOf(windows[0]!)).toContain('31.74');
  expect(await undoOf(windows[9]!)).not.toContain('31.74');
});
