import { defineConfig } from 'vitest/config';

/** For `npm run mutants`: the tests of one room, named by the environment. */
export default defineConfig({
  test: {
    include: (process.env.MUTANT_TESTS ?? 'tests/core/**/*.test.ts').split(','),
    globalSetup: ['tests/data/template.ts', 'tests/data/server.ts'],
    testTimeout: 30_000,
    hookTimeout: 60_000,
  },
});
