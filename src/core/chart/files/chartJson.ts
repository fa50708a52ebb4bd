import type { LegendLine } from '../../canvas/legend';
import { type Chart, makeChart } from '../../cells/chart';
import { forEachRun } from '../../cells/runs';
import { Refusal } from '../../refusal';
import { counted } from '../../words/numbers';
import { type ChartReading, mostFrequent } from './fromPixels';

const VERSION = 1;

/** A chart as our own JSON: the legend that its numbers mean, and each row as `[line, count, line, count, …]`. */
export function chartToJson(chart: Chart, legend: readonly LegendLine[]): string {
  const rows: string[] = [];
  for (let y = 0; y < chart.height; y++) {
    const runs: number[] = [];
    forEachRun(
      chart.width,
      (x) => chart.cells[y * chart.width + x]!,
      (_, length, line) => runs.push(line, length),
    );
    rows.push(JSON.stringify(runs));
  }
  const lines = legend.map(({ line, keyNumber, symbol, code, name, hex, finish }) =>
    JSON.stringify({ line, keyNumber, symbol, code, name, hex, finish }),
  );
  return [
    '{',
    `"oculentChart": ${VERSION}, "width": ${chart.width}, "height": ${chart.height},`,
    `"legend": [\n${lines.join(',\n')}\n],`,
    `"rows": [\n${rows.join(',\n')}\n]`,
    '}\n',
  ].join('\n');
}

/**
 * Reads that JSON for a canvas. The file's lines are found on the canvas's sheet by code and finish, or by code alone.
 * @throws Refusal naming what is wrong and where
 */
export function chartFromJson(
  text: string,
  size: { width: number; height: number },
  legend: readonly LegendLine[],
): ChartReading {
  const file = parsed(text);
  if (file.oculentChart !== VERSION) {
    throw new Refusal('This JSON is no Oculent chart: it must say "oculentChart": 1.');
  }
  if (file.width !== size.width || file.height !== size.height) {
    throw new Refusal(
      `The chart has ${file.width} × ${file.height} squares; the canvas has ${size.width} × ${size.height}.`,
    );
  }
  const { lineOf, codeOf } = linesByNumber(file.legend, legend);
  if (!Array.isArray(file.rows) || file.rows.length !== size.height) {
    throw new Refusal(`The chart must have ${counted(size.height, 'row')}.`);
  }
  const cells = new Uint16Array(size.width * size.height);
  const unmatched = new Map<string, number>();
  file.rows.forEach((row: unknown, y) => {
    let x = 0;
    for (const [number, count] of pairsOf(row, y)) {
      if (x + count > size.width) throw new Refusal(`Row ${y + 1} has more than ${size.width} squares.`);
      const line = number === 0 ? 0 : lineOf.get(number);
      if (line === undefined) {
        const code = codeOf.get(number) ?? `line ${number}`;
        unmatched.set(code, (unmatched.get(code) ?? 0) + count);
      } else cells.fill(line, y * size.width + x, y * size.width + x + count);
      x += count;
    }
    if (x < size.width)
      throw new Refusal(`Row ${y + 1} has ${counted(x, 'square')}; the canvas is ${size.width} wide.`);
  });
  return {
    chart: makeChart(size.width, size.height, cells),
    nearly: [],
    unmatched: mostFrequent(unmatched),
    notices: [],
  };
}

function parsed(text: string): Record<string, unknown> {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Refusal('This file is not JSON, or it is cut short.');
  }
  return typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : {};
}

function linesByNumber(
  own: unknown,
  legend: readonly LegendLine[],
): { lineOf: Map<number, number>; codeOf: Map<number, string> } {
  const lineOf = new Map<number, number>();
  const codeOf = new Map<number, string>();
  for (const entry of Array.isArray(own) ? (own as Partial<LegendLine>[]) : []) {
    if (typeof entry?.line !== 'number' || typeof entry.code !== 'string') continue;
    const code = entry.code.toLowerCase();
    const same = legend.filter((line) => line.code.toLowerCase() === code);
    const found = same.find(({ finish }) => finish === entry.finish) ?? same[0];
    codeOf.set(entry.line, entry.code);
    if (found) lineOf.set(entry.line, found.line);
  }
  return { lineOf, codeOf };
}

function* pairsOf(row: unknown, y: number): Generator<[line: number, count: number]> {
  const values: unknown[] = Array.isArray(row) ? row : [];
  const sound = values.every((value) => Number.isInteger(value) && (value as number) >= 0);
  if (!Array.isArray(row) || values.length % 2 !== 0 || !sound) {
    throw new Refusal(`Row ${y + 1} must be whole numbers in pairs of line and count.`);
  }
  for (let i = 0; i < values.length; i += 2) yield [values[i] as number, values[i + 1] as number];
}
