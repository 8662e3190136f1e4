import { defineConfig } from 'vitest/config';

const sources = 'core,contract,cli,demo,kernels,testing';

export default defineConfig({
  test: {
    // Two cores: more workers would only wait for each other.
    maxWorkers: 2,
    // These only end what hangs: a shared machine may give a tenth of its speed.
    testTimeout: 240_000,
    hookTimeout: 240_000,
    projects: [
      {
        extends: true,
        test: {
          name: 'pure',
          include: [`{${sources}}/**/*.test.ts`],
          exclude: ['**/*.kernel.test.ts', 'cli/**', 'demo/**'],
          // Nothing in them leaves a trace: one process serves them all.
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: 'kernel',
          include: [`{${sources}}/**/*.kernel.test.ts`],
          // A kernel is started, and its code made quick, once for each of two processes.
          isolate: false,
          sequence: { groupOrder: 1 },
        },
      },
      {
        extends: true,
        test: {
          name: 'server',
          include: ['server/**/*.test.ts', 'cli/**/*.test.ts', 'demo/**/*.test.ts'],
          globalSetup: ['testing/bundled.mjs'],
          env: { SAGOMA_BUNDLED: 'yes' },
          // Kernel threads are started once for each of two processes.
          isolate: false,
          sequence: { groupOrder: 1 },
        },
      },
      {
        extends: true,
        test: {
          name: 'page',
          include: ['web/**/*.test.{ts,tsx}'],
          exclude: ['**/*.mocked.test.*'],
          setupFiles: ['testing/page-setup.ts'],
          unstubGlobals: true,
          // The page's code is read once for each of two processes.
          isolate: false,
          sequence: { groupOrder: 2 },
        },
      },
      {
        extends: true,
        test: {
          // They put something else in a module's place: each has its own.
          name: 'mocked',
          include: ['web/**/*.mocked.test.{ts,tsx}'],
          setupFiles: ['testing/page-setup.ts'],
          sequence: { groupOrder: 2 },
        },
      },
    ],
  },
});
