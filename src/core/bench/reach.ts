import { type Bitmap, isLaid } from '../cells/bitmap';
import type { CellRect, Chart } from '../cells/chart';
import {
  type CellPart,
  type CellPlace,
  cellIndex,
  forEachCell,
  isInside,
  overlapOf,
  rectsOf,
} from '../cells/rect';

/** How far a touch reaches: what it lays or lifts besides the square that was touched. */
export const REACHES = ['square', 'placement', 'run', 'row', 'region', 'area'] as const;
export type Reach = (typeof REACHES)[number];

/** What each reach is called, and what it takes. */
export const REACH_WORDS: Record<Reach, { name: string; what: string }> = {
  square: { name: 'one square', what: 'The square that is touched, and those that a drag crosses.' },
  placement: { name: 'its placement', what: 'All squares of the bar that the plan lays there.' },
  run: { name: 'its run', what: 'Neighbours of its colour in the row, up to the next colour.' },
  row: { name: 'its row', what: 'All squares of its colour in that row of the section.' },
  region: { name: 'its region', what: 'All squares of its colour that touch one another.' },
  area: { name: 'an area', what: 'From one corner to the other: press, drag, let go.' },
};

/** Reaches that make sense: without a chart nothing is known of colours. */
export function reachesFor(hasChart: boolean): readonly Reach[] {
  return hasChart ? REACHES : ['square', 'row', 'area'];
}

/** What marks are made on. */
export interface ReachGround {
  chart: Chart;
  section: CellPart;
}

/**
 * Squares of one colour that a touch takes in a section, the touched one among them; ascending cell indices. Squares that
 * are laid already are among them: what is laid is not laid twice, and a run goes on behind it.
 * @param place inside the section, with a drill
 * @returns for `square`, `placement` and `area` the square alone: what they take is known elsewhere
 */
export function cellsReached({ chart, section }: ReachGround, reach: Reach, place: CellPlace): number[] {
  const start = cellIndex(place, chart.width);
  const line = chart.cells[start]!;
  const belongs = (x: number, y: number) =>
    isInside(section, { x, y }) && chart.cells[y * chart.width + x] === line;
  switch (reach) {
    case 'run': {
      let [from, to] = [place.x, place.x];
      while (belongs(from - 1, place.y)) from--;
      while (belongs(to + 1, place.y)) to++;
      return Array.from({ length: to - from + 1 }, (_, i) => start - place.x + from + i);
    }
    case 'row': {
      const cells: number[] = [];
      for (let x = section.x; x < section.x + section.width; x++) {
        if (belongs(x, place.y)) cells.push(place.y * chart.width + x);
      }
      return cells;
    }
    case 'region': {
      const found = new Set([start]);
      const open = [place];
      for (let next = open.pop(); next; next = open.pop()) {
        for (const [dx, dy] of [
          [1, 0],
          [-1, 0],
          [0, 1],
          [0, -1],
        ] as const) {
          const there = { x: next.x + dx, y: next.y + dy };
          const cell = cellIndex(there, chart.width);
          if (found.has(cell) || !belongs(there.x, there.y)) continue;
          found.add(cell);
          open.push(there);
        }
      }
      return [...found].sort((a, b) => a - b);
    }
    default:
      return [start];
  }
}

/** Squares of a colour in the rectangle of an area, as far as it lies in the section. @param line null for every colour */
export function cellsOfArea({ chart, section }: ReachGround, area: CellRect, line: number | null): number[] {
  const cells: number[] = [];
  for (const rect of rectsOf(section)) {
    const common = overlapOf(rect, area);
    if (common)
      forEachCell(chart, common, (cell, here) => {
        if (here !== 0 && (line === null || here === line)) cells.push(cell);
      });
  }
  return cells.sort((a, b) => a - b);
}

/** How far a finger may miss a square that is meant, in squares, where it snaps. */
const SNAP_SQUARES = 1;

/**
 * The square that a trembling finger meant: the one touched where it may be marked, else the nearest one beside it; of two
 * alike the one further up, then further left. The touched one itself where none is near.
 */
export function snapped(place: CellPlace, markable: (place: CellPlace) => boolean): CellPlace {
  if (markable(place)) return place;
  let best: { place: CellPlace; far: number } | null = null;
  for (let dy = -SNAP_SQUARES; dy <= SNAP_SQUARES; dy++) {
    for (let dx = -SNAP_SQUARES; dx <= SNAP_SQUARES; dx++) {
      const there = { x: place.x + dx, y: place.y + dy };
      const far = dx * dx + dy * dy;
      if (far > 0 && (best === null || far < best.far) && markable(there)) best = { place: there, far };
    }
  }
  return best?.place ?? place;
}

/**
 * For a canvas without a chart: the squares that make a share of a section laid, counted row by row from its top, and
 * those that are laid beyond it. Nobody knows which squares they were; what counts is how many.
 * @param share 0…1 of the section's squares
 */
export function cellsToShare(
  { chart, section }: ReachGround,
  laid: Bitmap,
  share: number,
): { lay: number[]; lift: number[] } {
  const cells: number[] = [];
  forEachCell(chart, section, (cell, line) => {
    if (line !== 0) cells.push(cell);
  });
  cells.sort((a, b) => a - b);
  const done = cells.filter((cell) => isLaid(laid, cell));
  const more = Math.round(share * cells.length) - done.length;
  return more >= 0
    ? { lay: cells.filter((cell) => !isLaid(laid, cell)).slice(0, more), lift: [] }
    : { lay: [], lift: done.slice(more) };
}
