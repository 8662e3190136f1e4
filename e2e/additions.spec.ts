import type { Page } from '@playwright/test';
import { expect, test } from './bench';

/** The part becomes the maker's own, and is read like a careful colleague would before it is printed. */
const volume = async (page: Page) => {
  const facts = page.getByTestId('solid-facts');
  await expect(facts).toHaveAttribute('data-busy', 'false');
  return Number(await facts.getAttribute('data-volume'));
};
/** Selects are named by what they show, then their label. */
const choose = async (page: Page, button: RegExp, option: string) => {
  await page.getByRole('button', { name: button }).click();
  await page.getByRole('option', { name: option }).click();
};

test('a hole is added, placed, moved in the list, switched off, and says when its face is gone', async ({
  page,
  bench,
}) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Plate', recipe: 'wall-plate' });
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  const before = await volume(page);
  const panel = page.getByLabel('Additions');
  await panel.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('dialog').getByRole('button', { name: /^Hole/ }).click();
  await expect.poll(() => volume(page)).toBeLessThan(before - 10);
  await expect(panel.getByRole('button', { name: /^Hole/ })).toBeVisible();
  // What is edited stays in sight, on a low screen too.
  await page.setViewportSize({ width: 1280, height: 720 });
  await panel.getByLabel('Enters at', { exact: true }).scrollIntoViewIfNeeded();
  await expect(page.getByTestId('solid-facts')).toBeInViewport();

  await panel.getByLabel('Enters at', { exact: true }).fill('upstairs');
  await panel.getByLabel('Enters at', { exact: true }).press('Enter');
  await expect(panel.getByText(/Write where it sits/).first()).toBeVisible();
  await panel.getByLabel('Enters at', { exact: true }).fill('top at 30');
  await panel.getByLabel('Enters at', { exact: true }).press('Enter');
  await panel.getByRole('button', { name: 'Put it on the face at 4 mm' }).click();
  await expect(panel.getByLabel('Enters at', { exact: true })).toHaveValue('top at 4');
  await expect.poll(() => volume(page)).toBeLessThan(before - 10);

  await panel.getByRole('button', { name: 'Copy Hole' }).click();
  await page.getByRole('menuitem', { name: 'another one like it' }).click();
  await expect(panel.locator('code')).toHaveText(['hole1', 'hole2']);
  await expect(panel.getByRole('button', { name: /^Hole 2/ })).toHaveAttribute('aria-expanded', 'true');
  await panel.getByRole('button', { name: 'Remove Hole 2' }).click();
  await panel.getByRole('button', { name: 'Add', exact: true }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Words/ })
    .click();
  const ids = panel.locator('code');
  await expect(ids).toHaveText(['hole1', 'words1']);
  await panel.getByRole('button', { name: 'Move Words up' }).click();
  await expect(ids).toHaveText(['words1', 'hole1']);
  const with2 = await volume(page);
  await panel.getByText('Words is on').or(panel.getByLabel('Words is on')).first().click({ force: true });
  await expect(panel.getByText('switched off')).toBeVisible();
  await expect.poll(() => volume(page)).toBeGreaterThan(with2 + 5);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(panel.getByText('switched off')).toBeHidden();
  await panel.getByRole('button', { name: 'Remove Hole' }).click();
  await expect(ids).toHaveText(['words1']);
  await page.reload();
  await expect(page.getByLabel('Additions').locator('code')).toHaveText(['words1']);
});

test('a tab that must fit gets a dimension, a mate and a number of its own', async ({ page, bench }) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Plate', recipe: 'wall-plate' });
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await volume(page);
  const panel = page.getByLabel('Additions');
  await panel.getByRole('button', { name: 'Add', exact: true }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Shape on a face/ })
    .click();
  await choose(page, /Its size “width” must fit/, 'a size of the object, to be measured');
  await expect(page).toHaveURL(/\/measure/);
  await page.locator('input[data-reading]').fill('9.4');
  await page.locator('input[data-reading]').press('Enter');
  const ledger = page.getByLabel('Ledger', { exact: true });
  await expect(ledger.getByText('Seat of “Shape on a face”')).toBeVisible();
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await page
    .getByLabel('Additions')
    .getByRole('button', { name: /^Shape on a face/ })
    .click();
  await expect(page.getByLabel('Additions').getByLabel('Width', { exact: true })).toHaveValue(
    'shape1_seat.model',
  );
});

test('what it must bear: the weak section is told with what helps, and a hurt asks for a proof test', async ({
  page,
  bench,
}) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Plate', recipe: 'wall-plate' });
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await volume(page);
  const panel = page.getByLabel('What it must bear');
  await panel.getByRole('button', { name: 'Add a load' }).click();
  await choose(page, /The part is held at$/, 'the left side');
  await choose(page, /It acts in the middle of$/, 'the right side');
  await expect(panel.getByText(/bears .* times/).first()).toBeVisible();
  await panel.getByLabel('Number, N').fill('2000');
  await panel.getByLabel('Number, N').press('Enter');
  await expect(panel.getByText(/What helps most/)).toBeVisible();
  await panel.getByLabel('Number, N').fill('a lot');
  await expect(panel.getByText(/Type something like 300 N, 30 kg/)).toBeVisible();
  await panel.getByLabel('Number, N').fill('30 kg');
  await panel.getByLabel('Number, N').press('Enter');
  await expect(panel.getByLabel('Number, N')).toHaveValue('294.2');
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  await bench.api('POST', `/jobs/${id}/edits`, {
    revision,
    edit: { kind: 'brief', brief: { ifItBreaks: 'injury' } },
  });
  await page.reload();
  await expect(page.getByText(/load the printed part with 4 times the load/)).toBeVisible();
});

test('a neighbour in the way is told, and one on the way in', async ({ page, bench }) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Plate', recipe: 'wall-plate' });
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await volume(page);
  const panel = page.getByLabel('Where it goes');
  await panel.getByRole('button', { name: 'Add a neighbour' }).click();
  const right = panel.getByLabel('Middle, to the right, mm');
  await right.fill('45');
  await right.press('Enter');
  await expect(panel.getByText(/is where the part is/)).toBeVisible();
  await right.fill('70');
  await right.press('Enter');
  await expect(panel.getByText(/is where the part is/)).toBeHidden();
  await choose(page, /The part is brought on/, 'from the right');
  await expect(panel.getByText(/On its way the part hits/)).toBeVisible();
});

test('a neighbour from a file: read, turned, told where it is in the way, and cut out', async ({
  page,
  bench,
}) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Plate', recipe: 'wall-plate' });
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  const before = await volume(page);
  const panel = page.getByLabel('Where it goes');
  await panel.getByRole('button', { name: 'Add a neighbour' }).click();
  await choose(page, /Form$/, 'a body from a file');
  await expect(panel.getByText(/has no body from a file yet/)).toBeVisible();
  const file = panel.locator('input[type=file]');
  await file.setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no body') });
  await expect(panel.getByText(/choose STEP, STL, OBJ or 3MF/)).toBeVisible();
  await file.setInputFiles({ name: 'brick.obj', mimeType: 'text/plain', buffer: Buffer.from(BRICK) });
  await expect(panel.getByText('0.4 × 0.3 × 0.2 mm')).toBeVisible();
  // It was drawn in inches.
  await expect(panel.getByText(/Files do not say their unit/)).toBeVisible();
  await choose(page, /Its file is in$/, 'inches');
  await expect(panel.getByText('10.2 × 7.6 × 5.1 mm')).toBeVisible();
  const right = panel.getByLabel('Middle, to the right, mm');
  await right.fill('0');
  await right.press('Enter');
  await expect(panel.getByText(/is where the part is/)).toBeVisible();

  const additions = page.getByLabel('Additions');
  await additions.getByRole('button', { name: 'Add', exact: true }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Keep clear/ })
    .click();
  await choose(page, /The neighbour is$/, 'a body from a file');
  await expect(additions.getByText(/Choose the body/).first()).toBeVisible();
  await additions.getByRole('button', { name: /Body$/ }).click();
  await page.getByRole('option', { name: 'brick' }).click();
  await expect.poll(() => volume(page)).toBeLessThan(before - 200);
  await expect(panel.getByText(/is where the part is/)).toBeHidden();
});

/** 0.4 × 0.3 × 0.2 of something. */
const BRICK = [
  ...[0, 1, 2, 3, 4, 5, 6, 7].map(i => `v ${i & 1 ? 0.4 : 0} ${i & 2 ? 0.3 : 0} ${i & 4 ? 0.2 : 0}`),
  'f 1 3 4 2',
  'f 5 6 8 7',
  'f 1 2 6 5',
  'f 3 7 8 4',
  'f 1 5 7 3',
  'f 2 4 8 6',
].join('\n');

test('a thread on a round end: by its name, and a name nobody knows is told', async ({ page, bench }) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Bush', recipe: 'bush' });
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await volume(page);
  const panel = page.getByLabel('Additions');
  await panel.getByRole('button', { name: 'Add', exact: true }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Thread/ })
    .click();
  const name = panel.getByLabel('Standard thread (empty: as measured)');
  await name.fill('M16.7');
  await name.press('Enter');
  await expect(panel.getByText(/knows no thread “M16.7”/)).toBeVisible();
  await name.fill('M16');
  await name.press('Enter');
  await expect(panel.getByText(/knows no thread/)).toBeHidden();
  const diameter = panel.getByRole('textbox', { name: 'Diameter, over ridges or grooves' });
  await diameter.fill('16');
  await diameter.press('Enter');
  await expect(panel.getByText(/STEP file has the part without it/)).toBeVisible();
});

test('two parts: added, gone between, joined on Fit, seen together, and removed', async ({ page, bench }) => {
  const { id } = await bench.api('POST', '/jobs', { title: 'Bushes', recipe: 'bush' });
  await bench.read(id, [
    ['shaft', 8],
    ['seat', 14],
  ]);
  await page.goto(`${bench.url}/jobs/${id}/shape`);
  await volume(page);
  await page.getByRole('button', { name: 'Add a part' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Its name').fill('Outer bush');
  await dialog.getByText('It goes on the same object').click();
  await dialog.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByRole('radio', { name: 'Outer bush' })).toHaveAttribute('aria-checked', 'true');
  // The outer one is larger than the inner.
  const { revision } = await bench.api('GET', `/jobs/${id}`);
  await bench.api('POST', `/jobs/${id}/edits`, {
    revision,
    edit: {
      kind: 'parameter',
      partId: 'part-2',
      name: 'outsideDiameter',
      expression: { text: '24', unit: 'mm' },
    },
  });
  await page.goto(`${bench.url}/jobs/${id}/fit?part=part-2`);
  await choose(page, /It goes with/, 'Bush, spacer or angled wedge: bush in its seat');
  const ledger = page.getByLabel('Ledger', { exact: true });
  await expect(ledger.getByText('as it will print')).toBeVisible();
  await page.getByRole('link', { name: 'Shape' }).click();
  await expect(page.getByRole('radio', { name: 'Outer bush' })).toHaveAttribute('aria-checked', 'true');
  await page.getByText('Both parts, together and apart').click();
  await expect(page.getByTestId('together')).toBeVisible();
  await page.getByRole('radio', { name: 'exploded' }).click();
  await expect(page.getByTestId('together')).toHaveAttribute('data-view', 'exploded');
  await page.getByRole('button', { name: 'Remove Outer bush' }).click();
  await expect(page.getByRole('radio', { name: 'Outer bush' })).toBeHidden();
});
