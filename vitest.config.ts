/// <reference types="vitest/config" />
import { getViteConfig } from 'astro/config';

export default getViteConfig({
  test: {
    include: ['tests/{core,data,server,demo,islands,ui}/**/*.test.{ts,tsx}'],
    globalSetup: ['tests/data/template.ts', 'tests/data/server.ts'],
    testTimeout: 30_000,
    hookTimeout: 60_000,
  },
});
