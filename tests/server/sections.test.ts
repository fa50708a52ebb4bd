import { randomUUID } from 'node:crypto';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import type { Canvas } from '../../src/core/canvas/canvas';
import { wholeRect } from '../../src/core/cells/rect';
import { USUAL_ORDER } from '../../src/core/sections/order';
import { piecesFromText, piecesToText } from '../../src/core/sections/plan';
import { USUAL_WISH } from '../../src/core/sections/wish';
import { addSitting, addSittingEdit, endSitting } from '../../src/data/bench';
import { findCanvas } from '../../src/data/canvas';
import type { Database } from '../../src/data/engine/database';
import { inFrontOf, putInFront } from '../../src/data/inFront';
import { putSectionWish, sectionPlanOf } from '../../src/data/sections';
import { ticksOf } from '../../src/data/ticks';
import { enterMark } from '../../src/server/bench/writes';
import { panelsView, savePanels } from '../../src/server/chart/panels';
import { correctFacts } from '../../src/server/corrections/writes';
import { cutSchema, proposalSchema, sectionWishSchema } from '../../src/server/sections/contract';
import { planForPage } from '../../src/server/sections/page';
import { coverPlanPdf, pullListPdf, sectionMapPdf } from '../../src/server/sections/print';
import { printedPull, pullListView } from '../../src/server/sections/pull';
import { tickColour, ticksView } from '../../src/server/sections/ticks';
import { timeModelView } from '../../src/server/sections/timeModel';
import {
  proposal,
  sectionPrint,
  sectionsOf,
  sectionsPage,
  sectionsView,
} from '../../src/server/sections/view';
import { keepCut } from '../../src/server/sections/writes';
import { chartOfRows, line } from '../core/samples';
import { memoryDatabase, shelve } from '../data/memory';
import { words } from './pdfReader';

let database: Database;
let mine: Canvas;
let other: Canvas;
const legend = [line(1), line(2), line(3)];
/** 20 × 10 squares: two halves, and a strip of the third colour at the bottom. */
const chart = chartOfRows(
  ...Array.from({ length: 8 }, () => '11111111112222222222'),
  '33333333333333333333',
  '33333333333333333333',
);
const halves = [
  { rects: [{ x: 0, y: 0, width: 10, height: 10 }], name: 'Left' },
  { rects: [{ x: 10, y: 0, width: 10, height: 10 }], name: null },
];

beforeEach(async () => {
  database ??= await memoryDatabase();
  mine = await shelve(database, legend, chart);
  other = await shelve(database, legend, chart);
});
afterAll(async () => {
  await database.close();
});

const keep = (more: Partial<Parameters<typeof keepCut>[2]>, screen: string | null = null, canvas = mine) =>
  keepCut(database, canvas, { id: randomUUID(), ...more }, screen);
const count = async (canvas: Canvas) => (await sectionsOf(database, canvas)).sections.length;

describe('a cut', () => {
  it('is kept as a grid or piece by piece, of one canvas alone', async () => {
    expect(await count(mine)).toBe(1);
    await keep({ columns: 5, rows: 5 });
    expect(await count(mine)).toBe(8);
    await keep({ sections: halves });
    const { sections } = await sectionsOf(database, mine);
    expect(sections.map(({ number, name, width }) => [number, name, width])).toEqual([
      [1, 'Left', 10],
      [2, null, 10],
    ]);
    expect(await count(other)).toBe(1);
    // Only the order: the pieces stay.
    await keep({ order: { way: 'rows', corner: 'top right', focal: null } });
    expect((await sectionsOf(database, mine)).sections.map(({ order }) => order)).toEqual([2, 1]);
  });

  it('is told with what each section holds, takes and is judged by', async () => {
    await keep({ sections: halves });
    await putSectionWish(database, mine.id, { ...USUAL_WISH, cover: 'fold', pad: 'A4' });
    const view = await sectionsView(database, mine);
    expect(view.wish.cover).toBe('fold');
    expect(view.sections[0]).toMatchObject({
      number: 1,
      order: 1,
      name: 'Left',
      rects: halves[0]!.rects,
      drills: 100,
      laid: 0,
      colours: 2,
      largest: { line: 1, drills: 80 },
      misfits: [],
    });
    // 2.5 × 2.5 cm a section; the first opens both.
    expect(view.sections[0]!.bareCm2).toBeCloseTo(12.5, 6);
    expect(view.sections[0]!.conflict).toMatch(/right hand rests on 3 cm² of bare adhesive, in section 2/);
    expect(view.sections[0]!.minutes.expected).toBeGreaterThan(0);
    expect(view.sections[1]!.conflict).toBeNull();
  });

  it('is taken back and made again, for the screen that made it, over the whole ledger', async () => {
    const screen = randomUUID();
    const [first, second] = [randomUUID(), randomUUID()];
    await keep({ id: first, columns: 5, rows: 5 }, screen);
    await keep({ id: second, sections: halves }, screen);
    expect((await sectionsPage(database, mine, screen)).history.undo).toMatchObject({
      id: second,
      sections: 2,
      own: true,
    });
    // The first is not in use: undoing it would show nothing.
    // Another screen is offered the same, as done elsewhere; the page itself has no name yet.
    for (const elsewhere of [randomUUID(), null]) {
      expect((await sectionsPage(database, mine, elsewhere)).history.undo).toMatchObject({
        id: second,
        own: false,
      });
    }
    await expect(keep({ undoes: first }, screen)).rejects.toThrow('cut again since');
    await keep({ undoes: second }, screen);
    expect(await count(mine)).toBe(8);
    await expect(keep({ undoes: second }, screen)).rejects.toThrow('undone already');
    expect((await sectionsPage(database, mine, screen)).history.redo).toMatchObject({ id: second });
    await keep({ redoes: second }, screen);
    expect((await sectionsOf(database, mine)).sections[0]!.name).toBe('Left');
    await expect(keep({ redoes: first }, screen)).rejects.toThrow('not undone');
    await expect(keep({ undoes: first }, screen, other)).rejects.toThrow('no such cut');
    const again = (await sectionsPage(database, mine, screen)).history.undo!.id;
    await keep({ undoes: again }, screen);
    await keep({ undoes: first }, screen);
    expect(await count(mine)).toBe(1);
  });

  it('twice with one id changes nothing, and with other content is refused', async () => {
    const id = randomUUID();
    await keep({ id, sections: halves });
    await keep({ id, sections: halves });
    const rows = await database.query('select id from section_cut where canvas_id = $1', [mine.id]);
    expect(rows).toHaveLength(1);
    await expect(keep({ id, columns: 5, rows: 5 })).rejects.toMatchObject({ status: 409 });
    await expect(keep({ id, sections: halves }, null, other)).rejects.toMatchObject({ status: 409 });
  });

  it('that does not cover the canvas once is refused, and nothing is lost', async () => {
    await keep({ sections: halves });
    for (const [sections, words] of [
      [halves.slice(0, 1), 'No section has the square in column 11, row 1.'],
      [[...halves, halves[0]!], 'Sections 1 and 3 both have'],
      [[{ rects: [{ x: 0, y: 0, width: 21, height: 10 }], name: null }], 'beyond the canvas'],
    ] as const) {
      await expect(keep({ sections: [...sections] })).rejects.toThrow(words);
    }
    await expect(keep({ pieces: 'nonsense' })).rejects.toThrow('no rectangle of a section');
    await expect(keep({})).rejects.toThrow('Say how to cut');
    expect(await count(mine)).toBe(2);
    await expect(cutSchema.validate({ columns: 4, rows: 20 })).rejects.toThrow('at least 5 squares');
    await expect(keep({ sections: [{ rects: [] }] })).rejects.toThrow('Section 1 has no square.');
    await expect(keep({ sections: { all: true } })).rejects.toThrow('must be a list');
  });

  it('leaves what is laid as it is, and forgets what was in front, whose number means another place now', async () => {
    await enterMark(database, mine, {
      id: randomUUID(),
      kind: 'lay',
      runs: [0, 30],
      sittingId: null,
      undoes: null,
      redoes: null,
    });
    for (const canvas of [mine, other])
      await putInFront(database, canvas.id, { section: 1, line: 1 }, new Date().toISOString());
    await keep({ sections: halves });
    expect(await inFrontOf(database, mine.id)).toBeNull();
    expect(await inFrontOf(database, other.id)).toEqual({ section: 1, line: 1 });
    const { sections } = await sectionsView(database, mine);
    expect(sections.map(({ laid }) => laid)).toEqual([20, 10]);
  });

  it('stays over new panels, cut where they meet, and does not hold on another size until that is undone', async () => {
    await keep({ sections: [{ rects: [wholeRect(mine)], name: 'All' }] });
    const plan = {
      columnCuts: [10],
      rowCuts: [],
      overlap: 0,
      marginMm: 0,
      reachWidthCm: null,
      reachHeightCm: null,
    };
    await savePanels(database, mine, plan);
    const cut = (await findCanvas(database, mine.id))!;
    expect(cut.panelRects).toHaveLength(2);
    expect((await panelsView(database, cut)).panels).toHaveLength(2);
    expect((await sectionsOf(database, cut)).sections.map(({ name, x }) => [name, x])).toEqual([
      ['All', 0],
      ['All', 10],
    ]);
    await correctFacts(database, cut, { width: 30 });
    const wide = (await findCanvas(database, mine.id))!;
    expect((await sectionPlanOf(database, wide)).pieces).toBeNull();
    await correctFacts(database, wide, { width: 20 });
    await savePanels(database, (await findCanvas(database, mine.id))!, plan);
    expect((await sectionPlanOf(database, (await findCanvas(database, mine.id))!)).pieces).not.toBeNull();
  });
});

describe('a proposal', () => {
  it('has the shape of the sections, and saves nothing', async () => {
    const cut = await proposalSchema.validate({ kind: 'blocks', columns: 10, rows: 5 });
    const { order, hand, cover, ...wish } = cut;
    const view = await proposal(database, mine, { ...wish, order: USUAL_ORDER }, { hand: 'left' });
    expect(view.sections).toHaveLength(4);
    expect(view.sections.reduce((sum, { drills }) => sum + drills, 0)).toBe(200);
    expect(view.sections[0]).toHaveProperty('minutes.expected');
    expect(piecesFromText(view.plan.pieces!)).toHaveLength(view.sections.length);
    expect(await count(mine)).toBe(1);
    expect([order, hand, cover]).toEqual([undefined, undefined, undefined]);
    for (const [wrong, words] of [
      [{ kind: 'straight', minutes: 0 }, 'at least 5 minutes'],
      [{ kind: 'straight', minutes: 10_000 }, 'at most 600 minutes'],
      [{ kind: 'spiral' }, 'must be one of'],
      [{}, 'Say how to cut'],
      [{ kind: 'blocks', columns: 2 }, 'at least 5 squares'],
      [{ kind: 'straight', snap: 7 }, 'every 5th or every 10th'],
    ] as const) {
      await expect(proposalSchema.validate(wrong)).rejects.toThrow(words);
    }
    await expect(
      sectionWishSchema.validate({ ...USUAL_WISH, sheets: { ...USUAL_WISH.sheets, overlapMm: 90 } }),
    ).rejects.toThrow('at most 30 mm');
    expect(await sectionWishSchema.validate(USUAL_WISH)).toEqual(USUAL_WISH);
  });
});

describe('the time model', () => {
  it('learns from the sittings of all canvases with a chart, as they were corrected', async () => {
    const before = (await timeModelView(database)).sittings;
    const sit = async (canvas: Canvas, from: number, minutes: number, runs: number[]) => {
      const id = randomUUID();
      const start = Date.UTC(2026, 4, 1, 18) + from * 86_400_000;
      await addSitting(database, canvas.id, id, new Date(start).toISOString());
      await enterMark(database, canvas, {
        id: randomUUID(),
        kind: 'lay',
        runs,
        sittingId: id,
        undoes: null,
        redoes: null,
      });
      await endSitting(database, id, new Date(start + minutes * 60_000).toISOString(), '');
      return { id, start };
    };
    await sit(mine, 0, 12, [0, 60]);
    await sit(other, 1, 14, [0, 60]);
    // A clock that ran all night, a press too much, and a canvas without a chart teach nothing.
    const night = await sit(mine, 2, 900, [60, 60]);
    await sit(mine, 3, 1, [120, 20]);
    const plain = await shelve(database, legend, null, { width: 20, height: 10 });
    await sit(plain, 4, 20, [0, 60]);
    expect((await timeModelView(database)).sittings).toBe(before + 2);
    // Corrected to a quarter of an hour, the night counts.
    await addSittingEdit(
      database,
      mine.id,
      {
        id: randomUUID(),
        sittingId: night.id,
        startedAt: new Date(night.start).toISOString(),
        endedAt: new Date(night.start + 15 * 60_000).toISOString(),
        note: '',
        removed: false,
      },
      new Date().toISOString(),
    );
    const view = await timeModelView(database);
    expect(view.sittings).toBe(before + 3);
    expect(view.foretold.at(-1)!.minutes).toBeCloseTo(15, 6);
    expect(view.efforts.map(({ kind }) => kind)).toEqual([
      'colours',
      'singles',
      'shortBars',
      'longBars',
      'turns',
      'confetti',
    ]);
    // 60 drills in 12 minutes are slower than usual.
    expect(view.efforts[0]!.seconds).toBeGreaterThan(view.efforts[0]!.usual);
    expect(view.meanError).toBeGreaterThan(0);
    expect(view.inBand).toBeLessThanOrEqual(view.foretold.length);
  });
});

describe('a pull list', () => {
  it('is in picking order, for a section or the next ones with something left', async () => {
    await keep({ sections: halves });
    const one = await pullListView(database, mine, { section: 1, next: 1 });
    // 80 + 20 to lay; 3 % bad ones are reckoned with from the start.
    expect(one.pulls.map(({ line: of, toLay, toTip }) => [of, toLay, toTip])).toEqual([
      [1, 80, 83],
      [3, 20, 21],
    ]);
    expect(one).toMatchObject({ drills: 100, trashShare: 0.03, sections: [{ number: 1, name: 'Left' }] });
    const both = await pullListView(database, mine, { section: 1, next: 5 });
    expect(both.sections.map(({ number }) => number)).toEqual([1, 2]);
    expect(both.drills).toBe(200);
    const plain = await shelve(database, legend, null);
    await expect(pullListView(database, plain, { section: 1, next: 1 })).rejects.toThrow('needs a chart');
    await expect(pullListView(database, mine, { section: 3, next: 1 })).rejects.toMatchObject({
      status: 404,
    });
  });

  it('is printed, as are the map and the cover plan', async () => {
    await keep({ sections: halves });
    const pull = await pullListPdf(await printedPull(database, mine, { section: 1, next: 1, paper: 'a4' }));
    const told = (await words(pull)).map(({ text }) => text).join(' ');
    expect(told).toContain('To take out for section 1, Left');
    expect(told).toContain('83');
    const print = await sectionPrint(database, mine, 'a4');
    expect((await words(await sectionMapPdf(print))).map(({ text }) => text).join(' ')).toContain(
      '2 sections of 5 × 2.5 cm',
    );
    const cover = (await words(await coverPlanPdf(print))).map(({ text }) => text).join(' ');
    expect(cover).toContain('lie bare at once');
  });
});

it('a colour is ticked in a section of several rectangles, and stays ticked in its parts', async () => {
  const plain = await shelve(database, legend, null, { width: 20, height: 10 });
  const l = [
    {
      rects: [
        { x: 0, y: 0, width: 10, height: 10 },
        { x: 10, y: 5, width: 10, height: 5 },
      ],
      name: null,
    },
    { rects: [{ x: 10, y: 0, width: 10, height: 5 }], name: null },
  ];
  await keep({ pieces: piecesToText(l) }, null, plain);
  await tickColour(database, plain, { id: randomUUID(), section: 1, line: 2, done: true });
  expect((await ticksOf(database, plain.id))[0]!.rects).toEqual(l[0]!.rects);
  expect((await ticksView(database, plain)).ticked).toEqual([{ line: 2, section: 1 }]);
  await keep({ columns: 10, rows: 5 }, null, plain);
  expect((await ticksView(database, plain)).ticked.map(({ section }) => section)).toEqual([1, 3, 4]);
});

it('a page holds a cut that is short, and leaves a long one to be loaded', () => {
  const plan = { block: { columns: 9, rows: 9 }, pieces: null, order: USUAL_ORDER };
  expect(planForPage(plan)).toBe(plan);
  const pieces = (count: number) => ({
    ...{ block: null, order: USUAL_ORDER },
    pieces: piecesToText(
      Array.from({ length: count }, (_, i) => ({ rects: [{ x: i, y: 0, width: 1, height: 9 }], name: null })),
    ),
  });
  expect(planForPage(pieces(20))).toEqual(pieces(20));
  expect(planForPage(pieces(900))).toBeNull();
});
