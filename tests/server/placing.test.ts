import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { USUAL_PLACING } from '../../src/core/placing/wish';
import { USUAL_WISH } from '../../src/core/sections/wish';
import type { Database } from '../../src/data/engine/database';
import { placingWishOf, putOwnTips, putPlacingWish } from '../../src/data/placing';
import { putSectionWish } from '../../src/data/sections';
import { enterMark } from '../../src/server/bench/writes';
import {
  type PlacementsView,
  placementsQuery,
  placingWishSchema,
  tipsSchema,
} from '../../src/server/placing/contract';
import { placingPdf } from '../../src/server/placing/print';
import {
  type PlanScope,
  placements,
  placingStart,
  printedPlacing,
  tipsWorthView,
} from '../../src/server/placing/view';
import { keepCut } from '../../src/server/sections/writes';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';
import { words } from './pdfReader';

let database: Database;
let mine: Canvas;
let other: Canvas;
const legend = [line(1), line(2)];
/** 12 × 10: a band of the first colour, the second below. */
const chart = chartOfRows(
  ...Array.from({ length: 4 }, () => '1'.repeat(12)),
  ...Array.from({ length: 6 }, () => '2'.repeat(12)),
);

beforeEach(async () => {
  database ??= await memoryDatabase();
  mine = await shelve(database, legend, chart);
  other = await shelve(database, legend, chart);
  await putOwnTips(database, [{ size: 6, shape: 'both', pen: '', worn: false }]);
});
afterAll(async () => {
  await database.close();
});

async function planOf(
  canvas: Canvas,
  scope: Partial<PlanScope & { wishes: 'none' | 'own'; seconds: number | null }> = {},
): Promise<PlacementsView> {
  const bytes = await placements(database, canvas, {
    borders: 'sections',
    wishes: 'none',
    seconds: null,
    ...scope,
  });
  return JSON.parse(new TextDecoder().decode(bytes)) as PlacementsView;
}

describe('placements for other programs', () => {
  it('lay what is left of one canvas, with the bound beside them', async () => {
    const plan = await planOf(mine, { borders: 'none' });
    expect(plan).toMatchObject({ K: 6, count: 20, lowerBound: 20, placementsOneByOne: 120 });
    expect(plan.placements.map(({ order }) => order)).toEqual(plan.placements.map((_, i) => i + 1));
    await enterMark(
      database,
      mine,
      { id: randomUUID(), kind: 'lay', runs: [0, 48], sittingId: null, undoes: null, redoes: null },
      null,
    );
    expect(await planOf(mine, { borders: 'none' })).toMatchObject({ count: 12, placementsOneByOne: 72 });
    expect(await planOf(other, { borders: 'none' })).toMatchObject({ count: 20 });
  });

  it('keep to the borders of sections, in the order of the work, or to one section', async () => {
    await keepCut(database, mine, { id: randomUUID(), columns: 5, rows: 10 }, null);
    const plan = await planOf(mine);
    for (const { x, length, orientation } of plan.placements) {
      if (orientation === 'h') expect(Math.floor(x / 5)).toBe(Math.floor((x + length - 1) / 5));
    }
    expect(plan.count).toBeGreaterThan(20);
    const second = await planOf(mine, { section: 2 });
    expect(second.placementsOneByOne).toBe(50);
    expect(second.placements.every(({ x }) => x >= 5 && x < 10)).toBe(true);
    await expect(planOf(mine, { section: 9 })).rejects.toThrow('section 9');
  });

  it('go by the tips for the shape of the drills', async () => {
    await putOwnTips(database, [
      { size: 6, shape: 'round', pen: '', worn: false },
      { size: 3, shape: 'square', pen: '', worn: false },
    ]);
    expect(await planOf(mine, { borders: 'none' })).toMatchObject({ K: 3, count: 40 });
  });

  it('go by the wishes of this canvas where they are asked for', async () => {
    await putPlacingWish(database, mine.id, { ...USUAL_PLACING, longest: 2, ownOrder: [2], school: 'own' });
    expect(await planOf(mine, { borders: 'none' })).toMatchObject({ K: 6 });
    expect(await planOf(mine, { borders: 'none', wishes: 'own' })).toMatchObject({ K: 2, count: 60 });
    expect(await planOf(other, { borders: 'none', wishes: 'own' })).toMatchObject({ K: 6 });
    expect(await placingWishOf(database, mine.id)).toMatchObject({ longest: 2, ownOrder: [2] });
    expect(await placingWishOf(database, other.id)).toBeNull();
  });

  it('end with the time that they are given', async () => {
    expect(await planOf(mine, { borders: 'none', seconds: 0.1 })).toMatchObject({ count: 20 });
  });

  it('are refused without a chart', async () => {
    const bare = await shelve(database, legend, null);
    await expect(planOf(bare)).rejects.toThrow('has none yet');
  });
});

describe('the station', () => {
  it('begins with tips, wishes and the hand', async () => {
    await putSectionWish(database, mine.id, { ...USUAL_WISH, hand: 'left' });
    expect(await placingStart(database, mine)).toMatchObject({ hand: 'left', wish: USUAL_PLACING });
    expect(await placingStart(database, other)).toMatchObject({ hand: 'right' });
    expect((await placingStart(database, mine)).tips.map(({ size }) => size)).toEqual([1, 6]);
  });

  it('compares tips for the canvas and for a section', async () => {
    const { worth, words: said } = await tipsWorthView(database, mine, undefined);
    expect(worth).toHaveLength(15);
    expect(worth[0]!.placements).toBe(120);
    expect(worth[5]!.placements).toBe(20);
    expect(said).toMatch(/^An? \d+-tip saves \d+ placements|^A wider tip/);
    await keepCut(database, mine, { id: randomUUID(), columns: 5, rows: 10 }, null);
    expect((await tipsWorthView(database, mine, 1)).worth[0]!.placements).toBe(50);
  });

  it('prints a section bar by bar', async () => {
    const pdf = await placingPdf(await printedPlacing(database, mine, { section: 1, paper: 'a4' }));
    const said = (await Promise.all([1, 2].map((page) => words(pdf, page))))
      .flat()
      .map(({ text }) => text)
      .join(' ');
    expect(said).toContain('20 placements for 120 drills');
    expect(said).toContain('402: 72 drills, 12 placements');
  });
});

describe('what is asked for', () => {
  it('is a section or the whole canvas, in words where it is not', async () => {
    const refused = (query: object) => placementsQuery.validate(query).catch((error: Error) => error.message);
    expect(await refused({})).toBe('Give either a section or scope=canvas.');
    expect(await refused({ section: '1', scope: 'canvas' })).toBe('Give either a section or scope=canvas.');
    expect(await refused({ section: '0' })).toBe('Sections are numbered from 1.');
    expect(await refused({ scope: 'panel' })).toContain('The scope is “canvas”');
    expect(await refused({ scope: 'canvas', borders: 'panels' })).toBe('Borders are “none” or “sections”.');
    expect(await refused({ scope: 'canvas', seconds: '600' })).toContain('at most 60 seconds');
    expect(await placementsQuery.validate({ section: '3' })).toMatchObject({
      section: 3,
      borders: 'sections',
    });
  });

  it('has sound tips and wishes', async () => {
    const tips = (list: unknown) =>
      tipsSchema.validate({ tips: list }).catch((error: Error) => error.message);
    expect(await tips([{ size: 0 }])).toBe('A tip takes at least one drill.');
    expect(await tips([{ size: 2.5 }])).toBe('A tip takes a whole number of drills.');
    expect(await tips([{ size: 3, shape: 'oval' }])).toContain('square or round');
    expect(await tips(new Array(41).fill({ size: 3 }))).toContain('no pen case');
    expect(await tips([{ size: 3 }])).toEqual({ tips: [{ size: 3, shape: 'both', pen: '', worn: false }] });
    const wish = (part: object) =>
      placingWishSchema.validate({ ...USUAL_PLACING, ...part }).catch((error: Error) => error.message);
    expect(await wish({})).toEqual(USUAL_PLACING);
    expect(await wish({ turnWorth: -1 })).toContain('0 placements or more');
    expect(await wish({ longest: 0 })).toContain('at least one drill');
    expect(await wish({ singlesAbove: 120 })).toContain('0 to 100');
    expect(await wish({ school: 'loudest' })).toContain('must be one of');
  });
});
