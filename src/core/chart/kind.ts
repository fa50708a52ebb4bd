import type { LegendLine } from '../canvas/legend';
import { type Chart, countDrills } from '../cells/chart';
import { largest } from '../words/numbers';

/** What a canvas is like to work. Shares are of all drills, 0…1. */
export interface CanvasKind {
  drills: number;
  /** Cells with no like neighbour beside, above or below. */
  confetti: number;
  /** Cells in connected areas of one colour of at least `BLOCK_CELLS`. */
  blocks: number;
  /** Runs along rows by length: `runs[n]` runs of n drills; the last entry is "that long or longer". */
  runs: number[];
  /** Colours in each 10 × 10 block, row by row; 0 where nothing is laid. */
  heat: { columns: number; rows: number; colours: Uint8Array };
  inWords: string;
}

/** From this many connected cells on, an area is a colour block: a square of 5 × 5 (common practice, no source). */
const BLOCK_CELLS = 25;
/** Longest run that is counted by itself; the longest bar tips are 15 (common practice, no source). */
const LONGEST_RUN = 15;
/** Side of the blocks of the heat map. */
const HEAT_SIDE = 10;

/** Looks a chart over, in two passes over its cells. */
export function kindOf(chart: Chart): CanvasKind {
  const { width, height, cells } = chart;
  const drills = countDrills(chart);
  let confettiCells = 0;
  const runs = new Array<number>(LONGEST_RUN + 1).fill(0);
  for (let y = 0; y < height; y++) {
    let length = 0;
    for (let x = 0; x < width; x++) {
      const cell = y * width + x;
      const line = cells[cell]!;
      if (line !== 0) {
        const alone =
          (x === 0 || cells[cell - 1] !== line) &&
          (x === width - 1 || cells[cell + 1] !== line) &&
          (y === 0 || cells[cell - width] !== line) &&
          (y === height - 1 || cells[cell + width] !== line);
        if (alone) confettiCells++;
      }
      length = x > 0 && cells[cell - 1] === line ? length + 1 : 1;
      const ends = x === width - 1 || cells[cell + 1] !== line;
      if (ends && line !== 0) runs[Math.min(length, LONGEST_RUN)]!++;
    }
  }
  const blockCells = cellsInAreas(chart, BLOCK_CELLS);
  const share = (n: number) => (drills === 0 ? 0 : n / drills);
  const heat = coloursPerBlock(chart);
  const kind = { drills, confetti: share(confettiCells), blocks: share(blockCells), runs, heat };
  return { ...kind, inWords: kindInWords(kind) };
}

/** Cells in connected areas (beside, above, below) of one colour with at least so many cells. Union by rows. */
function cellsInAreas({ width, cells }: Chart, least: number): number {
  const parent = new Int32Array(cells.length);
  const root = (cell: number): number => {
    let at = cell;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at]!]!;
      at = parent[at]!;
    }
    return at;
  };
  for (let cell = 0; cell < cells.length; cell++) {
    parent[cell] = cell;
    if (cells[cell] === 0) continue;
    if (cell % width > 0 && cells[cell - 1] === cells[cell]) parent[root(cell)] = root(cell - 1);
    if (cell >= width && cells[cell - width] === cells[cell]) parent[root(cell)] = root(cell - width);
  }
  const sizes = new Int32Array(cells.length);
  for (let cell = 0; cell < cells.length; cell++) if (cells[cell] !== 0) sizes[root(cell)]!++;
  return sizes.reduce((sum, size) => (size >= least ? sum + size : sum), 0);
}

function coloursPerBlock({ width, height, cells }: Chart): CanvasKind['heat'] {
  const columns = Math.ceil(width / HEAT_SIDE);
  const rows = Math.ceil(height / HEAT_SIDE);
  const colours = new Uint8Array(columns * rows);
  for (let by = 0; by < rows; by++) {
    for (let bx = 0; bx < columns; bx++) {
      const seen = new Set<number>();
      for (let y = by * HEAT_SIDE; y < Math.min(height, (by + 1) * HEAT_SIDE); y++) {
        for (let x = bx * HEAT_SIDE; x < Math.min(width, (bx + 1) * HEAT_SIDE); x++)
          seen.add(cells[y * width + x]!);
      }
      seen.delete(0);
      colours[by * columns + bx] = seen.size;
    }
  }
  return { columns, rows, colours };
}

/**
 * Runs by length with their share of the drills; lengths without a run are left out.
 * @returns the last length means "or longer": its share is what the shorter ones leave
 * @example runShares({ runs: [0, 2, 1], drills: 6 }) // [{ length: 1, runs: 2, share: 1/3 }, { length: 2, runs: 1, share: 2/3 }]
 */
export function runShares({ runs, drills }: Pick<CanvasKind, 'runs' | 'drills'>): {
  length: number;
  runs: number;
  share: number;
  orLonger: boolean;
}[] {
  const last = runs.length - 1;
  const shorter = runs.slice(0, last).reduce((sum, count, length) => sum + count * length, 0);
  return runs.flatMap((count, length) => {
    if (count === 0) return [];
    const inThem = length === last ? drills - shorter : count * length;
    return [{ length, runs: count, share: inThem / drills, orLonger: length === last }];
  });
}

/** Fewest and most colours that meet in one block, of those where any drill goes; 0 where none does. */
export function colourRange({ colours }: CanvasKind['heat']): { fewest: number; most: number } {
  const worked = colours.filter((count) => count > 0);
  return worked.length === 0
    ? { fewest: 0, most: 0 }
    : { fewest: worked.reduce((a, b) => Math.min(a, b)), most: largest(worked) };
}

const PARTS: readonly (readonly [upTo: number, words: string])[] = [
  [0.05, 'hardly any'],
  [0.15, 'a tenth'],
  [0.22, 'a fifth'],
  [0.29, 'a quarter'],
  [0.38, 'a third'],
  [0.58, 'half'],
  [0.72, 'two thirds'],
  [0.85, 'four fifths'],
  [0.96, 'nearly all'],
  [2, 'all'],
];

/**
 * A share as people say it.
 * @example shareInWords(0.34) // 'a third'
 */
export function shareInWords(share: number): string {
  return PARTS.find(([upTo]) => share < upTo)![1];
}

/** Where in the picture something lies: thirds across and down. */
function regionInWords(column: number, columns: number, row: number, rows: number): string {
  const down = ['at the top', 'in the middle', 'at the bottom'][Math.min(2, Math.floor((row * 3) / rows))]!;
  const across = ['left', '', 'right'][Math.min(2, Math.floor((column * 3) / columns))]!;
  return across === '' ? down : down === 'in the middle' ? `on the ${across}` : `${down} ${across}`;
}

/** The sentence on a canvas: how much is blocks, how much confetti, and where most colours meet. */
function kindInWords({ drills, confetti, blocks, heat }: Omit<CanvasKind, 'inWords'>): string {
  if (drills === 0) return 'No drill goes on this canvas.';
  const { columns, rows, colours } = heat;
  // Blocks are smoothed over their neighbours, so that one odd block does not speak for the picture.
  let busiest = { value: -1, at: 0 };
  for (let at = 0; at < colours.length; at++) {
    const [bx, by] = [at % columns, Math.floor(at / columns)];
    let [sum, weights] = [0, 0];
    for (let y = Math.max(0, by - 1); y <= Math.min(rows - 1, by + 1); y++)
      for (let x = Math.max(0, bx - 1); x <= Math.min(columns - 1, bx + 1); x++) {
        const weight = (x === bx ? 2 : 1) * (y === by ? 2 : 1);
        sum += weight * colours[y * columns + x]!;
        weights += weight;
      }
    // By the mean: a block at the edge has fewer neighbours, and may be the busiest all the same.
    if (sum / weights > busiest.value) busiest = { value: sum / weights, at };
  }
  const where = regionInWords(busiest.at % columns, columns, Math.floor(busiest.at / columns), rows);
  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
  const shares = `${capital(shareInWords(blocks))} of it colour blocks, ${shareInWords(confetti)} confetti`;
  // Where all blocks are alike, no place stands out.
  const alike = largest(colours) - colours.reduce((least, each) => Math.min(least, each), 255) <= 1;
  return alike ? `${shares}; colours meet alike everywhere.` : `${shares}; most colours meet ${where}.`;
}

/** Legend lines that share a block of the heat map, for a look at its colours. */
export function linesIn(
  chart: Chart,
  legend: readonly LegendLine[],
  column: number,
  row: number,
): LegendLine[] {
  const seen = new Set<number>();
  for (let y = row * HEAT_SIDE; y < Math.min(chart.height, (row + 1) * HEAT_SIDE); y++) {
    for (let x = column * HEAT_SIDE; x < Math.min(chart.width, (column + 1) * HEAT_SIDE); x++)
      seen.add(chart.cells[y * chart.width + x]!);
  }
  return legend.filter(({ line }) => seen.has(line));
}
