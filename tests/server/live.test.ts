import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { addSitting, endSitting } from '../../src/data/bench';
import { addDevice, claimScreen } from '../../src/data/devices';
import type { Database } from '../../src/data/engine/database';
import { channelOfSchema } from '../../src/data/live';
import { putOwnTips } from '../../src/data/placing';
import { enterMark, startSitting } from '../../src/server/bench/writes';
import { enterBag, recordTrash } from '../../src/server/checkin/writes';
import { liveHub, type Reader, readStamp, stampText } from '../../src/server/live/hub';
import { eventStream } from '../../src/server/live/stream';
import { progressView } from '../../src/server/progress/view';
import { timeModelView } from '../../src/server/sections/timeModel';
import { correctStash, putIntoStash } from '../../src/server/stash/writes';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';
import { bagRequest } from './bagRequest';

let database: Database;
let [first, second] = [null as unknown as Canvas, null as unknown as Canvas];
beforeAll(async () => {
  database = await memoryDatabase();
  const legend = [line(1), line(2)];
  first = await shelve(database, legend, chartOfRows('1111111111', '2222222222'));
  second = await shelve(database, legend, chartOfRows('1111111111', '2222222222'));
});
afterAll(() => database.close());

const mark = (canvas: Canvas, start: number, screen: string | null = null, kind: 'lay' | 'lift' = 'lay') =>
  enterMark(
    database,
    canvas,
    { id: randomUUID(), kind, runs: [start, 1], sittingId: null, undoes: null, redoes: null },
    screen,
  );

interface Told {
  event: string;
  data: Record<string, unknown>;
  stamp: string | null;
}

/** Follows a canvas. */
async function follow(canvas: Canvas, after: string | null = null, device: Reader['device'] = null) {
  const hub = await liveHub(database);
  const told: Told[] = [];
  let closed = false;
  const stop = await hub.read(
    canvas.id,
    {
      device,
      send: (event, data, stamp) => told.push({ event, data: data as Told['data'], stamp }),
      close: () => {
        closed = true;
      },
    },
    readStamp(after),
  );
  const events = (name: string) => told.filter(({ event }) => event === name);
  return { told, events, stop: stop!, isClosed: () => closed };
}
const PATIENCE = { timeout: 10_000 };
/** Longer than anything takes to be told on a quick machine: for what must not come. */
const settle = () => new Promise((resolve) => setTimeout(resolve, 250));

describe('what happens to a canvas', () => {
  it('is told mark by mark in the order of the ledger, and of no other canvas', async () => {
    const reader = await follow(first);
    expect(reader.told.map(({ event }) => event)).toEqual(['here']);
    const made = await Promise.all([0, 1, 2, 3].map((cell) => mark(first, cell)));
    await mark(second, 5);
    await mark(first, 1, null, 'lift');
    await vi.waitFor(() => expect(reader.events('mark')).toHaveLength(5), PATIENCE);
    const marks = reader.events('mark');
    expect(marks.map(({ data }) => data.kind)).toEqual(['lay', 'lay', 'lay', 'lay', 'lift']);
    const positions = marks.map(({ data }) => Number(data.position));
    expect(positions).toEqual([...positions].sort((a, b) => a - b));
    // Each names the one before it, so that a gap is noticed.
    expect(marks.slice(1).map(({ data }) => data.after)).toEqual(positions.slice(0, -1));
    expect(new Set(marks.slice(0, 4).map(({ data }) => data.id))).toEqual(new Set(made.map(({ id }) => id)));
    expect(made.map(({ position }) => position).sort((a, b) => a! - b!)).toEqual(positions.slice(0, 4));
    reader.stop();
    await mark(first, 7);
    await settle();
    expect(reader.events('mark')).toHaveLength(5);
  });

  it('is told again after a gap, from where a reader was', async () => {
    const before = await follow(second);
    const { stamp } = before.told[0]!;
    before.stop();
    await mark(second, 10);
    await mark(second, 11);
    await enterBag(database, second, bagRequest({ line: 1 }));
    const after = await follow(second, stamp);
    expect(after.told.map(({ event }) => event)).toEqual(['mark', 'mark', 'changed', 'here']);
    expect(after.events('mark')[0]!.data).toMatchObject({ after: readStamp(stamp)!.position, runs: [10, 1] });
    after.stop();
    const same = await follow(second, after.told.at(-1)!.stamp);
    expect(same.told.map(({ event }) => event)).toEqual(['here']);
    same.stop();
    // A stamp from before a backup was restored lies ahead of the ledger.
    const ahead = await follow(second, '1-99999999');
    expect(ahead.told.map(({ event }) => event)).toContain('too-much');
    ahead.stop();
  });

  it('says which part changed, each once, and by whom', async () => {
    const hub = await liveHub(database);
    const reader = await follow(first);
    const written = hub.writing(first.id, { screen: 'one', device: 'Tablet' });
    await enterBag(database, first, bagRequest({ line: 1 }));
    written();
    await vi.waitFor(() => expect(reader.events('changed')).toHaveLength(1), PATIENCE);
    expect(reader.events('changed')[0]!.data).toEqual({
      parts: ['bags'],
      by: { screen: 'one', device: 'Tablet' },
    });
    // Two write at once: nobody can say which of them it was.
    const both = [
      hub.writing(first.id, { screen: 'one', device: 'Tablet' }),
      hub.writing(first.id, { screen: 'two', device: null }),
    ];
    await recordTrash(database, first, {
      id: randomUUID(),
      handled: 50,
      thrown: 2,
      replaces: null,
      removed: false,
    });
    for (const end of both) end();
    await startSitting(database, first, randomUUID());
    const rest = () => reader.events('changed').slice(1);
    await vi.waitFor(
      () => expect(rest().flatMap(({ data }) => data.parts)).toEqual(['trash', 'sittings']),
      PATIENCE,
    );
    expect(rest()[0]!.data.by).toBeNull();
    reader.stop();
  });

  it('is read anew where there is too much to tell', async () => {
    const reader = await follow(first);
    const { stamp } = reader.told[0]!;
    reader.stop();
    // More marks than are told one by one, as many a day away brings.
    await database.query(
      `insert into mark (id, canvas_id, happened_at, kind, cells, drills)
       select gen_random_uuid(), $1, now(), 'lay', '\\x0000000001000000'::bytea, 1 from generate_series(1, 1001)`,
      [first.id],
    );
    const after = await follow(first, stamp);
    expect(after.told.map(({ event }) => event)).toEqual(['too-much', 'here']);
    const hub = await liveHub(database);
    const changes = await hub.changes(first.id, readStamp(stamp)!);
    expect(changes).toMatchObject({ tooMuch: true, marks: [] });
    expect(changes!.stamp).toBe(after.events('here')[0]!.stamp);
    after.stop();
  });

  it('is told to a reader that comes as the last one goes', async () => {
    const canvas = await shelve(database, [line(1)], chartOfRows('1111'));
    await mark(canvas, 0);
    for (let turns = 0; turns < 12; turns++) {
      const going = await follow(canvas);
      const coming = follow(canvas, '1-0');
      // Its connection ends at some moment while the other is told what it missed.
      for (let turn = 0; turn < turns; turn++) await Promise.resolve();
      going.stop();
      const here = await coming;
      const missed = here.events('mark').length;
      await mark(canvas, 1, null, turns % 2 ? 'lift' : 'lay');
      await vi.waitFor(() => expect(here.events('mark')).toHaveLength(missed + 1));
      here.stop();
    }
  });

  it('ends with the canvas', async () => {
    const gone = await shelve(database, [line(1)], chartOfRows('11'));
    const reader = await follow(gone);
    const stays = await follow(second);
    await database.query('update canvas set deleted_at = now() where id = $1', [gone.id]);
    await vi.waitFor(() => expect(reader.isClosed()).toBe(true));
    // Who else reads is told a moment after somebody came: to those who are still there.
    await vi.waitFor(() => expect(stays.events('present')).not.toEqual([]));
    expect(reader.told.at(-1)!.event).toBe('gone');
    expect(stays.isClosed()).toBe(false);
    stays.stop();
    const hub = await liveHub(database);
    expect(await hub.changes(gone.id, { revision: 0, position: 0 })).toBeNull();
    // It comes back, and is read anew before the one who read before has let go.
    await database.query('update canvas set deleted_at = null where id = $1', [gone.id]);
    const anew = await follow(gone);
    reader.stop();
    await mark(gone, 0);
    await vi.waitFor(() => expect(anew.events('mark')).toHaveLength(1), PATIENCE);
    anew.stop();
  });
});

it('the shelf is told of its stash and of tips, and not of what happens on a canvas', async () => {
  const hub = await liveHub(database);
  let told = 0;
  const send = (event: string) => void (event === 'changed' && told++);
  const stop = hub.readShelf({ device: null, send, close: () => {} })!;
  const item = {
    id: randomUUID(),
    code: '401',
    name: 'Sky',
    hex: null,
    finish: 'plain',
    shape: 'square',
  } as const;
  const reader = await follow(first);
  let [cell, kind] = [10, 'lay' as 'lay' | 'lift'];
  /** Whether something that is done is told. What the database tells keeps its order: a mark after it is told after it. */
  const tells = async (act: () => Promise<unknown>) => {
    const [before, marks] = [told, reader.events('mark').length];
    await act();
    await mark(first, cell, null, kind);
    // Over and over the same squares, so that each mark changes one.
    if (++cell === 20) [cell, kind] = [10, kind === 'lay' ? 'lift' : 'lay'];
    await vi.waitFor(() => expect(reader.events('mark')).toHaveLength(marks + 1), PATIENCE);
    return told > before;
  };
  // What the tests before did may be told a moment later.
  await tells(async () => {});
  expect(await tells(async () => {})).toBe(false);
  expect(await tells(() => putIntoStash(database, { ...item, drills: 40 }))).toBe(true);
  const renamed = { ...item, name: 'Sea', drills: 40 };
  expect(await tells(() => correctStash(database, { id: randomUUID(), item: renamed }))).toBe(true);
  expect(await tells(() => putOwnTips(database, [{ size: 4, shape: 'both', pen: '', worn: false }]))).toBe(
    true,
  );
  stop();
  expect(await tells(() => putOwnTips(database, []))).toBe(false);
  reader.stop();
});

describe('who else is there', () => {
  it('is told by name, each device once, and no longer after it left', async () => {
    const tablet = { id: randomUUID(), name: 'Tablet' };
    const desk = await follow(second);
    const one = await follow(second, null, tablet);
    const two = await follow(second, null, tablet);
    const present = (reader: typeof desk) => reader.events('present').at(-1)?.data;
    await vi.waitFor(() => expect(present(desk)).toEqual({ devices: ['Tablet'] }), PATIENCE);
    await vi.waitFor(() => expect(present(one)).toEqual({ devices: ['Desk'] }), PATIENCE);
    const other = await follow(first);
    await vi.waitFor(() => expect(present(other)).toEqual({ devices: [] }), PATIENCE);
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    one.stop();
    two.stop();
    await vi.advanceTimersByTimeAsync(1000);
    // It may come back at once.
    expect(desk.events('present').at(-1)!.data).toEqual({ devices: ['Tablet'] });
    await vi.advanceTimersByTimeAsync(3000);
    vi.useRealTimers();
    await vi.waitFor(() => expect(desk.events('present').at(-1)!.data).toEqual({ devices: [] }));
    desk.stop();
    other.stop();
  });

  it('is sent away when it is signed out', async () => {
    const [tablet, phone] = [
      { id: randomUUID(), name: 'Tablet' },
      { id: randomUUID(), name: 'Phone' },
    ];
    const [desk, one, two] = [
      await follow(first),
      await follow(first, null, tablet),
      await follow(second, null, phone),
    ];
    const hub = await liveHub(database);
    await hub.dropDevice(tablet.id);
    expect([desk.isClosed(), one.isClosed(), two.isClosed()]).toEqual([false, true, false]);
    await hub.dropDevice(null);
    expect([desk.isClosed(), two.isClosed()]).toEqual([false, true]);
    for (const each of [desk, one, two]) each.stop();
  });

  it('holds a few streams for each canvas at most', async () => {
    const tablet = { id: randomUUID(), name: 'Tablet' };
    const all = [];
    for (let i = 0; i < 10; i++) all.push(await follow(first, null, tablet));
    expect(all[0]!.isClosed()).toBe(true);
    expect(all.at(-1)!.isClosed()).toBe(false);
    for (const each of all) each.stop();
  });
});

describe('the stream', () => {
  it('is written as the HTML standard wants it, and ends with its reader', async () => {
    let send: Reader['send'] = () => {};
    const stop = vi.fn();
    const response = (await eventStream(null, (reader) => {
      send = reader.send;
      reader.send('here', {}, '1-2');
      return stop;
    }))!;
    send('mark', { text: 'two\nlines' }, null);
    const body = response.body!.getReader();
    let text = '';
    while (!text.includes('lines')) text += new TextDecoder().decode((await body.read()).value);
    expect(text).toBe(
      'retry: 1000\n\nid: 1-2\nevent: here\ndata: {}\n\nevent: mark\ndata: {"text":"two\\nlines"}\n\n',
    );
    expect(response.headers.get('content-type')).toBe('text/event-stream');
    await body.cancel();
    expect(stop).toHaveBeenCalledOnce();
    send('mark', {}, null);
  });

  it('sends a reader away that does not take what it is told', async () => {
    const stop = vi.fn();
    const response = (await eventStream(null, (reader) => {
      for (let i = 0; i < 30; i++) reader.send('mark', { text: 'x'.repeat(100_000) }, null);
      return stop;
    }))!;
    expect(stop).toHaveBeenCalled();
    // What it did not take is not lost: it comes back and says how far it came.
    expect((await response.text()).length).toBeLessThan(2_300_000);
  });
});

it('a stamp says how far a reader came, and nothing else does', () => {
  expect(readStamp('12-345')).toEqual({ revision: 12, position: 345 });
  expect(stampText({ revision: 12, position: 345 })).toBe('12-345');
  for (const text of [null, '', '12', '12-', '-5', '1-2-3', 'a-b', '12345678901-1'])
    expect(readStamp(text)).toBeNull();
});

it('days and sittings are of all, or of one device', async () => {
  const canvas = await shelve(database, [line(1), line(2)], chartOfRows('1111111111', '2222222222'));
  const other = await shelve(database, [line(1)], chartOfRows('1111'));
  const [desk, tab] = [randomUUID(), randomUUID()];
  const tablet = randomUUID();
  const at = new Date().toISOString();
  const view = (maker: string | null = null, of = canvas) =>
    progressView(database, of, 'UTC', at.slice(0, 10), maker);
  await mark(canvas, 0, desk);
  expect(await view()).toMatchObject({ makers: [], laidToday: 1 });
  await addDevice(database, {
    id: tablet,
    name: 'Tablet',
    joinedBy: 'code',
    tokenHash: 'x',
    address: '',
    at,
  });
  await claimScreen(database, tab, tablet);
  // Another device cannot take a screen over.
  await claimScreen(database, tab, tablet);
  for (const cell of [1, 2, 3]) await mark(canvas, cell, tab);
  await mark(canvas, 3, tab, 'lift');
  await mark(other, 0, tab);
  await startSitting(database, canvas, randomUUID(), tab);
  await startSitting(database, canvas, randomUUID(), desk);
  const all = await view();
  expect(all.makers).toEqual([
    { id: tablet, name: 'Tablet', drills: 2 },
    { id: 'desk', name: 'Desk', drills: 1 },
  ]);
  expect(all.sittings.map(({ device }) => device).sort()).toEqual(['Desk', 'Tablet']);
  expect(await view(tablet)).toMatchObject({ laidToday: 2, laid: 3, sittings: [{ device: 'Tablet' }] });
  expect(await view('desk')).toMatchObject({ laidToday: 1, laid: 3, sittings: [{ device: 'Desk' }] });
  // The pace too: only sittings that ended tell it.
  const pace = async (maker: string | null = null) => (await timeModelView(database, maker)).sittings;
  const [before, beforeDesk] = [await pace(), await pace('desk')];
  expect(await pace(tablet)).toBe(0);
  const [mine, yours] = [randomUUID(), randomUUID()];
  const wide = await shelve(database, [line(1)], chartOfRows(...Array<string>(10).fill('1'.repeat(20))));
  for (const [id, screen] of [
    [mine, tab],
    [yours, desk],
  ] as const) {
    await addSitting(database, wide.id, id, '2026-05-01T18:00:00Z', screen);
    await endSitting(database, id, '2026-05-01T18:12:00Z', '');
    const wish = { kind: 'lay' as const, sittingId: id, undoes: null, redoes: null };
    await enterMark(database, wide, { id: randomUUID(), runs: [id === mine ? 0 : 80, 60], ...wish }, screen);
  }
  expect([(await pace()) - before, await pace(tablet), (await pace('desk')) - beforeDesk]).toEqual([2, 1, 1]);
  expect((await timeModelView(database)).makers).toEqual([
    { id: 'desk', name: 'Desk' },
    { id: tablet, name: 'Tablet' },
  ]);
  expect((await view(randomUUID())).burnUp).toEqual([]);
  expect((await view(null, other)).makers).toEqual([]);
});

it.runIf(process.env.OCULENT_TEST_SERVER_URL)(
  'a connection that breaks is opened again, and what was missed is asked for',
  async () => {
    const told: string[] = [];
    const lost = vi.fn();
    const channel = await channelOfSchema(database);
    await database.listen(channel, (payload) => told.push(payload), lost);
    await mark(first, 9);
    await vi.waitFor(() => expect(told).toContain(first.id));
    await database.query(
      `select pg_terminate_backend(pid) from pg_stat_activity
       where query = $1 and pid <> pg_backend_pid()`,
      [`listen ${channel}`],
    );
    await vi.waitFor(() => expect(lost).toHaveBeenCalled(), { timeout: 8000 });
    told.length = 0;
    await mark(second, 9);
    await vi.waitFor(() => expect(told).toContain(second.id), { timeout: 5000 });
  },
  20_000,
);

it.runIf(process.env.OCULENT_TEST_SERVER_URL)(
  'two that keep a schema each in one database do not wake each other',
  async () => {
    const other = await memoryDatabase();
    try {
      const told: string[] = [];
      await other.listen(
        await channelOfSchema(other),
        (payload) => told.push(payload),
        () => {},
      );
      const ours: string[] = [];
      await database.listen(
        await channelOfSchema(database),
        (payload) => ours.push(payload),
        () => {},
      );
      const mine = await shelve(database, [line(1)], chartOfRows('111'));
      const theirs = await shelve(other, [line(1)], chartOfRows('111'));
      await enterMark(
        other,
        theirs,
        { id: randomUUID(), kind: 'lay', runs: [0, 1], sittingId: null, undoes: null, redoes: null },
        null,
      );
      await mark(mine, 1);
      await vi.waitFor(() => expect(told).toContain(theirs.id), PATIENCE);
      // What the database tells keeps its order: what theirs told came before, if it came at all.
      await vi.waitFor(() => expect(ours).toContain(mine.id), PATIENCE);
      expect(new Set(told)).toEqual(new Set(['shelf', theirs.id]));
      expect(ours).not.toContain(theirs.id);
    } finally {
      await other.close();
    }
  },
);
