import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,contract,server,cli,demo,web}/**/*.test.ts'],
    testTimeout: 60_000,
    hookTimeout: 60_000,
    // Two cores: more forks would only wait for each other.
    maxWorkers: 2,
  },
});
