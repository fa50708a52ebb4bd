import { execFileSync } from 'node:child_process';
import { mkdir, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type BrowserContext, chromium, expect, type Page } from '@playwright/test';
import { type RunningServer, throwAway } from './server';

/** Another device of the house: a browser of its own, with a profile of its own, over HTTPS on 127.0.0.2. */
export interface OtherDevice {
  context: BrowserContext;
  page: Page;
  close(): Promise<void>;
}

/** Where the home network of a server listens. */
export function homeUrl({ port }: RunningServer): string {
  return `https://127.0.0.2:${port + 1}`;
}

/** Switches the home network of a server on. */
export async function switchOn(server: RunningServer): Promise<void> {
  const answer = await fetch(`${server.url}/api/devices/network`, {
    method: 'PATCH',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ on: true }),
  });
  expect(answer.status).toBe(200);
}

/** Opens a code at the machine itself. */
export async function newCode(server: RunningServer): Promise<string> {
  const answer = await fetch(`${server.url}/api/devices/codes`, { method: 'POST' });
  return ((await answer.json()) as { code: string }).code;
}

/**
 * A browser that trusts the authority of a server, as a device does once its owner has installed it: Chromium keeps what
 * it trusts in a database of NSS below its home directory.
 * @param more options and flags of the browser
 */
export async function trustingBrowser(
  server: RunningServer,
  {
    viewport = { width: 820, height: 1180 },
    args = [],
  }: { viewport?: { width: number; height: number }; args?: string[] } = {},
): Promise<OtherDevice> {
  const home = await mkdtemp(join(tmpdir(), 'oculent-device-'));
  const store = join(home, '.pki', 'nssdb');
  await mkdir(store, { recursive: true });
  const certutil = (...rest: string[]) => execFileSync('certutil', ['-d', `sql:${store}`, ...rest]);
  certutil('-N', '--empty-password');
  certutil('-A', '-t', 'C,,', '-n', 'oculent', '-i', join(server.data, 'network', 'authority.crt'));
  const context = await chromium.launchPersistentContext(join(home, 'profile'), {
    executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
    args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-background-networking', ...args],
    env: { ...process.env, HOME: home } as Record<string, string>,
    viewport,
    hasTouch: true,
  });
  return {
    context,
    page: context.pages()[0] ?? (await context.newPage()),
    close: async () => {
      await context.close();
      await rm(home, { recursive: true, force: true });
    },
  };
}

/** A browser that trusts the authority and has joined. */
export async function joinedDevice(
  server: RunningServer,
  name: string,
  more: Parameters<typeof trustingBrowser>[1] = {},
): Promise<OtherDevice> {
  const device = await trustingBrowser(server, more);
  await device.page.goto(`${homeUrl(server)}/join#${await newCode(server)}`);
  await device.page.getByLabel('What this device is called').fill(name);
  await device.page.getByRole('button', { name: 'Join', exact: true }).click();
  await device.page.waitForURL(`${homeUrl(server)}/`);
  return device;
}

export async function closeAll(server: RunningServer, devices: readonly OtherDevice[]): Promise<void> {
  for (const device of devices) await device.close();
  await throwAway(server);
}
