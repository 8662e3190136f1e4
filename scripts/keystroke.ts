// Median time from a keystroke to the new solid on screen, warm, and of the rack's first view.
// `npx tsx scripts/keystroke.ts [rounds]`, with the page built. A benchmark, not a test.
import { chromium } from '@playwright/test';
import { KillableBench } from '../e2e/bench';
import config from '../playwright.config';

const rounds = Number(process.argv[2] ?? 25);
const bench = new KillableBench();
await bench.start();
const id = await bench.measuredJob();
const browser = await chromium.launch(config.use!.launchOptions);
const median = (list: number[]) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)]!;

const loads: number[] = [];
for (let i = 0; i < 7; i++) {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  const start = performance.now();
  await page.goto(bench.url);
  await page.getByRole('link', { name: /Vent-port cap/ }).waitFor();
  loads.push(performance.now() - start);
  await page.close();
}

const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
await page.goto(`${bench.url}/jobs/${id}/shape`);
await page.locator('[data-testid="solid-facts"][data-busy="false"]').waitFor();
for (const tab of [true, false]) {
  const box = page.getByRole('checkbox', { name: 'Pull tab' });
  if ((await box.isChecked()) !== tab) await page.locator('label', { hasText: 'Pull tab' }).click();
  await page.waitForTimeout(2500);
  const field = page.getByRole('textbox', { name: 'End thickness' });
  const times: number[] = [];
  for (let i = 0; i < rounds; i++) {
    await field.fill(`2.${(i % 8) + 1}`);
    await page.waitForTimeout(1200);
    // From the key event to the first frame after the facts of the new solid are in the page.
    const time = page.evaluate(
      () =>
        new Promise<number>(done => {
          const facts = document.querySelector('[data-testid="solid-facts"]') as HTMLElement;
          const before = facts.dataset.volume;
          let start = 0;
          addEventListener('keydown', () => (start = performance.now()), { once: true, capture: true });
          const watch = new MutationObserver(() => {
            if (facts.dataset.volume === before) return;
            watch.disconnect();
            requestAnimationFrame(() => done(performance.now() - start));
          });
          watch.observe(facts, { attributes: true });
        }),
    );
    await field.press('End');
    await field.press('5');
    times.push(await time);
  }
  console.log(
    `keystroke to solid ${tab ? 'with' : 'without'} tab: median ${median(times).toFixed(0)} ms, slowest ${Math.max(...times).toFixed(0)} ms, ${rounds} rounds`,
  );
}
console.log(
  `rack's first view, empty cache, warm server: median ${median(loads).toFixed(0)} ms of ${loads.length}`,
);
await browser.close();
await bench.end();
