import type { Locator, Page } from '@playwright/test';
import { expect, ledgerRow, reading, test } from './bench';

/** More stops than any page has on the way to one of its keys. */
const MOST_STOPS = 150;

/** Goes on with Tab until it has the focus, where it can be seen. */
async function tabTo(page: Page, to: Locator): Promise<void> {
  await expect(to).toBeVisible();
  const has = () => to.evaluate(element => element.contains(document.activeElement));
  for (let stop = 0; stop < MOST_STOPS; stop++) {
    if (await has()) {
      await expect(to).toBeInViewport();
      return;
    }
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab never came to it: ${to}`);
}
const pressKey = async (page: Page, name: string | RegExp) => {
  await tabTo(page, page.getByRole('main').getByRole('button', { name }).first());
  await page.keyboard.press('Enter');
};
const type = async (page: Page, ...lines: string[]) => {
  for (const line of lines) {
    await page.keyboard.type(line);
    await page.keyboard.press('Enter');
    await expect(reading(page)).toHaveValue('');
  }
};

test('by keyboard alone: from an empty rack to a part in service', async ({ page, bench }) => {
  await page.goto(bench.url);
  await tabTo(page, page.getByRole('button', { name: 'New job' }).first());
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('What do you make?')).toBeFocused();
  await page.keyboard.type('Cap by keys');
  await page.keyboard.press('Enter');

  // The field has the focus; Tab on an empty one goes to the next size.
  await expect(reading(page)).toBeFocused();
  await type(page, '31.7', '31.72', '31.69');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Rim height');
  await type(page, '14');

  await page.keyboard.press('g');
  await page.keyboard.press('f');
  await expect(page.getByRole('heading', { name: 'Skirt over rim: how should it fit?' })).toBeVisible();
  const wants = page.getByRole('radiogroup', { name: 'How it should feel' });
  await tabTo(page, wants);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(ledgerRow(page, 'Skirt over rim')).not.toContainText('31.70');

  // A chain opens in the ledger, and a number is changed.
  await tabTo(page, ledgerRow(page, 'Skirt over rim'));
  await page.keyboard.press('Enter');
  await expect(page.getByText('model number')).toBeVisible();
  await page.keyboard.press('g');
  await page.keyboard.press('s');
  const wall = page.getByLabel('Skirt wall', { exact: true });
  await tabTo(page, wall);
  await page.keyboard.press('Control+a');
  await page.keyboard.type('2');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await bench.api('GET', '/jobs')).jobs.length).toBe(1);

  await page.keyboard.press('Escape');
  await tabTo(page, page.getByRole('link', { name: /^Print/ }));
  await page.keyboard.press('Enter');
  await expect(page.getByText('Checking the finished solid…')).toBeHidden();
  await pressKey(page, 'Make version 1');
  await expect(page.getByRole('heading', { name: /^Version 1 / })).toBeVisible();
  await pressKey(page, 'It is printed');

  await expect(page.getByRole('heading', { name: 'How does version 1 sit?' })).toBeVisible();
  await page.keyboard.press('3');
  await expect(page.getByRole('radio', { name: 'right', exact: true })).toBeChecked();
  await pressKey(page, 'Record the try');
  await expect(page.getByText('Every surface sits right')).toBeVisible();
  // Try leads to Keep, where it is put in service.
  await pressKey(page, 'Put it in service');
  await expect(page.getByRole('heading', { name: 'Not in service yet' })).toBeVisible();
  await pressKey(page, 'Put it in service');
  const [{ id }] = (await bench.api('GET', '/jobs')).jobs;
  await expect
    .poll(async () => (await bench.api('GET', `/jobs/${id}`)).document.service.since)
    .not.toBeNull();
  const { document } = await bench.api('GET', `/jobs/${id}`);
  expect(document.parts[0].parameters.wall.text).toBe('2');
});
