import { MAX_CELLS } from '../canvas/canvas';
import { boxAround } from '../cells/rect';
import { Refusal } from '../refusal';
import { many } from '../words/numbers';
import type { Reading } from './readPhoto';

/** A reading, and where its upper left cell lies on the canvas; null where that is not known. */
export interface PlacedReading {
  reading: Pick<Reading, 'columns' | 'rows' | 'cells' | 'doubt' | 'flagged'>;
  at: { column: number; row: number } | null;
}

/** What several photographs say together. */
export interface Stitched {
  /** The rectangle that is read, in cells of the canvas. */
  x: number;
  y: number;
  width: number;
  height: number;
  /** Line of each cell; 0 where no photograph shows it. */
  cells: Uint16Array;
  doubt: Float32Array;
  flagged: Uint8Array;
  /** Where each photograph lies; null where that could not be told. */
  places: ({ column: number; row: number } | null)[];
}

/** Two sure readings of one cell agree so often. */
const AGREE = 0.94;
/** How much likelier the best place must be than the next (as a logarithm), so that nobody has to be asked. */
const CLEAR_LEAD = 25;
/** So many columns or rows must overlap at least. */
const LEAST_OVERLAP = 3;

/**
 * Puts photographs together by what they read, not by their pixels: two that overlap agree there. One place that is told
 * fixes all that can be joined to it; where none is told, the first lies at 0, 0. Where two read a cell, one that nobody
 * has to look at goes before one that is in doubt, and two that agree are surer than one.
 * @throws Refusal where the places that are told lie farther apart than any canvas is wide
 */
export function stitched(photos: readonly PlacedReading[]): Stitched {
  const places: Stitched['places'] = photos.map(({ at }) => at);
  if (places.length > 0 && !places.some((place) => place !== null)) places[0] = { column: 0, row: 0 };
  for (let joined = true; joined; ) {
    joined = false;
    for (let i = 0; i < photos.length; i++) {
      if (places[i]) continue;
      for (let k = 0; k < photos.length && !places[i]; k++) {
        const known = places[k];
        const offset = known && offsetBetween(photos[k]!.reading, photos[i]!.reading);
        if (!offset) continue;
        places[i] = { column: known.column + offset.column, row: known.row + offset.row };
        joined = true;
      }
    }
  }
  return { ...together(photos, places), places };
}

type Labels = PlacedReading['reading'];

/**
 * Where the second reading lies beside the first: the offset at which their sure cells agree best; null where no offset
 * leads clearly. What agrees by chance counts less where a colour is frequent.
 */
function offsetBetween(first: Labels, second: Labels): { column: number; row: number } | null {
  const counts = new Map<number, number>();
  let sure = 0;
  for (const reading of [first, second])
    reading.cells.forEach((line, cell) => {
      if (reading.flagged[cell]) return;
      counts.set(line, (counts.get(line) ?? 0) + 1);
      sure++;
    });
  const gains = new Map([...counts].map(([line, count]) => [line, Math.log((AGREE * sure) / count)]));
  const loss = Math.log((1 - AGREE) * 1.1);
  let [best, next] = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
  let place: { column: number; row: number } | null = null;
  for (let row = LEAST_OVERLAP - second.rows; row <= first.rows - LEAST_OVERLAP; row++) {
    for (let column = LEAST_OVERLAP - second.columns; column <= first.columns - LEAST_OVERLAP; column++) {
      const score = agreement(first, second, column, row, gains, loss, next);
      if (score > best) {
        next = best;
        best = score;
        place = { column, row };
      } else if (score > next) next = score;
    }
  }
  return best > CLEAR_LEAD && best - Math.max(0, next) > CLEAR_LEAD ? place : null;
}

function agreement(
  first: Labels,
  second: Labels,
  column: number,
  row: number,
  gains: ReadonlyMap<number, number>,
  loss: number,
  enough: number,
): number {
  let score = 0;
  const [top, bottom] = [Math.max(0, row), Math.min(first.rows, row + second.rows)];
  const [left, right] = [Math.max(0, column), Math.min(first.columns, column + second.columns)];
  for (let y = top; y < bottom; y++) {
    for (let x = left; x < right; x++) {
      const [a, b] = [y * first.columns + x, (y - row) * second.columns + x - column];
      if (first.flagged[a] || second.flagged[b]) continue;
      score += first.cells[a] === second.cells[b] ? gains.get(first.cells[a]!)! : loss;
    }
    // What is so wrong after some rows does not come right.
    if (score < Math.min(-60, enough - 400)) return score;
  }
  return score;
}

function together(
  photos: readonly PlacedReading[],
  places: readonly ({ column: number; row: number } | null)[],
): Omit<Stitched, 'places'> {
  const placed = photos.flatMap(({ reading }, i) => (places[i] ? [{ reading, place: places[i] }] : []));
  if (placed.length === 0)
    return {
      ...{ x: 0, y: 0, width: 0, height: 0 },
      ...{ cells: new Uint16Array(), doubt: new Float32Array(), flagged: new Uint8Array() },
    };
  const { x, y, width, height } = boxAround(
    placed.map(({ place, reading }) => ({
      x: place.column,
      y: place.row,
      width: reading.columns,
      height: reading.rows,
    })),
  );
  if (width * height > MAX_CELLS)
    throw new Refusal(
      `The places of the photos make a chart of ${many(width)} × ${many(height)} squares; a canvas can have at most ${many(MAX_CELLS)}.`,
    );
  const cells = new Uint16Array(width * height);
  const doubt = new Float32Array(width * height).fill(1);
  const flagged = new Uint8Array(width * height).fill(1);
  for (const { reading, place } of placed) {
    for (let j = 0; j < reading.rows; j++) {
      for (let i = 0; i < reading.columns; i++) {
        const from = j * reading.columns + i;
        const to = (place.row - y + j) * width + place.column - x + i;
        const line = reading.cells[from]!;
        if (cells[to] === line) {
          doubt[to] = doubt[to]! * reading.doubt[from]!;
          // Two that agree settle what each alone was in doubt of, unless both were at a loss.
          flagged[to] = doubt[to]! < AGREED_DOUBT || !reading.flagged[from] ? 0 : flagged[to]!;
        } else if (cells[to] === 0 || reading.doubt[from]! < doubt[to]!) {
          // Two sure ones that differ: somebody looks.
          const clash = cells[to] !== 0 && !flagged[to] && !reading.flagged[from];
          cells[to] = line;
          flagged[to] = clash ? 1 : reading.flagged[from]!;
          doubt[to] = clash ? 0.5 : reading.doubt[from]!;
        } else if (!flagged[to] && !reading.flagged[from]) {
          flagged[to] = 1;
          doubt[to] = 0.5;
        }
      }
    }
  }
  return { x, y, width, height, cells, doubt, flagged };
}

/** Two readings that agree with less doubt than this together need no look. */
const AGREED_DOUBT = 0.02;
