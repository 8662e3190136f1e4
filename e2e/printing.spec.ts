import { expect, test } from './bench';

test('Print: a better way to lie is offered, taken, and the file and the ledger follow it', async ({
  page,
  bench,
}) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Display cradle', recipe: 'cradle' });
  await bench.read(id, [
    ['slab_width', 78],
    ['slab_thickness', 9],
    ['slab_height', 120],
  ]);
  await page.goto(`${bench.url}/jobs/${id}/print`);
  const ways = page.getByRole('group', { name: /^Way to lie/ });
  await expect(ways.first()).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('group', { name: 'Way to lie: as drawn' })).toContainText('It lies so');
  await page.getByRole('button', { name: 'Lay it on its front' }).click();
  const front = page.getByRole('group', { name: 'Way to lie: on its front' });
  await expect(front).toContainText('It lies so');
  await expect(front).toContainText('no supports');
  await expect(front).toContainText(/\d min|\d h/);
  await expect(front).toContainText(/[\d.]+ g/);
  await page.reload();
  await expect(page.getByRole('group', { name: 'Way to lie: on its front' })).toContainText('It lies so', {
    timeout: 60_000,
  });
  // There is always a way back, by its own button or by undo.
  await page.getByRole('group', { name: 'Way to lie: as drawn' }).getByRole('button').click();
  await expect(page.getByRole('group', { name: 'Way to lie: as drawn' })).toContainText('It lies so');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('group', { name: 'Way to lie: on its front' })).toContainText('It lies so');
});

test('Print: a finer quality takes longer, and hours that were noted make the next times surer', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/print`);
  const drawn = page.getByRole('group', { name: 'Way to lie: as drawn' });
  await expect(drawn).toBeVisible({ timeout: 60_000 });
  const minutes = async () => Number(/(\d+) min/.exec((await drawn.textContent()) ?? '')?.[1]);
  const usual = await minutes();
  await page.getByRole('button', { name: /^usual, layers of/ }).click();
  await page.getByRole('option', { name: /^fine/ }).click();
  await expect.poll(minutes).toBeGreaterThan(usual);
  await expect(page.getByText('Times hold for a usual printer')).toBeVisible();
  await page.getByRole('button', { name: 'Make version 1' }).click();
  await page.getByLabel('Hours').fill('2.5');
  await page.getByRole('button', { name: 'It is printed' }).click();
  await page.goto(`${bench.url}/jobs/${id}/print`);
  await expect(page.getByText('Times by one print whose hours were noted')).toBeVisible({ timeout: 60_000 });
  await expect(drawn).toContainText(/2 h|1[0-9]{2} min/);
});
