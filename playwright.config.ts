import { existsSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

const browser =
  process.env.SAGOMA_CHROMIUM ?? ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync);

export default defineConfig({
  testDir: 'e2e',
  testMatch: '**/*.spec.ts',
  // These only end what hangs: a shared machine may give a tenth of its speed for minutes.
  timeout: 300_000,
  expect: { timeout: 60_000 },
  // Two cores: a browser with a software renderer and a server each want one.
  workers: 2,
  forbidOnly: Boolean(process.env.CI),
  // A crowded machine may starve the software renderer; a second failure is ours. The list shows it as flaky.
  retries: process.env.CI ? 1 : 0,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: browser,
      args: [
        '--no-sandbox',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        // Pages drawn without the graphics stand-in: that one draws the solids only.
        '--disable-gpu-rasterization',
        '--disable-gpu-compositing',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // Kernels live for seconds in a test: making their code quicker costs more than it saves.
        '--js-flags=--liftoff-only',
      ],
    },
  },
});
