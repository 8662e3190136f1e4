import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { jpegOf } from '../core/bench/jpeg';
import { practicePhoto } from '../core/bench/practice-photo';
import { expect, type TestBench, test } from './bench';

/** A plate with a rounded end and a hole of 4.2, on a sheet that was printed too small. */
const SIZES = { seat_width: 40, seat_height: 30 };
const taken = practicePhoto('profile-part', { sizes: SIZES, seed: 7 }, 0, [1350, 1800])!;
const file = join(tmpdir(), 'sagoma-e2e-photo.jpg');
writeFileSync(file, jpegOf(taken.picture));
const noSheet = join(tmpdir(), 'sagoma-e2e-no-sheet.jpg');
writeFileSync(
  noSheet,
  jpegOf({
    width: 640,
    height: 480,
    data: Uint8Array.from({ length: 4 * 640 * 480 }, (_, i) => (i >> 6) % 200),
  }),
);

async function openPhotos(page: Page, bench: TestBench): Promise<string> {
  const { id } = await bench.api('POST', '/jobs', {
    title: 'Strip',
    recipe: 'profile-part',
    object: 'strip',
  });
  await page.goto(`${bench.url}/jobs/${id}/measure`);
  await page.getByRole('tab', { name: 'Photos to trace' }).click();
  return id;
}

const type = async (page: Page, label: string, value: number) => {
  await page.getByLabel(label).fill(String(value));
  await page.getByLabel(label).blur();
};

test('a photo becomes an outline in millimetres: bars read, a hole taken as a reading, tidied, used', async ({
  page,
  bench,
}) => {
  const id = await openPhotos(page, bench);
  const sheet = await page.request.get(`${bench.url}/api/reference-sheet.pdf?paper=letter&middle=dark`);
  expect(sheet.headers()['content-type']).toBe('application/pdf');
  await page.getByLabel('Photo to trace').setInputFiles(file);
  await expect(page.getByRole('heading', { name: 'Tidy it' })).toBeVisible({ timeout: 60_000 });
  // What is not known yet comes first, and says what it costs.
  await expect(page.getByText('Nobody read the bars of this sheet')).toBeVisible();
  await type(page, 'The bar across, as read, mm', taken.bars.across);
  await type(page, 'The bar along, as read, mm', taken.bars.along);
  // Thicker than three millimetres, it needs the focal length, and says so.
  await type(page, 'How thick the object is, mm', 3.2);
  await expect(
    page.getByText('The file does not say its focal length, and the object is thicker'),
  ).toBeVisible({
    timeout: 60_000,
  });
  await page.getByText('More', { exact: true }).click();
  await type(page, 'Focal length in terms of 35 mm film, mm', taken.f35);
  await type(page, 'How thick the object is, mm', taken.thickness);
  const hole = page.getByRole('button', { name: /^Hole 1/ });
  const size = async () => Number(/Ø ([\d.]+)/.exec((await hole.textContent()) ?? '')?.[1]);
  // Nearly as deep as wide, on a small photo: within its doubt.
  await expect.poll(async () => Math.abs((await size()) - 4.2), { timeout: 60_000 }).toBeLessThan(0.3);
  expect((await new AxeBuilder({ page }).include('main').analyze()).violations).toEqual([]);

  await hole.click();
  await page.getByRole('button', { name: /^Side 1/ }).click();
  await expect(page.getByText('from the side to the middle')).toBeVisible();
  await page.getByRole('button', { name: /^Side 1/ }).click();
  await page.getByRole('button', { name: 'Take as a reading' }).click();
  await page.getByRole('button', { name: /It is a reading of/ }).click();
  await page.getByRole('option', { name: 'a new dimension of your own' }).click();
  await page.getByLabel('What it is called').fill('Hole of the rivet');
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByText('Hole of the rivet has a reading off the photo.')).toBeVisible();
  const { document } = await bench.api('GET', `/jobs/${id}`);
  const [reading] = document.dimensions.find(
    (d: { label: string }) => d.label === 'Hole of the rivet',
  ).readings;
  expect(reading).toMatchObject({ source: 'photo', traced: { of: expect.stringContaining('Hole 1') } });
  expect(reading.u).toBeGreaterThan(0.02);

  await page.getByRole('checkbox', { name: /sides parallel or at right angles/ }).check({ force: true });
  await expect
    .poll(async () => (await bench.api('GET', `/jobs/${id}`)).document.traces[0].tidy.length)
    .toBe(1);
  await page.getByRole('button', { name: 'Use it as the outline' }).click();
  await expect(page.getByText('What was traced is the outline now.')).toBeVisible();
  // What the page shows may still be on its way.
  const used = async () => (await bench.api('GET', `/jobs/${id}`)).document.parts[0].parameters;
  await expect.poll(async () => (await used()).outline?.text).toMatch(/^[-\d., ;via]+$/);
  expect((await used()).holes.text).toMatch(/, [34]\.\d+$/);

  // The part that was made of it lies on it, smaller all round by what its fit wants; moved by hand it does not.
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  const sizes = [
    ['seat_width', 40.6],
    ['seat_height', 30],
    ['seat_depth', 3],
  ] as const;
  await bench.read(id, sizes, revision);
  await page.goto(`${bench.url}/jobs/${id}/measure?by=photos`);
  await page.getByRole('button', { name: 'Lay it over' }).click();
  await expect(page.getByText(/The part, from its (top|underside), is drawn over it/)).toBeVisible({
    timeout: 60_000,
  });
  const mean = async () =>
    Number(/average \+(\d\.\d+) ± /.exec((await page.getByText(/All round it is/).textContent()) ?? '')?.[1]);
  expect(await mean()).toBeLessThan(0.3);
  await page.getByLabel('Right by, mm').fill('much');
  await page.getByRole('button', { name: 'Move the part' }).click();
  await expect(page.getByLabel('Right by, mm')).toHaveAttribute('aria-invalid', 'true');
  await page.getByLabel('Right by, mm').fill('1,2');
  await page.getByRole('button', { name: 'Move the part' }).click();
  await expect(page.getByRole('button', { name: /stands out by|falls short by/ }).first()).toBeVisible();
  await page
    .getByRole('button', { name: /stands out by|falls short by/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Take it off' }).click();
  await expect(page.getByText(/All round it is/)).toBeHidden();
});

test('lines and arcs are changed by hand: cut, put together, rounded, and taken back', async ({
  page,
  bench,
}) => {
  const id = await openPhotos(page, bench);
  await page.getByLabel('Photo to trace').setInputFiles(file);
  const sides = page.getByRole('button', { name: /^Side \d/ });
  await expect(sides.first()).toBeVisible({ timeout: 60_000 });
  const found = await sides.count();
  // The whole photo would be too small to press on one side of the object.
  await sides.first().click();
  await page.getByRole('button', { name: 'Cut it in two…' }).click();
  await expect(page.getByRole('button', { name: 'Where to cut' })).toHaveAttribute('aria-pressed', 'true');
  const lit = page.locator('g[data-lit] polyline').last();
  const box = (await lit.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  await expect(sides).toHaveCount(found + 1);
  await expect(page.getByText('One change to its lines and arcs')).toBeVisible();
  // It stays over a reload, and goes step by step.
  await page.reload();
  await expect(sides).toHaveCount(found + 1, { timeout: 60_000 });
  await page.getByRole('button', { name: 'Take back the last' }).click();
  await expect(sides).toHaveCount(found);
  const traces = async () => (await bench.api('GET', `/jobs/${id}`)).document.traces;
  await expect.poll(async () => (await traces())[0].parting).toEqual([]);
  // What stands higher than the rest is said at its own side.
  const size = async () => (await page.locator('p', { hasText: /round hole/ }).textContent()) ?? '';
  const before = await size();
  await type(page, 'How thick the object is, mm', 3);
  await sides.first().click();
  await type(page, 'Its edge stands above the sheet by, mm', 30);
  await expect.poll(async () => (await traces())[0].parting?.[0]).toMatchObject({ as: 'height', height: 30 });
  await expect.poll(size).not.toBe(before);
});

test('strokes say what is not the object, and are taken back', async ({ page, bench }) => {
  const id = await openPhotos(page, bench);
  await page.getByLabel('Photo to trace').setInputFiles(file);
  const rows = page.getByRole('button', { name: /^(Side|Rounding) \d/ });
  await expect(rows.first()).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Draw what is not' }).click();
  const picture = page.getByRole('img', { name: /^What was traced on/ });
  const box = (await picture.boundingBox())!;
  const at = (x: number, y: number) => [box.x + x * box.width, box.y + y * box.height] as const;
  await page.mouse.move(...at(0.3, 0.35));
  await page.mouse.down();
  await page.mouse.move(...at(0.5, 0.4), { steps: 5 });
  await page.mouse.move(...at(0.75, 0.35), { steps: 5 });
  await page.mouse.up();
  await expect(page.getByText('One stroke drawn over it')).toBeVisible();
  // What is not the object, and shows no edge, is told as what could not be seen.
  const told = page.getByText(/deeper than wide, or dark to the bottom/);
  await expect(told).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Take back the last' }).click();
  await expect(told).toBeHidden({ timeout: 60_000 });
  expect((await bench.api('GET', `/jobs/${id}`)).document.traces[0].strokes).toEqual([]);
});

test('a photo without the sheet says so, and may be taken out again', async ({ page, bench }) => {
  await openPhotos(page, bench);
  await expect(page.getByText('No photo to trace yet')).toBeVisible();
  await page.getByLabel('Photo to trace').setInputFiles(noSheet);
  await expect(page.getByText('The reference sheet does not show')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Remove it from what is traced' }).click();
  await expect(page.getByText('No photo to trace yet')).toBeVisible();
  await page.getByLabel('Photo to trace').setInputFiles({
    name: 'broken.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]),
  });
  await expect(page.getByRole('alert')).toBeVisible();
  await expect(page.getByText('No photo to trace yet')).toBeVisible();
});

test('without a camera: the practice camera takes the hidden object, and calipers say how large the photo is', async ({
  page,
  bench,
}) => {
  await bench.switchOnPractice();
  const id = await openPhotos(page, bench);
  await page.getByRole('button', { name: 'Practice camera' }).click();
  await expect(page.getByRole('button', { name: /^Hole 1/ })).toBeVisible({ timeout: 90_000 });
  // The widest side is what the seat’s width is read on.
  const { document } = await bench.api('GET', `/jobs/${id}`);
  expect(document.traces[0].by.bars.across).toBeLessThan(142);
  await page.getByRole('button', { name: /^Side/ }).last().click();
  await page.getByRole('button', { name: 'Take as a reading' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByText(/has a reading off the photo/)).toBeVisible();
});

test('without the sheet: a length on it, pressed on at both ends, says how large it is', async ({
  page,
  bench,
}) => {
  const id = await openPhotos(page, bench);
  await page.getByLabel('Photo to trace').setInputFiles(file);
  await expect(page.getByRole('heading', { name: 'Tidy it' })).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: /By$/ }).click();
  await page.getByRole('option', { name: 'one or two lengths on it' }).click();
  await expect(page.getByText(/A length that is known must reach over/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/One length alone holds only for a photo taken square on/)).toBeVisible();
  const picture = page.getByRole('img', { name: /^What was traced on/ });
  const press = async (x: number, y: number) => {
    const box = (await picture.boundingBox())!;
    await page.mouse.click(box.x + x * box.width, box.y + y * box.height);
  };
  await press(0.4, 0.3);
  await press(0.6, 0.3);
  await expect(page.getByRole('heading', { name: 'Tidy it' })).toBeVisible({ timeout: 120_000 });
  const { by } = (await bench.api('GET', `/jobs/${id}`)).document.traces[0];
  expect(by.lines[0].to[0] - by.lines[0].from[0]).toBeCloseTo(0.2 * 1350, -1);
  // As large as the length says: twice as long, twice as large.
  const wide = async () =>
    Number(/^([\d.]+) ×/.exec((await page.getByText(/^[\d.]+ × [\d.]+ mm/).textContent()) ?? '')?.[1]);
  const before = await wide();
  await type(page, 'The length, as read, mm', 100);
  await expect.poll(wide, { timeout: 60_000 }).toBeGreaterThan(1.9 * before);
  await page.getByRole('button', { name: 'Add one across it' }).click();
  await expect(page.getByText(/nothing shows how far it leans/)).toBeVisible();
});
