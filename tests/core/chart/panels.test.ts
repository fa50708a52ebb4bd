import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countDrills } from '../../../src/core/cells/chart';
import { cropped } from '../../../src/core/cells/rect';
import {
  equalCuts,
  faultInPanels,
  type PanelPlan,
  panelRects,
  panelsOf,
  readCuts,
} from '../../../src/core/chart/panels';
import { chartOfRows } from '../samples';

const PLAN: PanelPlan = {
  columnCuts: [],
  rowCuts: [],
  overlap: 0,
  marginMm: 25,
  reachWidthCm: null,
  reachHeightCm: null,
};

describe('panels', () => {
  it('have a size from cells ÷ 4 at 2.5 mm (common practice, no source) and their margins', () => {
    const canvas = { width: 600, height: 440, pitchMm: 2.5 };
    const panels = panelsOf({ ...PLAN, columnCuts: equalCuts(600, 3) }, canvas, null, 1);
    expect(panels.map(({ rect }) => [rect.x, rect.width])).toEqual([
      [0, 200],
      [200, 200],
      [400, 200],
    ]);
    // 200 ÷ 4 = 50 cm, 440 ÷ 4 = 110 cm, and 2.5 cm of cloth on each side; 55 ÷ 2.54 = 21.65 in.
    expect(panels[0]).toMatchObject({ drills: 88_000, cm: { width: 55, height: 115 }, warning: null });
    expect(panels[0]!.inches.width).toBeCloseTo(21.65, 2);
    expect(panels.reduce((sum, { drills }) => sum + drills, 0)).toBe(264_000);
  });

  it('hold every drill once, and those of the overlap once more', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 1, max: 4 }), (overlap, parts) => {
        const chart = chartOfRows(...new Array(40).fill('12.3'.repeat(10)));
        const plan = { ...PLAN, overlap, columnCuts: equalCuts(40, parts), rowCuts: [20] };
        const rects = panelRects(plan, chart);
        const covered = new Uint8Array(1600);
        for (const { x, y, width, height } of rects) {
          for (let row = y; row < y + height; row++) covered.fill(1, row * 40 + x, row * 40 + x + width);
        }
        expect(covered.every((cell) => cell === 1)).toBe(true);
        const drills = panelsOf(plan, { ...chart, pitchMm: 2.5 }, chart, 3).map((panel) => panel.drills);
        const cut = rects.map((rect) => countDrills(cropped(chart, rect)));
        expect(drills).toEqual(cut);
        const all = drills.reduce((a, b) => a + b, 0);
        if (overlap === 0) expect(all).toBe(countDrills(chart));
        else expect(all).toBeGreaterThan(countDrills(chart));
      }),
    );
  });

  it('warn where one is larger than the user reaches or hangs', () => {
    const canvas = { width: 200, height: 300, pitchMm: 2.5 };
    const plan = { ...PLAN, columnCuts: [80], reachWidthCm: 30, reachHeightCm: 100 };
    expect(panelsOf(plan, canvas, null, 1).map(({ warning }) => warning)).toEqual([
      null,
      'Panel 2 is 35.0 cm wide, and you reach 30 cm.',
    ]);
    expect(panelsOf({ ...plan, reachHeightCm: 60 }, canvas, null, 1)[1]!.warning).toBe(
      'Panel 2 is 35.0 cm wide, and you reach 30 cm. It is 80.0 cm high; you can hang 60 cm.',
    );
  });

  it('cannot be slivers, out of order or all overlap', () => {
    const size = { width: 100, height: 80 };
    expect(faultInPanels({ ...PLAN, columnCuts: [50] }, size)).toBeNull();
    expect(faultInPanels({ ...PLAN, columnCuts: [5] }, size)).toContain('at least 10 squares');
    expect(faultInPanels({ ...PLAN, columnCuts: [60, 40] }, size)).toContain('cuts 60, 40 of 100 columns');
    expect(faultInPanels({ ...PLAN, rowCuts: [90] }, size)).toContain('of 80 rows');
    expect(faultInPanels({ ...PLAN, columnCuts: [20, 40], overlap: 30 }, size)).toContain(
      'An overlap of 30 squares',
    );
    expect(faultInPanels(PLAN, { width: 4, height: 3 })).toBeNull();
  });
});

describe('cuts that are typed', () => {
  it('are whole numbers, parted by commas, semicolons or blanks', () => {
    for (const text of ['60, 120', '60,120', ' 60;120 ', '60\t120', '６０ １２０']) {
      expect(readCuts(text), text).toEqual([60, 120]);
    }
    expect(readCuts('')).toEqual([]);
  });

  it('are none where something else stands there: no digit is picked out of it', () => {
    for (const text of ['60, 12o', '-60', '60.5', '60 cm', 'half', '123456']) {
      expect(readCuts(text), text).toBeNull();
    }
  });
});
