import { describe, expect, it } from 'vitest';
import { panelGrid, panelsSideBySide } from '../../../src/core/canvas/canvas';
import { panelPlace, panelPlaceInWords } from '../../../src/core/cells/position';
import {
  asSections,
  joined,
  movedSide,
  numberedInOrder,
  piecesOf,
  renamed,
  renumbered,
  split,
} from '../../../src/core/sections/editCut';
import { sectionByKey } from '../../../src/core/sections/next';
import { inOrder, USUAL_ORDER, type WorkOrder } from '../../../src/core/sections/order';
import { outlineOf, roomiestRect } from '../../../src/core/sections/outline';
import { ownersOf, rectsOfOwners } from '../../../src/core/sections/owners';
import {
  faultInPieces,
  MAX_SECTIONS,
  type Piece,
  piecesFromJson,
  piecesFromText,
  piecesOnPanels,
  piecesToText,
  sectionsOfPlan,
} from '../../../src/core/sections/plan';
import { makeSection, sectionAt } from '../../../src/core/sections/section';
import { chartOfRows } from '../samples';

const canvas = { width: 6, height: 4, panelRects: panelsSideBySide({ width: 6, height: 4 }, 1) };
/** Left half; the right half above and below; an L is made of two of them. */
const thirds: Piece[] = [
  { rects: [{ x: 0, y: 0, width: 3, height: 4 }], name: null },
  { rects: [{ x: 3, y: 0, width: 3, height: 2 }], name: 'Beak; left = 1, 2' },
  { rects: [{ x: 3, y: 2, width: 3, height: 2 }], name: null },
];
const sections = asSections(thirds);

describe('pieces', () => {
  it('as a text come back as they were', () => {
    const text = piecesToText([...thirds, { rects: [...thirds[0]!.rects, ...thirds[2]!.rects], name: '' }]);
    expect(text).toMatch(/^0,0,3,4;3,0,3,2=Beak%3B%20left%20%3D%201%2C%202;3,2,3,2;0,0,3,4\+3,2,3,2=$/);
    expect(piecesToText(piecesFromText(text))).toBe(text);
    expect(piecesFromText(text)[1]!.name).toBe('Beak; left = 1, 2');
    const wide = [{ rects: [{ x: 120, y: 340, width: 56, height: 78 }], name: null }];
    expect(piecesFromText('120,340,56,78')).toEqual(wide);
    for (const wrong of [
      ...['', '1,2,3', '1,2,3,-4', 'a,b,c,d', '0,0,1,1+', '0,0,1,1=%ZZ'],
      ...['x0,0,1,1', '0,0,1,1x', '=Beak'],
    ]) {
      expect(() => piecesFromText(wrong), wrong).toThrow(/no rectangle|cannot be read/);
    }
    expect(() => piecesFromText('7'.repeat(900))).toThrow(`“${'7'.repeat(40)}” is no rectangle`);
  });

  it('as other programs send them are read, or told what is wrong', () => {
    expect(
      piecesFromJson([{ rects: thirds[0]!.rects }, { rects: thirds[1]!.rects, name: ' Beak ' }]),
    ).toEqual([thirds[0], { rects: thirds[1]!.rects, name: 'Beak' }]);
    for (const [wrong, words] of [
      [{}, 'must be a list'],
      [[null], 'Section 1 needs its rectangles'],
      [[{ rects: [{}] }], 'not of whole squares'],
      [[{ rects: [{ x: 0, y: 0, width: '3', height: 4 }] }], 'not of whole squares'],
      [[{ rects: [{ x: -1, y: 0, width: 3, height: 4 }] }], 'not of whole squares'],
      [[{ rects: thirds[0]!.rects, name: 7 }], 'name of section 1 must be text'],
      [[{ rects: new Array(200_001).fill(thirds[0]!.rects[0]) }], 'too many corners'],
    ] as const) {
      expect(() => piecesFromJson(wrong), words).toThrow(words);
    }
  });

  it('cover every square that wants a drill, once, and no more than the canvas', () => {
    const fault = (pieces: Piece[], of = canvas, chart = null as Parameters<typeof faultInPieces>[2]) =>
      faultInPieces(pieces, of, chart);
    expect(fault(thirds)).toBeNull();
    expect(fault([])).toMatch(/at least one section/);
    expect(fault(thirds.slice(0, 2))).toBe('No section has the square in column 4, row 3.');
    expect(fault([...thirds, thirds[1]!])).toBe('Sections 2 and 4 both have the square in column 4, row 1.');
    expect(fault([{ rects: [{ x: 0, y: 0, width: 7, height: 4 }], name: null }])).toMatch(
      /beyond the canvas, which has 6 columns/,
    );
    expect(fault([{ rects: [{ x: 0.5, y: 0, width: 2, height: 4 }], name: null }])).toMatch(
      /no part of the canvas/,
    );
    expect(fault([{ rects: [], name: null }])).toBe('Section 1 has no square.');
    for (const wrong of [{ width: 0 }, { height: 0 }, { x: -1 }, { y: -1 }]) {
      const rects = [{ ...thirds[0]!.rects[0]!, ...wrong }];
      expect(fault([{ rects, name: null }]), JSON.stringify(wrong)).toBe(
        'Section 1 is no part of the canvas.',
      );
    }
    expect(fault([{ rects: [{ x: 0, y: 1, width: 6, height: 4 }], name: null }])).toMatch(
      /Section 1 goes beyond the canvas, which has 6 columns and 4 rows/,
    );
    expect(fault([thirds[0]!, { ...thirds[1]!, name: 'x'.repeat(61) }])).toBe(
      'The name of section 2 is longer than 60 signs.',
    );
    expect(fault([{ ...thirds[0]!, name: 'x'.repeat(60) }, ...thirds.slice(1)])).toBeNull();
    const bareCorner = chartOfRows('1.....', '......', '......', '......');
    expect(fault([thirds[1]!], canvas, bareCorner)).toBe('No section has the square in column 1, row 1.');
    // As many as can be kept, one square each, and one more.
    const row = { width: MAX_SECTIONS + 1, height: 1, panelRects: [] };
    const singles = Array.from({ length: row.width }, (_, x) => ({
      rects: [{ x, y: 0, width: 1, height: 1 }],
      name: null,
    }));
    expect(fault(singles.slice(0, -1), { ...row, width: MAX_SECTIONS })).toBeNull();
    expect(fault(singles, row)).toMatch(/^These are [\d,]+ sections; more than [\d,]+ cannot be kept\.$/);
    expect(
      fault(
        [{ rects: new Array(100_001).fill(thirds[0]!.rects[0]), name: null }, thirds[1]!].concat([
          { rects: new Array(100_000).fill(thirds[0]!.rects[0]), name: null },
        ]),
      ),
    ).toMatch(/too many corners/);
    // Bare squares need no section.
    const chart = chartOfRows('111...', '111...', '111...', '111..2');
    expect(fault(thirds.slice(0, 1), canvas, chart)).toBe('No section has the square in column 6, row 4.');
    expect(fault([thirds[0]!, thirds[2]!], canvas, chart)).toBeNull();
    const two = { ...canvas, panelRects: panelGrid(canvas, [2]) };
    expect(fault(thirds, two)).toMatch(/Section 1 lies on panels 1 and 2/);
    expect(fault(piecesOnPanels(thirds, two.panelRects), two)).toBeNull();
    expect(piecesOnPanels(thirds, two.panelRects).map(({ rects }) => rects[0]!.width)).toEqual([2, 1, 3, 3]);
  });

  it('as owners of squares come back as rectangles', () => {
    const l = asSections([{ rects: [...thirds[0]!.rects, ...thirds[2]!.rects], name: null }, thirds[1]!]);
    const rects = rectsOfOwners(ownersOf(canvas, l), canvas, 2);
    expect(rects[1]).toEqual(thirds[1]!.rects);
    expect(rects[0]!.reduce((sum, { width, height }) => sum + width * height, 0)).toBe(18);
    expect(sectionAt(l, 4, 3)!.number).toBe(1);
    expect(sectionAt(l, 4, 1)!.number).toBe(2);
  });

  it('follow from a plan, a grid or one by one', () => {
    const grid = sectionsOfPlan(canvas, { block: { columns: 3, rows: 4 }, pieces: null, order: USUAL_ORDER });
    expect(grid.map(({ x, width }) => [x, width])).toEqual([
      [0, 3],
      [3, 3],
    ]);
    const own = sectionsOfPlan(canvas, { block: null, pieces: piecesToText(thirds), order: USUAL_ORDER });
    expect(own.map(({ number }) => number)).toEqual([1, 2, 3]);
    expect(own.map(({ name, order }) => [name, order])).toEqual([
      [null, 1],
      ['Beak; left = 1, 2', 2],
      [null, 3],
    ]);
  });
});

describe('the order of the work', () => {
  // Three by two.
  const six = Array.from({ length: 6 }, (_, i) =>
    makeSection(i + 1, [{ x: (i % 3) * 10, y: Math.floor(i / 3) * 10, width: 10, height: 10 }]),
  );
  const size = { width: 30, height: 20 };
  const turns = (wish: Partial<WorkOrder>) =>
    [...inOrder(six, { ...USUAL_ORDER, ...wish }, size)]
      .sort((a, b) => a.order - b.order)
      .map(({ number }) => number);

  it('goes row by row, there and back, or column by column from any corner', () => {
    expect(turns({})).toEqual([1, 2, 3, 4, 5, 6]);
    expect(turns({ corner: 'top right' })).toEqual([3, 2, 1, 6, 5, 4]);
    expect(turns({ corner: 'bottom left' })).toEqual([4, 5, 6, 1, 2, 3]);
    expect(turns({ way: 'snake' })).toEqual([1, 2, 3, 6, 5, 4]);
    expect(turns({ way: 'columns' })).toEqual([1, 4, 2, 5, 3, 6]);
    expect(turns({ way: 'columns', corner: 'bottom right' })).toEqual([6, 3, 5, 2, 4, 1]);
    expect(turns({ way: 'numbers', corner: 'bottom right' })).toEqual([1, 2, 3, 4, 5, 6]);
  });

  it('goes panel after panel, since they are canvases that lie apart', () => {
    const panelRects = panelGrid(size, [20]);
    const on = (wish: Partial<WorkOrder>) =>
      [...inOrder(six, { ...USUAL_ORDER, ...wish }, { ...size, panelRects })]
        .sort((a, b) => a.order - b.order)
        .map(({ number }) => number);
    expect(on({})).toEqual([1, 2, 4, 5, 3, 6]);
    expect(on({ corner: 'top right' })).toEqual([3, 6, 2, 1, 5, 4]);
    expect(on({ way: 'snake' })).toEqual([1, 2, 5, 4, 3, 6]);
    expect(on({ way: 'numbers' })).toEqual([1, 2, 3, 4, 5, 6]);
  });

  it('goes outwards from the middle, or from the focal part', () => {
    expect(turns({ way: 'outwards' }).slice(0, 2)).toEqual([2, 5]);
    expect(turns({ way: 'focal first', focal: { x: 25, y: 15 } })[0]).toBe(6);
    expect(turns({ way: 'focal first', focal: null }).slice(0, 2)).toEqual([2, 5]);
  });

  it('takes as a row what lies beside one another, though borders go in steps', () => {
    const uneven = [
      makeSection(1, [{ x: 0, y: 0, width: 10, height: 12 }]),
      makeSection(2, [{ x: 10, y: 0, width: 10, height: 8 }]),
      makeSection(3, [{ x: 0, y: 12, width: 10, height: 8 }]),
      makeSection(4, [{ x: 10, y: 8, width: 10, height: 12 }]),
    ];
    expect(inOrder(uneven, USUAL_ORDER, { width: 20, height: 20 }).map(({ order }) => order)).toEqual([
      1, 2, 3, 4,
    ]);
  });
});

describe('a section', () => {
  const l = makeSection(1, [
    { x: 0, y: 0, width: 2, height: 6 },
    { x: 2, y: 3, width: 5, height: 3 },
  ]);

  it('has an outline without the borders between its rectangles', () => {
    const length = outlineOf(l).reduce((sum, { from, to }) => sum + to - from, 0);
    expect(length).toBe(2 * (7 + 6));
    expect(outlineOf(l)).toHaveLength(6);
    expect(outlineOf(makeSection(1, [{ x: 2, y: 1, width: 3, height: 4 }]))).toHaveLength(4);
    // The border goes where the squares end.
    expect(outlineOf(l)).toContainEqual({ upright: true, at: 2, from: 0, to: 3 });
    expect(outlineOf(l)).toContainEqual({ upright: false, at: 3, from: 2, to: 7 });
  });

  it('has the same outline wherever it lies, in one rectangle or in several', () => {
    // Counted by hand on paper: a square of two by three, two columns in and one row down.
    const sides = [
      { upright: true, at: 2, from: 1, to: 4 },
      { upright: true, at: 4, from: 1, to: 4 },
      { upright: false, at: 1, from: 2, to: 4 },
      { upright: false, at: 4, from: 2, to: 4 },
    ];
    const whole = makeSection(1, [{ x: 2, y: 1, width: 2, height: 3 }]);
    const halves = makeSection(1, [
      { x: 2, y: 1, width: 1, height: 3 },
      { x: 3, y: 1, width: 1, height: 3 },
    ]);
    for (const part of [whole, halves]) {
      expect(outlineOf(part)).toHaveLength(4);
      expect(outlineOf(part)).toEqual(expect.arrayContaining(sides));
    }
    const moved = makeSection(
      1,
      l.rects.map((rect) => ({ ...rect, x: rect.x + 30, y: rect.y + 50 })),
    );
    expect(outlineOf(moved)).toContainEqual({ upright: true, at: 32, from: 50, to: 53 });
    expect(outlineOf(moved)).toContainEqual({ upright: false, at: 53, from: 32, to: 37 });
    expect(roomiestRect(moved)).toEqual({ x: 30 + roomiestRect(l).x, y: 53, width: 3, height: 3 });
  });

  it('has its number where there is most room', () => {
    expect(roomiestRect(l)).toMatchObject({ width: 3, height: 3, y: 3 });
    const plain = { x: 4, y: 4, width: 2, height: 9 };
    expect(roomiestRect(makeSection(1, [plain]))).toEqual(plain);
    // A strip along the rim, one square wide, has room for no more than one.
    const thin = makeSection(1, [
      { x: 3, y: 3, width: 1, height: 6 },
      { x: 4, y: 3, width: 6, height: 1 },
    ]);
    expect(roomiestRect(thin)).toEqual({ x: 3, y: 3, width: 1, height: 1 });
  });

  it('leads to the next one by arrow keys, over steps and to the edge', () => {
    const two = [l, makeSection(2, [{ x: 2, y: 0, width: 5, height: 3 }])];
    expect(sectionByKey(two, 1, 'ArrowUp')).toBe(2);
    expect(sectionByKey(two, 2, 'ArrowDown')).toBe(1);
    expect(sectionByKey(two, 2, 'ArrowLeft')).toBe(1);
    expect(sectionByKey(two, 1, 'ArrowLeft')).toBe(1);
    expect(sectionByKey(two, 1, 'x')).toBeNull();
  });
});

describe('a cut by hand', () => {
  it('joins, splits, renumbers and names', () => {
    expect(joined(sections, [2, 3], canvas)).toEqual([
      thirds[0],
      { rects: [...thirds[1]!.rects, ...thirds[2]!.rects], name: 'Beak; left = 1, 2' },
    ]);
    expect(joined(sections, [1, 3], canvas)).toEqual([
      { rects: [...thirds[0]!.rects, ...thirds[2]!.rects], name: null },
      thirds[1],
    ]);
    expect(() => joined(sections, [2], canvas)).toThrow('two sections or more');
    const two = { ...canvas, panelRects: panelGrid(canvas, [3]) };
    expect(() => joined(sections, [1, 2], two)).toThrow('different panels');
    expect(joined(sections, [2, 3], two)).toHaveLength(2);
    const halves = split(sections, 1, true, 1);
    expect(halves.map(({ rects }) => rects[0]!.width)).toEqual([1, 2, 3, 3]);
    expect(faultInPieces(halves, canvas, null)).toBeNull();
    expect(split(sections, 1, false, 3).map(({ rects }) => rects[0]!.height)).toEqual([3, 1, 2, 2]);
    // The second part begins where the first one ends, also of a section that lies apart from the corner.
    expect(split(sections, 3, true, 2).slice(2)).toEqual([
      { rects: [{ x: 3, y: 2, width: 2, height: 2 }], name: null },
      { rects: [{ x: 5, y: 2, width: 1, height: 2 }], name: null },
    ]);
    expect(split(sections, 3, false, 1).slice(2)).toEqual([
      { rects: [{ x: 3, y: 2, width: 3, height: 1 }], name: null },
      { rects: [{ x: 3, y: 3, width: 3, height: 1 }], name: null },
    ]);
    expect(() => split(sections, 1, true, 9)).toThrow('after 1 to 2 columns');
    expect(() => split(sections, 1, true, -1)).toThrow('after 1 to 2 columns');
    const column = asSections([{ rects: [{ x: 0, y: 0, width: 1, height: 4 }], name: null }]);
    expect(() => split(column, 1, true, 1)).toThrow('too small to be split that way');
    const narrow = asSections([{ rects: [{ x: 0, y: 0, width: 2, height: 4 }], name: null }]);
    expect(() => split(narrow, 1, true, 2)).toThrow('Split it after 1 column.');
    expect(() => split(sections, 1, true, 3)).toThrow('after 1 to 2 columns');
    expect(() => split(sections, 1, false, 0)).toThrow('after 1 to 3 rows');
    expect(renumbered(sections, 3, 1)).toEqual([thirds[2], thirds[0], thirds[1]]);
    expect(renumbered(sections, 1, 3)).toEqual([thirds[1], thirds[2], thirds[0]]);
    for (const wrong of [4, 0, 1.5]) expect(() => renumbered(sections, 3, wrong)).toThrow('from 1 to 3');
    // One gets the name, and the others keep theirs.
    expect(renamed(sections, 1, '  Tail ').map(({ name }) => name)).toEqual(['Tail', thirds[1]!.name, null]);
    expect(renamed(sections, 2, ' ').map(({ name }) => name)).toEqual([null, null, null]);
    expect(renamed(sections, 3, 'x'.repeat(60))[2]!.name).toHaveLength(60);
    expect(() => renamed(sections, 1, 'x'.repeat(61))).toThrow('at most 60');
    const reversed = sections.map((section, i) => ({ ...section, order: 3 - i }));
    expect(numberedInOrder(reversed)).toEqual([thirds[2], thirds[1], thirds[0]]);
    expect(piecesOf(sections)).toEqual(thirds);
  });

  it('moves a side outwards, over its neighbours, and inwards, to those beside it', () => {
    const out = movedSide(sections, 1, 'right', 1, canvas);
    expect(out.map(({ rects }) => rects[0]!.width)).toEqual([4, 2, 2]);
    expect(faultInPieces(out, canvas, null)).toBeNull();
    const inn = movedSide(sections, 1, 'right', -2, canvas);
    expect(inn.map(({ rects }) => [rects[0]!.x, rects[0]!.width])).toEqual([
      [0, 1],
      [1, 5],
      [1, 5],
    ]);
    expect(faultInPieces(inn, canvas, null)).toBeNull();
    expect(movedSide(sections, 2, 'bottom', 1, canvas).map(({ rects }) => rects[0]!.height)).toEqual([
      4, 3, 1,
    ]);
    expect(movedSide(sections, 3, 'top', 1, canvas).map(({ rects }) => rects)).toEqual([
      thirds[0]!.rects,
      [{ x: 3, y: 0, width: 3, height: 1 }],
      [{ x: 3, y: 1, width: 3, height: 3 }],
    ]);
    expect(movedSide(sections, 2, 'bottom', -1, canvas).map(({ rects }) => rects)).toEqual([
      thirds[0]!.rects,
      [{ x: 3, y: 0, width: 3, height: 1 }],
      [{ x: 3, y: 1, width: 3, height: 3 }],
    ]);
    expect(movedSide(sections, 3, 'top', -1, canvas).map(({ rects }) => rects[0]!.height)).toEqual([4, 3, 1]);
    expect(movedSide(sections, 3, 'left', 1, canvas).map(({ rects }) => rects.length)).toEqual([2, 1, 1]);
    // No side moved by nothing.
    expect(movedSide(sections, 1, 'right', 0, canvas)).toEqual(thirds);
    // A neighbour that is taken whole is gone.
    expect(movedSide(sections, 2, 'bottom', 2, canvas)).toHaveLength(2);
    expect(() => movedSide(sections, 1, 'left', 1, canvas)).toThrow('panel ends');
    expect(() => movedSide(sections, 1, 'left', -1, canvas)).toThrow('No section lies beyond');
    expect(() => movedSide(sections, 2, 'top', -1, canvas)).toThrow('No section lies beyond');
    expect(() => movedSide(sections, 2, 'left', -3, canvas)).toThrow('Nothing would be left');
    expect(() => movedSide(sections, 9, 'left', 1, canvas)).toThrow('no section 9');
    expect(() => movedSide(sections, 3, 'bottom', 1, canvas)).toThrow('panel ends');
    expect(() => movedSide(sections, 3, 'bottom', -1, canvas)).toThrow('No section lies beyond');
    expect(() => movedSide(sections, 3, 'right', -1, canvas)).toThrow('No section lies beyond');
    const two = { ...canvas, panelRects: panelGrid(canvas, [3]) };
    expect(() => movedSide(sections, 1, 'right', 1, two)).toThrow('panel ends');
  });

  it('moves a side past squares of no section and of others, and changes those of nobody else', () => {
    // The upper right corner wants no drill and lies in no section.
    const around = asSections([
      { rects: [{ x: 0, y: 0, width: 2, height: 4 }], name: null },
      { rects: [{ x: 2, y: 1, width: 2, height: 3 }], name: null },
      {
        rects: [
          { x: 4, y: 1, width: 2, height: 3 },
          { x: 2, y: 0, width: 1, height: 1 },
        ],
        name: null,
      },
    ]);
    const owned = (pieces: Piece[]) => {
      const owners = ownersOf(canvas, asSections(pieces));
      return Array.from({ length: 4 }, (_, y) => [...owners.subarray(y * 6, y * 6 + 6)].join(''));
    };
    expect(owned(piecesOf(around))).toEqual(['113000', '112233', '112233', '112233']);
    expect(owned(movedSide(around, 2, 'right', 1, canvas))).toEqual(['113000', '112223', '112223', '112223']);
    // What it gives goes to whoever lies beyond, row by row.
    expect(owned(movedSide(around, 1, 'right', -1, canvas))).toEqual([
      '133000',
      '122233',
      '122233',
      '122233',
    ]);
    expect(owned(movedSide(around, 2, 'top', 1, canvas))).toEqual(['112000', '112233', '112233', '112233']);
    expect(owned(movedSide(around, 3, 'left', -1, canvas))).toEqual(['111000', '112233', '112233', '112233']);
    expect(owned(movedSide(around, 2, 'top', -1, canvas))).toEqual(['113000', '113233', '112233', '112233']);
  });
});

it('a place is told by its panel too, where there are several', () => {
  const two = { panelRects: panelGrid({ width: 600, height: 440 }, [200], [100]) };
  expect(panelPlace(two, { x: 249, y: 10 })).toEqual({ panel: 2, column: 50, row: 11 });
  expect(panelPlace(two, { x: 0, y: 439 })).toEqual({ panel: 3, column: 1, row: 340 });
  expect(panelPlaceInWords({ panel: 2, column: 50, row: 11 })).toBe('on panel 2 column 50, row 11');
  expect(panelPlace(canvas, { x: 0, y: 0 })).toBeNull();
});
