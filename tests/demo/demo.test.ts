import { beforeAll, describe, expect, it } from 'vitest';
import { heapOf } from '../../demo/heap';
import { inventHistory } from '../../demo/history';
import { type Kit, kingfisherKit, lanternKit } from '../../demo/kits';
import { seeded } from '../../demo/random';
import { cellsOfRuns } from '../../src/core/cells/cellRuns';
import { countDrills, countPerLine } from '../../src/core/cells/chart';
import { judge, supplyOf } from '../../src/core/checkin/supply';

let kingfisher: Kit;
let lantern: Kit;
beforeAll(async () => {
  [kingfisher, lantern] = await Promise.all([kingfisherKit(), lanternKit()]);
});

describe('the invented kits', () => {
  it('are the same every time', async () => {
    expect(await kingfisherKit()).toEqual(kingfisher);
  });

  it('have sheets that add up to their charts', () => {
    for (const { legend, chart } of [kingfisher, lantern]) {
      const counts = countPerLine(chart, legend.length);
      expect(legend.map((each) => each.neededDrills)).toEqual([...counts.subarray(1)]);
      expect(countDrills(chart)).toBe(chart.width * chart.height);
      expect(Math.min(...legend.map((each) => each.neededDrills))).toBeGreaterThan(0);
    }
  });

  it('have as many colours as they say, each with a code and a symbol of its own', () => {
    expect([kingfisher.legend.length, lantern.legend.length]).toEqual([32, 48]);
    for (const { legend } of [kingfisher, lantern]) {
      expect(new Set(legend.map((each) => each.code)).size).toBe(legend.length);
      expect(new Set(legend.map((each) => each.symbol)).size).toBe(legend.length);
      for (const each of legend) expect(each.code).toMatch(/^(SH|MT)?\d{3,4}$/);
    }
  });

  it('have special finishes where they are promised', () => {
    const finishes = lantern.legend.map((each) => each.finish);
    expect(finishes.filter((finish) => finish === 'iridescent')).toHaveLength(4);
    expect(finishes.filter((finish) => finish === 'metallic')).toHaveLength(2);
  });
});

describe('the heap of the kit just arrived', () => {
  it('hides one missing packet, one short colour and one stray, and nothing else', () => {
    const { bags, faults } = heapOf(lantern.legend, 200, seeded(7));
    const counted = bags.map((bag, i) => ({
      id: String(i),
      label: bag.label,
      drills: bag.drills,
      line: lantern.legend.find((each) => each.code === bag.label)?.line ?? null,
      how: 'counted' as const,
      spread: 0,
      shared: [],
      origin: 'kit' as const,
    }));
    const supply = supplyOf(lantern.legend, counted, 200);
    const lacking = supply.filter((each) => each.verdict.kind === 'missing' || each.verdict.kind === 'short');
    expect(lacking.map((each) => [each.line, each.verdict])).toEqual(
      [
        [faults.missing.line, { kind: 'missing' }],
        [faults.short.line, { kind: 'short', by: 46 }],
      ].sort((a, b) => (a[0] as number) - (b[0] as number)),
    );
    expect(counted.filter((bag) => bag.line === null).map((bag) => bag.label)).toEqual([faults.stray]);
    expect(judge(faults.short.neededDrills, faults.short.packets * 200, 200, 0).kind).not.toBe('short');
  });
});

describe('the invented past', () => {
  it('lays each cell once, up to the wished share, and ends before now', () => {
    const now = new Date('2026-03-01T20:00:00Z');
    const history = inventHistory(kingfisher, 0.4112, 19, 35, now, seeded(3));
    const cells = history.flatMap((sitting) => sitting.marks.flatMap((mark) => [...cellsOfRuns(mark.runs)]));
    expect(new Set(cells).size).toBe(cells.length);
    expect(cells.length).toBe(Math.round(0.4112 * 19_200));
    for (const sitting of history) {
      expect(sitting.endedAt.getTime()).toBeLessThan(now.getTime());
      for (const mark of sitting.marks) {
        expect(mark.at.getTime()).toBeGreaterThan(sitting.startedAt.getTime());
        expect(mark.at.getTime()).toBeLessThan(sitting.endedAt.getTime());
      }
    }
    expect(history.at(-1)!.marks.length).toBeGreaterThan(0);
    expect((now.getTime() - history[0]!.startedAt.getTime()) / 86_400_000).toBeCloseTo(35, 0);
  });
});
