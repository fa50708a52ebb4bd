import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LegendLine } from '../../src/core/canvas/legend';
import { makeChart } from '../../src/core/cells/chart';
import type { WishedColour } from '../../src/core/corrections/colourList';
import { ALLOT_GOALS } from '../../src/core/kitup/allotTask';
import type { PotEventKind } from '../../src/core/kitup/potLedger';
import { STARTING_LAYOUTS, startStorage } from '../../src/core/storage/drawStorage';
import type { Storage } from '../../src/core/storage/storage';
import { bringBackCanvas, deleteCanvas } from '../../src/data/canvas';
import type { Database } from '../../src/data/engine/database';
import { stashItems } from '../../src/data/stash';
import { storagesOf } from '../../src/data/storage';
import { putLidMark } from '../../src/data/symbols';
import { saveColourList } from '../../src/server/corrections/writes';
import { kitupView } from '../../src/server/kitup/view';
import { type KitupWish, notePot, planKitup } from '../../src/server/kitup/writes';
import { labelsToPrint } from '../../src/server/labels/view';
import { removeStorage, saveStorage } from '../../src/server/storage/writes';
import { symbolCheckView } from '../../src/server/symbols/view';
import { line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const ORIGIN = 'http://127.0.0.1:4470';

function colours(count: number, more: (i: number) => Partial<LegendLine> = () => ({})): LegendLine[] {
  return Array.from({ length: count }, (_, i) =>
    line(i + 1, { code: String(1000 + i), symbol: String.fromCodePoint(0x41 + (i % 26)), ...more(i) }),
  );
}

async function ownCase(key: string): Promise<Storage> {
  const layout = STARTING_LAYOUTS.find((each) => each.key === key)!;
  const storage = startStorage(randomUUID(), layout, layout.name);
  await saveStorage(database, storage);
  return storage;
}

function wish(storages: Storage[], more: Partial<KitupWish> = {}): KitupWish {
  return {
    storageIds: storages.map(({ id }) => id),
    order: 'code',
    leave: 'fewest drills',
    goals: [...ALLOT_GOALS],
    several: false,
    locks: [],
    ...more,
  };
}

const potted = (view: Awaited<ReturnType<typeof kitupView>>) =>
  Object.fromEntries(
    view.cases.flatMap(({ slots }) => slots.flatMap((s) => (s.line ? [[s.line, s.place]] : []))),
  );

describe('a plan of pots', () => {
  it('leaves seven of 71 colours in their bags beside 64 bottles, those with the fewest drills', async () => {
    const legend = colours(71, (i) => ({ neededDrills: 40 + ((i * 37) % 71) * 20, packets: 0 }));
    const canvas = await shelve(database, legend, null);
    await planKitup(database, canvas, wish([await ownCase('bottles')]));
    const view = await kitupView(database, canvas);
    const whole = view.bags.filter((bag) => bag.whole);
    const fewest = [...legend].sort((a, b) => a.neededDrills - b.neededDrills).slice(0, 7);
    expect(whole.map((bag) => bag.line).sort()).toEqual(fewest.map((each) => each.line).sort());
    expect(whole.map((bag) => bag.bag)).toEqual([1, 2, 3, 4, 5, 6, 7]);
    expect(whole.find((bag) => bag.drills === 40)?.reason).toBe('only 40 drills');
    expect(Object.keys(potted(view))).toHaveLength(64);
    expect(view.places[whole[0]!.line]).toEqual(['bag 1']);
  });

  it('keeps pots that are filled, and colours that are locked by hand', async () => {
    const canvas = await shelve(database, colours(3), null);
    const strip = await ownCase('strip');
    const lock = { line: 1, storageId: strip.id, slot: 's4' };
    await planKitup(database, canvas, wish([strip], { locks: [lock] }));
    expect(potted(await kitupView(database, canvas))[1]).toBe('pot 4');
    const second = potted(await kitupView(database, canvas))[2];
    await notePot(database, canvas, { id: randomUUID(), line: 2, kind: 'fill', drills: 0 });
    await planKitup(database, canvas, wish([strip], { order: 'frequency' }));
    expect(potted(await kitupView(database, canvas))[2]).toBe(second);
    const slot = strip.trays[0]!.slots.find(({ id }) => `pot ${id.slice(1)}` === second)!.id;
    const rival = wish([strip], { locks: [{ line: 3, storageId: strip.id, slot }] });
    await expect(planKitup(database, canvas, rival)).rejects.toThrow('cannot both have this slot');
    const elsewhere = wish([await ownCase('case28')]);
    await expect(planKitup(database, canvas, elsewhere)).rejects.toThrow('filled already');
    const moved = wish([strip], { locks: [{ line: 2, storageId: strip.id, slot: 's4' }] });
    await expect(planKitup(database, canvas, moved)).rejects.toThrow('Undo the filling before it moves');
    await expect(
      planKitup(database, canvas, wish([strip], { locks: [{ ...lock, line: 99 }] })),
    ).rejects.toThrow('no colour number 99');
  });

  it('shares a case with another kit, and takes letters where there are several', async () => {
    const strip = await ownCase('strip');
    const first = await shelve(database, colours(3), null, { title: 'First kit' });
    await planKitup(database, first, wish([strip]));
    const second = await shelve(database, colours(3), null, { title: 'Second kit' });
    const more = await ownCase('strip');
    await planKitup(database, second, wish([strip, more]));
    const view = await kitupView(database, second);
    expect(Object.values(potted(view))).toEqual(expect.arrayContaining(['pot A4', 'pot B1', 'pot B2']));
    expect(view.cases[0]!.slots.filter((slot) => slot.takenBy === 'First kit')).toHaveLength(3);
    expect(view.storages.find(({ id }) => id === strip.id)).toMatchObject({ slots: 4, free: 1 });
    const taken = (await kitupView(database, first)).cases[0]!.slots.find((slot) => slot.line === 1)!;
    const lock = { line: 1, storageId: strip.id, slot: taken.slot };
    await expect(planKitup(database, second, wish([strip, more], { locks: [lock] }))).rejects.toThrow(
      'The slot for 1000 is not free',
    );
  });

  it('says in words what it cannot do', async () => {
    const canvas = await shelve(database, colours(2), null);
    await expect(planKitup(database, canvas, { ...wish([]), storageIds: [randomUUID()] })).rejects.toThrow(
      'no such case',
    );
    const empty = await shelve(database, [], null);
    await expect(planKitup(database, empty, wish([]))).rejects.toThrow('none yet');
    expect((await kitupView(database, empty)).plan).toBeNull();
  });

  it('tells when a pot runs empty on the canvas', async () => {
    // 20 × 40 cells of one colour, two sections of 20 × 20: a pot of 548 runs empty in the second.
    const chart = makeChart(20, 40, new Uint16Array(800).fill(1));
    const canvas = await shelve(database, [line(1, { neededDrills: 800, packets: 4 })], chart);
    const small = await ownCase('mixed');
    await planKitup(
      database,
      canvas,
      wish([small], { goals: ['order', 'closes', 'overflow', 'refills', 'neighbours'] }),
    );
    const roomy = await kitupView(database, canvas);
    expect(roomy.refills).toEqual([]);
    const slot = small.trays[0]!.slots.find(({ width, height }) => width === 1 && height === 1)!.id;
    await planKitup(database, canvas, wish([small], { locks: [{ line: 1, storageId: small.id, slot }] }));
    const view = await kitupView(database, canvas);
    expect(view.bags).toEqual([{ bag: 1, line: 1, drills: 252, whole: false, reason: null }]);
    // 548 drills less 3 % are 531 on the canvas: section 2, at 66 % of the work.
    expect(view.refills).toEqual([
      'Pot 19 runs empty in section 2, 66 % into the work: 252 drills from bag 1.',
    ]);
  });

  it('loses the pot of a colour whose code the sheet corrects', async () => {
    const legend = colours(2);
    const canvas = await shelve(database, legend, null);
    await planKitup(database, canvas, wish([await ownCase('strip')]));
    await putLidMark(database, canvas.id, 2, 1);
    const save = (lines: WishedColour[]) => saveColourList(database, canvas, { lines, basedOn: null });
    await save([legend[0]!, { ...legend[1]!, code: '2222' }]);
    expect(Object.keys(potted(await kitupView(database, canvas)))).toEqual(['1', '2']);
    expect((await symbolCheckView(database, canvas)).marks).toEqual({ 2: 1 });
    await save([legend[0]!]);
    expect(Object.keys(potted(await kitupView(database, canvas)))).toEqual(['1']);
    expect((await symbolCheckView(database, canvas)).marks).toEqual({});
  });
});

describe('pots left over', () => {
  it('take what overflows, with a label each, and are filled and put away with their colour', async () => {
    const box = await ownCase('strip');
    const canvas = await shelve(
      database,
      colours(3, (i) => ({ code: `66${i}`, neededDrills: i === 1 ? 4000 : 100, packets: i === 1 ? 20 : 1 })),
      null,
    );
    const other = await shelve(database, colours(2), null);
    await planKitup(database, canvas, wish([box]));
    const single = await kitupView(database, canvas);
    const overflow = single.bags.find(({ line }) => line === 2)!.drills;
    expect(single.plan!.several).toBe(false);
    expect(single.plan!.offer).toContain('1 colour lies in more than one pot.');

    await planKitup(database, canvas, wish([box], { several: true }));
    const view = await kitupView(database, canvas);
    const own = view.cases[0]!.slots.filter(({ line }) => line === 2);
    expect(own.length).toBeGreaterThan(1);
    expect(view.places[2]).toEqual(own.map(({ place }) => place));
    const left = view.bags.find(({ line }) => line === 2)?.drills ?? 0;
    const room = own.reduce((sum, { capacity }) => sum + capacity, 0);
    expect(left).toBe(Math.max(0, 4000 - room));
    expect(left).toBeLessThan(overflow);
    // The last pot holds what the others do not take; what even it does not take is in the overflow bag.
    expect(own.reduce((sum, { drills }) => sum + drills, 0)).toBe(4000);
    const print = await labelsToPrint(database, canvas, { format: 'pots', which: 'all', start: 1 }, ORIGIN);
    expect(print.labels.map(({ place }) => place)).toEqual(
      expect.arrayContaining(own.map(({ place }) => place)),
    );
    expect(print.labels).toHaveLength(2 + own.length);

    const note = (kind: PotEventKind, drills = 0, line = 2) =>
      notePot(database, canvas, { id: randomUUID(), line, kind, drills });
    await note('fill');
    await planKitup(database, canvas, wish([box], { order: 'frequency', several: false }));
    expect((await kitupView(database, canvas)).places[2]).toEqual(view.places[2]);
    const away = randomUUID();
    await notePot(database, canvas, { id: away, line: 2, kind: 'put away', drills: 50 });
    expect((await kitupView(database, canvas)).places[2]).toEqual(['bag 1']);
    await notePot(database, canvas, {
      id: randomUUID(),
      line: null,
      kind: null,
      drills: 0,
      undoes: away,
    });
    expect((await kitupView(database, canvas)).places[2]).toEqual(view.places[2]);

    // The other canvas keeps what it had all the time.
    await planKitup(database, other, wish([await ownCase('strip')], { several: true }));
    expect(Object.keys(potted(await kitupView(database, other)))).toEqual(['1', '2']);
    await deleteCanvas(database, canvas.id, new Date().toISOString());
    await bringBackCanvas(database, canvas.id);
    expect((await kitupView(database, canvas)).places[2]).toEqual(view.places[2]);
  });
});

describe('a leftover that was put away', () => {
  it('is corrected with the stash, and the correction is undone first', async () => {
    const canvas = await shelve(
      database,
      colours(2, (i) => ({ code: `88${i}` })),
      null,
    );
    await planKitup(database, canvas, wish([await ownCase('strip')]));
    const note = async (kind: PotEventKind, drills = 0) => {
      const id = randomUUID();
      await notePot(database, canvas, { id, line: 1, kind, drills });
      return id;
    };
    const undo = (undoes: string) =>
      notePot(database, canvas, { id: randomUUID(), line: null, kind: null, drills: 0, undoes });
    const stashed = async () => (await stashItems(database)).find(({ code }) => code === '880')?.drills ?? 0;
    await expect(note('amount', 5)).rejects.toThrow('is not put away, so it has no leftover yet');
    const away = await note('put away', 300);
    const more = await note('amount', 340);
    expect(await stashed()).toBe(340);
    const less = await note('amount', 30);
    expect(await stashed()).toBe(30);
    expect((await kitupView(database, canvas)).putAway).toEqual({ 1: 30 });
    await expect(undo(more)).rejects.toThrow('This pot was changed since');
    await expect(undo(away)).rejects.toThrow('This pot was changed since');
    await undo(less);
    expect((await kitupView(database, canvas)).putAway).toEqual({ 1: 340 });
    await undo(more);
    await undo(away);
    expect(await stashed()).toBe(0);
    expect((await kitupView(database, canvas)).putAway).toEqual({});
  });
});

describe('a canvas that is deleted', () => {
  it('frees its pots at once, and has those again that nobody took when it comes back', async () => {
    const box = await ownCase('strip');
    const [gone, other] = [
      await shelve(database, colours(2), null),
      await shelve(database, colours(1), null),
    ];
    await planKitup(database, gone, wish([box]));
    const before = potted(await kitupView(database, gone));
    expect(Object.keys(before)).toEqual(['1', '2']);
    await deleteCanvas(database, gone.id, new Date().toISOString());
    await planKitup(database, other, wish([box]));
    expect(Object.keys(potted(await kitupView(database, other)))).toEqual(['1']);
    await bringBackCanvas(database, gone.id);
    // The other canvas has taken the first pot meanwhile and keeps it.
    expect(Object.keys(potted(await kitupView(database, gone)))).toEqual(['2']);
    expect(Object.keys(potted(await kitupView(database, other)))).toEqual(['1']);
  });
});

describe('a pot', () => {
  it('is filled, taken back, and put away into the stash once', async () => {
    const canvas = await shelve(
      database,
      colours(2, (i) => ({ code: `77${i}` })),
      null,
    );
    const strip = await ownCase('strip');
    await planKitup(database, canvas, wish([strip]));
    const note = (kind: 'fill' | 'take back' | 'put away', drills = 0, id = randomUUID()) =>
      notePot(database, canvas, { id, line: 1, kind, drills });
    await expect(note('take back')).rejects.toThrow('not filled');
    await note('fill');
    expect((await kitupView(database, canvas)).filled).toEqual([1]);
    await note('take back');
    expect((await kitupView(database, canvas)).filled).toEqual([]);
    const id = randomUUID();
    await note('put away', 64, id);
    await note('put away', 64, id);
    const stashed = (await stashItems(database)).filter((item) => item.code === '770');
    expect(stashed.map((item) => item.drills)).toEqual([64]);
    const view = await kitupView(database, canvas);
    expect(view.putAway).toEqual({ 1: 64 });
    expect(potted(view)[1]).toBeUndefined();
    await expect(note('fill')).rejects.toThrow('put away already');
    // Its slot is free for others; planned again, it gets none.
    await planKitup(database, canvas, wish([strip]));
    expect(potted(await kitupView(database, canvas))[1]).toBeUndefined();
    await expect(
      notePot(database, canvas, { id: randomUUID(), line: 9, kind: 'fill', drills: 0 }),
    ).rejects.toThrow('no colour number 9');
  });
});

describe('cases', () => {
  it('outlive any canvas, and keep slots that are in use', async () => {
    const strip = await ownCase('strip');
    const canvas = await shelve(database, colours(1), null, { title: 'Small kit' });
    await planKitup(database, canvas, wish([strip]));
    const rubbedOut = { ...strip, trays: [{ ...strip.trays[0]!, slots: [] }] };
    await expect(saveStorage(database, rubbedOut)).rejects.toThrow('holds 1000 of Small kit');
    await expect(removeStorage(database, strip.id)).rejects.toThrow('still holds colours of Small kit');
    await database.query('delete from canvas where id = $1', [canvas.id]);
    await removeStorage(database, strip.id);
    expect((await storagesOf(database)).some(({ id }) => id === strip.id)).toBe(false);
    await expect(removeStorage(database, strip.id)).rejects.toThrow('no such case');
  });
});
