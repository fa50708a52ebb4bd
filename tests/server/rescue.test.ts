import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { DataFault } from '../../src/data/engine/dataFault';
import { makeBackup } from '../../src/server/backups/backups';
import type { BackupView } from '../../src/server/backups/contract';
import { rescuePage, restoredPage } from '../../src/server/rescue/page';
import { rescueListener } from '../../src/server/rescue/rescue';
import { line } from '../core/samples';
import { shelve } from '../data/memory';
import { moment, TestShelves } from './testShelves';

const fault = new DataFault('missing', 'The database is missing & gone.');
let shelves: TestShelves;
beforeAll(async () => {
  shelves = await TestShelves.begin();
});
afterAll(() => shelves.close());

const servers: Server[] = [];
afterEach(() => {
  for (const server of servers.splice(0)) server.close();
});
/** Asks a listener as a browser does. */
async function asker(listener: RequestListener) {
  const server = createServer(listener).listen(0, '127.0.0.1');
  servers.push(server);
  await new Promise((resolve) => server.once('listening', resolve));
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return (path: string, method = 'GET', headers: Record<string, string> = { origin: base }) =>
    fetch(base + path, { method, headers });
}

describe('in place of a shelf that does not open', () => {
  it('every page says what is wrong, programs are told so too, and other sites get nothing', async () => {
    const restored = vi.fn(async () => {});
    const { listener, good } = await rescueListener(join(shelves.directory, 'none'), fault, restored);
    expect(good).toBeNull();
    const ask = await asker(listener);
    for (const [path, method] of [
      ['/canvas/7/bench', 'GET'],
      ['/restore', 'POST'],
    ] as const) {
      const page = await ask(path, method);
      expect([page.status, page.headers.get('x-frame-options')]).toEqual([503, 'DENY']);
      expect(page.headers.get('content-type')).toContain('text/html');
      expect(page.headers.get('x-content-type-options')).toBe('nosniff');
      const html = await page.text();
      expect(html).toContain('The database is missing &#38; gone.');
      expect(html).toContain('There is no good backup here');
    }
    const data = await ask('/api/canvases');
    expect(data.headers.get('content-type')).toBe('application/problem+json');
    expect(await data.json()).toEqual({
      ...{ type: 'about:blank', title: 'The database', status: 503 },
      detail: 'The database is missing & gone.',
    });
    expect((await ask('/restore', 'POST', { origin: 'http://elsewhere.example' })).status).toBe(403);
    expect(restored).not.toHaveBeenCalled();
  });

  it('the newest good backup is offered, and comes back once, at whatever number of presses', async () => {
    const shelf = await shelves.add('directory');
    for (const title of ['Moss', 'Pear']) await shelve(shelf, [line(1)], null, { title });
    await makeBackup(shelf, 'by hand', moment);
    const directory = shelf.shownDirectory;
    await shelf.close();
    let opened = 0;
    const restored = vi.fn(async () => {
      opened++;
      if (opened === 1) throw new Error('The <disk> is full.');
    });
    const { listener, good } = await rescueListener(directory, fault, restored);
    expect(good).toMatchObject({ fault: null, madeAt: moment.toISOString() });
    const ask = await asker(listener);
    expect(await (await ask('/')).text()).toContain('2 canvases');
    const failed = await ask('/restore', 'POST');
    expect([failed.status, restored.mock.calls.length]).toEqual([503, 1]);
    expect(await failed.text()).toContain('The backup did not come back: The &#60;disk&#62; is full.');
    const both = await Promise.all([ask('/restore', 'POST'), ask('/restore', 'POST')]);
    expect(both.map(({ status }) => status)).toEqual([200, 200]);
    expect(restored).toHaveBeenCalledTimes(2);
    for (const page of both) expect(await page.text()).toContain('2 canvases came back');
  });
});

describe('the page', () => {
  const backup = (name: string, more: Partial<BackupView> = {}): BackupView => ({
    ...{
      name,
      madeAt: '2026-05-01T08:00:00Z',
      why: 'daily' as BackupView['why'],
      bytes: 7,
      contents: null,
      fault: null,
    },
    ...more,
  });
  const state = { sentence: 'Gone.', directory: '/shelf <1>', backups: [], good: null, failed: null };

  it('names the good backup and, apart, the others with their faults', () => {
    const good = backup('good"one');
    const html = rescuePage(
      { ...state, good, backups: [good, backup('bad', { fault: 'It is cut <short>.' })] },
      moment,
      'oculent-theme=evening',
    );
    expect(html).toContain('data-theme="evening"');
    expect(html).toContain('/shelf &#60;1&#62;');
    expect(html).toContain('value="good&#34;one"');
    expect(html.match(/<li>/g)).toHaveLength(1);
    expect(html).toContain('It is cut &#60;short&#62;.');
    expect(html).not.toContain('did not come back');
    expect(rescuePage(state, moment, null)).not.toContain('Other backups');
  });

  it('of what came back counts it, and says what the check found', () => {
    const report = { created: '', back: ['A & B'], hereAlready: [], faults: [], leftOut: 0 } as never;
    expect(restoredPage(report, null)).toContain('1 canvas came back: A &#38; B.');
    expect(restoredPage(report, null)).toContain('All records were checked and are whole.');
    expect(
      restoredPage({ ...(report as object), faults: ['One is lost.', 'Two.'] } as never, null),
    ).toContain('One is lost. Two.');
  });
});
