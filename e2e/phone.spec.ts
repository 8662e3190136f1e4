import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import type { Browser, Page } from '@playwright/test';
import { jpegOf } from '../core/bench/jpeg';
import { practicePhoto } from '../core/bench/practice-photo';
import { expect, read, reading, type TestBench, test } from './bench';

const taken = practicePhoto(
  'profile-part',
  { sizes: { seat_width: 40, seat_height: 30 }, seed: 3 },
  0,
  [1350, 1800],
)!;
const file = join(tmpdir(), 'sagoma-e2e-phone.jpg');
writeFileSync(file, jpegOf(taken.picture));

/** A phone of its own, and where the bench lets phones in. */
async function phoneOf(browser: Browser, bench: TestBench): Promise<{ phone: Page; door: string }> {
  const { port } = await bench.api('PUT', '/phones', { open: true });
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  return { phone: await context.newPage(), door: `http://127.0.0.1:${port}` };
}

async function pairedPhone(browser: Browser, bench: TestBench): Promise<Page> {
  const { phone, door } = await phoneOf(browser, bench);
  const { code } = await bench.api('POST', '/phones/codes');
  await phone.goto(`${door}/pair#${code}`);
  await expect(phone).toHaveURL(`${door}/phone/photo`);
  return phone;
}

const to = (phone: Page, what: 'Photo' | 'Readings' | 'Verdict') =>
  phone.getByRole('link', { name: what }).click();

test('a phone is paired by what the workshop page shows, listed there, and sent away again', async ({
  page,
  bench,
  browser,
}) => {
  await bench.measuredJob();
  await page.goto(`${bench.url}/workshop`);
  await page.getByText('Let paired phones in').click();
  await page.getByRole('button', { name: 'Pair a phone' }).click();
  const dialog = page.getByRole('dialog', { name: 'Pair a phone' });
  const { phone, door } = await phoneOf(browser, bench);
  // Nothing is shown to whoever only knows the address.
  await phone.goto(door);
  await expect(phone).toHaveURL(`${door}/pair`);
  await phone.getByLabel('Code').fill('WRONG-CODE1');
  await phone.getByRole('button', { name: 'Come in' }).click();
  await expect(phone.getByText('That is not the code on the workshop page')).toBeVisible();
  await expect(phone.getByLabel('Code')).toHaveValue('WRONG-CODE1');
  const found = await new AxeBuilder({ page: phone }).analyze();
  expect(found.violations.map(v => v.id)).toEqual([]);
  // A machine with no network shows no code: it is asked for here instead.
  const letters = dialog.locator('b', { hasText: /^[0-9A-Z]{5}-[0-9A-Z]{5}$/ });
  await expect(letters.or(dialog.getByText('on no network'))).toBeVisible();
  const code = (await letters.isVisible())
    ? await letters.innerText()
    : (await bench.api('POST', '/phones/codes')).code;
  // As the camera opens it, while the page is open already.
  await phone.goto(`${door}/pair#${code.replace('-', '')}`);
  await expect(phone).toHaveURL(`${door}/phone/photo`);
  await expect(phone.getByText('1 · Vent-port cap')).toBeVisible();
  expect(await phone.evaluate(() => document.cookie)).toBe('');
  await expect(dialog.getByText('Phone 1 is let in')).toBeVisible();
  await dialog.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: 'Remove Phone 1' }).click();
  await expect(page.getByRole('button', { name: 'Remove Phone 1' })).toBeHidden();
  // It is told without being asked, and let in again it hears of the bench again.
  await expect(phone.getByRole('heading', { name: 'This phone has no access' })).toBeVisible();
  await phone.getByRole('link', { name: 'Give a code' }).click();
  await phone.getByLabel('Code').fill((await bench.api('POST', '/phones/codes')).code);
  await phone.getByRole('button', { name: 'Come in' }).click();
  await expect(phone.getByText('1 · Vent-port cap')).toBeVisible();
  await expect(phone.getByText(/does not answer/)).toBeHidden();
  const id = await bench.measuredJob('Another cap');
  await bench.api('PUT', '/on-bench', { jobId: id });
  await expect(phone.getByText('Another job lies on the bench now.')).toBeVisible();
  await page.getByRole('button', { name: 'Remove Phone 1' }).click();
  await expect(phone.getByRole('heading', { name: 'This phone has no access' })).toBeVisible();
  // The code in the history opens nothing any more.
  await phone.goto(`${door}/pair#${code.replace('-', '')}`);
  await expect(phone.getByText('No phone is waited for')).toBeVisible();
  await expect(phone).toHaveURL(`${door}/pair`);
});

test('readings and a verdict from the phone are in the ledger at once', async ({ page, bench, browser }) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  const phone = await pairedPhone(browser, bench);
  await to(phone, 'Readings');
  await expect(phone.getByRole('heading', { level: 1, name: 'Rim, outside' })).toBeVisible();
  await read(phone, '31.69');
  await expect(page.getByLabel('Readings').getByText('31.69')).toBeVisible();
  await reading(phone).fill('3x');
  await phone.getByRole('button', { name: 'Keep it' }).click();
  await expect(phone.locator('#reading-help b')).toBeVisible();
  await expect(reading(phone)).toHaveValue('3x');
  // What a caliper at the bench sends is the bench's: it is kept once.
  await bench.api('POST', '/device/readings', { text: '31.71' });
  await expect(page.getByLabel('Readings').getByText('31.71')).toHaveCount(1);
  await expect(phone.getByLabel('Readings').getByText('31.71')).toHaveCount(1);
  const found = await new AxeBuilder({ page: phone }).analyze();
  expect(found.violations.map(v => v.id)).toEqual([]);
  // A version and its print are made at the bench.
  await to(phone, 'Verdict');
  await expect(phone.getByText('Nothing to try yet')).toBeVisible();
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  const made = await bench.api('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
  await bench.api('POST', `/jobs/${id}/prints`, { versionId: made.history.versions[0].id });
  await phone.getByText('right', { exact: true }).first().click();
  await phone.getByRole('button', { name: 'Record the try' }).click();
  await expect(phone.getByText(/At the bench:/)).toBeVisible();
  await expect.poll(async () => (await bench.api('GET', `/jobs/${id}`)).history.tries.length).toBe(1);
});

test('photos are on the bench at once; without a connection they wait, over a closed page too', async ({
  page,
  bench,
  browser,
}) => {
  const { id } = await bench.api('POST', '/jobs', {
    title: 'Strip',
    recipe: 'profile-part',
    object: 'strip',
  });
  await page.goto(`${bench.url}/jobs/${id}/measure?by=photos`);
  const phone = await pairedPhone(browser, bench);
  await phone.getByLabel('Photo on the sheet').setInputFiles(file);
  await expect(page.getByText('A photo came from Phone 1.')).toBeVisible();
  // It is traced there without anybody having touched the computer.
  await expect(page.getByRole('heading', { name: 'Tidy it' })).toBeVisible({ timeout: 120_000 });
  await expect(phone.getByRole('heading', { name: 'On the bench' })).toBeVisible();

  await phone.context().setOffline(true);
  await phone.getByLabel('Photo of the object').setInputFiles(file);
  await expect(phone.getByText(/No connection to the bench/)).toBeVisible();
  await expect(phone.getByText('Waits to be sent')).toBeVisible();
  await phone.close();
  const again = await phone.context().newPage();
  await phone.context().setOffline(false);
  await again.goto(phone.url());
  await expect.poll(async () => (await bench.api('GET', `/jobs/${id}`)).document.photos.length).toBe(2);
  await expect(again.getByText('Waits to be sent')).toBeHidden();
});

test('when another job is laid on the bench the phone says so, and goes there when asked', async ({
  page,
  bench,
  browser,
}) => {
  const first = await bench.measuredJob('First cap');
  const second = await bench.measuredJob('Second cap');
  await page.goto(`${bench.url}/jobs/${first}/brief`);
  await expect(page.getByText('1 · First cap')).toBeVisible();
  const phone = await pairedPhone(browser, bench);
  await expect(phone.getByText('1 · First cap')).toBeVisible();
  await page.goto(`${bench.url}/jobs/${second}/brief`);
  await expect(phone.getByText('Another job lies on the bench now.')).toBeVisible();
  await expect(phone.getByText('1 · First cap')).toBeVisible();
  await phone.getByRole('button', { name: 'Go to it' }).click();
  await expect(phone.getByText('2 · Second cap')).toBeVisible();
});
