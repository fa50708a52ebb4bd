/**
 * A set of cells as runs of neighbouring cell indices: `[start, length, start, length, …]`,
 * ascending, without overlap. What a mark in the ledger holds.
 */
export type CellRuns = readonly number[];

/**
 * @param cells cell indices in any order; repeats count once
 * @example runsFromCells([7, 3, 4, 3]) // [3, 2, 7, 1]
 */
export function runsFromCells(cells: Iterable<number>): number[] {
  const sorted = Uint32Array.from(new Set(cells)).sort();
  const runs: number[] = [];
  for (const cell of sorted) {
    const last = runs.length - 2;
    if (last >= 0 && runs[last]! + runs[last + 1]! === cell) runs[last + 1]!++;
    else runs.push(cell, 1);
  }
  return runs;
}

export function* cellsOfRuns(runs: CellRuns): Generator<number> {
  for (let i = 0; i < runs.length; i += 2) {
    const start = runs[i]!;
    for (let offset = 0; offset < runs[i + 1]!; offset++) yield start + offset;
  }
}

export function countCells(runs: CellRuns): number {
  let count = 0;
  for (let i = 1; i < runs.length; i += 2) count += runs[i]!;
  return count;
}

/** Runs in parts of at most so many, for marks that are larger than one request may be. */
export function runsInParts(runs: CellRuns, most: number): number[][] {
  const parts: number[][] = [];
  for (let from = 0; from < runs.length; from += 2 * most) parts.push(runs.slice(from, from + 2 * most));
  return parts;
}

/** What is wrong with these runs on a chart of so many cells, as a sentence; null when they are sound. */
export function faultInRuns(runs: CellRuns, cells: number): string | null {
  if (runs.length % 2 !== 0) return 'Squares come in pairs of start and length; one half is missing.';
  let free = 0;
  for (let i = 0; i < runs.length; i += 2) {
    const start = runs[i]!;
    const length = runs[i + 1]!;
    if (!Number.isInteger(start) || !Number.isInteger(length) || length < 1) {
      return `Run ${i / 2 + 1} is not a whole start and a length of at least 1.`;
    }
    if (start < free) return `Run ${i / 2 + 1} starts before the one ahead of it ends.`;
    free = start + length;
    if (free > cells) return `Run ${i / 2 + 1} ends beyond the last of ${cells} squares.`;
  }
  return null;
}
