import { randomUUID } from 'node:crypto';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { emptyDeleted } from '../../src/data/deleted';
import type { Database } from '../../src/data/engine/database';
import {
  bringBackInspectionEntry,
  inspectionEntries,
  inspectionPhoto,
  putInspectionPhoto,
  withdrawInspectionEntry,
} from '../../src/data/inspection';
import { addRequestState } from '../../src/data/requests';
import { addStashItem, addStashMove, stashItems } from '../../src/data/stash';
import { enterMark } from '../../src/server/bench/writes';
import { checkinView } from '../../src/server/checkin/view';
import { enterBag } from '../../src/server/checkin/writes';
import { photoToJpeg } from '../../src/server/files/pixels';
import { inspectionView } from '../../src/server/inspection/view';
import { correctInspection, noteInspection } from '../../src/server/inspection/writes';
import { requestPdf } from '../../src/server/requests/requestPdf';
import { requestView } from '../../src/server/requests/view';
import { coverFromStash, noteRanOut } from '../../src/server/requests/writes';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';
import { bagRequest } from './bagRequest';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

const NOW = '2026-03-01T10:00:00.000Z';
const legend = [
  line(1, { code: '412', neededDrills: 300, packets: 2 }),
  line(2, { code: '98', neededDrills: 90, packets: 1 }),
];

async function stash(code: string, drills: number): Promise<string> {
  const id = randomUUID();
  await addStashItem(database, { id, code, name: '', hex: null, finish: 'plain', shape: 'square' }, NOW);
  await addStashMove(database, { id: randomUUID(), itemId: id, drills, bagId: null }, NOW);
  return id;
}
const inStash = async (id: string) => (await stashItems(database)).find((item) => item.id === id)!.drills;
const undoOrRedo = (canvas: Canvas, more: { undoes?: string; redoes?: string }, id = randomUUID()) =>
  enterBag(database, canvas, bagRequest({ id, ...more }));

describe('a shortage covered from the stash', () => {
  it('takes the drills and counts them as a bag, once; taken back, they return; done again, they go again', async () => {
    const canvas = await shelve(database, legend, chartOfRows('11', '22'));
    const item = await stash('412', 350);
    const wish = { id: randomUUID(), line: 1, itemId: item, drills: 300 };
    await coverFromStash(database, canvas, wish);
    await coverFromStash(database, canvas, wish);
    expect(await inStash(item)).toBe(50);
    expect((await checkinView(database, canvas)).bags).toMatchObject([
      { line: 1, drills: 300, how: 'counted', label: '412 from the stash' },
    ]);
    await undoOrRedo(canvas, { undoes: wish.id });
    expect(await inStash(item)).toBe(350);
    const again = randomUUID();
    await undoOrRedo(canvas, { redoes: wish.id }, again);
    expect(await inStash(item)).toBe(50);
    await undoOrRedo(canvas, { undoes: again });
    expect(await inStash(item)).toBe(350);
    // Used elsewhere meanwhile, they cannot go again.
    await addStashMove(database, { id: randomUUID(), itemId: item, drills: -200, bagId: null }, NOW);
    await expect(undoOrRedo(canvas, { redoes: again })).rejects.toThrow('The stash no longer has the drills');
    expect(await inStash(item)).toBe(150);
  });

  it('is refused beyond what is there, and then takes nothing', async () => {
    const canvas = await shelve(database, legend, null);
    const item = await stash('412', 20);
    await expect(
      coverFromStash(database, canvas, { id: randomUUID(), line: 1, itemId: item, drills: 21 }),
    ).rejects.toThrow('The stash has 20 of 412, not 21.');
    expect(await inStash(item)).toBe(20);
    expect((await checkinView(database, canvas)).bags).toEqual([]);
  });
});

describe('a request', () => {
  it('shows offers, where a colour shows most, and its newest state', async () => {
    const canvas = await shelve(database, legend, chartOfRows('11', '12'));
    const item = await stash('98', 40);
    await addRequestState(database, canvas.id, { id: randomUUID(), line: 1, state: 'asked' }, NOW);
    await addRequestState(database, canvas.id, { id: randomUUID(), line: 1, state: 'promised' }, NOW);
    const { lines, text, photos } = await requestView(database, canvas, '1 March 2026');
    expect(lines.map((each) => [each.line.code, each.state, each.showsMostIn])).toEqual([
      ['98', null, { section: 1, drills: 1 }],
      ['412', 'promised', { section: 1, drills: 3 }],
    ]);
    expect(lines[0]!.offers.map((offer) => [offer.item.id, offer.as, offer.enough])).toContainEqual([
      item,
      'same',
      false,
    ]);
    expect(text).toContain('98 (key 2)');
    expect(photos).toEqual([]);
  });

  it('names the photos of the sheet that stand, and no others', async () => {
    const [canvas, other] = [await shelve(database, legend, null), await shelve(database, legend, null)];
    const entered = async (at: Canvas, kind: 'sheet' | 'print', photo = true) => {
      const id = randomUUID();
      await noteInspection(database, at, { id, kind, note: '', widthCm: null, heightCm: null });
      if (photo) await putInspectionPhoto(database, at.id, id, Uint8Array.of(1));
      return id;
    };
    const sheet = await entered(canvas, 'sheet');
    await entered(canvas, 'sheet', false);
    await entered(canvas, 'print');
    const gone = await entered(canvas, 'sheet');
    await withdrawInspectionEntry(database, canvas.id, gone, NOW);
    const theirs = await entered(other, 'sheet');
    expect((await requestView(database, canvas, 'today')).photos).toEqual([sheet]);
    expect((await requestView(database, other, 'today')).photos).toEqual([theirs]);
  });

  it('covers nothing from a stash that has no such item', async () => {
    const canvas = await shelve(database, legend, null);
    const wish = { id: randomUUID(), line: 1, itemId: randomUUID(), drills: 3 };
    await expect(coverFromStash(database, canvas, wish)).rejects.toMatchObject({ status: 404 });
    const item = await stash('413', 9);
    await expect(coverFromStash(database, canvas, { ...wish, line: 8, itemId: item })).rejects.toThrow(
      'no colour number 8',
    );
    expect(await inStash(item)).toBe(9);
  });

  it('of many colours goes on over the page, row below row, numbers ending under each other', async () => {
    const many = Array.from({ length: 40 }, (_, i) =>
      line(i + 1, { code: String(900 + i), neededDrills: i % 2 ? 1500 : 90, packets: 1 }),
    );
    const canvas = await shelve(database, many, null);
    const { lines } = await requestView(database, canvas, 'today');
    const bytes = await requestPdf({ canvas, lines, photos: [], date: 'today', paper: 'a4' });
    const document = await getDocument({ data: bytes, verbosity: 0 }).promise;
    expect(document.numPages).toBe(2);
    const rows: { code: number; x: number; ends: number; y: number; page: number }[] = [];
    for (let page = 1; page <= 2; page++) {
      const items = (await (await document.getPage(page)).getTextContent()).items.flatMap((each) =>
        'str' in each && each.str.trim() !== ''
          ? [
              {
                text: each.str,
                x: each.transform[4] as number,
                y: each.transform[5] as number,
                width: each.width,
              },
            ]
          : [],
      );
      for (const { text, x, y } of items) {
        if (!/^9\d\d$/.test(text)) continue;
        const needed = items.find((each) => each.y === y && /^(90|1,500)$/.test(each.text))!;
        rows.push({ code: Number(text), x, ends: Math.round(needed.x + needed.width), y, page });
      }
    }
    expect(rows.map(({ code }) => code).sort()).toEqual(many.map(({ code }) => Number(code)));
    expect(new Set(rows.map(({ x }) => x)).size).toBe(1);
    // Short and long numbers end at the same place.
    expect(new Set(rows.map(({ ends }) => ends)).size).toBe(1);
    // 8 mm a row, downwards, and nothing below the margin of the page.
    for (const [i, row] of rows.entries()) {
      expect(row.y).toBeGreaterThan(20);
      if (row.page === rows[i - 1]?.page) expect(rows[i - 1]!.y - row.y).toBeCloseTo((8 / 25.4) * 72, 0);
    }
  });

  it('has the longest codes and key numbers beside each other, each going on below itself', async () => {
    const long = 'VERY-LONG-CODE-1234-5678';
    const list = [
      line(1, { code: long, keyNumber: 'KEY-0001', neededDrills: 1500, packets: 1 }),
      line(2, { code: 'ZZ-7', neededDrills: 90, packets: 1 }),
    ];
    const title = '漢'.repeat(80);
    const canvas = await shelve(database, list, null, { title });
    const { lines } = await requestView(database, canvas, 'today');
    const bytes = await requestPdf({ canvas, lines, photos: [], date: 'today', paper: 'letter' });
    const document = await getDocument({ data: bytes, verbosity: 0 }).promise;
    const { items } = await (await document.getPage(1)).getTextContent();
    const set = items.flatMap((each) =>
      'str' in each && each.str.trim() !== ''
        ? [
            {
              text: each.str,
              x: each.transform[4],
              y: each.transform[5],
              ends: each.transform[4] + each.width,
            },
          ]
        : [],
    );
    for (const { ends } of set) expect(ends).toBeLessThan(((215.9 - 18) / 25.4) * 72 + 1);
    const starts = [18, 48, 62].map((x) => (x / 25.4) * 72);
    const [codes, keys] = [0, 1].map((column) =>
      set.filter(({ x, y }) => Math.abs(x - starts[column]!) < 1 && y < 640),
    ) as [typeof set, typeof set];
    for (const { ends } of codes) expect(ends).toBeLessThan(starts[1]!);
    for (const { ends } of keys) expect(ends).toBeLessThan(starts[2]!);
    const told = codes.map(({ text }) => text).join(' ');
    expect(told.replaceAll(' ', '')).toContain(long);
    expect(keys.map(({ text }) => text).join('')).toContain('KEY-0001');
    // The next row begins below the last line of the one before.
    const next = codes.find(({ text }) => text === 'ZZ-7')!;
    expect(
      Math.min(...codes.filter(({ text }) => text.includes('-') && text !== 'ZZ-7').map(({ y }) => y)) -
        next.y,
    ).toBeGreaterThan(14);
  });

  it('is printed with title, size and numbers, the photo of the sheet behind it', async () => {
    const canvas = await shelve(database, legend, null, { title: 'Two hills', width: 120, height: 160 });
    const { lines } = await requestView(database, canvas, '1 March 2026');
    const photo = await photoToJpeg({
      bytes: await sharp({ create: { width: 40, height: 30, channels: 3, background: '#aa3322' } })
        .png()
        .toBuffer(),
    });
    const bytes = await requestPdf({ canvas, lines, photos: [photo], date: '1 March 2026', paper: 'a4' });
    const document = await getDocument({ data: bytes, verbosity: 0 }).promise;
    expect(document.numPages).toBe(2);
    const words = (await (await document.getPage(1)).getTextContent()).items.map((each) =>
      'str' in each ? each.str : '',
    );
    for (const word of ['Two hills', '1 March 2026', '412', '98', '300', '90']) expect(words).toContain(word);
    expect(words.join(' ')).toContain('120 × 160 squares, 30 × 40 cm');
  });
});

describe('the inspection log', () => {
  it('keeps entries with photo, says what is usual, and withdraws without forgetting', async () => {
    const canvas = await shelve(database, legend, null, { width: 120, height: 160 });
    const id = randomUUID();
    const entry = {
      id,
      happenedAt: NOW,
      kind: 'size' as const,
      note: 'Measured twice',
      widthCm: 28,
      heightCm: 40,
    };
    const { happenedAt: _, ...wish } = entry;
    await noteInspection(database, canvas, wish);
    await noteInspection(database, canvas, wish);
    await expect(noteInspection(database, canvas, { ...wish, note: 'Again' })).rejects.toMatchObject({
      status: 409,
    });
    expect(await putInspectionPhoto(database, canvas.id, id, Uint8Array.of(1, 2, 3))).toBe(true);
    expect(await inspectionPhoto(database, canvas.id, id)).toEqual(Uint8Array.of(1, 2, 3));
    const [view, ...others] = await inspectionView(database, canvas);
    expect(others).toEqual([]);
    expect(view).toMatchObject({ name: 'The size is wrong', note: 'Measured twice', hasPhoto: true });
    expect(view!.size).toContain('width is 2.0 cm too small');
    await withdrawInspectionEntry(database, canvas.id, id, NOW);
    expect(await inspectionEntries(database, canvas.id)).toMatchObject([{ id, removedAt: NOW }]);
    expect(
      await database.query('select count(*)::int as n from inspection_entry where id = $1', [id]),
    ).toEqual([{ n: 1 }]);
  });

  it('is corrected with date and photo kept, and what was deleted is brought back, each canvas by itself', async () => {
    const [canvas, other] = [
      await shelve(database, legend, null, { width: 120, height: 160 }),
      await shelve(database, legend, null),
    ];
    const wish = (note: string) => ({
      id: randomUUID(),
      kind: 'print' as const,
      note,
      widthCm: null,
      heightCm: null,
    });
    const [first, theirs] = [wish('Smudget'), wish('Theirs')];
    await noteInspection(database, canvas, first);
    await noteInspection(database, other, theirs);
    await putInspectionPhoto(database, canvas.id, first.id, Uint8Array.of(4, 5));
    const right = wish('Smudged');
    await correctInspection(database, canvas, first.id, right);
    await correctInspection(database, canvas, first.id, right);
    const view = () => inspectionView(database, canvas);
    expect(await view()).toMatchObject([{ id: right.id, note: 'Smudged', hasPhoto: true, removedAt: null }]);
    await expect(correctInspection(database, canvas, first.id, wish('Late'))).rejects.toThrow('meanwhile');
    await expect(correctInspection(database, other, right.id, wish('Foreign'))).rejects.toThrow('meanwhile');
    await withdrawInspectionEntry(database, canvas.id, right.id, NOW);
    expect(await view()).toMatchObject([{ id: right.id, removedAt: NOW }]);
    expect(await bringBackInspectionEntry(database, other.id, right.id)).toBe(false);
    expect(await bringBackInspectionEntry(database, canvas.id, right.id)).toBe(true);
    expect(await view()).toMatchObject([{ id: right.id, removedAt: null }]);
    // Deleted long ago, it is gone with what it was before; what stands stays.
    await withdrawInspectionEntry(database, canvas.id, right.id, '2026-01-01T00:00:00Z');
    await emptyDeleted(database, { before: '2026-02-01T00:00:00Z' });
    expect(await view()).toEqual([]);
    expect(
      await database.query('select note from inspection_entry where id = any($1::uuid[])', [
        [first.id, right.id, theirs.id],
      ]),
    ).toEqual([{ note: 'Theirs' }]);
  });
});

describe('a colour that runs out at the bench', () => {
  it('is on the list with what is still to lay, on its own canvas, until what came covers it', async () => {
    const legend = [line(1, { neededDrills: 4, packets: 1 }), line(2, { neededDrills: 2, packets: 1 })];
    const shelved = () => shelve(database, legend, chartOfRows('1111', '22..'));
    const [canvas, other] = [await shelved(), await shelved()];
    const count = (of: Canvas, number: number, drills: number) =>
      enterBag(database, of, bagRequest({ line: number, drills, how: 'counted' }));

    for (const of of [canvas, other]) {
      await count(of, 1, 200);
      await count(of, 2, 200);
      expect((await requestView(database, of, 'today')).lines).toEqual([]);
    }
    const report = { id: randomUUID(), line: 1, left: 1 };
    expect(await noteRanOut(database, canvas, report)).toEqual({ toLay: 4 });
    expect(await noteRanOut(database, canvas, report)).toEqual({ toLay: 4 });
    const { lines, text } = await requestView(database, canvas, 'today');
    expect(lines).toMatchObject([{ line: { line: 1 }, shortDrills: 3, lackingDrills: 3, ranOut: true }]);
    expect(text).toContain('it ran out while I was laying it, please send at least 3');
    expect((await requestView(database, other, 'today')).lines).toEqual([]);
    // Three of the four are laid with drills from elsewhere: one is wanting.
    const mark = { kind: 'lay' as const, sittingId: null, undoes: null, redoes: null };
    await enterMark(database, canvas, { ...mark, id: randomUUID(), runs: [0, 3] });
    expect((await requestView(database, canvas, 'today')).lines).toMatchObject([{ shortDrills: 1 }]);
    await count(canvas, 1, 50);
    expect((await requestView(database, canvas, 'today')).lines).toEqual([]);
    await expect(noteRanOut(database, canvas, { ...report, id: randomUUID(), line: 9 })).rejects.toThrow(
      'no longer has this colour',
    );
    const bare = await shelve(database, legend, null);
    await expect(noteRanOut(database, bare, { ...report, id: randomUUID() })).rejects.toThrow(
      'Without a chart',
    );
  });
});
