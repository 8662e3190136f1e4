import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { readThreeMf } from '../core/files/reading-back';
import { boundsOf, volumeOf } from '../core/shape/mesh/mesh';
import { expect, ledgerRow, pressOn, test } from './bench';

/** What the Shape stage is for beyond single numbers: outlines, measuring, comparing, families. */
const volume = async (page: Page) => {
  const facts = page.getByTestId('solid-facts');
  await expect(facts).toHaveAttribute('data-busy', 'false');
  return Number(await facts.getAttribute('data-volume'));
};

const PLATE = `<svg xmlns="http://www.w3.org/2000/svg" width="62mm" height="42mm" viewBox="0 0 62 42">
  <rect x="1" y="1" width="60" height="40" rx="5"/><circle cx="11" cy="11" r="2.25"/><circle cx="51" cy="31" r="2.25"/>
</svg>`;

test('a profile: corner by corner, with an arc, a trim and a hole; bad corners are told beside the table', async ({
  page,
  bench,
}) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'End piece', recipe: 'profile-part' });
  await bench.read(id, [
    ['seat_width', 40],
    ['seat_height', 25],
    ['seat_depth', 10],
  ]);
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  // A rectangle from the readings to begin with, less the fit all round.
  await expect.poll(() => volume(page)).toBeGreaterThan(9_700);
  await expect(page.getByLabel('Corner 3, x')).toHaveValue('seat_width');
  await page.getByLabel('Corner 3, y').fill('seat_height + ');
  await expect(page.getByText(/In “seat_height \+”/)).toBeVisible();
  await page.getByLabel('Corner 3, y').fill('seat_height');
  await page.getByLabel('Corner 3, y').press('Enter');
  const before = await volume(page);
  await page.getByRole('button', { name: /Corner 3 is/ }).click();
  await page.getByRole('option', { name: 'rounded' }).click();
  await page.getByLabel('Corner 3, radius, mm').fill('6');
  await page.getByLabel('Corner 3, radius, mm').press('Enter');
  // (1 − π/4) r² of area, a little more for the smaller radius of the part.
  await expect.poll(async () => before - (await volume(page))).toBeGreaterThan(70);
  await page.getByLabel('Corner 4, trim').fill('1');
  await page.getByLabel('Corner 4, trim').press('Enter');
  await expect.poll(async () => (await volume(page)) - before).toBeGreaterThan(250);
  // Dragged on the drawing: by 10 mm or so, in half millimetres, and undone with one key.
  const drawing = page.getByTestId('outline-drawing');
  await drawing.getByRole('button', { name: 'Corner 1', exact: true }).scrollIntoViewIfNeeded();
  const corner = (await drawing
    .getByRole('button', { name: 'Corner 1', exact: true })
    .locator('circle')
    .last()
    .boundingBox())!;
  const [x, y] = [corner.x + corner.width / 2, corner.y + corner.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 30, y, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByLabel('Corner 1, x')).not.toHaveValue('0');
  expect(Number(await page.getByLabel('Corner 1, x').inputValue()) % 0.5).toBe(0);
  await expect(page.getByLabel('Corner 1, y')).toHaveValue('0');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByLabel('Corner 1, x')).toHaveValue('0');
  await page.getByRole('button', { name: 'Add a hole' }).click();
  await page.getByLabel('Hole 1, diameter').fill('30');
  await expect(page.getByText(/breaks through the edge/).first()).toBeVisible();
  await page.getByLabel('Hole 1, diameter').fill('4');
  await page.getByLabel('Hole 1, diameter').press('Enter');
  await expect(page.getByText(/breaks through the edge/)).toBeHidden();
  await page.getByRole('button', { name: 'Add a corner' }).click();
  await expect(page.getByLabel('Corner 5, x')).toBeVisible();
  await page.getByRole('button', { name: 'Take out corner 5' }).click();
  await expect(page.getByLabel('Corner 5, x')).toBeHidden();
  // Nothing of it is lost over a reload.
  await page.reload();
  await expect(page.getByLabel('Corner 4, trim')).toHaveValue('1');
  await expect(page.getByLabel('Hole 1, diameter')).toHaveValue('4');
});

test('a profile from a drawing: its size is shown first, its circles become holes, rubbish is refused', async ({
  page,
  bench,
}) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Plate', recipe: 'profile-part' });
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await page.getByRole('button', { name: 'From a drawing file' }).click();
  const dialog = page.getByRole('dialog');
  const file = dialog.getByLabel('Drawing file');
  await file.setInputFiles({
    name: 'photo.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from('not a drawing'),
  });
  await expect(dialog.getByText(/neither SVG nor DXF/)).toBeVisible();
  await file.setInputFiles({ name: 'plate.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(PLATE) });
  await expect(dialog.getByTestId('profile-size')).toHaveText('60 × 40 mm');
  await expect(dialog.getByText('with 2 circles in it')).toBeVisible();
  await dialog.getByLabel('Or make it this wide, mm').fill('30');
  await dialog.getByLabel('Or make it this wide, mm').blur();
  await expect(dialog.getByTestId('profile-size')).toHaveText('30 × 20 mm');
  await dialog.getByRole('button', { name: 'Use this outline' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByLabel('Hole 2, diameter')).toHaveValue('2.25');
  // What the drawing says stands for readings until somebody measures.
  await expect(page.getByRole('complementary').getByText('30.00').first()).toBeVisible();
  await expect(page.getByTestId('solid-facts')).toContainText('× 12 mm');
});

test('compared with an earlier version: what grew is drawn, told and listed', async ({ page, bench }) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Spacer', recipe: 'bush' });
  const revision = await bench.read(id, [
    ['shaft', 8],
    ['seat', 14],
    ['gap', 12],
  ]);
  await bench.api('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await page.getByRole('button', { name: /Compare with a version/ }).click();
  await page.getByRole('option', { name: 'version 1' }).click();
  await expect(page.getByText('Every number is as it was in version 1.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Length at the axis' }).fill('14.8');
  await page.getByRole('textbox', { name: 'Length at the axis' }).press('Enter');
  await expect(
    page.getByRole('row', { name: /Length at the axis 11\.80 mm 14\.80 mm \+3\.00 mm/ }),
  ).toBeVisible();
  await expect(page.getByTestId('compared')).toContainText(/grown 0\.[23]\d* cm³.*shrunk 0 cm³/);
});

test('measured on the solid: the wall that is pressed, then how far apart', async ({ page, bench }) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Block', recipe: 'profile-part' });
  await bench.read(id, [
    ['seat_width', 40],
    ['seat_height', 25],
    ['seat_depth', 10],
  ]);
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await volume(page);
  await page.getByRole('button', { name: 'Measure', exact: true }).click();
  const view = page.locator('canvas').first();
  await pressOn(view, 0.5, 0.42);
  const measured = page.getByTestId('measured');
  // Its upper face, ten above the bed, ten thick.
  await expect(measured).toHaveText('wall 10.00 mm · 10.00 mm over the bed');
  await pressOn(view, 0.55, 0.45);
  await expect(measured).toHaveText(/apart \d+\.\d\d mm · across .* · up 0\.00/);
  await page.getByRole('button', { name: 'Done measuring' }).click();
  await expect(measured).toBeHidden();
});

test('two faces pressed on the solid: the size between them, the number that makes it, and that it must fit', async ({
  page,
  bench,
}) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Block', recipe: 'profile-part' });
  await bench.read(id, [
    ['seat_width', 40],
    ['seat_height', 25],
    ['seat_depth', 10],
  ]);
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await volume(page);
  const view = page.locator('canvas').first();
  await expect(view).toBeVisible();
  const lookFrom = async (side: string) => {
    await page.getByRole('button', { name: 'Look from' }).click();
    await page.getByRole('menuitem', { name: side, exact: true }).click();
  };
  const press = (from: string) => pressOn(view, 0.5, 0.5, from);
  await lookFrom('above');
  await page.getByRole('button', { name: 'What moves this?' }).click();
  await press('above');
  await expect(page.getByRole('heading', { name: 'What moves this place' })).toBeVisible();
  await page.getByRole('button', { name: 'Across this hole or boss' }).click();
  await expect(page.getByText(/That is a flat. Press a second face/)).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();

  await page.getByRole('button', { name: 'What moves this?' }).click();
  await press('above');
  await page.getByRole('button', { name: 'From here to another face…' }).click();
  await expect(page.getByText('Press the other face.')).toBeVisible();
  await lookFrom('below');
  await press('below');
  await expect(page.getByRole('heading', { name: 'Between the two: 10 mm' })).toBeVisible();
  await page.getByLabel('It should be').fill('12');
  await expect(page.getByRole('button', { name: 'Make it 12 mm' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'It must fit…' }).first().click();
  await page.getByLabel('What is it called?').fill('Under the shelf');
  await expect(page.getByLabel(/The size it must come to/)).toHaveValue('12');
  await page.getByRole('button', { name: 'It must fit', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Under the shelf: how should it fit?' })).toBeVisible();
  await expect(ledgerRow(page, 'Under the shelf').first()).toBeVisible();
  const { document } = await bench.api('GET', `/jobs/${id}`);
  expect(document.mates.at(-1).pressed).toMatchObject({ size: 10, number: 10 });
});

test('a family of spacers between two stock sizes, as one file; an unusual wall is remarked on', async ({
  page,
  bench,
}) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Spacers', recipe: 'bush' });
  await bench.read(id, [
    ['shaft', 8],
    ['seat', 14],
    ['gap', 12],
  ]);
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await volume(page);
  await page.getByText('A family of sizes').click();
  await page.getByRole('button', { name: /They differ in/ }).click();
  await page.getByRole('option', { name: 'Length at the axis' }).click();
  await page.getByLabel('Smallest, mm').fill('10');
  await page.getByLabel('Largest, mm').fill('11,5');
  await page.getByLabel('Step, mm').fill('0.5');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: '4 parts as one 3MF' }).click();
  const { meshes } = readThreeMf(new Uint8Array(readFileSync(await (await download).path())));
  expect(meshes.map(m => Number((boundsOf(m).max[2] - boundsOf(m).min[2]).toFixed(2)))).toEqual([
    10, 10.5, 11, 11.5,
  ]);
  for (const m of meshes) expect(volumeOf(m)).toBeGreaterThan(500);
  await page.getByLabel('Largest, mm').fill('400');
  await page.getByLabel('Step, mm').fill('39');
  await page.getByRole('button', { name: /parts as one 3MF/ }).click();
  await expect(page.getByText(/at most 300 mm/)).toBeVisible();
  await page.getByText('More sizes').click();
  await page.getByRole('textbox', { name: 'Chamfers' }).fill('0.1');
  await expect(page.getByText(/does not lead anything in/)).toBeVisible();
  await page.getByRole('button', { name: 'Make it 0.6' }).click();
  await expect(page.getByText(/does not lead anything in/)).toBeHidden();
});
