/// <reference types="vitest/config" />
import { availableParallelism } from 'node:os';
import { getViteConfig } from 'astro/config';

export default getViteConfig({
  test: {
    include: ['tests/{core,data,server,demo,islands,ui}/**/*.test.{ts,tsx}'],
    globalSetup: ['tests/data/template.ts', 'tests/data/server.ts'],
    // Vitest leaves one core to itself, which on two halves the speed.
    maxWorkers: Math.max(2, availableParallelism() - 1),
    testTimeout: 30_000,
    hookTimeout: 60_000,
  },
});
