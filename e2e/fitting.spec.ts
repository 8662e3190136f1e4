import { expect, ledgerRow, test } from './bench';

test('felt with the jaws before any plastic: the want moves, and so does the number', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  const jaws = page.getByTestId('jaw-setting');
  await expect(jaws).toContainText('31.82');
  await page.getByRole('button', { name: 'Tighter than I want' }).click();
  await expect(jaws).toContainText('31.90');
  await page.getByRole('button', { name: 'Tighter than I want' }).click();
  await page.getByRole('button', { name: 'Looser than I want' }).click();
  await page.getByRole('button', { name: 'That is it' }).click();
  await expect(page.getByText('as you felt it.')).toBeVisible();
  await expect(page.getByRole('radio', { name: /^snug/ })).not.toBeChecked();
  await expect(ledgerRow(page, 'Skirt over rim')).toContainText('own window');
  await page.keyboard.press('Control+z');
  await expect(ledgerRow(page, 'Skirt over rim')).toContainText('snug');
});

test('a gap per side is asked for by name, and an ISO class is taken as a window', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  const given = page.getByRole('button', { name: /How the gap is given/ });
  await given.click();
  await page.getByRole('option', { name: 'per side', exact: true }).click();
  await page.getByLabel('Most per side, mm').fill('0.15');
  await page.getByLabel('Most per side, mm').press('Enter');
  await expect(page.getByText('0.05 … 0.3 mm across the whole width')).toBeVisible();
  const { document } = await bench.api('GET', `/jobs/${id}`);
  expect(document.mates[0].want).toMatchObject({ name: 'own', window: { min: 0.05, max: 0.3 } });
  await given.click();
  await page.getByRole('option', { name: 'as an ISO class' }).click();
  await page.getByLabel('Fit, such as H7/g6').fill('H7/q');
  await expect(page.getByText('is not a tolerance class')).toBeVisible();
  await page.getByLabel('Fit, such as H7/g6').fill('H7/d9');
  await page.getByLabel('Fit, such as H7/g6').press('Enter');
  // 31.7: D 80 to 142 µm for d9, 25 for H7.
  await expect(page.getByText('0.08 … 0.167 mm; filament prints scatter more')).toBeVisible();
});

test('what the fit does is said in numbers, and what the brief asks is held against the plastic', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/brief`);
  await page.getByText('fuel or oil').click();
  await page.getByLabel('Hottest it gets, °C').fill('60');
  await page.getByLabel('Hottest it gets, °C').press('Tab');
  await page.keyboard.press('g');
  await page.keyboard.press('p');
  await expect(page.getByText('PLA: it softens at about 55 °C, and it will meet 60 °C.')).toBeVisible();
  await expect(page.getByText('PLA: fuel eats or cracks it.')).toBeVisible();
  await page.getByRole('button', { name: /Plastic$/ }).click();
  await expect(page.getByRole('option', { name: 'PLA (not for this)' })).toBeVisible();
  await page.getByRole('option', { name: /^TPU 95A, flexible/ }).click();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  await expect(page.getByRole('heading', { name: 'What this fit does' })).toBeVisible();
  await expect(page.getByText('it bears 25 % once and 15 % often.')).toBeVisible();
  await expect(page.getByText('at 60 °C the gap changes by')).toBeVisible();
  await page.getByLabel('Most stretch, %').fill('60');
  await page.getByLabel('Least stretch, %').fill('50');
  await page.getByLabel('Least stretch, %').press('Enter');
  await expect(page.getByText('beyond what it bears')).toBeVisible();
});

test('dragging the window’s edge says what it would be worth, and letting go takes it', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  const edge = page.getByTestId('window-max');
  await edge.scrollIntoViewIfNeeded();
  const box = (await edge.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 60, y, { steps: 4 });
  await expect(page.getByText('right as drawn now')).toBeVisible();
  await page.mouse.up();
  await expect(ledgerRow(page, 'Skirt over rim')).toContainText('own window');
  const { document } = await bench.api('GET', `/jobs/${id}`);
  expect(document.mates[0].want.window.min).toBe(0.05);
  expect(document.mates[0].want.window.max).toBeGreaterThan(0.25);
});

test('a calibrated printer: what pieces taught is where the ledger starts', async ({ page, bench }) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/workshop`);
  await page.getByRole('button', { name: 'Add to calibrated printers' }).click();
  const rows = page.getByLabel('What was drawn and what was read, mm');
  await rows.fill('hole 8 7.71\nhole 20 nineteen');
  await expect(page.getByText('Line 2: two numbers follow')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save the workshop' })).toBeDisabled();
  await rows.fill('hole 8 7,71\nhole 20 19.70\nhole 32 31.71\nhole 40 39.69\noutside 20 20.03');
  await expect(page.getByTestId('response-inside')).toContainText('print 0.297 mm small at 25 mm');
  await expect(page.getByTestId('response-outside')).toContainText('print 0.03 mm large');
  await page.getByRole('button', { name: 'Save the workshop' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  await expect(ledgerRow(page, 'Skirt over rim')).toContainText('32.13');
  // Uncalibrated it was 39 %: the printer's share of the doubt has shrunk.
  await expect(page.getByText(/^[6-9]\d %$/).first()).toBeVisible();
});

test('a workshop’s own windows are what its wants mean', async ({ page, bench }) => {
  await page.goto(`${bench.url}/workshop`);
  await page.getByLabel('snug, most (mm)').fill('0.01');
  await expect(page.getByText('The least must be below the most.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save the workshop' })).toBeDisabled();
  await page.getByLabel('snug, most (mm)').fill('0.25');
  await page.getByRole('button', { name: 'Save the workshop' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  const { document } = await bench.api('POST', '/jobs', { title: 'Cap', recipe: 'round-cap' });
  expect(document.mates[0].want).toMatchObject({ name: 'snug', window: { min: 0.05, max: 0.25 } });
});
