import { describe, expect, it } from 'vitest';
import { applyMark } from '../../../src/core/bench/marking';
import { asCanvas } from '../../../src/core/canvas/canvas';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { type Chart, plainCloth } from '../../../src/core/cells/chart';
import { potLevel } from '../../../src/core/kitup/potNow';
import { USUAL_MODEL } from '../../../src/core/pace/timeModel';
import {
  coverPieces,
  coverSheets,
  cutLines,
  exposureOf,
  stripsFromRoll,
} from '../../../src/core/sections/cover';
import {
  cutLineRow,
  foldSteps,
  lengthInWords,
  numbersInWords,
  sheetsInWords,
} from '../../../src/core/sections/coverInWords';
import { LIGHT_PADS, misfitInWords, misfits, mostSquares, rollStops } from '../../../src/core/sections/fit';
import { conflictInWords, handConflicts, judgedOrders, restingPlace } from '../../../src/core/sections/hand';
import { type JudgedSection, judgeSections } from '../../../src/core/sections/judge';
import { inOrder, USUAL_ORDER, type WorkOrder } from '../../../src/core/sections/order';
import { coverPlan, pullPages, sectionMap } from '../../../src/core/sections/paper';
import { leftInSections } from '../../../src/core/sections/pick';
import { orderInWords, planFigures, spanInWords } from '../../../src/core/sections/planInWords';
import { pulledFor, pullList, pullNote } from '../../../src/core/sections/pullList';
import { makeSection } from '../../../src/core/sections/section';
import { fitOf, USUAL_WISH } from '../../../src/core/sections/wish';
import { chartOfRows } from '../samples';

/** 30 × 20 cm at 2.5 mm, in six sections of 10 × 10 cm. */
const canvas = asCanvas({
  id: 'c',
  title: 'T',
  shape: 'square',
  pitchMm: 2.5,
  width: 120,
  height: 80,
  panels: 1,
  symbolsPrinted: true,
  packetDrills: 200,
  bagsCarry: null,
});
const six = Array.from({ length: 6 }, (_, i) =>
  makeSection(i + 1, [{ x: (i % 3) * 40, y: Math.floor(i / 3) * 40, width: 40, height: 40 }]),
);
const bare = emptyBitmap(120 * 80);
const rows = (corner: WorkOrder['corner'] = 'top left'): WorkOrder => ({ ...USUAL_ORDER, corner });

describe('adhesive that lies bare', () => {
  const exposed = (
    kind: 'fold' | 'cut' | 'sheets',
    order = rows(),
    laid = bare,
    sheets = [{ x: 0, y: 0, width: 120, height: 80 }],
  ) => {
    const turned = inOrder(six, order, canvas);
    return exposureOf(canvas, null, laid, turned, coverPieces(kind, canvas, turned, order, sheets));
  };

  it('is the section alone where the film is cut: 10 × 10 cm are 100 cm²', () => {
    const { bySection, worst } = exposed('cut');
    expect([...bySection.values()]).toEqual([100, 100, 100, 100, 100, 100]);
    expect(worst).toEqual({ section: 1, cm2: 100 });
  });

  it('is all that is folded back and not laid yet: by hand 300, 200, 100 a row', () => {
    const { bySection, worst } = exposed('fold');
    expect([1, 2, 3, 4, 5, 6].map((number) => bySection.get(number))).toEqual([300, 200, 100, 300, 200, 100]);
    expect(worst).toEqual({ section: 1, cm2: 300 });
    // Column by column only two sections lie under the fold at once.
    expect(exposed('fold', { ...rows(), way: 'columns' }).worst).toEqual({ section: 1, cm2: 200 });
    // From the bottom the lower row is open first.
    expect(exposed('fold', rows('bottom left')).bySection.get(4)).toBe(300);
  });

  it('is that of its own panel alone, for each has a film of its own', () => {
    const panelRects = [
      { x: 0, y: 0, width: 40, height: 80 },
      { x: 40, y: 0, width: 80, height: 80 },
    ];
    const apart = { ...canvas, panelRects };
    const turned = inOrder(six, rows(), apart);
    expect(turned.map(({ order }) => order)).toEqual([1, 3, 4, 2, 5, 6]);
    const { bySection } = exposureOf(
      apart,
      null,
      bare,
      turned,
      coverPieces('fold', apart, turned, rows(), []),
    );
    expect([1, 4, 2, 3].map((number) => bySection.get(number))).toEqual([100, 100, 200, 100]);
    expect(foldSteps(apart, turned, rows()).map(({ words }) => words)).toEqual([
      'to row 40, 10.0 cm (3.9 in) from the top of panel 1',
      'to row 80, 20.0 cm (7.9 in) from the top of panel 1',
      'to row 40, 10.0 cm (3.9 in) from the top of panel 2',
      'to row 80, 20.0 cm (7.9 in) from the top of panel 2',
    ]);
  });

  it('is less by what is laid, and nothing for a section that is done', () => {
    const laid = emptyBitmap(9600);
    for (let y = 0; y < 40; y++) for (let x = 0; x < 40; x++) setLaid(laid, y * 120 + x, true);
    const { bySection } = exposed('fold', rows(), laid);
    expect(bySection.get(1)).toBe(0);
    expect(bySection.get(2)).toBe(200);
  });

  it('is what the sheets over a section hide', () => {
    const halves = [
      { x: 0, y: 0, width: 60, height: 80 },
      { x: 60, y: 0, width: 60, height: 80 },
    ];
    // The first section lies under the left half: 15 × 20 cm.
    expect(exposed('sheets', rows(), bare, halves).bySection.get(1)).toBe(300);
    // The second under both, less what is laid with the first.
    expect(exposed('sheets', rows(), bare, halves).bySection.get(2)).toBe(500);
  });
});

describe('sheets of release paper', () => {
  it('are counted by hand: 30 × 20 cm of A4 upright with 1 cm over need two by one', () => {
    const sheets = coverSheets(canvas, inOrder(six, rows(), canvas), {
      widthMm: 210,
      heightMm: 297,
      overlapMm: 10,
    });
    expect(sheets).toHaveLength(2);
    expect(sheets.map(({ rect }) => rect.width)).toEqual([80, 40]);
    // ISO 216: A5 is 148 × 210 mm. (300 − 10) / 138 are three across; 200 mm in height are one.
    expect(coverSheets(canvas, six, { widthMm: 148, heightMm: 210, overlapMm: 10 })).toHaveLength(3);
  });

  it('are laid in the reverse of the work, so that the one needed first lies on top', () => {
    for (const order of [rows(), rows('bottom right'), { ...rows(), way: 'columns' as const }]) {
      const turned = inOrder(six, order, canvas);
      const sheets = coverSheets(canvas, turned, { widthMm: 110, heightMm: 110, overlapMm: 10 });
      expect(sheets).toHaveLength(6);
      const turnOf = (number: number) => turned.find((section) => section.number === number)!.order;
      const byLaying = [...sheets]
        .sort((a, b) => b.laidAs - a.laidAs)
        .map(({ firstFor }) => turnOf(firstFor!));
      expect(byLaying).toEqual([...byLaying].sort((a, b) => a - b));
    }
  });

  it('are cut from a roll as strips across the canvas', () => {
    // 38 cm with 1 cm over cover 37 cm: one strip of 30 cm and a finger at both ends.
    expect(stripsFromRoll(canvas, 380, 10)).toMatchObject({ strips: 1, lengthMm: 320, totalMm: 320 });
    expect(stripsFromRoll(canvas, 110, 10)).toMatchObject({ strips: 2, totalMm: 640 });
    const two = {
      ...canvas,
      panelRects: [
        { x: 0, y: 0, width: 60, height: 80 },
        { x: 60, y: 0, width: 60, height: 80 },
      ],
    };
    expect(stripsFromRoll(two, 110, 10)).toMatchObject({ strips: 4, lengthMm: 170 });
    expect(sheetsInWords(12, { widthMm: 210, heightMm: 297, overlapMm: 10 })).toBe(
      '12 sheets of 210 × 297 mm, each 10 mm over the one before',
    );
  });
});

describe('cuts through the film', () => {
  it('follow the borders, joined where they go on, the longest first', () => {
    const lines = cutLines(canvas, six);
    expect(lines).toEqual([
      { upright: false, at: 40, from: 0, to: 120 },
      { upright: true, at: 40, from: 0, to: 80 },
      { upright: true, at: 80, from: 0, to: 80 },
    ]);
    // At 2.5 mm, cells ÷ 4 are centimetres (common practice, no source).
    expect(cutLineRow(lines[1]!, canvas)).toEqual({
      way: 'upright',
      length: '20.0 cm (7.9 in)',
      fromNear: '10.0 cm (3.9 in) from the left',
      fromFar: '20.0 cm (7.9 in) from the right',
      begins: '0.0 cm (0.0 in) from the top',
    });
    expect(cutLineRow({ upright: false, at: 40, from: 20, to: 120 }, canvas)).toEqual({
      way: 'level',
      length: '25.0 cm (9.8 in)',
      fromNear: '10.0 cm (3.9 in) from the top',
      fromFar: '10.0 cm (3.9 in) from the bottom',
      begins: '5.0 cm (2.0 in) from the left',
    });
    const two = {
      ...canvas,
      panelRects: [
        { x: 0, y: 0, width: 40, height: 80 },
        { x: 40, y: 0, width: 80, height: 80 },
      ],
    };
    // Where panels meet there is no film to cut.
    expect(
      cutLines(two, six)
        .filter(({ upright }) => upright)
        .map(({ at }) => at),
    ).toEqual([80]);
    expect(lengthInWords(50, 2.5)).toBe('12.5 cm (4.9 in)');
  });

  it('or the film is folded back step by step, never back again', () => {
    const steps = foldSteps(canvas, inOrder(six, rows(), canvas), rows());
    expect(steps.map(({ words, sections }) => [words, numbersInWords(sections)])).toEqual([
      ['to row 40, 10.0 cm (3.9 in) from the top', '1–3'],
      ['to row 80, 20.0 cm (7.9 in) from the top', '4–6'],
    ]);
    const right = { ...rows('bottom right'), way: 'columns' as const };
    expect(foldSteps(canvas, inOrder(six, right, canvas), right).map(({ words }) => words)).toEqual([
      'to column 81, 10.0 cm (3.9 in) from the right',
      'to column 41, 20.0 cm (7.9 in) from the right',
      'to column 1, 30.0 cm (11.8 in) from the right',
    ]);
    // Each panel has a film of its own, measured from its own edges.
    const apart = {
      ...canvas,
      panelRects: [
        { x: 0, y: 0, width: 40, height: 80 },
        { x: 40, y: 0, width: 80, height: 80 },
      ],
    };
    const folds = (order: WorkOrder) =>
      foldSteps(apart, inOrder(six, order, apart), order)
        .filter(({ words }) => words.endsWith('of panel 2'))
        .map(({ at, from, to, words }) => [at, from, to, words.replace(' of panel 2', '')]);
    expect(folds({ ...rows('top left'), way: 'columns' })).toEqual([
      [80, 0, 80, 'to column 80, 10.0 cm (3.9 in) from the left'],
      [120, 0, 80, 'to column 120, 20.0 cm (7.9 in) from the left'],
    ]);
    expect(folds({ ...rows('bottom right'), way: 'columns' })).toEqual([
      [80, 0, 80, 'to column 81, 10.0 cm (3.9 in) from the right'],
      [40, 0, 80, 'to column 41, 20.0 cm (7.9 in) from the right'],
    ]);
    expect(folds(rows('bottom left'))).toEqual([
      [40, 40, 120, 'to row 41, 10.0 cm (3.9 in) from the bottom'],
      [0, 40, 120, 'to row 1, 20.0 cm (7.9 in) from the bottom'],
    ]);
    expect(numbersInWords([7, 1, 2, 3, 9, 10])).toBe('1–3, 7, 9–10');
  });
});

describe('the resting hand', () => {
  const conflicts = (hand: 'right' | 'left', order: WorkOrder, cover: 'fold' | 'cut' = 'fold') => {
    const turned = inOrder(six, order, canvas);
    return handConflicts(canvas, null, bare, turned, order, { hand, cover, sheets: [] });
  };

  it('lies beside the section on its own side, and below', () => {
    const place = restingPlace(six[0]!, 'right', canvas)!;
    expect([place.x, place.y]).toEqual([20, 20]);
    expect(place.x + place.width).toBe(40 + 36);
    expect(place.y + place.height).toBe(40 + 28);
    const left = restingPlace(six[1]!, 'left', canvas)!;
    expect(left.x).toBe(40 - 36);
    expect(left.x + left.width).toBe(60);
  });

  it('rests on bare adhesive where a right hand goes from left to right under folded film, and not the other way', () => {
    const found = conflicts('right', rows('top left'));
    expect([...found.keys()]).toEqual([1, 2, 4, 5]);
    expect(found.get(1)!.on).toEqual([2]);
    // 9 cm to the side, and from the middle of the section down: 9 × 5 cm of the next one.
    expect(found.get(1)!.cm2).toBeCloseTo(45, 6);
    expect(conflicts('right', rows('top right')).size).toBe(0);
    expect(conflicts('left', rows('top left')).size).toBe(0);
    expect(conflicts('left', rows('top right')).size).toBe(4);
    // A section that is opened alone is never in the way.
    expect(conflicts('right', rows('top left'), 'cut').size).toBe(0);
    expect(conflictInWords({ cm2: 12.4, on: [8, 14] }, 'right')).toBe(
      'Your right hand rests on 12 cm² of bare adhesive, in sections 8 and 14.',
    );
    expect(conflictInWords({ cm2: 3, on: [8] }, 'left')).toContain('in section 8.');
    expect(conflictInWords({ cm2: 3, on: [8, 9, 10, 11] }, 'left')).toContain('sections 8, 9 and 2 more.');
    expect(conflictInWords({ cm2: 3, on: [8, 9, 10] }, 'left')).toContain('sections 8, 9 and 1 more.');
  });

  it('rests on no adhesive where drills lie, nor where none is wanted, nor beside a section that is done', () => {
    const turned = inOrder(six, rows(), canvas);
    const wish = { hand: 'right' as const, cover: 'fold' as const, sheets: [] };
    const found = (chart: Chart | null, laid = bare) =>
      handConflicts(canvas, chart, laid, turned, rows(), wish);
    // Of the 36 columns beside section 1 on which the hand rests, the first 20 are laid, or want nothing: 16 × 20 squares.
    const cells = new Uint16Array(120 * 80).fill(1);
    const laid = emptyBitmap(120 * 80);
    for (let y = 20; y < 40; y++) {
      for (let x = 40; x < 60; x++) {
        cells[y * 120 + x] = 0;
        applyMark(laid, 'lay', [y * 120 + x, 1]);
      }
    }
    expect(found({ width: 120, height: 80, cells }).get(1)!.cm2).toBeCloseTo(16 * 20 * 0.0625, 6);
    expect(found(null, laid).get(1)!.cm2).toBeCloseTo(16 * 20 * 0.0625, 6);
    // Nothing is left to lay in section 1: the hand does not rest there.
    const done = emptyBitmap(120 * 80);
    for (let y = 0; y < 40; y++) applyMark(done, 'lay', [y * 120, 40]);
    expect([...found(null, done).keys()]).toEqual([2, 4, 5]);
  });

  it('tells first where it rests on most', () => {
    // Beside the first section and below it lie a narrow one and a wide one, in this order of work.
    const three = inOrder(
      [
        makeSection(1, [{ x: 0, y: 0, width: 40, height: 80 }]),
        makeSection(2, [{ x: 40, y: 0, width: 10, height: 80 }]),
        makeSection(3, [{ x: 50, y: 0, width: 70, height: 80 }]),
      ],
      rows(),
      canvas,
    );
    const wish = { hand: 'right' as const, cover: 'fold' as const, sheets: [] };
    expect(handConflicts(canvas, null, bare, three, rows(), wish).get(1)!.on).toEqual([3, 2]);
  });

  it('has orders compared, the one without conflicts and with least adhesive bare in front', () => {
    const wish = { hand: 'right' as const, cover: 'fold' as const, sheets: [] };
    const orders = judgedOrders(canvas, null, bare, six, null, wish);
    expect(orders[0]).toMatchObject({ conflicts: 0, worstCm2: 200, order: { way: 'columns' } });
    const rowsRight = orders.find(({ order }) => order.way === 'rows' && order.corner === 'top right');
    expect(rowsRight).toMatchObject({ conflicts: 0, worstCm2: 300 });
    expect(orders.some(({ order }) => order.way === 'focal first')).toBe(false);
    expect(judgedOrders(canvas, null, bare, six, { x: 1, y: 1 }, wish)).toHaveLength(orders.length + 1);
    const worst = orders.map(({ worstCm2 }) => worstCm2);
    expect(Math.min(...worst)).toBe(200);
    expect(orders.at(-1)!.conflicts).toBeGreaterThan(0);
  });
});

describe('what a section must fit', () => {
  it('is the light pad by ISO 216, either way round', () => {
    // ISO 216, table of the A series.
    expect(LIGHT_PADS).toEqual({
      A4: { longMm: 297, shortMm: 210 },
      A3: { longMm: 420, shortMm: 297 },
      A2: { longMm: 594, shortMm: 420 },
    });
    const wide = [makeSection(1, [{ x: 0, y: 0, width: 120, height: 80 }])];
    const unfit = (pad: keyof typeof LIGHT_PADS) =>
      misfits(canvas, wide, { pad: LIGHT_PADS[pad], reachMm: null, windowMm: null });
    // 30 × 20 cm.
    expect(unfit('A4').get(1)).toEqual(['pad']);
    expect(unfit('A3').size).toBe(0);
    expect(misfitInWords(['pad', 'window'], wide[0]!, 2.5)).toBe(
      'Larger than the light pad, higher than the frame shows: 30.0 × 20.0 cm.',
    );
  });

  it('is the arm from the nearer edge, and the frame', () => {
    const none = { pad: null, reachMm: null, windowMm: null };
    expect(misfits(canvas, six, { ...none, reachMm: 100 }).size).toBe(0);
    expect([...misfits(canvas, six, { ...none, reachMm: 90 }).keys()]).toEqual([1, 2, 3, 4, 5, 6]);
    expect(misfits(canvas, six, { ...none, windowMm: 90 }).get(3)).toEqual(['window']);
    expect(mostSquares({ ...none, pad: LIGHT_PADS.A4, windowMm: 150 }, 2.5)).toEqual({
      columns: 118,
      rows: 60,
    });
    expect(mostSquares(none, 2.5)).toEqual({ columns: null, rows: null });
    expect(rollStops({ height: 80, pitchMm: 2.5 }, 75)).toEqual([
      { from: 0, to: 30 },
      { from: 30, to: 60 },
      { from: 60, to: 80 },
    ]);
    expect(fitOf({ ...USUAL_WISH, pad: 'own', reachMm: 500 })).toEqual({
      pad: USUAL_WISH.ownPadMm,
      reachMm: 500,
      windowMm: null,
    });
    expect(fitOf(USUAL_WISH).pad).toBeNull();
  });
});

describe('a pull list', () => {
  const chart = chartOfRows('1112', '1133');
  const left = [makeSection(1, [{ x: 0, y: 0, width: 2, height: 2 }])];
  const laid = emptyBitmap(8);

  it('has what is left, with bad drills on top, and what then is in the pot', () => {
    const pots = new Map([[1, { line: 1, capacity: 10, drills: 25 }]]);
    // 4 to lay; with a fifth of them bad 5 are tipped out; 10 − 5 remain.
    expect(pullList(chart, laid, left, 3, pots, () => 0, 0.2)).toEqual([
      { line: 1, toLay: 4, toTip: 5, inPot: 10, after: 5, refill: false, short: 0 },
    ]);
    // 6 laid took 8 out of 10: the pot runs empty, and the overflow bag is due.
    expect(pullList(chart, laid, left, 3, pots, () => 6, 0.2)[0]).toMatchObject({
      inPot: 2,
      after: 7,
      refill: true,
    });
    // 25 − 23 are fewer than 5.
    expect(
      pullList(chart, laid, left, 3, new Map([[1, { line: 1, capacity: 0, drills: 25 }]]), () => 18, 0.2)[0],
    ).toMatchObject({
      inPot: 2,
      refill: false,
      short: 3,
    });
    expect(pullList(chart, laid, left, 3, new Map(), () => 0, 0)[0]).toMatchObject({
      toTip: 4,
      inPot: 0,
      short: 0,
    });
  });

  it('goes for several sections at once, and says nothing of colours that are done', () => {
    const all = [...left, makeSection(2, [{ x: 2, y: 0, width: 2, height: 2 }])];
    const done = emptyBitmap(8);
    setLaid(done, 3, true);
    expect(
      pullList(chart, done, all, 3, new Map(), () => 0, 0).map(({ line, toLay }) => [line, toLay]),
    ).toEqual([
      [1, 5],
      [3, 2],
    ]);
    expect(potLevel({ capacity: 10, drills: 25 }, 20)).toBe(5);
    expect(potLevel({ capacity: 10, drills: 25 }, 30)).toBe(0);
    expect(potLevel({ capacity: 10, drills: 40 }, 10)).toBe(10);
    expect(pulledFor([{ number: 4, name: 'Beak' }])).toBe('section 4, Beak');
    expect(
      pulledFor([
        { number: 4, name: null },
        { number: 5, name: null },
      ]),
    ).toBe('sections 4–5');
    expect(pullNote(3, 12)).toBe('open bag 3, 12 drills short');
    expect(pullNote(null, 0)).toBe('');
  });
});

describe('sections that are judged', () => {
  const ground = {
    canvas,
    chart: plainCloth(120, 80),
    laid: bare,
    lines: 1,
    colours: 1,
    tips: [1],
    model: USUAL_MODEL,
  };
  const wish = { ...USUAL_WISH, cover: 'fold' as const, pad: 'A4' as const };

  it('have minutes, conflict, misfits and bare adhesive, and come to figures', () => {
    const judged = judgeSections(ground, inOrder(six, rows(), canvas), rows(), wish);
    // 1,600 drills one by one at 2.8 s and one colour at 45 s.
    expect(judged[0]!.minutes.expected).toBeCloseTo((1600 * 2.8 + 45) / 60, 6);
    expect(judged[0]).toMatchObject({ drills: 1600, laid: 0, colours: 1, bareCm2: 300, misfits: [] });
    expect(judged[0]!.conflict).toContain('section 2.');
    const figures = planFigures(judged);
    expect(figures).toMatchObject({ sections: 6, openings: 6, conflicts: 4, misfits: 0, worstCm2: 300 });
    expect(spanInWords(figures)).toBe('75 min each');
    expect(spanInWords(planFigures([]))).toBe('nothing is left to lay');
    // What is done counts no more, and long sections are told from short ones.
    const misfit = { what: 'pad' } as unknown as JudgedSection['misfits'][number];
    const minutes = (expected: number) => ({ expected, low: expected, high: expected });
    const some = [
      { ...judged[0]!, laid: 1600, minutes: minutes(500), misfits: [misfit] },
      { ...judged[1]!, minutes: minutes(40.4), misfits: [misfit], bareCm2: 20 },
      { ...judged[2]!, minutes: minutes(51.2), bareCm2: 30 },
      { ...judged[3]!, minutes: minutes(44), bareCm2: 30 },
    ];
    const those = planFigures(some);
    expect(those).toMatchObject({
      sections: 3,
      misfits: 1,
      worstCm2: 30,
      worstAt: judged[2]!.section.number,
    });
    expect(those.minutes!.all).toBeCloseTo(40.4 + 51.2 + 44, 6);
    expect(spanInWords(those)).toBe('40 to 51 min each');
    expect(planFigures(some.slice(0, 1))).toMatchObject({ sections: 0, minutes: null, worstAt: null });
    expect(leftInSections([some[0]!, { drills: 30, laid: 12 }, { drills: 5, laid: 0 }])).toBe(23);
    // Without a chart the colours are guessed, and nothing is claimed of runs.
    const guessed = judgeSections({ ...ground, chart: null, colours: 30 }, six, rows(), wish);
    expect(guessed[0]!.minutes.expected).toBeGreaterThan(judged[0]!.minutes.expected);
  });

  it('are said in words', () => {
    expect(orderInWords(rows())).toBe('Row by row from the top left');
    expect(orderInWords({ ...rows(), way: 'snake' })).toBe('Rows, there and back from the top left');
    expect(orderInWords({ ...rows(), way: 'columns' })).toBe('Column by column from the top left');
    expect(orderInWords({ ...rows(), way: 'outwards' })).toBe('From the middle outwards');
  });

  it('are drawn on paper, true to scale, with every line of the cover plan', () => {
    const head = { title: 'Owls', date: '27 November 2026', paper: 'a4' as const };
    const turned = inOrder(six, rows(), canvas);
    const [map] = sectionMap(head, canvas, turned, rows());
    const words = (marks: { kind: string; text?: string }[]) =>
      marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text!] : []));
    expect(words(map!.marks)).toEqual(expect.arrayContaining(['1', '6', 'Owls, 27 November 2026', '1 of 1']));
    const outline = map!.marks.find((mark) => mark.kind === 'rect')!;
    expect(outline).toMatchObject({ width: expect.closeTo(182, 6) });
    expect(words(map!.marks).join(' ')).toContain('1 : 1.6');
    for (const cover of ['fold', 'cut', 'sheets'] as const) {
      const own = { ...wish, cover };
      const judged = judgeSections(ground, turned, rows(), own);
      const sheets = cover === 'sheets' ? coverSheets(canvas, turned, own.sheets) : [];
      const pages = coverPlan(head, canvas, judged, rows(), own, sheets);
      const text = pages.flatMap(({ marks }) => words(marks)).join('\n');
      expect(pages.length).toBeGreaterThan(1);
      expect(text).toContain('1. ');
      expect(text).toContain('Never wax paper, foil or cling film.');
      expect(text).toContain(`${pages.length} of ${pages.length}`);
    }
    const many = Array.from({ length: 60 }, (_, i) => ({
      place: `Pot ${i + 1}`,
      code: String(400 + i),
      symbol: 'A',
      name: 'A colour with a name that is far too long for the page',
      toTip: 1200,
      after: 10,
      note: '',
    }));
    const pull = pullPages(head, 'To take out for section 4', many);
    expect(pull.length).toBeGreaterThan(1);
    expect(pull.flatMap(({ marks }) => words(marks)).filter((text) => text.startsWith('Pot '))).toHaveLength(
      60,
    );
    expect(pullPages(head, 'Nothing', [])).toHaveLength(1);
  });
});
