import { describe, expect, it } from 'vitest';
import type { CanvasFacts } from '../../../src/core/canvas/canvas';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import {
  type CanvasState,
  changeReport,
  factsInWords,
  resizedChart,
  resizedRuns,
  runsOfColumns,
} from '../../../src/core/corrections/facts';
import { chartOfRows } from '../samples';

const CANVAS: CanvasFacts = {
  id: 'c1',
  title: 'Harbour at Dusk',
  shape: 'square',
  pitchMm: 2.5,
  width: 6,
  height: 4,
  panels: 1,
  symbolsPrinted: true,
  packetDrills: 200,
  bagsCarry: null,
};
const BARE: CanvasState = {
  chart: null,
  laid: emptyBitmap(24),
  nominalBags: 0,
  panelsFit: null,
  hasPots: false,
};
const report = (change: Partial<CanvasFacts>, state: Partial<CanvasState> = {}) =>
  changeReport(CANVAS, { ...CANVAS, ...change }, { ...BARE, ...state });

describe('what a correction costs', () => {
  it('is nothing where nothing changes', () => expect(report({})).toEqual({ costs: [], fault: null }));

  it.each([{ width: 8 }, { height: 6 }])('are new numbers of sections for %j', (size) => {
    const { costs, fault } = report(size);
    expect(fault).toBeNull();
    expect(costs).toHaveLength(2);
    expect(costs[0]).toMatch(/^The canvas becomes \d × \d squares, .+\. New squares are bare/);
    expect(costs[1]).toBe('Sections are cut again, so their numbers change.');
  });

  it('says whether panels of one’s own still fit', () => {
    const panelsFit = ({ width }: { width: number }) => width > 5;
    expect(report({ width: 7 }, { panelsFit }).costs[2]).toContain('Your own panels stay cut where they are');
    expect(report({ width: 5 }, { panelsFit }).costs[2]).toContain('Your own panels do not fit the new size');
    const rest = ({ width }: { width: number }) => width > CANVAS.width;
    expect(report({ width: 12 }, { panelsFit: rest }).costs[2]).toContain('are back');
    expect(report({ width: 5 }, { panelsFit: rest }).costs).toHaveLength(2);
    expect(report({ pitchMm: 2.8 }, { panelsFit }).costs).toHaveLength(1);
  });

  it('is told once where size and pitch change together', () => {
    expect(report({ width: 8, pitchMm: 2.8 }).costs).toHaveLength(2);
    expect(report({ pitchMm: 2.8 }).costs).toEqual([
      'Lengths change: it is 1.7 × 1.1 cm (0.7 × 0.4 in) instead of 1.5 × 1 cm (0.6 × 0.4 in). Squares, sections and marks stay.',
    ]);
  });

  it('is another stash, and other pots where there are some', () => {
    expect(report({ shape: 'round' }).costs).toEqual([
      'The stash offers round drills from now on, and pictures show them round.',
    ]);
    expect(report({ shape: 'round' }, { hasPots: true }).costs[1]).toBe(
      'Drills fill their pots differently: plan the pots again.',
    );
  });

  it.each([
    [0, 'Bags are counted with 1,000 drills from now on.'],
    [
      1,
      'Bags are counted with 1,000 drills from now on. The 1 bag counted so far keeps its number; change them in the list of bags.',
    ],
    [
      12,
      'Bags are counted with 1,000 drills from now on. The 12 bags counted so far keep their numbers; change them in the list of bags.',
    ],
  ])('leaves %i bags that were counted as they are', (nominalBags, words) =>
    expect(report({ packetDrills: 1000 }, { nominalBags }).costs).toEqual([words]),
  );

  it('moves the borders of panels', () =>
    expect(report({ panels: 2 }).costs).toEqual([
      'The panels’ borders move, so sections, edge marks and stickers change.',
    ]));
});

describe('a canvas that becomes smaller', () => {
  const chart = chartOfRows('11111.', '11111.', '11111.', '......');
  const laid = emptyBitmap(24);
  setLaid(laid, 4, true);
  setLaid(laid, 23, true);

  it('may lose squares that want nothing and have nothing', () => {
    expect(report({ width: 5, height: 3 }, { chart }).fault).toBeNull();
    expect(report({ width: 5, height: 3 }).fault).toBeNull();
  });

  it('is refused where a square that goes wants a drill, or has one', () => {
    // Column 5 of three rows.
    expect(report({ width: 4 }, { chart })).toEqual({
      costs: [],
      fault:
        '3 of the squares that would go want a drill. Make the canvas no smaller than its picture, or clear those squares first.',
    });
    expect(report({ width: 4, height: 3 }, { chart, laid }).fault).toContain(
      '4 of the squares that would go want a drill, 2 drills laid on them.',
    );
    // The last row, all of it.
    expect(report({ height: 2 }, { chart }).fault).toMatch(/^5 of/);
    // Without a chart, what is laid tells.
    expect(report({ height: 3 }, { laid }).fault).toContain(
      '1 of the squares that would go want a drill, 1 drill laid',
    );
  });
});

describe('a chart of another size', () => {
  const chart = chartOfRows('123', '456');
  it.each([
    [4, 3, ['123.', '456.', '....']],
    [2, 1, ['12']],
    [2, 3, ['12', '45', '..']],
    [4, 1, ['123.']],
  ])('of %i × %i keeps column and row', (width, height, rows) =>
    expect(resizedChart(chart, { width, height })).toEqual(chartOfRows(...rows)),
  );
});

describe('runs on another size', () => {
  it('stay one run where whole rows follow each other, and are cut where they do not', () => {
    expect(resizedRuns([0, 10], 5, { width: 5, height: 2 })).toEqual([0, 10]);
    expect(resizedRuns([0, 10], 5, { width: 6, height: 2 })).toEqual([0, 5, 6, 5]);
    expect(resizedRuns([0, 10], 5, { width: 5, height: 1 })).toEqual([0, 5]);
    // What has no room adds nothing to the run before it.
    expect(resizedRuns([3, 2, 5, 1], 5, { width: 4, height: 2 })).toEqual([3, 2]);
    expect(resizedRuns([4, 1], 5, { width: 4, height: 2 })).toEqual([]);
  });

  it('are turned where they were counted by other columns, and refused where those have no such squares', () => {
    const size = { width: 6, height: 2 };
    const runs = [0, 10];
    expect(runsOfColumns(runs, undefined, size)).toBe(runs);
    expect(runsOfColumns(runs, 6, size)).toBe(runs);
    expect(runsOfColumns(runs, 5, size)).toEqual([0, 5, 6, 5]);
    // However long a run says it is, it ends with the largest canvas there may be.
    expect(() => runsOfColumns([0, 4001], 1, size)).toThrow('ends beyond the last of 4000 squares');
    expect(runsOfColumns([0, 4000], 1, size)).toEqual([0, 1, 6, 1]);
  });
});

it('a correction is told in a few words, each only where it changed', () => {
  expect(factsInWords(CANVAS, CANVAS)).toEqual([]);
  const after: CanvasFacts = {
    ...CANVAS,
    title: 'Harbour',
    width: 8,
    pitchMm: 2.8,
    shape: 'round',
    panels: 2,
    packetDrills: 1000,
    symbolsPrinted: false,
    bagsCarry: 'codes',
  };
  expect(factsInWords(CANVAS, after)).toEqual([
    'title: Harbour at Dusk → Harbour',
    'size: 6 × 4 → 8 × 4 squares',
    'pitch: 2.5 → 2.8 mm',
    'shape: square → round',
    'panels: 1 → 2',
    'drills in an ordinary bag: 200 → 1,000',
    'no symbols are printed',
    'bags carry codes',
  ]);
  expect(factsInWords(after, { ...after, bagsCarry: null, symbolsPrinted: true })).toEqual([
    'symbols are printed',
    'bags may carry either number',
  ]);
  expect(factsInWords(CANVAS, { ...CANVAS, height: 5 })).toEqual(['size: 6 × 4 → 6 × 5 squares']);
});
