import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyMark, changedCells, inverseOf, onlyLine } from '../../../src/core/bench/marking';
import { poppedCells } from '../../../src/core/bench/popped';
import { countLaid, emptyBitmap, isLaid, setLaid } from '../../../src/core/cells/bitmap';
import { cellsOfRuns, runsFromCells } from '../../../src/core/cells/cellRuns';
import { cellsInPart } from '../../../src/core/cells/rect';
import { cellsOnTheWay } from '../../../src/core/cells/stroke';
import { seededRandom } from '../../../src/core/chance/random';
import { chartOfRows } from '../samples';

const chart = chartOfRows('11.2', '1222');

describe('a mark', () => {
  it('changes only cells that want a drill and are not laid yet', () => {
    const laid = emptyBitmap(8);
    setLaid(laid, 1, true);
    expect(changedCells({ lines: chart.cells, laid }, 'lay', [0, 4])).toEqual([0, 1, 3, 1]);
  });

  it('lifts only what is laid', () => {
    const laid = emptyBitmap(8);
    setLaid(laid, 5, true);
    expect(changedCells({ lines: chart.cells, laid }, 'lift', [0, 8])).toEqual([5, 1]);
  });

  it('is undone by its inverse, whatever was laid before', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 7 })),
        fc.uniqueArray(fc.integer({ min: 0, max: 7 })),
        fc.constantFrom('lay' as const, 'lift' as const),
        (before, marked, kind) => {
          const laid = emptyBitmap(8);
          for (const cell of before) if (chart.cells[cell] !== 0) setLaid(laid, cell, true);
          const start = laid.slice();
          const runs = changedCells({ lines: chart.cells, laid }, kind, runsFromCells(marked));
          applyMark(laid, kind, runs);
          applyMark(laid, inverseOf(kind), runs);
          expect(laid).toEqual(start);
        },
      ),
    );
  });

  it('done twice is the same as done once', () => {
    const laid = emptyBitmap(8);
    applyMark(laid, 'lay', changedCells({ lines: chart.cells, laid }, 'lay', [0, 8]));
    expect(countLaid(laid)).toBe(7);
    expect(changedCells({ lines: chart.cells, laid }, 'lay', [0, 8])).toEqual([]);
  });
});

describe('a mark on a stretch of the canvas', () => {
  it('counts cells as the whole canvas does', () => {
    const stretch = { lines: chart.cells.slice(4), laid: emptyBitmap(4), first: 4 };
    expect(changedCells(stretch, 'lay', [4, 3])).toEqual([4, 3]);
    applyMark(stretch.laid, 'lay', [5, 2], 4);
    expect(changedCells(stretch, 'lay', [4, 4])).toEqual([4, 1, 7, 1]);
    expect(onlyLine(stretch.lines, [5, 3], 4)).toBe(2);
    expect(onlyLine(stretch.lines, [4, 2], 4)).toBeNull();
    expect(onlyLine(chart.cells, [2, 1])).toBeNull();
  });

  it('takes every cell where no chart says what goes where', () => {
    expect(changedCells({ lines: null, laid: emptyBitmap(8) }, 'lay', [0, 3, 5, 1])).toEqual([0, 3, 5, 1]);
  });
});

describe('cells in a rectangle', () => {
  const all = { x: 0, y: 0, width: 4, height: 2 };

  it('are those of one colour, or of any, laid or not', () => {
    const laid = emptyBitmap(8);
    setLaid(laid, 3, true);
    expect(cellsInPart(chart, laid, all, 2, false)).toEqual([5, 6, 7]);
    expect(cellsInPart(chart, laid, all, 2, true)).toEqual([3]);
    expect(cellsInPart(chart, laid, all, null, false)).toEqual([0, 1, 4, 5, 6, 7]);
    expect(cellsInPart(chart, laid, { x: 1, y: 0, width: 2, height: 2 }, null, false)).toEqual([1, 5, 6]);
  });

  it('become one run where they lie side by side', () => {
    expect([...cellsOfRuns(runsFromCells(cellsInPart(chart, emptyBitmap(8), all, 2, false)))]).toEqual([
      3, 5, 6, 7,
    ]);
  });
});

describe('popped drills', () => {
  let hour = 0;
  /** Each mark an hour after the one before. */
  const mark = (kind: 'lay' | 'lift', runs: number[], popped: boolean | null = null) => ({
    kind,
    runs,
    popped,
    happenedAt: new Date(hour++ * 3_600_000).toISOString(),
  });
  const laidNow = (...cells: number[]) => {
    const laid = emptyBitmap(8);
    for (const cell of cells) setLaid(laid, cell, true);
    return laid;
  };

  it('are those that came off and are bare since', () => {
    const marks = [mark('lay', [0, 6]), mark('lift', [1, 3])];
    expect(poppedCells(marks, laidNow(0, 2, 4, 5), 8)).toEqual([1, 3]);
  });

  it('are none where nothing was said and the drill had been marked within ten minutes', () => {
    const [lay, lift] = [mark('lay', [0, 4]), mark('lift', [1, 2])];
    const later = (minutes: number) => new Date(Date.parse(lay.happenedAt) + minutes * 60_000).toISOString();
    expect(poppedCells([lay, { ...lift, happenedAt: later(9) }], laidNow(0, 3), 8)).toEqual([]);
    expect(poppedCells([lay, { ...lift, happenedAt: later(11) }], laidNow(0, 3), 8)).toEqual([1, 2]);
  });

  it('go by what was said of the lift, whenever it was', () => {
    const [lay, soon, late] = [mark('lay', [0, 4]), mark('lift', [1, 1], true), mark('lift', [2, 1], false)];
    const justAfter = new Date(Date.parse(lay.happenedAt) + 1000).toISOString();
    expect(poppedCells([lay, { ...soon, happenedAt: justAfter }, late], laidNow(0, 3), 8)).toEqual([1]);
  });

  it('go by the last lift of a square, and never lie beyond the canvas', () => {
    const marks = [mark('lift', [1, 1], true), mark('lift', [1, 1], false), mark('lift', [6, 9], true)];
    expect(poppedCells(marks, emptyBitmap(8), 8)).toEqual([6, 7]);
  });
});

describe('a stroke', () => {
  const place = fc.record({ x: fc.integer({ min: 0, max: 40 }), y: fc.integer({ min: 0, max: 40 }) });

  it('skips no cell: each step goes to a neighbour, and the last cell is the goal', () => {
    fc.assert(
      fc.property(place, place, (from, to) => {
        const way = [from, ...cellsOnTheWay(from, to)];
        expect(way.at(-1)).toEqual(to);
        way.slice(1).forEach((cell, i) => {
          const before = way[i]!;
          expect(Math.max(Math.abs(cell.x - before.x), Math.abs(cell.y - before.y))).toBe(1);
        });
        expect(way).toHaveLength(Math.max(Math.abs(to.x - from.x), Math.abs(to.y - from.y)) + 1);
      }),
    );
  });

  it('that stays in its cell goes nowhere', () =>
    expect(cellsOnTheWay({ x: 3, y: 3 }, { x: 3, y: 3 })).toEqual([]));
});

describe('a ledger of a hundred thousand marks, lifts, undos and redos', () => {
  it('adds up to what is laid, whatever was asked for', () => {
    const random = seededRandom(16);
    const pick = (below: number) => Math.floor(random.uniform() * below);
    const lines = Uint16Array.from({ length: 4000 }, () => pick(4));
    const laid = emptyBitmap(4000);
    const done: { kind: 'lay' | 'lift'; runs: number[] }[] = [];
    const undone: typeof done = [];
    let sum = 0;
    const enter = (kind: 'lay' | 'lift', runs: readonly number[]): number[] => {
      const changed = changedCells({ lines, laid }, kind, runs);
      applyMark(laid, kind, changed);
      for (let i = 1; i < changed.length; i += 2) sum += kind === 'lay' ? changed[i]! : -changed[i]!;
      return changed;
    };
    for (let i = 0; i < 100_000; i++) {
      const what = pick(10);
      if (what < 7) {
        const kind = pick(3) === 0 ? 'lift' : 'lay';
        const from = pick(3980);
        done.push({ kind, runs: enter(kind, [from, 1 + pick(20)]) });
        undone.length = 0;
      } else if (what < 9 && done.length > 0) {
        const last = done.pop()!;
        enter(inverseOf(last.kind), last.runs);
        undone.push(last);
      } else if (undone.length > 0) {
        const again = undone.pop()!;
        done.push({ kind: again.kind, runs: enter(again.kind, again.runs) });
      }
    }
    expect(countLaid(laid)).toBe(sum);
    expect(sum).toBeGreaterThan(0);
    for (let cell = 0; cell < 4000; cell++) if (lines[cell] === 0) expect(isLaid(laid, cell)).toBe(false);
  });
});
