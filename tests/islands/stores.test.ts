import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { changedCells } from '../../src/core/bench/marking';
import type { Canvas } from '../../src/core/canvas/canvas';
import { countLaid, emptyBitmap, isLaid } from '../../src/core/cells/bitmap';
import { chartToBytes } from '../../src/core/cells/chart';
import { applyEdit, type CellEdit } from '../../src/core/chart/edit';
import type { UndoView } from '../../src/core/ledger/history';
import { MarkStore } from '../../src/islands/bench/markStore';
import { RepairStore } from '../../src/islands/chart/repairStore';
import type { MarkOffer } from '../../src/server/bench/contract';
import { chartOfRows, line } from '../core/samples';
import { StandInStreams, toldMark } from './liveWorld';
import { held } from './requests';
import { StandInBrowser, StandInServer, settled } from './world';

const none = { undo: null, redo: null };
const canvas = { id: 'c1', width: 4, height: 2 } as Canvas;
const chart = () => chartOfRows('11.2', '1222');

/** What the server has; `fetch` reads it. */
let bitmap = emptyBitmap(8);
let cells = chart();
/** Place of the last mark in the ledger. */
let last = 0;
/** What a screen has missed. */
let missed: ReturnType<typeof toldMark>[] = [];
beforeEach(() => {
  bitmap = emptyBitmap(8);
  cells = chart();
  last = 0;
  missed = [];
  vi.stubGlobal('fetch', async (url: string) => {
    if (url.endsWith('/bitmap')) {
      return new Response(Uint8Array.from(bitmap), { headers: { 'x-oculent-stamp': `1-${last}` } });
    }
    if (url.includes('/changes')) return Response.json({ marks: missed, tooMuch: false, parts: [] });
    if (url.endsWith('/chart')) return new Response(Uint8Array.from(chartToBytes(cells)));
    return Response.json({ history: none, legend: [], suspects: [], finish: null });
  });
});
afterEach(() => vi.unstubAllGlobals());

describe('the marks of a screen', () => {
  function bench() {
    const streams = new StandInStreams();
    const server = new StandInServer();
    const browser = new StandInBrowser(server);
    server.answer = ({ body }) => {
      const { id, kind, runs = [] } = body as { id: string; kind: 'lay'; runs?: number[] };
      const changed = changedCells({ lines: cells.cells, laid: bitmap }, kind, runs);
      return { id, kind, runs: changed, laid: 0, position: ++last, history: none };
    };
    const open = (history: UndoView<MarkOffer> = none) => {
      const { outbox } = browser.tab();
      const data = { chart: chart(), laid: bitmap.slice(), cut: null, position: 0 };
      const first = {
        laid: 0,
        drills: 7,
        history,
        sittings: [],
        lastMarkAt: null,
        trash: { handled: 1, thrown: 0, share: 0 },
        trashRecords: [],
      };
      const { feed } = streams.tab();
      const store = new MarkStore(canvas, data, first, outbox, feed);
      const stop = store.start();
      outbox.start();
      streams.wait();
      return { store, data, outbox, stop };
    };
    return { server, browser, streams, open };
  }

  it('of before the canvas was kept here are sent as such', async () => {
    const { server, open } = bench();
    const { store } = open();
    store.commit('lay', store.preview('lay', [7]), null, { before: true });
    await settled();
    expect(server.got.map(({ body }) => body)).toMatchObject([{ runs: [7, 1], before: true }]);
  });

  it('of very many pieces go out in several entries, all of which can be taken back', async () => {
    const { server, open } = bench();
    const { store } = open();
    // Every second square of a large canvas: as many pieces as squares.
    const ids = store.commit(
      'lay',
      Array.from({ length: 50_001 }, (_, i) => 2 * i),
      null,
      { before: true },
    );
    await settled();
    expect(ids).toHaveLength(2);
    expect(server.got.map(({ body }) => (body as { id: string }).id)).toEqual(ids);
  });

  it('that another screen had made already stay shown, though the ledger has not told of them yet', async () => {
    const { server, open } = bench();
    const { store, data } = open();
    await settled();
    // The stream is late; all of it was laid elsewhere, then half of it.
    server.answer = ({ body }) => {
      const { id, kind } = body as { id: string; kind: 'lay' };
      return { id, kind, runs: [], laid: 2, position: null, history: none };
    };
    const seen: boolean[] = [];
    store.subscribe(() => seen.push(isLaid(data.laid, 0) && isLaid(data.laid, 1)));
    store.preview('lay', [0, 1]);
    missed = [toldMark(0, 1, 'lay', [0, 2])];
    store.commit('lay', [0, 1], null);
    await settled();
    server.answer = ({ body }) => {
      const { id, kind } = body as { id: string; kind: 'lay' };
      return { id, kind, runs: [5, 1], laid: 4, position: 3, history: none };
    };
    store.preview('lay', [4, 5]);
    missed = [toldMark(1, 2, 'lay', [4, 1])];
    store.commit('lay', [4, 5], null);
    await settled();
    expect(seen).not.toContain(false);
    expect([0, 1, 4, 5].map((cell) => isLaid(data.laid, cell))).toEqual([true, true, true, true]);
    expect(store.snapshot()).toMatchObject({ laid: 4, waiting: 0 });
  });

  it('can be taken back once it is known which are of this screen, or nobody answers that', async () => {
    const { open } = bench();
    const { store } = open({ undo: null, redo: null, nameless: true });
    expect(store.snapshot().history.nameless).toBe(true);
    await settled();
    expect(store.snapshot().history).toEqual(none);
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('away')));
    const { store: away } = open({ undo: null, redo: null, nameless: true });
    await settled();
    expect(away.snapshot().history).toEqual(none);
  });

  it('of another tab are shown, and undo stays that of this one', async () => {
    const { server, open } = bench();
    const answer = server.answer;
    server.answer = (write) => {
      const { id } = write.body as { id: string };
      const undo = { id, own: true, kind: 'lay', drills: 1, place: '', at: '', device: null };
      return { ...(answer(write) as object), history: { undo, redo: null } };
    };
    const [here, there] = [open().store, open().store];
    await settled();
    const [mine] = here.commit('lay', here.preview('lay', [0]), null);
    await settled();
    const [theirs] = there.commit('lay', there.preview('lay', [1]), null);
    await settled();
    expect([here, there].map((store) => store.snapshot().laid)).toEqual([2, 2]);
    expect([here, there].map((store) => store.snapshot().history.undo?.id)).toEqual([mine, theirs]);
  });

  it('are shown before they are sent, and sent once', async () => {
    const { server, open } = bench();
    const { store, data } = open();
    const before = store.snapshot().version;
    // Square 2 wants no drill.
    expect(store.preview('lay', [0, 1, 2])).toEqual([0, 1]);
    expect(store.snapshot()).toMatchObject({ laid: 2 });
    expect(store.snapshot().version).toBeGreaterThan(before);
    expect(store.preview('lay', [0])).toEqual([]);
    store.commit('lay', [0, 1], null);
    store.commit('lay', [], null);
    await settled();
    expect(server.got.map(({ body }) => body)).toMatchObject([{ kind: 'lay', runs: [0, 2] }]);
    expect(countLaid(data.laid)).toBe(2);
    expect(server.got[0]!.body).not.toHaveProperty('before');
    // What comes to nothing leaves what was laid before.
    const shown = store.preview('lay', [1, 4]);
    expect(shown).toEqual([4]);
    store.forget();
    expect(countLaid(data.laid)).toBe(2);
    expect(store.snapshot().laid).toBe(2);
  });

  it('that wait are shown again after a reload, and counted', async () => {
    const { server, open } = bench();
    server.plan = ['away'];
    const first = open();
    first.store.preview('lay', [4, 5]);
    first.store.commit('lay', [4, 5], null);
    await settled();
    expect(first.store.snapshot().waiting).toBe(1);
    const again = open();
    await settled();
    expect(isLaid(again.data.laid, 5)).toBe(true);
    expect(again.store.snapshot()).toMatchObject({ waiting: 1, laid: 2 });
  });

  it('that the server will not take are no longer shown, the others are', async () => {
    const { server, browser, open } = bench();
    const { store, data } = open();
    await settled();
    server.plan = [422, 'away'];
    for (const cell of [0, 1]) {
      store.preview('lay', [cell]);
      store.commit('lay', [cell], null);
    }
    await settled();
    await browser.wait();
    await settled();
    expect(isLaid(data.laid, 0)).toBe(false);
    expect(isLaid(data.laid, 1)).toBe(true);
    expect(store.snapshot().waiting).toBe(1);
  });

  it('of another device show here, of another canvas do not, and what was missed is asked for', async () => {
    const { streams, open } = bench();
    const { store, data } = open();
    await settled();
    const version = store.snapshot().version;
    streams.say('mark', { canvas: 'c2', stamp: '1-3', ...toldMark(0, 3, 'lay', [0, 1]) });
    expect(countLaid(data.laid)).toBe(0);
    streams.say('mark', { canvas: 'c1', stamp: '1-4', ...toldMark(0, 4, 'lay', [0, 2]) });
    expect(countLaid(data.laid)).toBe(2);
    expect(store.snapshot()).toMatchObject({ laid: 2, version: version + 1 });
    // Twice the same, and one whose forerunner did not come.
    streams.say('mark', { canvas: 'c1', stamp: '1-4', ...toldMark(0, 4, 'lay', [0, 2]) });
    missed = [toldMark(4, 6, 'lift', [0, 1]), toldMark(6, 9, 'lay', [4, 1])];
    streams.say('mark', { canvas: 'c1', stamp: '1-9', ...toldMark(6, 9, 'lay', [4, 1]) });
    expect(isLaid(data.laid, 4)).toBe(false);
    await settled();
    expect([0, 1, 4].map((cell) => isLaid(data.laid, cell))).toEqual([false, true, true]);
    // Too much to tell: what is laid is read anew.
    bitmap = emptyBitmap(8);
    last = 40;
    streams.say('too-much', { canvas: 'c1' });
    await settled();
    expect(store.snapshot().laid).toBe(0);
  });

  it('of another tab of this canvas show here, those of another canvas do not', async () => {
    const { open } = bench();
    const [here, there] = [open(), open()];
    there.store.preview('lay', [3]);
    there.store.commit('lay', [3], null);
    await settled();
    expect(isLaid(here.data.laid, 3)).toBe(true);
    await there.outbox.put('POST', '/api/canvases/c2/marks', { kind: 'lay', runs: [0, 1] }, 'c2');
    await settled();
    expect(isLaid(here.data.laid, 0)).toBe(false);
    here.stop();
    there.store.preview('lay', [6]);
    there.store.commit('lay', [6], null);
    await settled();
    expect(isLaid(here.data.laid, 6)).toBe(false);
  });

  it('that were told while all of it was read stay, though what comes was read before them', async () => {
    const { open, streams } = bench();
    const { store, data } = open();
    await settled();
    const answers: ((response: Response) => void)[] = [];
    const usual = globalThis.fetch;
    vi.stubGlobal('fetch', (url: string) =>
      url.endsWith('/bitmap') ? new Promise<Response>((resolve) => answers.push(resolve)) : usual(url),
    );
    const bitmapAt = (place: number, cells: number[]) => {
      const laid = emptyBitmap(8);
      for (const cell of cells) laid[cell >> 3]! |= 1 << (cell & 7);
      return new Response(Uint8Array.from(laid), { headers: { 'x-oculent-stamp': `1-${place}` } });
    };
    const tooMuch = () => streams.say('too-much', { canvas: 'c1' });
    tooMuch();
    await settled();
    streams.say('mark', { canvas: 'c1', ...toldMark(0, 1, 'lay', [3, 1]) });
    answers[0]!(bitmapAt(0, []));
    await settled();
    expect(isLaid(data.laid, 3)).toBe(true);
    expect(store.snapshot().laid).toBe(1);
    // A backup that was put back knows of less than this page.
    tooMuch();
    await settled();
    answers[1]!(bitmapAt(0, [5]));
    await settled();
    expect([3, 5].map((cell) => isLaid(data.laid, cell))).toEqual([false, true]);
  });

  it('say why an undo was refused', async () => {
    const { server, open } = bench();
    const { store } = open();
    server.plan = [409];
    store.undo('m1');
    await settled();
    expect(store.snapshot().fault).toBe('Refused with 409.');
    expect(server.got).toEqual([]);
    server.plan = ['ok'];
    store.redo('m1');
    await settled();
    expect(server.got.map(({ body }) => body)).toMatchObject([{ redoes: 'm1' }]);
  });
});

describe('the repairs of a screen', () => {
  /** Holds back the keeping of what is to be sent. */
  let keeping: ReturnType<typeof held> | null = null;
  afterEach(() => {
    keeping = null;
  });
  function repairs() {
    const server = new StandInServer();
    const browser = new StandInBrowser(server);
    const view = { legend: [line(1), line(2)], suspects: [], finish: null, history: none };
    server.answer = () => ({ ...view, suspects: [{ line: 1, onChart: 1, onSheet: 2, perhaps: null }] });
    const open = () => {
      const { outbox } = browser.tab();
      const own = chart();
      const waits: ConstructorParameters<typeof RepairStore>[3] = {
        waitingFor: (id) => outbox.waitingFor(id),
        put: async (...write) => {
          await keeping?.promise;
          await outbox.put(...write);
        },
      };
      const store = new RepairStore('c1', own, view, waits);
      store.start();
      outbox.start();
      return { store, own };
    };
    return { server, open };
  }

  it('are shown at once, and sent when something changes', async () => {
    const { server, open } = repairs();
    const { store, own } = open();
    store.set([{ runs: [0, 2], line: 2 }]);
    expect([...own.cells.slice(0, 2)]).toEqual([2, 2]);
    store.set([{ runs: [0, 2], line: 2 }]);
    await settled();
    expect(server.got).toHaveLength(1);
    expect(store.snapshot().view.suspects).toHaveLength(1);
  });

  it('that are refused give way to what the server has', async () => {
    const { server, open } = repairs();
    const { store, own } = open();
    server.plan = [409];
    store.set([{ runs: [0, 2], line: 2 }]);
    await settled();
    expect([...own.cells]).toEqual([...chart().cells]);
    expect(store.snapshot().fault).toBe('Refused with 409.');
  });

  it('that wait are shown again after a reload; undo brings the chart of the server', async () => {
    const { server, open } = repairs();
    server.plan = ['away'];
    open().store.set([{ runs: [7, 1], line: 1 }]);
    await settled();
    const { store, own } = open();
    await settled();
    expect(own.cells[7]).toBe(1);
    server.plan = ['ok'];
    cells.cells[0] = 2;
    store.undo('e1');
    await settled();
    expect(own.cells[0]).toBe(2);
    expect(own.cells[7]).toBe(2);
  });

  it('stay shown whatever was read before them, and so does what another screen did meanwhile', async () => {
    const { server, open } = repairs();
    const { store, own } = open();
    const usualAnswer = server.answer;
    server.answer = (write) => {
      for (const edit of (write.body as { edits: CellEdit[] }).edits) applyEdit(cells, edit);
      return usualAnswer(write);
    };
    await settled();
    const charts: (() => void)[] = [];
    const usual = globalThis.fetch;
    vi.stubGlobal('fetch', (url: string) => {
      if (!url.endsWith('/chart')) return usual(url);
      // Read now, though it comes later.
      const read = Uint8Array.from(chartToBytes(cells));
      return new Promise<Response>((resolve) => charts.push(() => resolve(new Response(read))));
    });
    // Another screen set square 7; the chart is read, and meanwhile square 0 is set here and acknowledged.
    cells.cells[7] = 1;
    void store.refresh();
    await settled();
    store.set([{ runs: [0, 1], line: 2 }]);
    await settled();
    expect(charts).toHaveLength(2);
    for (const come of charts.toReversed()) {
      come();
      await settled();
    }
    expect([own.cells[0], own.cells[7]]).toEqual([2, 1]);
    // Nor is the one of the moment before lost, which is not kept for sending yet.
    void store.refresh();
    await settled();
    keeping = held();
    store.set([{ runs: [1, 1], line: 2 }]);
    charts.at(-1)!();
    await settled();
    expect(own.cells[1]).toBe(2);
    keeping.release(new Response());
    await settled();
    // What is told while something waits is read once that is through.
    server.plan = ['away'];
    store.set([{ runs: [4, 1], line: 2 }]);
    await settled();
    cells.cells[6] = 1;
    await store.refresh();
    server.plan = ['ok'];
    store.set([{ runs: [5, 1], line: 1 }]);
    await settled();
    for (const come of charts) come();
    await settled();
    expect(own.cells[6]).toBe(1);
  });
});
