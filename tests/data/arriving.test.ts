import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { findCanvas, removeArriving, setArriving, standingOfCanvas } from '../../src/data/canvas';
import type { Database } from '../../src/data/engine/database';
import { shelfEntries } from '../../src/server/shelf/view';
import { line } from '../core/samples';
import { memoryDatabase, shelve } from './memory';

let database: Database;
beforeAll(async () => {
  database = await memoryDatabase();
});
afterAll(() => database.close());

describe('a canvas that arrives in parts', () => {
  it('is not on the shelf until the last of them, and goes when the program ended before', async () => {
    const here = await shelve(database, [line(1)], null);
    const coming = await shelve(database, [line(1)], null);
    await setArriving(database, coming.id, true);
    expect(await standingOfCanvas(database, coming.id)).toBe('arriving');
    expect(await standingOfCanvas(database, here.id)).toBe('here');
    expect(await standingOfCanvas(database, randomUUID())).toBe('unknown');
    expect(await findCanvas(database, coming.id)).toBeNull();
    expect((await shelfEntries(database)).map(({ canvas }) => canvas.id)).toEqual([here.id]);
    await setArriving(database, coming.id, false);
    expect((await findCanvas(database, coming.id))?.id).toBe(coming.id);
    await setArriving(database, coming.id, true);
    await removeArriving(database);
    expect(await standingOfCanvas(database, coming.id)).toBe('unknown');
    expect(await standingOfCanvas(database, here.id)).toBe('here');
  });
});
