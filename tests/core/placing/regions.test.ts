import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyBitmap, setLaid } from '../../../src/core/cells/bitmap';
import { makeChart } from '../../../src/core/cells/chart';
import { USUAL_SECONDS } from '../../../src/core/pace/timeModel';
import { PlacingPlanner } from '../../../src/core/placing/plan';
import { regionsOf } from '../../../src/core/placing/regions';
import { cellsOfPlacement } from '../../../src/core/placing/stepping';
import { USUAL_PLACING } from '../../../src/core/placing/wish';
import { line } from '../samples';

const linesOf = (cells: number, most: number) =>
  fc.array(fc.integer({ min: 0, max: most }), { minLength: cells, maxLength: cells });
const WIDTH = 7;
/** The cells beside a cell: left, right, above, below. */
const besideOf = (cell: number, height: number) => [
  cell % WIDTH > 0 ? cell - 1 : -1,
  cell % WIDTH < WIDTH - 1 ? cell + 1 : -1,
  cell >= WIDTH ? cell - WIDTH : -1,
  cell < WIDTH * (height - 1) ? cell + WIDTH : -1,
];

it('regions are what hangs together by its sides, whatever its shape, each cell with its neighbours', () => {
  fc.assert(
    fc.property(linesOf(42, 2), linesOf(42, 1), fc.boolean(), (lines, parts, cut) => {
      const owners = cut ? Int32Array.from(parts) : null;
      const regions = regionsOf(makeChart(WIDTH, 6, Uint16Array.from(lines)), owners);
      const alike = (a: number, b: number) =>
        b >= 0 && lines[a] !== 0 && lines[a] === lines[b] && (!cut || parts[a] === parts[b]);
      // Each cell takes the least number of those that it hangs together with, until none changes.
      const least = lines.map((_, cell) => cell);
      for (let changed = true; changed; ) {
        changed = false;
        for (let cell = 0; cell < 42; cell++) {
          for (const next of besideOf(cell, 6))
            if (alike(cell, next) && least[next]! < least[cell]!) {
              least[cell] = least[next]!;
              changed = true;
            }
        }
      }
      const wanted = [...new Set(least.filter((_, cell) => lines[cell] !== 0))].map((first) =>
        least.flatMap((own, cell) => (own === first && lines[cell] !== 0 ? [cell] : [])),
      );
      const { starts, cells, byColumn, up, down, left } = regions;
      const found = wanted.map((_, i) => [...cells.subarray(starts[i], starts[i + 1])]);
      expect(found).toEqual(wanted);
      expect([...regions.lines]).toEqual(wanted.map(([first]) => lines[first!]));
      expect(starts.at(-1)).toBe(cells.length);
      wanted.forEach((own, i) => {
        const columns = own.toSorted((a, b) => (a % WIDTH) - (b % WIDTH) || a - b);
        expect([...byColumn.subarray(starts[i], starts[i + 1])].map((place) => cells[place])).toEqual(
          columns,
        );
      });
      cells.forEach((cell, place) => {
        const [before, , above, below] = besideOf(cell, 6) as [number, number, number, number];
        const at = (place: number) => (place === -1 ? -1 : cells[place]);
        expect([left[place], at(up[place]!), at(down[place]!)]).toEqual([
          Number(alike(cell, before)),
          alike(cell, above) ? above : -1,
          alike(cell, below) ? below : -1,
        ]);
      });
    }),
  );
});

describe('squares beside the next section', () => {
  const legend = [line(1, { hex: '#101010' }), line(2, { hex: '#f8f8f8' })];
  const parts = [
    { x: 1, y: 2, width: 3, height: 4 },
    { x: 4, y: 2, width: 2, height: 4 },
  ];
  const partAt = (cell: number) => {
    const [x, y] = [cell % WIDTH, Math.floor(cell / WIDTH)];
    return parts.findIndex(
      (part) => x >= part.x && x < part.x + part.width && y >= part.y && y < part.y + part.height,
    );
  };

  it('are laid one by one where it is wished, those and no others', () => {
    fc.assert(
      fc.property(linesOf(49, 2), fc.uniqueArray(fc.nat(48), { maxLength: 8 }), (lines, done) => {
        const chart = makeChart(WIDTH, 7, Uint16Array.from(lines));
        const laid = emptyBitmap(49);
        for (const cell of done) setLaid(laid, cell, true);
        const ground = {
          chart,
          laid,
          legend,
          parts,
          tips: [1, 2, 3, 4],
          seconds: USUAL_SECONDS,
          hand: 'right',
        } as const;
        const plan = (edgeSingles: boolean) =>
          new PlacingPlanner().plan(ground, { ...USUAL_PLACING, edgeSingles });
        const meets = (cell: number) =>
          besideOf(cell, 7).some((next) => next >= 0 && lines[next] !== 0 && partAt(next) !== partAt(cell));
        const edged = plan(true);
        const within = edged.placements.filter((each) =>
          cellsOfPlacement(each, WIDTH).some((cell) => !meets(cell)),
        );
        for (const bar of edged.placements)
          if (bar.length > 1) expect(cellsOfPlacement(bar, WIDTH).some(meets)).toBe(false);
        // What is left within is planned as if the squares at the edges were laid already.
        const inner = laid.slice();
        lines.forEach((own, cell) => {
          if (own !== 0 && partAt(cell) >= 0 && meets(cell)) setLaid(inner, cell, true);
        });
        const alone = new PlacingPlanner().plan({ ...ground, laid: inner }, USUAL_PLACING);
        expect(within).toHaveLength(alone.placements.length);
        expect(edged.lowerBound - alone.lowerBound).toBe(edged.placements.length - within.length);
      }),
      { numRuns: 60 },
    );
  });
});
