import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { bytesToText } from '../../src/core/reading/keptReading';
import { chartOf } from '../../src/data/chart';
import type { Database } from '../../src/data/engine/database';
import { bumpRevision } from '../../src/data/once';
import { readingPhotoBytes, straightPictureOf } from '../../src/data/reading';
import { saveChart } from '../../src/server/chart/writes';
import { correctFacts } from '../../src/server/corrections/writes';
import { readingResultSchema } from '../../src/server/reading/contract';
import { readingView } from '../../src/server/reading/view';
import {
  acceptRead,
  addPhoto,
  answerSquares,
  keepResult,
  keepSamples,
  squarePhoto,
} from '../../src/server/reading/writes';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';

let database: Database;
let mine: Canvas;
let other: Canvas;
const legend = [line(1), line(2)];
beforeEach(async () => {
  database ??= await memoryDatabase();
  mine = await shelve(database, legend, chartOfRows('1122', '1122'));
  other = await shelve(database, legend, chartOfRows('1122', '1122'));
});
afterAll(() => database.close());

const SCREEN = randomUUID();
const view = (canvas = mine, screen: string | null = SCREEN) => readingView(database, canvas, screen);
const picture = async (width = 400, height = 300) =>
  new Uint8Array(
    await sharp({ create: { width, height, channels: 3, background: '#888' } })
      .jpeg()
      .toBuffer(),
  );
const CORNERS = [
  [10, 10],
  [390, 12],
  [388, 290],
  [12, 288],
];
const squares = (more: object = {}) => ({
  ...{ corners: CORNERS, columns: 4, rows: 2, at: { column: 0, row: 0 }, pins: [], removed: false },
  ...more,
});
const b64 = (values: number[]) => bytesToText(new Uint8Array(Uint16Array.from(values).buffer));
const result = async (cells: number[], more: object = {}) => ({
  ...{ id: randomUUID(), corners: CORNERS, columns: 4, rows: 2, cellPx: 40 },
  cells: b64(cells),
  others: b64(cells.map((own) => 3 - own)),
  doubt: b64(cells.map((_, i) => (i === 1 ? 20_000 : 10))),
  torn: b64(cells.map((_, i) => (i === 1 ? 1 : 0))),
  mesh: bytesToText(new Uint8Array(new Float32Array(30).buffer)),
  picture: bytesToText(await picture(96, 48)),
  ...more,
});
async function photo(canvas = mine, name = 'One'): Promise<string> {
  const id = randomUUID();
  await addPhoto(database, canvas, { id, kind: 'canvas', name }, await picture(), null);
  return id;
}
/** A photo that is squared and read. */
async function readPhoto(cells = [1, 2, 2, 2, 1, 1, 2, 2], more: object = {}): Promise<string> {
  const id = await photo();
  await squarePhoto(database, mine, id, squares(more));
  await keepResult(database, mine, id, await result(cells));
  return id;
}

describe('photos to read from', () => {
  it('are kept, squared and read, each on its canvas', async () => {
    const id = await readPhoto();
    const { photos } = await view();
    expect(photos).toMatchObject([{ id, kept: true, width: 400, columns: 4, at: { column: 0, row: 0 } }]);
    expect(photos[0]!.reading?.cellPx).toBe(40);
    expect((await view(other)).photos).toEqual([]);
    await expect(squarePhoto(database, other, id, squares())).rejects.toThrow('no such photo');
    await expect(keepResult(database, other, id, await result([1, 1, 1, 1, 1, 1, 1, 1]))).rejects.toThrow(
      'no such photo',
    );
    expect(await straightPictureOf(database, other.id, id)).toBeNull();
  });

  it('are the same when they come twice, and lose their reading when their squares lie elsewhere', async () => {
    const id = await readPhoto();
    await addPhoto(database, mine, { id, kind: 'canvas', name: 'One' }, await picture(), null);
    expect((await view()).photos).toHaveLength(1);
    // Where it lies on the canvas changes nothing of what was read.
    await squarePhoto(database, mine, id, squares({ at: null }));
    expect((await view()).photos[0]!.reading).not.toBeNull();
    await squarePhoto(database, mine, id, squares({ rows: 3 }));
    expect((await view()).photos[0]!.reading).toBeNull();
  });

  it('stay as they were in what is not said', async () => {
    const id = await readPhoto();
    // Another screen removes it while this one still knows nothing of its corners.
    await squarePhoto(database, mine, id, { removed: true } as Parameters<typeof squarePhoto>[3]);
    expect((await view()).photos).toMatchObject([
      { id, removed: true, columns: 4, at: { column: 0, row: 0 } },
    ]);
    await squarePhoto(database, mine, id, { removed: false } as Parameters<typeof squarePhoto>[3]);
    expect((await view()).photos[0]!.reading).not.toBeNull();
    // Read by corners that are others by now.
    await squarePhoto(database, mine, id, squares({ corners: [[12, 10], ...CORNERS.slice(1)] }));
    await expect(keepResult(database, mine, id, await result([1, 1, 1, 1, 1, 1, 1, 1]))).rejects.toThrow(
      'lie elsewhere',
    );
  });

  it('may be sent without saying which regions are torn', async () => {
    const { torn, ...without } = await result([1, 2, 2, 2, 1, 1, 2, 2]);
    expect(readingResultSchema.validateSync(without).torn).toBe('');
    expect(readingResultSchema.validateSync({ ...without, torn }).torn).toBe(torn);
    expect(() => readingResultSchema.validateSync({ ...without, doubt: '' })).toThrow('is missing');
    const id = await photo();
    await squarePhoto(database, mine, id, squares());
    await keepResult(database, mine, id, { ...without, torn: '' });
    expect((await view()).photos[0]!.reading?.torn).toBe('');
  });

  it('are refused in a sentence where they cannot be', async () => {
    const id = await photo();
    const refused = (more: object) => squarePhoto(database, mine, id, squares(more));
    await expect(refused({ corners: [...CORNERS].reverse() })).rejects.toThrow(/wrong way|begin at another/);
    await expect(refused({ at: { column: 4, row: 0 } })).rejects.toThrow('4 columns');
    await squarePhoto(database, mine, id, squares());
    const odd = async (more: object) =>
      keepResult(database, mine, id, await result([1, 1, 1, 1, 1, 1, 1, 1], more));
    await expect(odd({ columns: 2 })).rejects.toThrow('another number of squares');
    await expect(odd({ cells: b64([9, 1, 1, 1, 1, 1, 1, 1]) })).rejects.toThrow('colour list was changed');
    await expect(odd({ picture: 'AAAA' })).rejects.toThrow('no JPEG');
    await expect(
      addPhoto(
        database,
        mine,
        { id: randomUUID(), kind: 'canvas', name: 'x' },
        new TextEncoder().encode('%PDF-1.7'),
        null,
      ),
    ).rejects.toThrow('PDF');
    await expect(
      addPhoto(database, mine, { id: randomUUID(), kind: 'canvas', name: 'x' }, await picture(80, 80), null),
    ).rejects.toThrow('80 × 80 pixels');
  });
});

describe('samples', () => {
  it('take the place of earlier ones, and are of colours of the list', async () => {
    const glyph = bytesToText(new Uint8Array(1024));
    const sample = (of: number, tint = [0.1, 0.2, 0.3]) => ({
      line: of,
      origin: 'list' as const,
      glyph,
      tint,
    });
    await keepSamples(database, mine, { id: randomUUID(), all: false, samples: [sample(1), sample(2)] });
    await keepSamples(database, mine, {
      id: randomUUID(),
      all: false,
      samples: [sample(2, [0.9, 0.9, 0.9])],
    });
    expect((await view()).samples.map(({ line: of, tint }) => [of, tint[0]])).toEqual([
      [1, 0.1],
      [2, 0.9],
    ]);
    expect((await view(other)).samples).toEqual([]);
    const strange = { id: randomUUID(), all: false, samples: [sample(7)] };
    await expect(keepSamples(database, mine, strange)).rejects.toThrow('no longer on the colour list');
    const short = { id: randomUUID(), all: false, samples: [{ ...sample(1), glyph: 'AAAA' }] };
    await expect(keepSamples(database, mine, short)).rejects.toThrow('16 × 16');
  });
});

describe('answers', () => {
  const say = (answers: [number, number][], screen: string | null = SCREEN, undoes: string | null = null) => {
    const id = randomUUID();
    return answerSquares(database, mine, { id, answers, undoes }, screen).then(() => id);
  };

  it('stand until they are undone at the screen that gave them', async () => {
    const mineFirst = await say([[1, 1]]);
    const theirs = randomUUID();
    await say(
      [
        [2, 1],
        [3, 1],
      ],
      theirs,
    );
    expect((await view()).answers).toEqual([
      [1, 1],
      [2, 1],
      [3, 1],
    ]);
    expect((await view()).undo).toEqual({ id: mineFirst, squares: 1, own: true });
    expect((await view(mine, randomUUID())).undo).toMatchObject({ squares: 2, own: false });
    await say([], SCREEN, mineFirst);
    expect((await view()).answers).toEqual([
      [2, 1],
      [3, 1],
    ]);
    await expect(say([], SCREEN, mineFirst)).rejects.toThrow('undone already');
    expect((await view(other)).answers).toEqual([]);
  });

  it('stay where they are when the canvas gets another width', async () => {
    await say([[5, 1]]);
    const wider = await correctFacts(database, mine, { width: 6, height: 2 });
    expect((await view(wider)).answers).toEqual([[7, 1]]);
    // An answer of a screen that has not heard of it yet.
    const late = { id: randomUUID(), answers: [[6, 1]], columns: 4, undoes: null };
    await answerSquares(database, wider, late, SCREEN);
    expect((await view(wider)).answers).toContainEqual([8, 1]);
    const outside = { ...late, id: randomUUID(), columns: 2 };
    await expect(answerSquares(database, wider, outside, SCREEN)).rejects.toThrow('does not have');
  });

  it('name squares and colours that there are', async () => {
    await expect(say([[8, 1]])).rejects.toThrow('does not have');
    await expect(say([[1, 9]])).rejects.toThrow('does not have');
    await expect(say([])).rejects.toThrow('at least one square');
  });
});

describe('the chart', () => {
  it('is made of readings and answers, and remembers its photos', async () => {
    const id = await readPhoto();
    await answerSquares(database, mine, { id: randomUUID(), answers: [[1, 1]], undoes: null }, SCREEN);
    const done = await acceptRead(database, mine, { id: randomUUID(), keepPhotos: false }, null);
    expect(done).toBe('8 squares read from photos.');
    expect([...(await chartOf(database, mine))!.cells]).toEqual([1, 1, 2, 2, 1, 1, 2, 2]);
    expect((await view()).accepted?.photos).toEqual([id]);
    // The photo itself is dropped, its squares stay to be looked at and read again.
    expect((await view()).photos[0]!.kept).toBe(false);
    expect(await readingPhotoBytes(database, mine.id, id)).toBeNull();
    expect(await straightPictureOf(database, mine.id, id)).not.toBeNull();
    expect((await chartOf(database, other))!.cells[0]).toBe(1);
  });

  it('is made once however often it is asked for, and not over what was changed meanwhile', async () => {
    await readPhoto([2, 2, 2, 2, 2, 2, 2, 2]);
    const wish = { id: randomUUID(), keepPhotos: true };
    await acceptRead(database, mine, wish, null);
    await database.transaction((queries) => saveChart(queries, mine, chartOfRows('1111', '1111')));
    await acceptRead(database, mine, wish, null);
    expect((await chartOf(database, mine))!.cells[0]).toBe(1);
    const busy: Database = Object.create(database);
    let read = 0;
    busy.snapshot = async (work) => {
      const seen = await database.snapshot(work);
      // Somebody repairs a square while the chart is made.
      if (read++ === 0) await bumpRevision(database, mine.id);
      return seen;
    };
    await expect(acceptRead(busy, mine, { id: randomUUID(), keepPhotos: true }, null)).rejects.toThrow(
      'Make it again',
    );
    expect((await chartOf(database, mine))!.cells[0]).toBe(1);
  });

  it('says what is in doubt and what it changes', async () => {
    await readPhoto([2, 2, 2, 2, 2, 2, 2, 2]);
    const done = await acceptRead(database, mine, { id: randomUUID(), keepPhotos: true }, null);
    expect(done).toBe(
      '8 squares read from photos, 1 square of them still in doubt. 4 squares of the chart before changed colour.',
    );
    expect((await view()).photos[0]!.kept).toBe(true);
  });

  it('is not made where it is unclear what belongs where', async () => {
    await expect(acceptRead(database, mine, { id: randomUUID(), keepPhotos: true }, null)).rejects.toThrow(
      'No photo',
    );
    await readPhoto();
    await readPhoto([1, 1, 1, 1, 1, 1, 1, 1], { at: null });
    const before = (await chartOf(database, mine))!.cells;
    await expect(acceptRead(database, mine, { id: randomUUID(), keepPhotos: true }, null)).rejects.toThrow(
      'not clear where photo 2 lies',
    );
    expect((await chartOf(database, mine))!.cells).toEqual(before);
  });
});
