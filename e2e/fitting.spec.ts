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
  await page.getByRole('button', { name: 'That is right' }).click();
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

test('a step of the ledger is moved by the keys or the pointer to see what it would do', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  await ledgerRow(page, 'Skirt over rim').click();
  const step = page.getByRole('slider', { name: 'What if: snug' });
  await step.focus();
  for (let n = 0; n < 6; n++) await page.keyboard.press('ArrowRight');
  await expect(page.getByText('+0.06 mm looser')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText('+0.06 mm looser')).toBeHidden();
  const box = (await page.getByRole('slider', { name: /What if: holes print/ }).boundingBox())!;
  await page.mouse.move(box.x + 40, box.y + 5);
  await page.mouse.down();
  await page.mouse.move(box.x + 70, box.y + 5, { steps: 3 });
  await page.mouse.up();
  await expect(page.getByText(/mm looser: \d+ % instead of/)).toBeVisible();
  await page.getByRole('button', { name: 'Want this' }).click();
  await expect(ledgerRow(page, 'Skirt over rim')).toContainText('own window');
  const { document } = await bench.api('GET', `/jobs/${id}`);
  const { min, max } = document.mates[0].want.window;
  expect(max - min).toBeCloseTo(0.15, 3);
  expect(min).toBeGreaterThan(0.06);
});

test('a printer is calibrated: the piece is loaded, read feature by feature, and the ledger starts from it', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  await expect(page.getByText(/if you print the calibration piece/)).toBeVisible();
  await page.getByRole('button', { name: 'Calibrate' }).click();
  await expect(page.getByRole('heading', { name: 'Filament printer with PLA' })).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'The piece, 3MF' }).click();
  expect((await download).suggestedFilename()).toBe('sagoma-calibration-piece.3mf');
  await expect(page.getByRole('heading', { name: 'Hole 20' })).toBeVisible();
  const field = page.getByLabel('Reading, mm');
  await field.fill('0.78');
  await field.press('Enter');
  await expect(page.getByText('a slip of the unit?')).toBeVisible();
  await field.fill('12.1');
  await field.press('Enter');
  await expect(page.getByText('another feature?')).toBeVisible();
  await field.fill('19,70');
  await field.press('Enter');
  await field.fill('19.72');
  await field.press('Enter');
  await expect(page.getByText('19.72')).toBeVisible();
  await field.press('Backspace');
  await expect(page.getByText('19.72')).toBeHidden();
  // Enter on an empty field goes on.
  for (const [name, reading] of [
    ['Hole 12', '11.71'],
    ['Hole 8', '7.70'],
    ['Hole 4', '3.71'],
  ] as const) {
    await field.press('Enter');
    await expect(page.getByRole('heading', { name })).toBeVisible();
    await field.fill(reading);
    await field.press('Enter');
  }
  await expect(page.getByText('4 of 29 · 4 read')).toBeVisible();
  const responses = page.getByTestId('responses');
  await expect(responses).toContainText(/holes0\.29\d? small at 11/);
  await expect(page.getByRole('img', { name: /Error of each printed size/ })).toBeVisible();
  await expect(page.getByTestId('gains')).toContainText('a snug bore over 12 mm');
  await page.reload();
  await expect(page.getByText('5 of 29 · 4 read')).toBeVisible();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  await expect(page.getByText(/^[5-9]\d %$/).first()).toBeVisible();
  await expect(page.getByText(/if you print the calibration piece/)).toBeHidden();
});

test('sizes of one’s own pieces count, a wrong line is named, and a profile goes out and comes back', async ({
  page,
  bench,
}) => {
  await bench.api('PUT', '/calibrations/own', {
    printerId: 'printer',
    materialId: 'petg',
    at: '2026-01-02T00:00:00.000Z',
    note: '',
    rows: [],
  });
  await page.goto(`${bench.url}/workshop`);
  await page.getByRole('button', { name: 'Calibrate a printer' }).click();
  await expect(page.getByRole('heading', { name: 'Filament printer with PLA' })).toBeVisible();
  await page.goBack();
  await page.getByRole('link', { name: 'Filament printer with PETG' }).click();
  const sizes = page.getByLabel('What was drawn and what was read, mm');
  await sizes.fill('hole 8 7.71\nhole 20 nineteen');
  await expect(page.getByText('Line 2: two numbers follow')).toBeVisible();
  await sizes.fill('hole 8 7,71\nhole 20 19.70\nhole 32 31.71\npeg 20 20.03');
  await sizes.blur();
  await expect(page.getByTestId('responses')).toContainText(/pegs0.0[23]\d? large at 20/);
  await page.getByText('These settings already correct sizes').click();
  await page.getByLabel('Nozzle, mm').fill('9');
  await expect(page.getByText('From 0.1 to 2 mm.')).toBeVisible();
  await page.getByLabel('Nozzle, mm').fill('0.6');
  await page.getByLabel('Nozzle, mm').blur();
  await expect(page.getByText('the printer now has 0.4 mm')).toBeVisible();
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save as a file' }).click();
  const path = await (await saved).path();
  await page.getByRole('link', { name: 'Back to the workshop' }).click();
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'From a file' }).click();
  await (await chooser).setFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from('{') });
  await expect(page.getByText('This file is not JSON')).toBeVisible();
  const again = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'From a file' }).click();
  await (await again).setFiles(path);
  await expect(page.getByRole('link', { name: 'Filament printer with PETG' })).toHaveCount(2);
  await page.getByRole('button', { name: 'Remove this calibration' }).first().click();
  await expect(page.getByRole('link', { name: 'Filament printer with PETG' })).toHaveCount(1);
});

test('the practice printer makes the piece and reads it', async ({ page, bench }) => {
  const { revision, workshop } = await bench.api('GET', '/workshop');
  await bench.api('PUT', '/workshop', { revision, workshop: { ...workshop, practiceBench: true } });
  await bench.api('PUT', '/calibrations/drill', {
    printerId: 'printer',
    materialId: 'pla',
    at: '2026-11-02T00:00:00.000Z',
    note: '',
    rows: [],
  });
  await page.goto(`${bench.url}/workshop/calibrations/drill`);
  await page.getByRole('button', { name: /print it and read all twice/ }).click();
  await expect(page.getByText('29 read')).toBeVisible();
  await expect(page.getByTestId('responses').getByRole('row')).toHaveCount(6);
  await expect(page.getByText(/The first layer (bulges out|does not bulge)/)).toBeVisible();
});

test('a ladder of rings is printed, tried and learned from before the first part', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  await page.getByRole('button', { name: 'Make a ladder' }).click();
  await expect(page.getByRole('heading', { name: 'The ladder' })).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: '3MF' }).click();
  expect((await download).suggestedFilename()).toMatch(/ladder\.3mf$/);
  const words = ['won’t go', 'tight', 'tight', 'right', 'loose'];
  for (const [i, word] of words.entries())
    await page
      .getByRole('radiogroup', { name: `Ring ${i + 1}` })
      .getByText(word, { exact: true })
      .click();
  await page.getByRole('button', { name: 'Record the ladder' }).click();
  await expect(page.getByRole('heading', { name: 'The ladder, tried' })).toBeVisible();
  await expect(page.getByText(/Skirt over rim: the ladder was tried, so it prints about/)).toBeVisible();
  await page.getByRole('button', { name: 'Put it away' }).click();
  await expect(page.getByRole('heading', { name: 'The ladder, tried' })).toBeHidden();
  await expect(page.getByRole('button', { name: 'Make a ladder' })).toBeVisible();
});

test('effort is judged apart from size: the wall changes, the diameter stays', async ({ page, bench }) => {
  const id = await bench.measuredJob();
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  await bench.api('POST', `/jobs/${id}/edits`, {
    revision,
    edit: { kind: 'material', partId: 'part-1', materialId: 'tpu' },
  });
  await page.goto(`${bench.url}/jobs/${id}/print`);
  await page.getByRole('main').getByRole('button', { name: 'Make version 1' }).click();
  await page.getByRole('button', { name: 'It is printed' }).click();
  await expect(page.getByRole('heading', { name: 'How does version 1 sit?' })).toBeVisible();
  await page.getByRole('radio', { name: 'right' }).click();
  await page.getByRole('radiogroup', { name: 'Effort going on' }).getByText('too hard').click();
  await page.getByRole('radiogroup', { name: 'Effort coming off' }).getByText('too hard').click();
  await page.getByRole('button', { name: 'Record the try' }).click();
  await expect(page.getByText('Skirt over rim takes too much force. The diameter stays')).toBeVisible();
  await page.getByRole('button', { name: 'Make the skirt wall 1.2 mm' }).click();
  await expect
    .poll(async () => (await bench.api('GET', `/jobs/${id}`)).document.parts[0].parameters.wall?.text)
    .toBe('1.2');
});

test('the shelf’s sums: a soft ring, a screw in plastic, two prints that go together', async ({
  page,
  bench,
}) => {
  await page.goto(`${bench.url}/shelf?at=ring`);
  await page.getByLabel('Goes over, mm').fill('23');
  await page.getByLabel('Free inside, mm').fill('22.5');
  await page.getByLabel('Its lip inside, mm').fill('21.8');
  await expect(page.getByTestId('ring-passing')).toContainText('5.5 %');
  await page.getByLabel('Slots', { exact: true }).fill('90');
  await expect(page.getByText('The slots take the whole way round')).toBeVisible();
  await page.getByRole('tab', { name: 'Screw' }).click();
  await page.getByLabel('Thread on the shelf').fill('M3');
  await expect(page.getByTestId('thread-ways')).toContainText('Melt in an insert');
  await expect(page.getByTestId('insert-boss')).toContainText('hole 4');
  await page.getByLabel('Thread on the shelf').fill('1/4 NPT');
  await expect(page.getByText('wedges its boss apart')).toBeVisible();
  await page.getByLabel('Thread on the shelf').fill('M999');
  await expect(page.getByText('The shelf has no such thread')).toBeVisible();
  await page.getByLabel('Thread on the shelf').fill('');
  await page.getByLabel('Clearance across, mm').fill('2');
  await expect(page.getByTestId('thread-major')).toContainText('112 mm');
  await page.getByLabel('Between them, mm').fill('120');
  await expect(page.getByText('must be above the minor one')).toBeVisible();
  await page.getByRole('tab', { name: 'Two prints' }).click();
  await expect(page.getByTestId('pair-hole')).toContainText('20.5');
  await page.getByLabel('Size of the joint, mm').fill('-3');
  await expect(page.getByText('Above 0 and at most 1000 mm.')).toBeVisible();
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
