import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ALLOT_GOALS } from '../../src/core/kitup/allotTask';
import { STARTING_LAYOUTS, startStorage } from '../../src/core/storage/drawStorage';
import { legendOf } from '../../src/data/canvas';
import { chartOf } from '../../src/data/chart';
import type { Database } from '../../src/data/engine/database';
import { potStatesOf } from '../../src/data/kitup';
import { putStorage } from '../../src/data/storage';
import { shelveCanvas } from '../../src/server/canvas/writes';
import { editChart, repairView, replaceFinish } from '../../src/server/chart/edits';
import { checkinView } from '../../src/server/checkin/view';
import { enterBag } from '../../src/server/checkin/writes';
import { kitupView } from '../../src/server/kitup/view';
import { notePot, planKitup, undoPutAway } from '../../src/server/kitup/writes';
import { noteRequestState } from '../../src/server/requests/writes';
import { stashView } from '../../src/server/stash/view';
import { putIntoStash, undoStash } from '../../src/server/stash/writes';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const legend = [line(1, { neededDrills: 4 }), line(2, { neededDrills: 2 })];
const kit = () => shelve(database, legend, chartOfRows('112', '11.'));
const [desk, phone] = [randomUUID(), randomUUID()];

describe('undo of a repair', () => {
  const cells = async (canvas: Awaited<ReturnType<typeof kit>>) => [
    ...(await chartOf(database, canvas))!.cells,
  ];

  it('goes back step by step over the whole history, and forward again, on its own canvas', async () => {
    const canvas = await kit();
    const other = await kit();
    const first = { id: randomUUID(), edits: [{ runs: [0, 1], line: 2 }] };
    const second = { id: randomUUID(), edits: [{ runs: [1, 1], line: 2 }] };
    await editChart(database, canvas, first, desk);
    await editChart(database, canvas, second, desk);
    expect((await repairView(database, canvas, desk)).history.undo).toEqual({
      id: second.id,
      kind: 'repair',
      cells: 1,
      cell: 1,
      from: 1,
      to: 2,
      own: true,
    });
    expect((await repairView(database, other, desk)).history).toEqual({ undo: null, redo: null });
    await expect(editChart(database, other, { id: randomUUID(), undoes: second.id }, desk)).rejects.toThrow(
      'no such change',
    );
    await expect(editChart(database, canvas, { id: randomUUID(), redoes: second.id }, desk)).rejects.toThrow(
      'This change is not undone',
    );
    await editChart(database, canvas, { id: randomUUID(), undoes: second.id }, desk);
    await editChart(database, canvas, { id: randomUUID(), undoes: first.id }, desk);
    expect(await cells(canvas)).toEqual([1, 1, 2, 1, 1, 0]);
    const { history } = await repairView(database, canvas, desk);
    expect(history).toMatchObject({ undo: null, redo: { id: first.id } });
    await editChart(database, canvas, { id: randomUUID(), redoes: first.id }, desk);
    expect(await cells(canvas)).toEqual([2, 1, 2, 1, 1, 0]);
    expect(await cells(other)).toEqual([1, 1, 2, 1, 1, 0]);
  });

  it('says so when another screen changed the same squares since', async () => {
    const canvas = await kit();
    const mine = { id: randomUUID(), edits: [{ runs: [0, 2], line: 2 }] };
    await editChart(database, canvas, mine, desk);
    await editChart(database, canvas, { id: randomUUID(), edits: [{ runs: [1, 1], line: 1 }] }, phone);
    await expect(editChart(database, canvas, { id: randomUUID(), undoes: mine.id }, desk)).rejects.toThrow(
      '1 square of this was changed since',
    );
    expect(await cells(canvas)).toEqual([2, 1, 2, 1, 1, 0]);
  });

  it('of a finish gives its counts back; redo needs its colour on the sheet', async () => {
    const canvas = await kit();
    const wish = { id: randomUUID(), line: 1, finish: 'glow' as const, code: 'G401', runs: [0, 2] };
    await replaceFinish(database, canvas, wish, desk);
    expect((await repairView(database, canvas, desk)).history.undo).toMatchObject({
      id: wish.id,
      kind: 'finish',
      cells: 2,
      from: 1,
      to: 3,
    });
    await editChart(database, canvas, { id: randomUUID(), undoes: wish.id }, desk);
    expect((await legendOf(database, canvas.id)).map(({ neededDrills }) => neededDrills)).toEqual([4, 2]);
    await expect(editChart(database, canvas, { id: randomUUID(), redoes: wish.id }, desk)).rejects.toThrow(
      'Replace the drills again',
    );
  });

  it('of a finish that went to a colour of the sheet is done again with its squares and counts', async () => {
    const special = line(3, { code: 'G401', finish: 'glow', neededDrills: 1 });
    const chart = chartOfRows('112', '113');
    const [canvas, other] = [
      await shelve(database, [...legend, special], chart),
      await shelve(database, [...legend, special], chart),
    ];
    const wish = { id: randomUUID(), line: 1, finish: 'glow' as const, code: 'G401', runs: [0, 2] };
    await replaceFinish(database, canvas, wish, desk);
    const state = async (of: typeof canvas) => [
      await cells(of),
      (await legendOf(database, of.id)).map(({ neededDrills }) => neededDrills),
    ];
    const done = await state(canvas);
    expect(done).toEqual([
      [3, 3, 2, 1, 1, 3],
      [2, 2, 3],
    ]);
    await editChart(database, canvas, { id: randomUUID(), undoes: wish.id }, desk);
    expect(await state(canvas)).toEqual(await state(other));
    await editChart(database, canvas, { id: randomUUID(), redoes: wish.id }, desk);
    expect(await state(canvas)).toEqual(done);
  });
});

describe('undo of a bag', () => {
  const bag = {
    label: '',
    drills: null,
    how: 'nominal' as const,
    spread: null,
    shared: [],
    origin: null,
    assigns: null,
    changes: null,
    removes: null,
  };
  const fresh = { ...bag, line: 1, undoes: null, redoes: null };

  it('takes back what this screen counted, whatever another counted since', async () => {
    const canvas = await kit();
    const mine = randomUUID();
    await enterBag(database, canvas, { ...fresh, id: mine }, desk);
    await enterBag(database, canvas, { ...fresh, id: randomUUID(), line: 2 }, phone);
    expect((await checkinView(database, canvas, desk)).history.undo).toMatchObject({
      id: mine,
      line: 1,
      own: true,
    });
    const undo = { ...bag, line: null, id: randomUUID(), undoes: mine, redoes: null };
    await enterBag(database, canvas, undo, desk);
    await enterBag(database, canvas, undo, desk);
    const { bags, history, revision } = await checkinView(database, canvas, desk);
    expect(bags.map(({ line: of }) => of)).toEqual([2]);
    expect(history.redo).toMatchObject({ id: mine });
    expect(history.undo).toMatchObject({ own: false });
    await enterBag(
      database,
      canvas,
      { ...bag, line: null, id: randomUUID(), undoes: null, redoes: mine },
      desk,
    );
    const after = await checkinView(database, canvas, desk);
    expect(after.bags).toHaveLength(2);
    expect(after.revision).toBe(revision + 1);
  });

  it('refuses an id with other content, and one of another canvas', async () => {
    const [canvas, other] = [await kit(), await kit()];
    const id = randomUUID();
    await enterBag(database, canvas, { ...fresh, id });
    await expect(enterBag(database, canvas, { ...fresh, id, line: 2 })).rejects.toMatchObject({
      status: 409,
    });
    await expect(enterBag(database, other, { ...fresh, id })).rejects.toMatchObject({ status: 409 });
    expect((await checkinView(database, other)).bags).toEqual([]);
  });
});

describe('undo of a pot', () => {
  async function potted() {
    const canvas = await kit();
    const storage = startStorage(randomUUID(), STARTING_LAYOUTS[0]!, 'Strip');
    await putStorage(database, storage, new Date().toISOString());
    const goals = [...ALLOT_GOALS];
    await planKitup(database, canvas, {
      storageIds: [storage.id],
      order: 'code',
      leave: 'fewest drills',
      goals,
      several: false,
      locks: [],
    });
    return { canvas, storage };
  }
  const note = (canvas: Awaited<ReturnType<typeof kit>>, more: object, screen = desk) => {
    const id = randomUUID();
    const wish = { id, line: null, kind: null, drills: 0, ...more };
    return notePot(database, canvas, wish, screen).then(() => id);
  };

  it('empties a pot that was filled, and fills it again', async () => {
    const { canvas } = await potted();
    const filled = await note(canvas, { line: 1, kind: 'fill' });
    expect((await kitupView(database, canvas, desk)).history.undo).toMatchObject({ id: filled, line: 1 });
    await note(canvas, { undoes: filled });
    expect((await potStatesOf(database, canvas.id)).get(1)).toBeUndefined();
    await note(canvas, { redoes: filled });
    expect((await potStatesOf(database, canvas.id)).get(1)).toBe('fill');
    await expect(note(canvas, { redoes: filled })).rejects.toThrow('not undone');
    await expect(note(await kit(), { undoes: filled })).rejects.toThrow('no such event');
  });

  it('gives a pot that was put away its slot again, and its drills out of the stash', async () => {
    const { canvas } = await potted();
    const before = (await kitupView(database, canvas)).places;
    const stashed = async () =>
      (await stashView(database)).items.find(({ code }) => code === '402')?.drills ?? 0;
    const start = await stashed();
    const away = await note(canvas, { line: 2, kind: 'put away', drills: 70 });
    expect(await stashed()).toBe(start + 70);
    // What a pot put there is not the stash page's to take back.
    expect((await stashView(database, desk)).history.undo).toBeNull();
    await note(canvas, { undoes: away });
    expect(await stashed()).toBe(start);
    expect((await kitupView(database, canvas)).places).toEqual(before);
    expect((await potStatesOf(database, canvas.id)).get(2)).toBeUndefined();
  });

  it('and a smaller leftover are refused where its drills were used meanwhile, and nothing is changed', async () => {
    const [{ canvas }, { canvas: other }] = [await potted(), await potted()];
    // A colour of its own, so that no other test's drills lie in the same heap.
    for (const each of [canvas, other])
      await database.query(
        `update legend_line set code = '909', finish = 'metallic' where canvas_id = $1 and line = 2`,
        [each.id],
      );
    const drills = async () => (await stashView(database)).items.find(({ code }) => code === '909')!.drills;
    const away = await note(canvas, { line: 2, kind: 'put away', drills: 70 });
    await note(canvas, { line: 2, kind: 'amount', drills: 60 });
    expect(await drills()).toBe(60);
    const { items } = await stashView(database);
    await database.query(
      `insert into stash_move (id, item_id, happened_at, drills) values ($1, $2, now(), -30)`,
      [randomUUID(), items.find(({ code }) => code === '909')!.id],
    );
    await expect(note(canvas, { line: 2, kind: 'amount', drills: 20 })).rejects.toThrow('used elsewhere');
    expect(await drills()).toBe(30);
    await note(canvas, { line: 2, kind: 'amount', drills: 70 });
    expect(await drills()).toBe(40);
    await expect(note(canvas, { undoes: away })).rejects.toThrow('This pot was changed since');
    await expect(database.transaction((queries) => undoPutAway(queries, canvas, 2, null))).rejects.toThrow(
      'used elsewhere',
    );
    await expect(undoPutAway(database, other, 2, null)).rejects.toThrow(
      'The leftovers of 909 are not in the stash',
    );
    await expect(undoPutAway(database, other, 44, null)).rejects.toThrow('The leftovers of this colour');
  });

  it('is refused while something else became of it since, or its slot is taken', async () => {
    const { canvas, storage } = await potted();
    const filled = await note(canvas, { line: 1, kind: 'fill' });
    const away = await note(canvas, { line: 1, kind: 'put away', drills: 0 });
    await expect(note(canvas, { undoes: filled })).rejects.toThrow('This pot was changed since');
    const other = await kit();
    const wish = {
      order: 'code' as const,
      leave: 'fewest drills' as const,
      goals: [...ALLOT_GOALS],
      several: false,
      locks: [],
    };
    await planKitup(database, other, { ...wish, storageIds: [storage.id] });
    await expect(note(canvas, { undoes: away })).rejects.toThrow('Its slot holds another colour now');
    expect((await potStatesOf(database, canvas.id)).get(1)).toBe('put away');
  });
});

describe('undo of leftovers', () => {
  it('takes them out of the stash again, unless they were used', async () => {
    const item = {
      code: '777',
      name: '',
      hex: null,
      finish: 'plain' as const,
      shape: 'square' as const,
      drills: 50,
    };
    const screen = randomUUID();
    const wish = { ...item, id: randomUUID() };
    // Another item that came out of some backup with fewer drills than none is no matter of this one.
    const broken = randomUUID();
    await putIntoStash(database, { ...wish, id: broken, code: '778' }, null);
    await database.query('update stash_move set drills = -5 where item_id = $1', [broken]);
    await putIntoStash(database, wish, screen);
    await putIntoStash(database, wish, screen);
    await expect(putIntoStash(database, { ...wish, drills: 51 }, screen)).rejects.toMatchObject({
      status: 409,
    });
    const offer = (await stashView(database, screen)).history.undo!;
    expect(offer).toMatchObject({ code: '777', drills: 50, own: true });
    await undoStash(database, { id: randomUUID(), undoes: offer.id, redoes: null }, screen);
    const after = await stashView(database, screen);
    expect(after.items.find(({ id }) => id === wish.id)).toMatchObject({ drills: 0 });
    expect(after.history.redo).toMatchObject({ id: offer.id });
    await undoStash(database, { id: randomUUID(), undoes: null, redoes: offer.id }, screen);
    const again = (await stashView(database, screen)).history.undo!;
    await database.query(
      `insert into stash_move (id, item_id, happened_at, drills) values ($1, $2, $3, -30)`,
      [randomUUID(), wish.id, new Date().toISOString()],
    );
    await expect(
      undoStash(database, { id: randomUUID(), undoes: again.id, redoes: null }, screen),
    ).rejects.toThrow('Drills of 777 were used since');
  });
});

describe('the same id twice', () => {
  it('is one canvas, or a refusal', async () => {
    const canvas = await kit();
    await shelveCanvas(database, canvas);
    await expect(shelveCanvas(database, { ...canvas, title: 'Another' })).rejects.toMatchObject({
      status: 409,
    });
  });

  it('is one state of a request, or a refusal, also where the first was for another canvas', async () => {
    const [canvas, other] = [await kit(), await kit()];
    const entry = { id: randomUUID(), line: 1, state: 'asked' as const };
    await noteRequestState(database, canvas, entry);
    await noteRequestState(database, canvas, entry);
    for (const [where, wish] of [
      [canvas, { ...entry, state: 'arrived' as const }],
      [other, entry],
    ] as const)
      await expect(noteRequestState(database, where, wish)).rejects.toMatchObject({ status: 409 });
    expect(await database.query('select id from request_state where id = $1', [entry.id])).toHaveLength(1);
  });
});
