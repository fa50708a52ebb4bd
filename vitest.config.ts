import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';
import { ByEnvironment } from './tests/byEnvironment';

export default defineConfig({
  test: {
    include: ['tests/{core,data,server,demo,islands,ui}/**/*.test.{ts,tsx}'],
    globalSetup: ['tests/data/template.ts', 'tests/data/server.ts', 'tests/server/threads.ts'],
    setupFiles: ['tests/equalArrays.ts', 'tests/cleanPage.ts'],
    // A module is loaded once a worker and not once a file, which takes as long as many a test; what a file puts in the
    // place of a global or a method goes with it.
    isolate: false,
    sequence: { sequencer: ByEnvironment },
    unstubGlobals: true,
    unstubEnvs: true,
    restoreMocks: true,
    // Databases are opened by the hundred and live for seconds: a program that is optimised later is ready sooner.
    execArgv: ['--wasm-tiering-budget=200000000', '--interrupt-budget=300000'],
    // Some tests wait for a clock or a disk, and another one works meanwhile.
    maxWorkers: availableParallelism() + 1,
    // Whoever stood still may be tried once more, and is named for it; whoever answered wrongly is not.
    retry: { count: 1, condition: /^Test timed out/ },
    // Seconds where a machine has time for it; one that others use as well took 30 for what takes 5.
    testTimeout: 120_000,
    hookTimeout: 120_000,
  },
});
