import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, ledgerRow, read, reading, type TestBench, test } from './bench';

async function open(page: Page, bench: TestBench, title = 'Vent-port cap'): Promise<string> {
  const { id } = await bench.api('POST', '/jobs', { title, recipe: 'round-cap', object: 'hull vent port' });
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await expect(reading(page)).toBeVisible();
  return id;
}
const choose = async (page: Page, label: string | RegExp, option: string) => {
  await page.getByRole('button', { name: label }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
};
const addOwn = async (page: Page, label: string) => {
  await page.getByRole('button', { name: 'Add a dimension' }).click();
  await page.getByLabel('What is it called?').fill(label);
  await page.getByRole('button', { name: 'Add, and read it' }).click();
  await expect(page.getByRole('heading', { name: label, level: 1 })).toBeVisible();
};

test('a thread is measured, recognised and taken', async ({ page, bench }) => {
  await open(page, bench);
  await page.getByRole('button', { name: 'Measure a thread' }).click();
  await page.getByLabel('Where is it?').fill('Outlet');
  await page.getByRole('button', { name: 'Measure it' }).click();
  await expect(page.getByRole('heading', { name: 'Outlet: outside over the ridges' })).toBeVisible();
  await expect(page.getByText('It is named once these are known')).toBeVisible();
  await read(page, '13.08');
  await reading(page).press('Tab');
  await expect(page.getByRole('heading', { name: 'Outlet: span over turns' })).toBeVisible();
  await read(page, '13.37');
  await page.getByLabel('Turns in the span').fill('10');
  await page.getByLabel('Turns in the span').press('Tab');
  const list = page.getByRole('list', { name: 'Threads it could be' });
  await expect(list.getByRole('listitem').first()).toContainText('G 1/4');
  await expect(list).toContainText('R 1/4');
  await expect(page.getByText('19 turns an inch')).toBeVisible();
  await page.getByRole('radio', { name: /right hand/ }).click();
  await choose(page, /Does it taper/, 'no, straight');
  await expect(list).not.toContainText('R 1/4');
  await list.getByRole('listitem').first().getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByText('Taken for G 1/4.')).toBeVisible();
  // An impossible count stays in its field with a reason.
  await page.getByLabel('Starts at the end face').fill('1.5');
  await expect(page.getByText('A whole number.')).toBeVisible();
  await page.getByLabel('Starts at the end face').fill('1');
  await page.getByRole('button', { name: 'Remove this thread' }).click();
  await expect(ledgerRow(page, 'Outlet')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(ledgerRow(page, 'Outlet: outside')).toContainText('13.08');
});

test('what cannot be measured is worked out, its doubt carried along; circles are refused', async ({
  page,
  bench,
}) => {
  await open(page, bench);
  await page.getByRole('button', { name: 'Add a dimension' }).click();
  await page.getByRole('button', { name: 'Add, and read it' }).click();
  await expect(page.getByText('Give it a name.')).toBeVisible();
  await page.getByLabel('What is it called?').fill('Eyes');
  await page.getByRole('button', { name: 'Add, and work it out' }).click();
  await expect(page.getByRole('dialog', { name: 'Work out: Eyes' })).toBeVisible();
  await page.getByRole('button', { name: 'Work it out this way' }).click();
  await expect(page.getByRole('heading', { name: 'Eyes: nearest edges' })).toBeVisible();
  await read(page, '28.4');
  await reading(page).press('Tab');
  await read(page, '44.1');
  await ledgerRow(page, 'Eyes worked').click();
  await expect(page.getByTestId('worked-value')).toContainText('36.25 ± 0.05 mm');
  await expect(page.getByText('(28.4 + 44.1) / 2 = 36.25 mm')).toBeVisible();

  await page.getByRole('button', { name: 'Change how' }).click();
  await choose(page, /^.*How$/, 'A sum of your own');
  const sum = page.getByLabel('Sum, mm');
  await sum.fill('eyes_nearest_edges + gap');
  await page.getByRole('button', { name: 'Work it out this way' }).click();
  await expect(page.getByText('Nothing here is called “gap”.')).toBeVisible();
  await expect(page.locator('pre mark')).toHaveText('gap');
  await sum.fill('eyes + 1');
  await page.getByRole('button', { name: 'Work it out this way' }).click();
  await expect(page.getByText('goes round in a circle')).toBeVisible();
  await sum.fill('eyes_nearest_edges / 2 + 0.4');
  await page.getByRole('button', { name: 'Work it out this way' }).click();
  await expect(page.getByTestId('worked-value')).toContainText('14.60');
  // What it is made from cannot go.
  await ledgerRow(page, 'Eyes: nearest').click();
  await page.getByRole('button', { name: 'Remove Eyes: nearest edges' }).click();
  await expect(page.getByText('“Eyes” is made from it')).toBeVisible();
});

test('a photo of the object takes marks, and what is no photo is refused', async ({ page, bench }) => {
  await open(page, bench);
  await addOwn(page, 'Flange');
  await page
    .getByLabel('Photo of the object')
    .setInputFiles({ name: 'note.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no photo at all') });
  await expect(page.getByText('This is not a photo Sagoma reads')).toBeVisible();
  await page
    .getByLabel('Photo of the object')
    .setInputFiles({ name: 'from above.png', mimeType: 'image/png', buffer: PIXELS });
  await expect(page.getByRole('tab', { name: 'from above' })).toHaveAttribute('aria-selected', 'true');
  await page.getByRole('button', { name: 'Mark where it is' }).click();
  const marks = page.getByRole('img', { name: 'Marks on from above' });
  await marks.click({ position: { x: 40, y: 60 } });
  await marks.click({ position: { x: 140, y: 60 } });
  await expect(marks).toContainText('Flange ?');
  await read(page, '52.1');
  await expect(marks).toContainText('Flange 52.10');
  await page.getByLabel('What it is called').fill('Flange, outside');
  await page.getByLabel('What it is called').press('Tab');
  await expect(marks).toContainText('Flange, outside 52.10');
  await page.reload();
  await ledgerRow(page, 'Flange').click();
  await expect(marks).toContainText('Flange, outside 52.10');
  await page.getByRole('button', { name: 'Remove the photo from above' }).click();
  await expect(page.getByRole('tab', { name: 'from above' })).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('tab', { name: 'from above' })).toBeVisible();
});

test('a value ten or 25.4 times the last is questioned, not dropped', async ({ page, bench }) => {
  const id = await open(page, bench);
  await read(page, '31.7');
  await reading(page).fill('317');
  await reading(page).press('Enter');
  await expect(page.getByText('317 is ten times the last one')).toBeVisible();
  await page.getByRole('button', { name: 'It was 31.7' }).click();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('2 readings');
  await reading(page).fill('1.249');
  await reading(page).press('Enter');
  await expect(page.getByText(/divided by 25.4/)).toBeVisible();
  // Enter once more: it is meant so.
  await reading(page).press('Enter');
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('3 readings');
  await expect(page.getByText('times apart: one seems to be')).toBeVisible();
  await page.getByRole('button', { name: 'Strike out 1.249' }).click();
  await page.getByLabel('Or another reason').fill('read in inches');
  await page.getByRole('dialog').getByRole('button', { name: 'Strike it out' }).click();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('2 readings');
  await expect(page.locator('[title*="Struck out: read in inches"]')).toBeVisible();
  // The same from an instrument on the stream.
  await bench.api('POST', '/device/readings', { text: '01A+00317.00' });
  await expect(page.getByText('317.00 is ten times the last one')).toBeVisible();
  await page.getByRole('button', { name: 'Leave it out' }).click();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('2 readings');
  const { document } = await bench.api('GET', `/jobs/${id}`);
  expect(document.dimensions[0].readings).toHaveLength(3);
});

test('turned readings show what is out of round', async ({ page, bench }) => {
  await open(page, bench);
  await choose(page, /How it was held/, 'as first held');
  await read(page, '31.60', '31.85', '31.70');
  await expect(page.getByText('It is out of round by 0.25')).toBeVisible();
  await expect(page.getByText('120°', { exact: true })).toBeVisible();
});

test('a borrowed object has a list that is checked off before it goes', async ({ page, bench }) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/brief`);
  await page.getByRole('checkbox', { name: 'The object is borrowed' }).check({ force: true });
  await page.keyboard.press('g');
  await page.keyboard.press('m');
  await expect(page.getByText('Everything is read: the object may go.')).toBeVisible();
  await page.getByLabel('Something else to look at').fill('A photo of the underside');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Let it go with 1 open' })).toBeVisible();
  await expect(
    page.getByRole('banner').getByRole('button', { name: 'Read what is left before it goes' }),
  ).toBeVisible();
  await page.getByText('A photo of the underside', { exact: true }).click();
  await page.getByRole('button', { name: 'It may go' }).click();
  await expect(page.getByText('with everything read.')).toBeVisible();
  await page.getByRole('button', { name: 'It is back' }).click();
  await expect(page.getByRole('button', { name: 'It may go' })).toBeVisible();
});

test('the sheet leaves as paper, PDF and CSV, and readings come in from a table', async ({ page, bench }) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await page.getByRole('button', { name: 'Readings from a table' }).click();
  await page.getByLabel('CSV file').setInputFiles({
    name: 'readings.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('dimension;reading;unit\nrim;31,71;mm\nknob;5;mm\nrim_height;0.5512;in\n'),
  });
  await expect(page.getByText('2 readings understood, 1 not.')).toBeVisible();
  await expect(page.getByText('Row 3: This job has no dimension “knob”.')).toBeVisible();
  await page.getByRole('button', { name: 'Take in what was understood' }).click();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('4 readings');
  await page.getByRole('button', { name: 'Sheet to print' }).click();
  await expect(page.getByRole('heading', { name: 'Vent-port cap' })).toBeVisible();
  await expect(page.getByRole('row', { name: /^Rim, outside/ })).toContainText('31.70 ± 0.04 mm');
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'PDF' }).click(),
  ]);
  expect(
    readFileSync(await pdf.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Readings as CSV' }).click(),
  ]);
  expect(readFileSync(await csv.path(), 'utf8')).toContain('rim,"Rim, outside","31,71",mm,31.71');
});

test('a standard size comes off the shelf with its tolerance for doubt', async ({ page, bench }) => {
  await open(page, bench);
  await page.getByRole('button', { name: 'From the shelf' }).click();
  await page.getByLabel('Ask by name or by number').fill('22 outside 8 bore 7 wide');
  await page.getByRole('button', { name: 'Use: bearing 608, outside' }).click();
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('22.00');
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('said');
  await expect(page.getByText('Only a label was read.')).toBeVisible();
  // A reading of the seat outranks it; and what was read is recognised.
  await read(page, '22.02');
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('read once');
  await expect(page.getByRole('button', { name: /^bearing 608/ })).toBeVisible();
});

test('the shelf answers by number and by name, and works things out', async ({ page, bench }) => {
  await page.goto(`${bench.url}/shelf`);
  const ask = page.getByLabel('Ask by name or by number');
  const found = page.getByRole('list', { name: 'Found on the shelf' });
  await ask.fill('what standard thing is 5.5 across flats?');
  await expect(found.getByRole('heading').first()).toHaveText('M3 nut');
  await ask.fill('hole for M4');
  await expect(found.getByRole('heading').first()).toHaveText('hole for M4');
  await expect(found).toContainText('ISO 273');
  await ask.fill('a flux capacitor');
  await expect(page.getByRole('heading', { name: 'Nothing of that kind' })).toBeVisible();
  await page.getByRole('tab', { name: 'Work it out' }).click();
  await choose(page, /What do you want to know/, 'Radius from chord and height');
  await page.getByLabel('Chord, mm').fill('8');
  await page.getByLabel('Height, mm').fill('abc');
  await expect(page.getByText('“abc” is not a number')).toBeVisible();
  await page.getByLabel('Height, mm').fill('2');
  await expect(page.getByTestId('calculated')).toContainText('5 ±');
  await page.getByRole('tab', { name: 'ISO fits' }).click();
  await expect(page.getByTestId('clearance')).toHaveText('+0.007 to +0.041 mm');
  await page.getByLabel('Class or fit').fill('Q9');
  await expect(page.getByText('“Q9” is not a tolerance class')).toBeVisible();
  await page.getByRole('tab', { name: 'Stack' }).click();
  await expect(page.getByTestId('stacked')).toHaveText('0.5 mm');
  await page.getByLabel('Size, mm').nth(2).fill('29.9');
  await expect(page.getByText('At worst nothing is left')).toBeVisible();
  await page.getByRole('tab', { name: 'Click' }).click();
  await expect(page.getByTestId('click-strain')).toHaveText('1.07 %');
  await page.getByLabel('Bends by, mm').fill('4');
  await expect(page.getByText('It will break or stay bent.')).toBeVisible();
  await page.getByRole('tab', { name: 'Taper' }).click();
  await page.getByLabel('Half-angle, °').fill('20');
  await expect(page.getByText('It slides back out')).toBeVisible();
  await page.getByRole('tab', { name: 'O-ring groove' }).click();
  await expect(page.getByTestId('groove-depth')).toContainText('mm');
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(v => `${v.id}: ${v.nodes[0]?.html}`)).toEqual([]);
});

test('a zero that is off is taken off what is read; a block tells how far to trust it', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/workshop`);
  await page.getByRole('button', { name: 'Check its zero' }).first().click();
  await page.getByLabel('It reads, mm').fill('9');
  await expect(page.getByText('That cannot be its zero')).toBeVisible();
  await page.getByLabel('It reads, mm').fill('0,02');
  await page.getByRole('button', { name: 'That is its zero' }).click();
  await page.getByRole('button', { name: 'Read a known block' }).first().click();
  await page.getByLabel('The block is, mm').fill('10');
  await page.getByLabel('It reads, mm').fill('10.09');
  await expect(page.getByText('Off by 0.07 mm with its zero taken off')).toBeVisible();
  await page.getByRole('button', { name: 'Keep, and trust it to ± 0.07' }).click();
  // Its repeatability, learned from the readings there are.
  await expect(
    page.getByText(/In your hands it repeats within 0.02\d mm \(sd\), from 3 readings of 1 thing/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Use it' }).first().click();
  await page.getByRole('button', { name: 'Save the workshop' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await ledgerRow(page, 'Rim height').click();
  await expect(page.getByText('its zero of 0.02 mm is taken off')).toBeVisible();
  await read(page, '14.06');
  const { document } = await bench.api('GET', `/jobs/${id}`);
  expect(document.dimensions[1].readings.at(-1)).toMatchObject({ value: 14.06, zero: 0.02 });
  const { workshop } = await bench.api('GET', '/workshop');
  expect(workshop.instruments[0]).toMatchObject({ maxError: 0.07, zero: { offset: 0.02 } });
  expect(workshop.instruments[0].repeatability).toBeLessThan(0.03);
});

test('a caliper on a cable: its lines are readings, and its silence is said', async ({ page, bench }) => {
  // The browser's serial ports, with a caliper on one of them.
  await page.addInitScript(() => {
    let send: ReadableStreamDefaultController<Uint8Array>;
    const port = {
      open: async () => undefined,
      close: async () => undefined,
      readable: new ReadableStream<Uint8Array>({
        start: c => {
          send = c;
        },
      }),
    };
    Object.defineProperty(navigator, 'serial', { value: { requestPort: async () => port } });
    Object.assign(window, {
      caliper: (text: string) => send.enqueue(new TextEncoder().encode(text)),
      unplug: () => send.error(new Error('unplugged')),
    });
  });
  await open(page, bench);
  await page.getByRole('button', { name: 'Caliper on a cable' }).click();
  await expect(page.getByRole('button', { name: 'Disconnect the cable' })).toBeVisible();
  // A line may come in pieces.
  await page.evaluate(() => {
    const w = window as unknown as { caliper(text: string): void };
    w.caliper('+0031');
    w.caliper('.72 mm\r\n');
  });
  await expect(ledgerRow(page, 'Rim, outside')).toContainText('31.72');
  await page.evaluate(() => (window as unknown as { unplug(): void }).unplug());
  await expect(page.getByText('The cable went silent')).toBeVisible();
});

test('measured one-handed on a phone: no key but the number pad', async ({ page, bench }) => {
  await page.setViewportSize({ width: 390, height: 800 });
  await open(page, bench);
  for (const value of ['31.7', '31.72', '31.69']) {
    await reading(page).fill(value);
    await page.getByRole('button', { name: 'Keep it' }).click();
    await expect(reading(page)).toHaveValue('');
  }
  await page.getByRole('button', { name: 'Next: Rim height' }).first().click();
  await expect(page.getByRole('heading', { name: 'Rim height' })).toBeVisible();
  await reading(page).fill('14');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('button', { name: 'All read: say how it should fit' })).toBeVisible();
  // Nothing is wider than the phone.
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(v => `${v.id}: ${v.nodes[0]?.html}`)).toEqual([]);
});

/** A made-up picture: 8 by 6 pixels of one grey, as PNG. */
const PIXELS = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAgAAAAGCAIAAABxZ0isAAAAEUlEQVR42mOY1lOBFTEMpAQAjSBM4cn7SUAAAAAASUVORK5CYII=',
  'base64',
);
