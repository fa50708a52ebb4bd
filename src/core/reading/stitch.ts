import { MAX_CELLS } from '../canvas/canvas';
import { boxAround } from '../cells/rect';
import { Refusal } from '../refusal';
import { many } from '../words/numbers';
import { FLAGGED_FROM } from './doubt';
import type { Labels } from './readPhoto';
import { TORN_DOUBT } from './tornRegions';

/** A reading, and where its upper left cell lies on the canvas; null where that is not known. */
export interface PlacedReading {
  reading: Labels;
  at: PhotoPlace | null;
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
  /** The line that each may be else; 0 where there is no other. */
  others: Uint16Array;
  doubt: Float32Array;
  /** 1 where somebody has to look. */
  flagged: Uint8Array;
  /** The photograph that each cell is read from; −1 for none. */
  from: Int16Array;
  /** Where each photograph lies; null where that could not be told. */
  places: (PhotoPlace | null)[];
  /** Of photographs that found no place by themselves: where they may lie, the likeliest first. */
  unclear: { photo: number; places: PhotoPlace[] }[];
  /** Photographs that contradict what others show of the same cells. */
  contradicted: { photo: number; cells: number; differing: number }[];
}

/** Where the upper left cell of a photograph lies on the canvas. */
export interface PhotoPlace {
  column: number;
  row: number;
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
 * has to look at goes before one that is in doubt, and two that agree are surer than one, unless both hesitated between the
 * same two lines. A torn region stays in doubt, for under one light two photographs may take it for the same other colour.
 * @throws Refusal where the places that are told lie farther apart than any canvas is wide
 */
export function stitched(photos: readonly PlacedReading[]): Stitched {
  const places: Stitched['places'] = photos.map(({ at }) => at);
  if (places.length > 0 && !places.some((place) => place !== null)) places[0] = { column: 0, row: 0 };
  const asked = new Map<string, Offsets>();
  const offsets = (k: number, i: number) => {
    const name = `${k} ${i}`;
    const known = asked.get(name) ?? offsetsBetween(photos[k]!.reading, photos[i]!.reading);
    asked.set(name, known);
    return known;
  };
  for (let joined = true; joined; ) {
    joined = false;
    for (let i = 0; i < photos.length; i++) {
      if (places[i]) continue;
      for (let k = 0; k < photos.length && !places[i]; k++) {
        const known = places[k];
        const { likely, clear } = known ? offsets(k, i) : NOWHERE;
        if (!known || !clear) continue;
        const place = { column: known.column + likely[0]!.column, row: known.row + likely[0]!.row };
        // Beside one photo a picture may repeat itself; where others show something else there, it is not the place.
        const contradicts = photos.some((other, m) => {
          const at = places[m];
          return (
            at && differs(other.reading, photos[i]!.reading, place.column - at.column, place.row - at.row)
          );
        });
        if (contradicts) continue;
        places[i] = place;
        joined = true;
      }
    }
  }
  const unclear = photos.flatMap((_, i) => {
    if (places[i]) return [];
    const found = places.flatMap((known, k) =>
      known
        ? offsets(k, i).likely.map(({ column, row, score }) => ({
            column: known.column + column,
            row: known.row + row,
            score,
          }))
        : [],
    );
    found.sort((one, other) => other.score - one.score);
    return [{ photo: i, places: found.slice(0, MOST_ASKED).map(({ column, row }) => ({ column, row })) }];
  });
  return { ...together(photos, places), places, unclear };
}

/** Offsets of one reading beside another, the likeliest first, and whether the first leads so far that nobody is asked. */
interface Offsets {
  likely: (PhotoPlace & { score: number })[];
  clear: boolean;
}
const NOWHERE: Offsets = { likely: [], clear: false };
/** So many places are offered where none is clear. */
const MOST_ASKED = 3;

const isSure = (reading: Labels, cell: number) => reading.doubt[cell]! <= FLAGGED_FROM;

/**
 * Where the second reading lies beside the first: the offsets at which their sure cells agree best. What agrees by chance
 * counts less where a colour is frequent.
 */
function offsetsBetween(first: Labels, second: Labels): Offsets {
  const counts = new Map<number, number>();
  let sure = 0;
  for (const reading of [first, second])
    reading.cells.forEach((line, cell) => {
      if (!isSure(reading, cell)) return;
      counts.set(line, (counts.get(line) ?? 0) + 1);
      sure++;
    });
  const gains = new Map([...counts].map(([line, count]) => [line, Math.log((AGREE * sure) / count)]));
  const loss = Math.log((1 - AGREE) * 1.1);
  const likely: Offsets['likely'] = [];
  for (let row = LEAST_OVERLAP - second.rows; row <= first.rows - LEAST_OVERLAP; row++) {
    for (let column = LEAST_OVERLAP - second.columns; column <= first.columns - LEAST_OVERLAP; column++) {
      const least = likely[MOST_ASKED - 1]?.score ?? 0;
      const score = agreement(first, second, column, row, gains, loss, least);
      if (score <= least) continue;
      likely.push({ column, row, score });
      likely.sort((one, other) => other.score - one.score);
      likely.length = Math.min(likely.length, MOST_ASKED);
    }
  }
  const [best, next] = [likely[0]?.score ?? 0, likely[1]?.score ?? 0];
  return { likely, clear: best > CLEAR_LEAD && best - next > CLEAR_LEAD };
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
      if (!isSure(first, a) || !isSure(second, b)) continue;
      score += first.cells[a] === second.cells[b] ? gains.get(first.cells[a]!)! : loss;
    }
    // What is so wrong after some rows does not come right.
    if (score < Math.min(-60, enough - 400)) return score;
  }
  return score;
}

/** Whether the second reading, so far beside the first, shows something else there. */
function differs(first: Labels, second: Labels, column: number, row: number): boolean {
  let [shared, differing] = [0, 0];
  for (let y = Math.max(0, row); y < Math.min(first.rows, row + second.rows); y++) {
    for (let x = Math.max(0, column); x < Math.min(first.columns, column + second.columns); x++) {
      const [a, b] = [y * first.columns + x, (y - row) * second.columns + x - column];
      if (!isSure(first, a) || !isSure(second, b)) continue;
      shared++;
      if (first.cells[a] !== second.cells[b]) differing++;
    }
  }
  return isContradicted(shared, differing);
}

function together(
  photos: readonly PlacedReading[],
  places: readonly (PhotoPlace | null)[],
): Omit<Stitched, 'places' | 'unclear'> {
  const placed = photos.flatMap(({ reading }, photo) => {
    const place = places[photo];
    return place ? [{ reading, place, photo }] : [];
  });
  const { x, y, width, height } =
    placed.length === 0
      ? { x: 0, y: 0, width: 0, height: 0 }
      : boxAround(
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
  const others = new Uint16Array(width * height);
  const doubt = new Float32Array(width * height).fill(1);
  const flagged = new Uint8Array(width * height).fill(1);
  const from = new Int16Array(width * height).fill(-1);
  const torn = new Uint8Array(width * height);
  const contradicted: Stitched['contradicted'] = [];
  for (const { reading, place, photo } of placed) {
    let [shared, differing] = [0, 0];
    for (let j = 0; j < reading.rows; j++) {
      for (let i = 0; i < reading.columns; i++) {
        const own = j * reading.columns + i;
        const to = (place.row - y + j) * width + place.column - x + i;
        const line = reading.cells[own]!;
        const sure = isSure(reading, own);
        if (reading.torn[own]) torn[to] = 1;
        const take = () => {
          cells[to] = line;
          others[to] = reading.others[own]!;
          doubt[to] = reading.doubt[own]!;
          flagged[to] = sure ? 0 : 1;
          from[to] = photo;
        };
        if (from[to] === -1) {
          take();
          continue;
        }
        if (sure && !flagged[to]) {
          shared++;
          if (cells[to] !== line) differing++;
        }
        const [mine, its] = [reading.doubt[own]!, doubt[to]!];
        if (cells[to] === line) {
          const isSameChoice = others[to] !== 0 && others[to] === reading.others[own];
          const left = isSameChoice ? Math.min(mine, its) : mine * its;
          if (mine < its) from[to] = photo;
          doubt[to] = left;
          if (isSameChoice) flagged[to] = left > SAME_CHOICE_DOUBT ? 1 : 0;
          else if (left < AGREED_DOUBT || sure) flagged[to] = 0;
          continue;
        }
        const clash = sure && !flagged[to];
        const before = cells[to]!;
        if (mine < its) {
          take();
          others[to] = before;
        } else others[to] = line;
        doubt[to] = clash ? 0.5 : leftWhereTheyDiffer(mine, its);
        flagged[to] = doubt[to]! > DIFFERING_DOUBT ? 1 : 0;
      }
    }
    if (isContradicted(shared, differing)) contradicted.push({ photo, cells: shared, differing });
  }
  torn.forEach((isTorn, cell) => {
    if (!isTorn) return;
    flagged[cell] = 1;
    doubt[cell] = Math.max(doubt[cell]!, TORN_DOUBT);
  });
  return { x, y, width, height, cells, others, doubt, flagged, from, contradicted };
}

/** Two readings that agree with less doubt than this together need no look. */
const AGREED_DOUBT = 0.02;
/*
 * Where a second look leaves a suspicion, somebody looks from less doubt on than at a single reading. Both hesitated between
 * the same two lines: they may err for the same reason, so that the second takes nothing of the surer one's doubt. Or they
 * differ, and one of them is wrong, whatever it said.
 */
const SAME_CHOICE_DOUBT = 0.003;
const DIFFERING_DOUBT = 0.005;

/** The chance that the surer of two readings is wrong where they differ, so that not both are right. */
function leftWhereTheyDiffer(one: number, other: number): number {
  const both = one * other;
  const notBothRight = one + other - both;
  return notBothRight > 0 ? Math.min(one, other) / notBothRight : 0.5;
}

/** Of so many cells that two show for sure, more than this share may not differ: it would be another place or canvas. */
const LEAST_SHARED = 30;
const MOST_DIFFERING = 0.3;
const isContradicted = (shared: number, differing: number) =>
  shared >= LEAST_SHARED && differing > shared * MOST_DIFFERING;
