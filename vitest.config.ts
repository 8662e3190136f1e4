import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,contract,server,cli,demo,web,kernels,testing}/**/*.test.{ts,tsx}'],
    // These only end what hangs: a shared machine may give a tenth of its speed.
    testTimeout: 240_000,
    hookTimeout: 240_000,
    // Two cores: more forks would only wait for each other.
    maxWorkers: 2,
  },
});
