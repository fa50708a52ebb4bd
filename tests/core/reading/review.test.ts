import { describe, expect, it } from 'vitest';
import { makeChart } from '../../../src/core/cells/chart';
import { standingAnswers } from '../../../src/core/reading/answers';
import { causeOfDoubt, faultInDoubt } from '../../../src/core/reading/doubt';
import { keepReading, labelsOf, meshFromText, meshToText } from '../../../src/core/reading/keptReading';
import { cornersFromText, cornersToText, pinsFromText, pinsToText } from '../../../src/core/reading/places';
import type { Reading } from '../../../src/core/reading/readPhoto';
import {
  acceptedChart,
  countSuspects,
  onCanvas,
  reviewGroups,
  shareRead,
  squaresOf,
} from '../../../src/core/reading/review';
import { shotPlan, stateOfShot } from '../../../src/core/reading/shotPlan';
import { stitched } from '../../../src/core/reading/stitch';
import { line } from '../samples';

const CANVAS = { width: 6, height: 4 };
const LEGEND = [line(1, { neededDrills: 10 }), line(2, { neededDrills: 8 }), line(3, { neededDrills: 6 })];

/** A reading of 6 × 4 squares: what each is, what it may be else, and how much it is in doubt. */
function reading(of: (square: number) => [line: number, other: number, doubt: number]): Reading {
  const squares = Array.from({ length: 24 }, (_, square) => of(square));
  return {
    columns: 6,
    rows: 4,
    cells: Uint16Array.from(squares, ([own]) => own),
    others: Uint16Array.from(squares, ([, other]) => other),
    doubt: Float32Array.from(squares, ([, , doubt]) => doubt),
    flagged: new Uint8Array(24),
    torn: new Uint8Array(24),
    mesh: {
      columns: 6,
      rows: 4,
      x: Float32Array.from({ length: 35 }, (_, i) => i),
      y: new Float32Array(35).fill(7),
    },
    cellPx: 31.5,
  };
}
/** Ten of 1, eight of 2, six of 3 in truth; square 0 is read as 2, squares 10 and 11 are in doubt. */
const read = reading((square) => {
  const own = square < 10 ? 1 : square < 18 ? 2 : 3;
  if (square === 0) return [2, 1, 0.4];
  return square === 10 || square === 11 ? [own, 3, 0.2] : [own, own === 1 ? 2 : 1, 0.001];
});
const together = () => stitched([{ reading: read, at: { column: 0, row: 0 } }]);

describe('what is to be checked', () => {
  it('comes in groups of the same two colours, the largest first', () => {
    const all = onCanvas(together(), new Map(), CANVAS);
    expect(reviewGroups(all)).toEqual([
      { lines: [2, 3], cells: [10, 11] },
      { lines: [1, 2], cells: [0] },
    ]);
    expect(shareRead(all)).toEqual({ squares: 24, read: 24, open: 3 });
    // Of a colour, those in doubt come first.
    expect(squaresOf(all, 2).slice(0, 3)).toEqual([0, 10, 11]);
  });

  it('is settled by answers, which can say that no drill goes there', () => {
    const all = onCanvas(
      together(),
      new Map([
        [0, 1],
        [10, 2],
        [11, 0],
      ]),
      CANVAS,
    );
    expect([all.cells[0], all.cells[10], all.cells[11]]).toEqual([1, 2, 0]);
    expect(reviewGroups(all)).toEqual([]);
    expect(
      standingAnswers(
        [
          {
            id: 'a',
            screenId: 's',
            answers: [
              [0, 0, 3],
              [1, 0, 1],
              [7, 0, 2],
              [6, 0, 2],
              [0, 4, 2],
            ],
            undoes: null,
          },
          { id: 'b', screenId: 's', answers: [[0, 0, 1]], undoes: null },
          { id: 'c', screenId: 't', answers: [], undoes: 'b' },
        ],
        CANVAS,
      ),
    ).toEqual(
      new Map([
        [0, 3],
        [1, 1],
      ]),
    );
  });

  it('shows in the counts: a colour read too often, and the one that it was taken for', () => {
    const all = onCanvas(together(), new Map(), CANVAS);
    expect(countSuspects(all, LEGEND)).toEqual([
      { line: 1, read: 9, needed: 10, perhaps: 2 },
      { line: 2, read: 9, needed: 8, perhaps: 1 },
    ]);
    expect(countSuspects(onCanvas(together(), new Map([[0, 1]]), CANVAS), LEGEND)).toEqual([]);
  });

  it('lies where its photos are, the oddest squares of a colour and the surest of a group first', () => {
    const doubts = [0.3, 0.1, 0.2, 0.1];
    const odd = reading((square) => [1, square < 4 ? 2 : 0, doubts[square] ?? (square === 23 ? 0.9 : 0)]);
    const wide = { width: 9, height: 7 };
    const at = { column: 2, row: 3 };
    const all = onCanvas(stitched([{ reading: odd, at }]), new Map(), wide);
    const index = (square: number) => (3 + Math.floor(square / 6)) * 9 + 2 + (square % 6);
    const shown = Array.from({ length: 24 }, (_, square) => index(square));
    for (let cell = 0; cell < 63; cell++) {
      const square = shown.indexOf(cell);
      expect([all.cells[cell], all.from[cell]], String(cell)).toEqual(square < 0 ? [0, -1] : [1, 0]);
      expect(all.doubt[cell]).toBeCloseTo(square < 0 ? 0 : (doubts[square] ?? (square === 23 ? 0.9 : 0)));
    }
    // One that can be nothing else is in a group of its own.
    expect(reviewGroups(all)).toEqual([
      { lines: [1, 2], cells: [1, 3, 2, 0].map(index) },
      { lines: [1, 0], cells: [index(23)] },
    ]);
    expect(squaresOf(all, 1).slice(0, 6)).toEqual([23, 0, 2, 1, 3, 4].map(index));
    expect(squaresOf(all, 2)).toEqual([]);
    expect(shareRead(all)).toEqual({ squares: 63, read: 24, open: 5 });
    // What is on the canvas already is not changed in place; answers beyond it are of a larger one.
    const before = makeChart(9, 7, new Uint16Array(63).fill(2));
    const answered = onCanvas(
      stitched([{ reading: odd, at }]),
      new Map([
        [index(0), 2],
        [63, 1],
      ]),
      wide,
    );
    const chart = acceptedChart(answered, [], [1], LEGEND, before);
    expect([...before.cells].every((each) => each === 2)).toBe(true);
    expect([chart.cells[index(0)], chart.cells[index(1)], chart.cells[0]]).toEqual([2, 1, 2]);
  });

  it('tells the counts that are farthest off first, and the colour that lacks what is too much', () => {
    // 1 is read 14 times for 10; its squares may be 2 more often than 3, but only 3 lacks any.
    const off = reading((square) =>
      square < 14 ? [1, square < 3 ? 3 : 2, 0.001] : square < 22 ? [2, 1, 0.001] : [3, 0, 0.001],
    );
    const all = onCanvas(stitched([{ reading: off, at: { column: 0, row: 0 } }]), new Map(), CANVAS);
    expect(countSuspects(all, LEGEND)).toEqual([
      { line: 1, read: 14, needed: 10, perhaps: 3 },
      { line: 3, read: 2, needed: 6, perhaps: null },
    ]);
    const more = LEGEND.map((each) => (each.line === 2 ? { ...each, neededDrills: 0 } : each));
    expect(countSuspects(all, more).map(({ line, perhaps }) => [line, perhaps])).toEqual([
      [2, null],
      [1, 3],
      [3, null],
    ]);
  });

  it('becomes the chart, over what no photo shows', () => {
    const before = makeChart(8, 4, new Uint16Array(32).fill(3));
    const wide = { width: 8, height: 4 };
    const chart = acceptedChart(onCanvas(together(), new Map([[0, 1]]), wide), [], [1], LEGEND, before);
    expect([...chart.cells.slice(0, 8)]).toEqual([1, 1, 1, 1, 1, 1, 3, 3]);
    expect(() =>
      acceptedChart(onCanvas(together(), new Map(), wide), [], [1], LEGEND.slice(1), before),
    ).toThrow('no longer on the colour list');
    expect(() => acceptedChart(onCanvas(stitched([]), new Map(), wide), [], [], LEGEND, null)).toThrow(
      'No photo has been read',
    );
  });

  it('is refused where photos lie over the edge, or contradict each other', () => {
    const placed = (column: number, row: number) =>
      onCanvas(stitched([{ reading: read, at: { column, row } }]), new Map(), { width: 7, height: 5 });
    expect(shareRead(placed(1, 1)).read).toBe(24);
    expect(() => placed(2, 1)).toThrow(
      'they show columns 3 to 8 and rows 2 to 5 of 7 × 5 squares. Say where one of them lies',
    );
    for (const [column, row] of [
      [-1, 0],
      [0, -1],
      [1, 2],
    ] as const)
      expect(() => placed(column, row)).toThrow('over the edge of the canvas');
    // Two canvases mixed: the same place, other squares.
    const big = (of: number): Reading => ({
      ...reading(() => [of, 0, 0.0001]),
      ...{ columns: 8, rows: 6 },
      cells: new Uint16Array(48).fill(of),
      others: new Uint16Array(48),
      doubt: new Float32Array(48).fill(0.0001),
    });
    const at = { column: 0, row: 0 };
    const mixed = stitched([
      { reading: big(1), at },
      { reading: big(2), at },
    ]);
    expect(mixed.contradicted).toEqual([{ photo: 1, cells: 48, differing: 48 }]);
    const all = onCanvas(mixed, new Map(), { width: 8, height: 6 });
    expect(() => acceptedChart(all, mixed.contradicted, [1, 4], LEGEND, null)).toThrow(
      'Photo 4 shows something else',
    );
  });
});

it('a photo of which nearly everything is in doubt is told to be of something else', () => {
  expect(faultInDoubt(60, 100)).toBeNull();
  expect(faultInDoubt(61, 100)).toContain('61 of 100 squares are in doubt');
  expect(causeOfDoubt(8, 100)).toBeNull();
  expect(causeOfDoubt(9, 100)).toContain('drills laid there already');
});

describe('what is kept of a reading', () => {
  it('comes back as it was, doubt to a 65,535th', () => {
    const torn = Uint8Array.from(read.cells, (_, square) => (square === 5 ? 1 : 0));
    const kept = keepReading({ ...read, torn });
    const back = labelsOf(kept);
    expect([back.cells, back.others, back.torn]).toEqual([read.cells, read.others, torn]);
    expect([...back.doubt].map((value, i) => Math.abs(value - read.doubt[i]!) < 2e-5)).not.toContain(false);
    const mesh = meshFromText(meshToText(read.mesh), 6, 4);
    expect(mesh).toEqual(read.mesh);
    // Readings from before torn regions were looked for.
    expect(labelsOf({ ...kept, torn: '' }).torn).toEqual(new Uint8Array(24));
    expect(() => labelsOf({ ...kept, torn: 'AQA=' })).toThrow('another number of squares');
    expect(() => labelsOf({ ...kept, columns: 7 })).toThrow('another number of squares');
    expect(() => labelsOf({ ...kept, cells: '§' })).toThrow('base64');
    expect(() => meshFromText(kept.mesh, 7, 4)).toThrow('another number of corners');
    // Six bytes are no whole numbers of four.
    expect(() => meshFromText('AAAAAAAA', 6, 4)).toThrow('another number of corners');
  });

  it('so do corners and pins', () => {
    const corners = [
      [1.25, 2],
      [30, 3.5],
      [31, 40],
      [0, 41],
    ] as const;
    expect(cornersFromText(cornersToText(corners))).toEqual(corners);
    for (const text of ['1,2 3,4', '1,2 3,4 5,6 7', '1,2 3,4 5,6 7,8,9', '1,2 3,4 5,6 7,x', ''])
      expect(() => cornersFromText(text), text).toThrow('four corners');
    const pins = [{ column: 3, row: 4, x: 100.5, y: 20 }];
    expect(pinsFromText(pinsToText(pins))).toEqual(pins);
    expect(pinsFromText('')).toEqual([]);
  });
});

describe('the plan of photos', () => {
  it.each([
    [160, 200, 12],
    [120, 160, 12],
    [700, 600, 48],
    [40, 30, 2],
  ])('covers every square of %i × %i, and neighbours overlap', (width, height, megapixels) => {
    const { shots, across, down, cellPx } = shotPlan({ width, height }, megapixels);
    expect(shots).toHaveLength(across * down);
    const seen = new Uint8Array(width * height);
    for (const { x, y, width: w, height: h } of shots) {
      expect(w <= 70 && h <= 70).toBe(true);
      for (let j = y; j < y + h; j++) for (let i = x; i < x + w; i++) seen[j * width + i]!++;
    }
    expect(seen.every((times) => times > 0)).toBe(true);
    for (const [a, b] of shots.slice(1).map((shot, i) => [shots[i]!, shot] as const))
      if (a.y === b.y) expect(a.x + a.width - b.x).toBeGreaterThanOrEqual(5);
    expect(cellPx).toBeGreaterThan(20);
  });

  it('knows which of its parts are there and which are read', () => {
    const part = { x: 10, y: 0, width: 20, height: 10 };
    const at = (x: number, read: boolean) => ({ shows: { x, y: 0, width: 20, height: 10 }, read });
    expect(stateOfShot(part, [])).toBe('missing');
    expect(stateOfShot(part, [{ shows: null, read: true }, at(20, true), at(40, true)])).toBe('missing');
    expect(stateOfShot(part, [at(13, false)])).toBe('there');
    expect(stateOfShot(part, [at(13, false), at(9, true)])).toBe('read');
  });

  it('is one photo for a small canvas', () => {
    expect(shotPlan({ width: 40, height: 40 }, 12).shots).toEqual([{ x: 0, y: 0, width: 40, height: 40 }]);
  });
});
