import { readStl } from '../core/files/reading-back';
import type { TriangleMesh } from '../core/shape/mesh/mesh';
import { gcodeOf } from '../testing/gcode';
import { scaled } from '../testing/solids';
import { toolpathsOf } from '../testing/toolpaths';
import { expect, test } from './bench';

const SETTINGS = { layer: 0.2, firstLayer: 0.2, lineWidth: 0.42, walls: 2, top: 3, bottom: 3, infill: 0.15 };

/** As a slicing program would write it. */
const sliced = async (mesh: TriangleMesh) =>
  Buffer.from(gcodeOf(await toolpathsOf(mesh, SETTINGS), SETTINGS.lineWidth, {}, { turn: 30 }));

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
  const ways = page.getByRole('group', { name: /^Orientation/ });
  await expect(ways.first()).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('group', { name: 'Orientation: as drawn' })).toContainText('Lies like this');
  await page.getByRole('button', { name: 'Lay it on its front' }).click();
  const front = page.getByRole('group', { name: 'Orientation: on its front' });
  await expect(front).toContainText('Lies like this');
  await expect(front).toContainText('no supports');
  await expect(front).toContainText(/\d min|\d h/);
  await expect(front).toContainText(/[\d.]+ g/);
  await page.reload();
  await expect(page.getByRole('group', { name: 'Orientation: on its front' })).toContainText(
    'Lies like this',
    {
      timeout: 60_000,
    },
  );
  // There is always a way back, by its own button or by undo.
  await page.getByRole('group', { name: 'Orientation: as drawn' }).getByRole('button').click();
  await expect(page.getByRole('group', { name: 'Orientation: as drawn' })).toContainText('Lies like this');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('group', { name: 'Orientation: on its front' })).toContainText(
    'Lies like this',
  );
});

test('Print: a finer quality takes longer, and hours that were noted make the next times surer', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  await page.goto(`${bench.url}/jobs/${id}/print`);
  const drawn = page.getByRole('group', { name: 'Orientation: as drawn' });
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

test('Print: a sliced file is read back: the right one is ticked, a scaled one is stopped, and its figures are taken', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  const made = await bench.api('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
  const [version] = made.history.versions;
  const file = await fetch(`${bench.url}/api/jobs/${id}/versions/${version.id}/files/stl`);
  const mesh = readStl(new Uint8Array(await file.arrayBuffer()));
  await page.goto(`${bench.url}/jobs/${id}/print`);
  await page.getByRole('button', { name: 'Choose the file' }).waitFor();
  const choose = async (name: string, buffer: Buffer) =>
    page.locator('input[type=file]').first().setInputFiles({ name, mimeType: 'text/x.gcode', buffer });
  await choose('cap.gcode', await sliced(mesh));
  await expect(page.getByText('It is version 1')).toBeVisible({ timeout: 90_000 });
  await expect(page.getByText('Lies as planned')).toBeVisible();
  await expect(page.getByText(/Scale (1\.000|0\.999)/)).toBeVisible();
  // The surface as the file prints it, and its layers.
  await expect(
    page.getByText(/Skirt over rim: 3\d\.\d\d in the file, 3\d\.\d\d drawn; \d passes beside it/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Its layers' }).first().click();
  await expect(page.getByRole('img', { name: /Layer at .* about “Skirt over rim”/ })).toBeVisible();
  await page.getByRole('button', { name: 'Take its figures' }).click();
  await expect(page.getByLabel('Grams')).not.toHaveValue('');
  await expect(page.getByRole('textbox', { name: 'Note', exact: true })).toHaveValue(/layers of 0.2/);

  await choose('small.gcode', await sliced(scaled(mesh, 0.98)));
  await expect(page.getByText(/scaled by −2 %/)).toBeVisible({ timeout: 90_000 });
  await choose('zip.gcode', Buffer.from([0x50, 0x4b, 3, 4, 20, 0]));
  await expect(page.getByText('zip.gcode: This is a zip')).toBeVisible({ timeout: 30_000 });
});

test('Print: a slice is cut, printed first and tried; right, it leads back to the whole part', async ({
  page,
  bench,
}) => {
  const id = await bench.measuredJob();
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  await bench.api('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
  await page.goto(`${bench.url}/jobs/${id}/print`);
  await page.getByLabel('Note on this version').fill('for the junior double');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Test one surface first: cut slices' }).click();
  await expect(page.getByText(/Skirt over rim: \d+ min and [\d.]+ g, instead of/)).toBeVisible({
    timeout: 60_000,
  });
  await page.reload();
  await expect(page.getByLabel('Note on this version')).toHaveValue('for the junior double');
  await page.getByRole('button', { name: 'Test one surface first: cut slices' }).click();
  await page.getByRole('button', { name: 'The slice is printed' }).click();
  await expect(page.getByRole('heading', { name: 'How does the slice of version 1 sit?' })).toBeVisible();
  await page.keyboard.press('3');
  await page
    .getByRole('button', { name: /Record/ })
    .first()
    .click();
  await expect(page.getByRole('banner')).toContainText('Its slice sat right.');
  await page.getByRole('banner').getByRole('button', { name: 'Print version 1' }).click();
  await expect(page.getByRole('heading', { name: 'Before hours of printing' })).toBeVisible();
});

test('Print: what hangs over air is named, shown on the solid, and mended with one press', async ({
  page,
  bench,
}) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Wing knob', recipe: 'socket-knob' });
  await bench.read(id, [['flats', 12.9]]);
  await page.goto(`${bench.url}/jobs/${id}/print`);
  const panel = page.locator('section', { has: page.getByRole('heading', { name: 'What hangs over air' }) });
  await expect(panel).toContainText(/Ceiling over 1\d(\.\d)? mm/, { timeout: 60_000 });
  await panel.getByRole('button', { name: 'Show it on the solid' }).click();
  await expect(panel.locator('canvas')).toBeVisible();
  await panel.getByRole('button', { name: /^Chamfer of .* under it/ }).click();
  await expect(panel).toContainText('Needs no supports', { timeout: 60_000 });
  // What was put on the part for it is an addition like any other, and goes by undo.
  await page.keyboard.press('Control+z');
  await expect(panel).toContainText(/Ceiling over 1\d/, { timeout: 60_000 });
});

test('Printers: what waits is laid on one bed, and recorded as printed', async ({ page, bench }) => {
  for (const [title, shaft] of [
    ['Bush for the seat wheel', 8],
    ['Bush for the rigger', 10],
  ] as const) {
    const { id } = await bench.api('POST', '/jobs', { title, recipe: 'bush' });
    const revision = await bench.read(id, [
      ['shaft', shaft],
      ['seat', shaft + 6],
      ['gap', 12],
    ]);
    await bench.api('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
  }
  await page.goto(bench.url);
  await page.getByRole('link', { name: '2 prints wait for a printer' }).click();
  await expect(page.getByText(/min, [\d.]+ g each/)).toHaveCount(2, { timeout: 60_000 });
  await page.getByText('Bush for the seat wheel').click();
  const pieces = page
    .getByRole('listitem')
    .filter({ has: page.getByText('Bush for the seat wheel') })
    .getByLabel('Pieces');
  await pieces.fill('3');
  await page.getByText('Bush for the rigger').click();
  const plate = page.getByRole('region', { name: 'Plate' });
  await expect(plate).toContainText('4 pieces', { timeout: 60_000 });
  await expect(plate.getByRole('img', { name: /4 pieces on a bed of/ })).toBeVisible();
  const file = page.waitForEvent('download');
  await plate.getByRole('link', { name: '3MF' }).click();
  expect((await file).suggestedFilename()).toBe('sagoma-plate-bed-1.3mf');
  await pieces.fill('0');
  await expect(page.getByText(/A whole number, 1 to/)).toBeVisible();
  await pieces.fill('2');
  await expect(plate).toContainText('3 pieces', { timeout: 60_000 });
  await plate.getByRole('button', { name: 'They are on the printer now' }).click();
  await expect(page.getByText(/on the printer since \d\d:\d\d, ready about/)).toHaveCount(2, {
    timeout: 60_000,
  });
  await page.getByRole('link', { name: 'how it came out' }).first().click();
  await page.getByRole('button', { name: 'Not printed after all' }).click();
  await expect(page.getByRole('button', { name: 'Not printed after all' })).toBeHidden();
  await expect(page.getByRole('button', { name: 'It is on the printer now' })).toBeVisible();
  await page.getByTitle('Back to the rack').click();
  await expect(page.getByText('Say how version 1 came out')).toBeVisible();
  await page.getByRole('link', { name: 'One print waits for a printer' }).click();
  await page.locator('label', { has: page.getByRole('checkbox') }).click();
  await plate.getByRole('button', { name: 'It is printed' }).click();
  await page.getByRole('link', { name: 'how it came out' }).click();
  await page.getByRole('button', { name: 'It is printed' }).click();
  await page.waitForURL(/\/try/);
  await page.getByTitle('Back to the rack').click();
  await expect(page.getByText('Try version 1')).toHaveCount(2);
});

test('Print: a part too large for the bed is cut in two with one press', async ({ page, bench }) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Long cradle', recipe: 'cradle' });
  await bench.read(id, [
    ['slab_width', 330],
    ['slab_thickness', 9],
    ['slab_height', 120],
  ]);
  await page.goto(`${bench.url}/jobs/${id}/print`);
  await expect(page.getByText(/too little however it is turned about/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Split it where it suffers least' }).click();
  await expect(page.getByText(/prints in \d pieces/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/too little however it is turned about/)).toHaveCount(0, { timeout: 60_000 });
});
