import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { readStl } from '../core/files/reading-back';
import { closureOf } from '../core/shape/mesh/mesh';
import { requireRecipe } from '../core/shape/recipes';
import { expect, read, solidVolume, test } from './bench';

/** A maker's whole way with one recipe after the other: what one screen says, the next one must not take back. */
const WAYS: { recipe: string; add: RegExp; spoil?: { label: string; text: string } }[] = [
  { recipe: 'bush', add: /^Hole/ },
  { recipe: 'wall-plate', add: /^Words/ },
  { recipe: 'section-cap', add: /^Words/ },
  { recipe: 'socket-knob', add: /^Round or chamfer/, spoil: { label: 'Grip, across', text: '14' } },
  { recipe: 'stepped-sleeve', add: /^Words/ },
  {
    recipe: 'tool-block',
    add: /^Shape on a face/,
    spoil: { label: 'Apart, centre to centre (first size)', text: '5' },
  },
  { recipe: 'plate-adapter', add: /^Hole/ },
  { recipe: 'cradle', add: /^Words/ },
];

const readings = async (
  id: string,
  api: (method: string, path: string) => Promise<{ document: Document }>,
) => {
  const { document } = await api('GET', `/jobs/${id}`);
  return Object.fromEntries(
    document.dimensions.filter(d => d.readings.length > 0).map(d => [d.id, d.readings.map(r => r.value)]),
  );
};
type Document = { dimensions: { id: string; readings: { value: number }[] }[] };

/** Types what a caliper shows, dimension after dimension, as the page asks for them. */
async function measure(page: Page, sizes: Readonly<Record<string, number>>, labels: Record<string, string>) {
  const typed: Record<string, number[]> = {};
  for (let i = 0; i < 12; i++) {
    const label = (await page.getByRole('heading', { level: 1 }).textContent())!;
    const key = labels[label]!;
    if (typed[key]) break;
    const critical = await page.getByText('and the fit depends on it: three readings').isVisible();
    const by = critical ? [0, 0.02, -0.02] : [0];
    typed[key] = by.map(b => Number((sizes[key]! + b).toFixed(2)));
    await read(page, ...typed[key]!.map(String));
    // What was read stays on the screen until the maker moves on.
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(label);
    const next = page.getByRole('button', { name: /^Next: / }).first();
    if (await page.getByRole('button', { name: 'All read: say how it should fit' }).isVisible()) break;
    if (!(await next.isVisible())) break;
    await next.click();
    await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(label);
  }
  return typed;
}

for (const { recipe: id, add, spoil } of WAYS)
  test(`${id}: measured, shaped, printed, tried, in service`, async ({ page, bench }) => {
    const recipe = requireRecipe(id);
    const labels = Object.fromEntries(recipe.guide.map(g => [g.label, g.key]));
    const { id: job } = await bench.api('POST', '/jobs', { title: `Mend with ${id}`, recipe: id });
    await page.goto(`${bench.url}/jobs/${job}/measure`);
    const typed = await measure(page, recipe.demo.sizes, labels);
    // Each reading is where it was typed; the page shows one before the server has it.
    const kept = () => readings(job, (method, path) => bench.api(method, path));
    await expect.poll(kept).toEqual(typed);

    await page.getByRole('link', { name: /^Shape/ }).click();
    if (spoil) {
      // A number that contradicts another is refused; its remedy says what it sets, mends it and leaves the readings.
      await page.getByLabel(spoil.label, { exact: true }).fill(spoil.text);
      const remedy = page.getByRole('button', { name: `Make “${spoil.label}”` });
      await remedy.click();
      await expect(remedy).toBeHidden();
      await expect.poll(kept).toEqual(typed);
    }
    const plain = await solidVolume(page);
    const panel = page.getByLabel('Additions');
    await panel.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByRole('dialog').getByRole('button', { name: add }).click();
    await expect.poll(() => solidVolume(page)).not.toBe(plain);
    const drawn = await page
      .getByRole('complementary', { name: 'Ledger' })
      .locator('[data-mate] .number')
      .allTextContents();

    // Nothing that was made like this is stopped.
    await page.getByRole('link', { name: /^Print/ }).click();
    await expect(page.getByText('Checking the finished solid…')).toBeHidden();
    await expect(page.getByRole('alert')).toHaveCount(0);
    await page.getByRole('main').getByRole('button', { name: 'Make version 1' }).click();
    await expect(page.getByRole('heading', { name: /^Version 1 / })).toBeVisible();
    // The version has the numbers that the ledger had.
    const { history } = await bench.api('GET', `/jobs/${job}`);
    const models = history.versions[0].mates.map((m: { model: number }) => m.model.toFixed(2));
    expect(models.toSorted()).toEqual(drawn.toSorted());
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'STL', exact: true }).click(),
    ]);
    const mesh = readStl(new Uint8Array(readFileSync((await download.path())!)));
    expect(closureOf(mesh)).toEqual({ openEdges: 0, bodies: 1 });
    await page.getByLabel('Hours').fill('1');
    await page.getByRole('button', { name: 'It is printed' }).click();

    await expect(page.getByRole('heading', { name: 'How does version 1 sit?' })).toBeVisible();
    for (const right of await page.getByRole('radio', { name: 'right', exact: true }).all())
      await right.click();
    await page.getByRole('button', { name: 'Record the try' }).click();
    await expect(page.getByText('Every surface sits right')).toBeVisible();
    // What sits right keeps its number.
    await expect
      .poll(() =>
        page.getByRole('complementary', { name: 'Ledger' }).locator('[data-mate] .number').allTextContents(),
      )
      .toEqual(drawn);
    await page.getByRole('main').getByRole('button', { name: 'Put it in service' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  });
