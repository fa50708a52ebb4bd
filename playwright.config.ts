import { defineConfig } from '@playwright/test';

const CHROMIUM_FLAGS = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

export default defineConfig({
  testDir: 'tests/e2e',
  // Each worker has a server and a data directory of its own; the tests of one file share them.
  // A browser waits as much as it works: three fill two cores.
  workers: 3,
  fullyParallel: false,
  timeout: 90_000,
  expect: { timeout: 10_000 },
  // A test that passes only at its second try is counted, and named, as shaky.
  retries: 1,
  forbidOnly: Boolean(process.env.CI),
  // Those that need a browser of their own would come last, one after the other, while the other workers are idle.
  projects: [
    { name: 'devices', testMatch: 'devices.spec.ts' },
    { name: 'one screen', testIgnore: 'devices.spec.ts' },
  ],
  globalSetup: './tests/e2e/globalSetup.ts',
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 20_000,
    // Recording costs a fifth of the time; what fails is recorded when it is tried again.
    trace: 'on-first-retry',
    launchOptions: {
      executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
      args: CHROMIUM_FLAGS,
    },
  },
});
