import { randomUUID } from 'node:crypto';
import type { APIContext } from 'astro';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { addDevice } from '../../src/data/devices';
import type { Database } from '../../src/data/engine/database';
import { openRevision } from '../../src/data/live';
import type { Caller } from '../../src/server/devices/caller';
import {
  canvasEndpoint,
  content,
  endpoint,
  isUuid,
  json,
  originOf,
  screenOf,
  unchanged,
} from '../../src/server/http/endpoint';
import { once } from '../../src/server/http/once';
import { conflict } from '../../src/server/http/problem';
import { currentRequest } from '../../src/server/jobs/currentRequest';
import { liveHub } from '../../src/server/live/hub';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';

const holder = globalThis as typeof globalThis & { oculentDatabase?: Promise<Database> | undefined };
let database: Database;
let before: Promise<Database> | undefined;
let [canvas, other] = [null as unknown as Canvas, null as unknown as Canvas];
beforeAll(async () => {
  database = await memoryDatabase();
  canvas = await shelve(database, [line(1)], chartOfRows('11'));
  other = await shelve(database, [line(1)], chartOfRows('11'));
});
afterAll(() => database.close());
// The one of the process, as it would be.
beforeEach(() => {
  before = holder.oculentDatabase;
  holder.oculentDatabase = Promise.resolve(database);
});
afterEach(() => {
  holder.oculentDatabase = before;
  vi.restoreAllMocks();
});

const context = (
  method: string,
  path: string,
  { id = canvas.id, screen, caller = null }: { id?: string; screen?: string; caller?: Caller | null } = {},
) =>
  ({
    request: new Request(`http://here.example${path}`, {
      method,
      headers: screen === undefined ? {} : { 'x-oculent-screen': screen },
    }),
    url: new URL(`http://here.example${path}`),
    params: { id },
    locals: { caller },
  }) as unknown as APIContext;
/** A device that has joined. */
async function joined(name: string) {
  const device = { id: randomUUID(), name, joinedBy: 'code' as const };
  const [address, tokenHash] = ['127.0.0.7', randomUUID().replaceAll('-', '').repeat(2)];
  await addDevice(database, { ...device, address, tokenHash, at: new Date().toISOString() });
  return { address, device };
}
const revision = (of = canvas) => openRevision(database, of.id);
const BAGS = '/api/canvases/x/bags';

describe('an endpoint', () => {
  it('answers what was done, and a refusal in words; what nobody foresaw is logged', async () => {
    const answer = (handle: () => Promise<Response>) => endpoint(handle)(context('GET', '/'));
    expect(await (await answer(async () => json({ a: 1 }, 201))).json()).toEqual({ a: 1 });
    const refused = await answer(async () => {
      throw conflict('Already there.');
    });
    expect([refused.status, (await refused.json()).detail]).toEqual([409, 'Already there.']);
    const logged = vi.spyOn(console, 'error').mockImplementation(() => {});
    const broken = await answer(async () => {
      throw new Error('inside');
    });
    expect(broken.status).toBe(500);
    expect(await broken.text()).not.toContain('inside');
    expect(logged).toHaveBeenCalledOnce();
  });

  it('below a canvas knows it by its id, and no other', async () => {
    const title = canvasEndpoint(async (_, { id }) => json(id));
    expect(await (await title(context('GET', BAGS))).json()).toBe(canvas.id);
    expect(await (await title(context('GET', BAGS, { id: other.id.toUpperCase() }))).json()).toBe(other.id);
    for (const id of [randomUUID(), 'x', `${canvas.id}0`, '']) {
      expect((await title(context('GET', BAGS, { id }))).status, id).toBe(404);
    }
  });

  it('that changes a canvas says so once, whatever it does inside, and only where something was changed', async () => {
    const done = canvasEndpoint(async () => json(null));
    const named = canvasEndpoint(async (queries, { id: canvasId }) => {
      const request = { id: randomUUID(), what: 'test', canvasId, content: {} };
      await once(queries, request, async () => {});
      return json(null);
    });
    const send = (handle: typeof done, method: string, path: string) =>
      currentRequest.run({ signal: new AbortController().signal, counted: false, waitedMs: 0 }, () =>
        handle(context(method, path)),
      );
    const [start, elsewhere] = [(await revision())!, await revision(other)];
    for (const [handle, method, path, bumps] of [
      [done, 'POST', BAGS, 1],
      [done, 'DELETE', BAGS, 1],
      [done, 'GET', BAGS, 0],
      [done, 'HEAD', BAGS, 0],
      // Marks count by themselves; the others only ask.
      [done, 'POST', '/api/canvases/x/marks', 0],
      [done, 'POST', '/api/canvases/x/change-report', 0],
      [named, 'POST', BAGS, 1],
      [canvasEndpoint(async () => json(null, 422)), 'POST', BAGS, 0],
      [
        canvasEndpoint(async () => {
          throw conflict('No.');
        }),
        'POST',
        BAGS,
        0,
      ],
    ] as const) {
      const was = (await revision())!;
      await send(handle, method, path);
      expect([method, path, (await revision())! - was]).toEqual([method, path, bumps]);
    }
    expect((await revision())! - start).toBe(3);
    expect(await revision(other)).toBe(elsewhere);
  });

  it('tells other screens who changed something', async () => {
    const hub = await liveHub(database);
    const told: unknown[] = [];
    const reader = {
      device: null,
      send: (event: string, data: object) => void (event === 'changed' && told.push(data)),
      close: () => {},
    };
    const stop = await hub.read(canvas.id, reader, null);
    const screen = randomUUID();
    const caller = await joined('Tablet');
    await canvasEndpoint(async () => json(null))(context('PUT', BAGS, { screen, caller }));
    await vi.waitFor(() => expect(told).toHaveLength(1), { timeout: 10_000 });
    expect(told[0]).toMatchObject({ by: { screen, device: 'Tablet' } });
    stop!();
  });

  it('notes whose screen it is at its first write, and at no reading', async () => {
    const caller = await joined('Phone');
    const [screen, nameless] = [randomUUID(), randomUUID()];
    const claimed = async (of: string) =>
      (await database.query<{ device_id: string }>('select device_id from screen where id = $1', [of])).map(
        ({ device_id }) => device_id,
      );
    const done = endpoint(async () => json(null));
    await done(context('GET', '/', { screen, caller }));
    await done(context('POST', '/', { screen: nameless }));
    await done(context('POST', '/', { screen: nameless, caller: { address: '127.0.0.8', device: null } }));
    await done(context('POST', '/', { caller }));
    expect([await claimed(screen), await claimed(nameless)]).toEqual([[], []]);
    await done(context('POST', '/', { screen: screen.toUpperCase(), caller }));
    await done(context('POST', '/', { screen, caller }));
    expect(await claimed(screen)).toEqual([caller.device.id]);
  });
});

describe('what a request and an answer say', () => {
  it('is the screen, by an id alone', () => {
    const screen = randomUUID();
    expect(screenOf(context('GET', '/', { screen: screen.toUpperCase() }).request)).toBe(screen);
    for (const none of [undefined, '', 'x', `${screen}1`]) {
      expect(screenOf(context('GET', '/', none === undefined ? {} : { screen: none }).request)).toBeNull();
    }
    expect([isUuid(undefined), isUuid(`x${screen}`), isUuid(screen)]).toEqual([false, false, true]);
  });

  it('is the address with its port, with TLS over the home network', () => {
    const asked = new Request('http://here.example/', { headers: { host: '127.0.0.2:4471' } });
    expect([originOf(asked, false), originOf(asked, true)]).toEqual([
      'http://127.0.0.2:4471',
      'https://127.0.0.2:4471',
    ]);
    expect(originOf(new Request('http://here.example/'), false)).toBe('http://localhost');
  });

  it('is its state, so that who has it already is told no more (RFC 9110, 13.1.2)', async () => {
    expect(json({}, 200, '7-12').headers.get('etag')).toBe('"7-12"');
    expect(json({}).headers.get('etag')).toBeNull();
    const asking = (tag: string) =>
      unchanged(new Request('http://here.example/', { headers: { 'if-none-match': tag } }), '7-12');
    const short = asking('"7-12"')!;
    expect([short.status, short.headers.get('etag'), await short.text()]).toEqual([304, '"7-12"', '']);
    for (const tag of ['"7-13"', '7-12', '']) expect(asking(tag)).toBeNull();
  });

  it('is the name of a file, in every script (RFC 6266, RFC 8187)', async () => {
    const bytes = new Uint8Array([1, 2, 3]);
    const saved = content(bytes, 'application/pdf', 'Möwe & 漢字.pdf');
    expect(new Uint8Array(await saved.arrayBuffer())).toEqual(bytes);
    expect(saved.headers.get('content-disposition')).toBe(
      `attachment; filename="M-we-.pdf"; filename*=UTF-8''M%C3%B6we%20%26%20%E6%BC%A2%E5%AD%97.pdf`,
    );
    const quoted = content(bytes, 'application/pdf', "Dawn's (best)*.pdf").headers.get(
      'content-disposition',
    )!;
    // attr-char of RFC 8187, 3.2.1, and what is escaped.
    expect(quoted).toMatch(/filename\*=UTF-8''(?:[\w!#$&+.^`|~-]|%[0-9A-F]{2})+$/);
    expect(decodeURIComponent(quoted.split("''")[1]!)).toBe("Dawn's (best)*.pdf");
    const plain = content('a;b', 'text/csv');
    expect([plain.headers.get('content-disposition'), await plain.text()]).toEqual([null, 'a;b']);
  });
});
