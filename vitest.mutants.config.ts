import { defineConfig } from 'vitest/config';

const include = (process.env.MUTANT_TESTS ?? 'tests/core/**/*.test.ts').split(',');
const needsDatabase = include.some((files) => /tests\/(data|server)/.test(files));

/** For `npm run mutants`: the tests of one room, named by the environment. */
export default defineConfig({
  test: {
    include,
    // Set up again after each change that never ends, of which there are many.
    globalSetup: needsDatabase ? ['tests/data/template.ts', 'tests/data/server.ts'] : [],
    isolate: false,
    testTimeout: 30_000,
    hookTimeout: 60_000,
  },
});
