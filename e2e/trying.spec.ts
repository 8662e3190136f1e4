import { expect, pressOn, solidVolume, test } from './bench';

test('whatever must fit: a length of the maker’s own, judged by an amount, until all of it is right', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/fit`);
  await page.getByRole('button', { name: 'Add what must fit' }).click();
  const dialog = page.getByRole('dialog', { name: 'What else must fit?' });
  await dialog.getByLabel('What is it called?').fill('Room under the lid');
  await dialog.getByRole('button', { name: /What about it must be right/ }).click();
  await page.getByRole('option', { name: /a length that must be right/ }).click();
  await dialog.getByRole('button', { name: /Which number of the part/ }).click();
  await page.getByRole('option', { name: /^End thickness/ }).click();
  await dialog.getByLabel(/The size it must come to/).fill('2.4');
  // What is still right is never assumed in silence.
  await dialog.getByRole('button', { name: 'It must fit' }).click();
  await expect(dialog.getByText('Say how much of it is still right.').first()).toBeVisible();
  await dialog.getByLabel(/Still right: too short/).fill('0.2');
  await dialog.getByLabel(/Still right: too long/).fill('0.2');
  await dialog.getByRole('button', { name: 'It must fit' }).click();
  await expect(page.getByRole('heading', { name: 'Room under the lid: what is right?' })).toBeVisible();
  const ledger = page.getByRole('complementary', { name: 'Ledger' });
  await expect(ledger.getByRole('button', { name: /Room under the lid length 2\.40/ })).toBeVisible();

  await page.getByRole('link', { name: /^Print/ }).click();
  await page.getByRole('main').getByRole('button', { name: 'Make version 1' }).click();
  await expect(page.getByRole('heading', { name: /^Version 1 / })).toBeVisible();
  // A print that came to nothing teaches nothing, and is not asked about.
  await page.getByRole('button', { name: /How did it come out/ }).click();
  await page.getByRole('option', { name: 'failed: the filament ran out' }).click();
  await page.getByRole('button', { name: 'It failed' }).click();
  await expect(page.getByRole('button', { name: 'Print version 1 again' })).toBeVisible();
  await page.getByRole('button', { name: 'It is printed' }).click();
  await expect(page.getByRole('heading', { name: 'How does version 1 sit?' })).toBeVisible();

  // Key 3 says “right” of the first surface; the other is too long, by so much; it survives a reload.
  await page.getByRole('main').click({ position: { x: 5, y: 5 } });
  await page.keyboard.press('3');
  await expect(page.getByRole('radio', { name: 'right', exact: true })).toBeChecked();
  await page.getByRole('radio', { name: 'too long' }).click();
  await page.getByLabel(/By about/).fill('lots');
  await page.reload();
  await expect(page.getByRole('radio', { name: 'too long' })).toBeChecked();
  await page.getByRole('button', { name: 'Record the try' }).click();
  await expect(page.getByLabel(/By about/)).toHaveAttribute('aria-invalid', 'true');
  await page.getByLabel(/By about/).fill('0.6');
  await page.getByRole('button', { name: /^by eye Judged/ }).click();
  await page.getByRole('option', { name: 'a caliper' }).click();
  await page.getByLabel('Who tried it?').fill('the boat-keeper');
  await page.getByRole('button', { name: 'Record the try' }).click();
  await expect(page.getByText(/Room under the lid: the last try was 0\.6 mm too long/)).toBeVisible();
  await expect(page.getByText('Every surface sits right')).toBeHidden();
  const { history } = await bench.api('GET', `/jobs/${id}`);
  const said = Object.values(history.tries[0].mates) as { off?: object }[];
  expect(said.find(m => m.off)).toEqual({ off: { value: 0.6, u: 0.05, by: 'caliper' } });
  await expect(ledger.getByRole('button', { name: /Room under the lid length 1\.[6-9]/ })).toBeVisible();
});

test('what went wrong besides the sizes leads to its causes, and a press on the solid to the number', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  const { history } = await bench.api('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
  await bench.api('POST', `/jobs/${id}/prints`, { versionId: history.versions[0].id });
  await page.goto(`${bench.url}/jobs/${id}/try`);
  await page.getByRole('radio', { name: 'right', exact: true }).click();
  await page.getByRole('button', { name: 'it cracked or broke' }).click();
  await page.getByLabel(/^Where, when/).fill('at the tab');
  await page
    .getByRole('radiogroup', { name: 'Did the original break there too?' })
    .getByRole('radio', { name: 'yes' })
    .click();
  await page.getByRole('button', { name: 'Record the try' }).click();
  await expect(page.getByText(/The original broke there too/)).toBeVisible();
  await expect(page.getByText('Every surface sits right')).toBeHidden();

  await page.getByRole('button', { name: 'Show the solid' }).click();
  await expect(page.getByText('Press the place that is wrong.')).toBeVisible();
  await pressOn(page.locator('canvas').first(), 0.5, 0.5);
  await expect(page.getByRole('heading', { name: 'How far off is it?' })).toBeVisible();
  await page.getByLabel('By about, mm').fill('0.4');
  await page.getByLabel('Call it (to judge it again)').fill('Face beside the lamp');
  await page.getByLabel('Still right within, ± mm').fill('0.2');
  await page.getByRole('button', { name: 'Judge it from now on' }).first().click();
  await expect(page.getByRole('heading', { name: 'Face beside the lamp: what is right?' })).toBeVisible();

  await page.getByRole('link', { name: /^Try/ }).click();
  await page.getByRole('button', { name: 'Round its edges' }).click();
  await expect(page.getByRole('heading', { name: 'Additions' })).toBeVisible();
  await solidVolume(page);
});

test('a part that fails in service leads to the next version, and is not sent back', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  const { history } = await bench.api('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
  const printed = await bench.api('POST', `/jobs/${id}/prints`, { versionId: history.versions[0].id });
  const printId = printed.history.prints[0].id;
  await bench.api('POST', `/jobs/${id}/tries`, { printId, mates: { skirt: { verdict: 'right' } } });
  await page.goto(`${bench.url}/jobs/${id}/keep`);
  await page.getByRole('main').getByRole('button', { name: 'Put it in service' }).click();
  await expect(page.getByText(/Look at it on/)).toBeVisible();
  await page.getByRole('button', { name: /How does it hold/ }).click();
  await page.getByRole('option', { name: 'it broke' }).click();
  await page.getByLabel('Where on the part').fill('along a layer at the rim');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByRole('heading', { name: /Version 1: it broke/ })).toBeVisible();
  await page.getByRole('button', { name: 'Take it out of service' }).click();
  await expect(page.getByRole('button', { name: 'Put it in service' })).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'See why it failed' })).toBeVisible();
  await page.getByRole('button', { name: 'Change it for version 2' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Round cap or plug' })).toBeVisible();
  const pdf = await page.request.get(`${bench.url}/api/jobs/${id}/hand-over.pdf`);
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
});
