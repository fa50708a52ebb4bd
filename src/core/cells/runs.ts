import type { CellRect, Chart } from './chart';

/**
 * Visits the runs of equal neighbours in a line of values, from the first to the last.
 * @param valueAt value at a place from 0
 * @example forEachRun(4, (i) => 'aabb'[i], (start, length, value) => …) // (0, 2, 'a'), (2, 2, 'b')
 */
export function forEachRun<Value>(
  length: number,
  valueAt: (at: number) => Value,
  visit: (start: number, length: number, value: Value) => void,
): void {
  let start = 0;
  while (start < length) {
    const value = valueAt(start);
    let end = start + 1;
    while (end < length && valueAt(end) === value) end++;
    visit(start, end - start, value);
    start = end;
  }
}

/** Visits the runs of one line within each row of a rectangle, bare cells too; `x` and `y` are the run's first cell. */
export function forEachRowRun(
  chart: Chart,
  rect: CellRect,
  visit: (x: number, y: number, length: number, line: number) => void,
): void {
  for (let y = rect.y; y < rect.y + rect.height; y++) {
    const row = y * chart.width + rect.x;
    forEachRun(
      rect.width,
      (x) => chart.cells[row + x]!,
      (x, length, line) => visit(rect.x + x, y, length, line),
    );
  }
}
