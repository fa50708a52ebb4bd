import type { LegendLine } from '../canvas/legend';
import { type Chart, makeChart } from '../cells/chart';
import { Refusal } from '../refusal';
import { counted, many } from '../words/numbers';
import type { Stitched } from './stitch';

/** What somebody said of squares, by index on the canvas: their line, 0 for no drill. */
export type Answers = ReadonlyMap<number, number>;

/** What photographs and answers say together, over the whole canvas. */
export interface ReadChart {
  width: number;
  height: number;
  /** Line of each square; 0 where no photo shows it, or no drill goes. */
  cells: Uint16Array;
  others: Uint16Array;
  doubt: Float32Array;
  /** 1 where somebody has to look, and nobody has yet. */
  open: Uint8Array;
  /** The photo that each square is read from; −1 for none. */
  from: Int16Array;
}

/**
 * Lays what was read onto the canvas, answers over it.
 * @throws Refusal where photos reach over its edge
 */
export function onCanvas(
  read: Stitched,
  answers: Answers,
  canvas: { width: number; height: number },
): ReadChart {
  const { width, height } = canvas;
  if (
    read.width > 0 &&
    (read.x < 0 || read.y < 0 || read.x + read.width > width || read.y + read.height > height)
  )
    throw new Refusal(
      `The photos reach over the edge of the canvas: they show columns ${many(read.x + 1)} to ${many(read.x + read.width)} and rows ${many(read.y + 1)} to ${many(read.y + read.height)} of ${many(width)} × ${many(height)} squares. Say where one of them lies, or count its squares again.`,
    );
  const all: ReadChart = {
    ...{ width, height },
    cells: new Uint16Array(width * height),
    others: new Uint16Array(width * height),
    doubt: new Float32Array(width * height),
    open: new Uint8Array(width * height),
    from: new Int16Array(width * height).fill(-1),
  };
  for (let row = 0; row < read.height; row++) {
    const [own, to] = [row * read.width, (read.y + row) * width + read.x];
    const rowOf = <A extends Uint16Array | Float32Array | Uint8Array | Int16Array>(array: A) =>
      array.subarray(own, own + read.width);
    all.cells.set(rowOf(read.cells), to);
    all.others.set(rowOf(read.others), to);
    all.doubt.set(rowOf(read.doubt), to);
    all.from.set(rowOf(read.from), to);
    for (let i = 0; i < read.width; i++)
      all.open[to + i] = read.flagged[own + i]! && read.from[own + i]! >= 0 ? 1 : 0;
  }
  for (const [cell, line] of answers) {
    if (cell >= all.cells.length) continue;
    all.cells[cell] = line;
    all.doubt[cell] = 0;
    all.open[cell] = 0;
  }
  return all;
}

/** Squares that are in doubt between the same two colours. */
export interface ReviewGroup {
  /** The two lines, the smaller first; the second may be 0 where there is no other. */
  lines: readonly [number, number];
  /** Squares, those that are surest to be the first one of the list first. */
  cells: number[];
}

/** What has to be looked at, the largest group first. */
export function reviewGroups({ cells, others, doubt, open }: ReadChart): ReviewGroup[] {
  const groups = new Map<string, ReviewGroup>();
  open.forEach((isOpen, cell) => {
    if (!isOpen) return;
    const [line, other] = [cells[cell]!, others[cell]!];
    const lines =
      other === 0 ? ([line, 0] as const) : ([Math.min(line, other), Math.max(line, other)] as const);
    const key = lines.join(' ');
    const group = groups.get(key) ?? { lines, cells: [] };
    groups.set(key, group);
    group.cells.push(cell);
  });
  for (const { cells: own } of groups.values()) own.sort((a, b) => doubt[a]! - doubt[b]! || a - b);
  return [...groups.values()].sort((a, b) => b.cells.length - a.cells.length || a.lines[0] - b.lines[0]);
}

/** A colour's squares, the oddest first: those in doubt, then the others. */
export function squaresOf({ cells, doubt }: ReadChart, line: number): number[] {
  const own: number[] = [];
  cells.forEach((each, cell) => {
    if (each === line) own.push(cell);
  });
  return own.sort((a, b) => doubt[b]! - doubt[a]! || a - b);
}

/** How often a colour was read, beside the colour list. */
export interface CountSuspect {
  line: number;
  read: number;
  needed: number;
  /** The colour that has as many too few as this has too many, among those that its squares may be else. */
  perhaps: number | null;
}

/** Colours whose count is not that of the list, those farthest off first. */
export function countSuspects(chart: ReadChart, legend: readonly LegendLine[]): CountSuspect[] {
  const read = new Map<number, number>();
  const otherwise = new Map<number, Map<number, number>>();
  chart.cells.forEach((line, cell) => {
    if (line === 0) return;
    read.set(line, (read.get(line) ?? 0) + 1);
    const other = chart.others[cell]!;
    if (other === 0) return;
    const own = otherwise.get(line) ?? new Map<number, number>();
    otherwise.set(line, own.set(other, (own.get(other) ?? 0) + 1));
  });
  const off = new Map(legend.map(({ line, neededDrills }) => [line, (read.get(line) ?? 0) - neededDrills]));
  return legend
    .filter(({ line }) => off.get(line) !== 0)
    .map(({ line, neededDrills }) => {
      const others = [...(otherwise.get(line) ?? [])].sort(([, a], [, b]) => b - a).map(([other]) => other);
      const excess = off.get(line)!;
      const perhaps = others.find((other) => excess * (off.get(other) ?? 0) < 0) ?? null;
      return { line, read: read.get(line) ?? 0, needed: neededDrills, perhaps };
    })
    .sort((a, b) => Math.abs(b.read - b.needed) - Math.abs(a.read - a.needed) || a.line - b.line);
}

/** How far reading is. */
export interface ReadShare {
  squares: number;
  read: number;
  open: number;
}

export function shareRead({ from, open }: ReadChart): ReadShare {
  let [read, left] = [0, 0];
  for (let cell = 0; cell < from.length; cell++) {
    if (from[cell]! >= 0) read++;
    left += open[cell]!;
  }
  return { squares: from.length, read, open: left };
}

/** Says that a photo contradicts the others. @param number by which people know the photo */
export function contradictionInWords(
  { cells, differing }: Stitched['contradicted'][number],
  number: number,
): string {
  return `Photo ${number} shows something else than the others: ${counted(differing, 'square')} of ${many(cells)} differ. Perhaps it is of another canvas or lies elsewhere; remove it or say where it lies.`;
}

/**
 * The chart to save: what was read, over what was there. Squares that no photo shows stay as they were.
 * @param numbers by which people know the photos
 * @throws Refusal where nothing was read, a colour is not on the list, or photos contradict each other
 */
export function acceptedChart(
  read: ReadChart,
  contradicted: Stitched['contradicted'],
  numbers: readonly number[],
  legend: readonly LegendLine[],
  before: Chart | null,
): Chart {
  const [worst] = contradicted;
  if (worst) throw new Refusal(contradictionInWords(worst, numbers[worst.photo]!));
  if (shareRead(read).read === 0) throw new Refusal('No photo has been read yet.');
  const known = new Set(legend.map(({ line }) => line));
  const cells = before ? before.cells.slice() : new Uint16Array(read.cells.length);
  read.cells.forEach((line, cell) => {
    if (read.from[cell]! < 0) return;
    if (line !== 0 && !known.has(line))
      throw new Refusal('A colour that was read is no longer on the colour list. Read the photos again.');
    cells[cell] = line;
  });
  return makeChart(read.width, read.height, cells);
}
