import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const include = (process.env.MUTANT_TESTS ?? 'tests/core/**/*.test.ts').split(',');
const needsDatabase = include.some((files) => /tests\/(data|server)/.test(files));

/** For `npm run mutants`: the tests of one room, named by the environment. */
export default defineConfig({
  test: {
    include,
    // What tests the threads themselves has none here.
    exclude: ['tests/server/pool.test.ts', 'tests/server/whatIsLoaded.test.ts'],
    alias: [
      { find: /^.*\/jobs\/pool$/, replacement: fileURLToPath(new URL('./workHere.ts', import.meta.url)) },
    ],
    // Set up again after each change that never ends, of which there are many.
    globalSetup: needsDatabase
      ? ['tests/data/template.ts', 'tests/data/server.ts', 'tests/server/threads.ts']
      : [],
    setupFiles: ['tests/equalArrays.ts', 'tests/cleanPage.ts'],
    isolate: false,
    unstubGlobals: true,
    unstubEnvs: true,
    // Code that can be changed at every place takes ten times as long.
    testTimeout: 300_000,
    hookTimeout: 300_000,
  },
});
