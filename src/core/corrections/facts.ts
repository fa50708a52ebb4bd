import { type CanvasFacts, MAX_SIDE_CELLS, sizeInWords } from '../canvas/canvas';
import { type Bitmap, isLaid } from '../cells/bitmap';
import { type CellRuns, faultInRuns } from '../cells/cellRuns';
import { type Chart, makeChart } from '../cells/chart';
import { Refusal } from '../refusal';
import { counted, many } from '../words/numbers';

/** What is known of a canvas when its facts are corrected. */
export interface CanvasState {
  chart: Chart | null;
  laid: Bitmap;
  /** Bags counted by their printed number. */
  nominalBags: number;
  /** Whether the panels that the user cut it into fit another size; null where he cut none. */
  panelsFit: ((size: { width: number; height: number }) => boolean) | null;
  /** Whether its colours have pots. */
  hasPots: boolean;
}

/** What a correction of a canvas's facts leads to, sentence by sentence; and why it cannot be, where it cannot. */
export interface ChangeReport {
  costs: string[];
  fault: string | null;
}

/** What it would cost to change the facts of a canvas, told before it is done. */
export function changeReport(before: CanvasFacts, after: CanvasFacts, state: CanvasState): ChangeReport {
  const costs: string[] = [];
  const resized = before.width !== after.width || before.height !== after.height;
  if (resized) {
    const lost = lostBySize(before, after, state);
    if (lost.drills > 0) {
      const laid = lost.laid > 0 ? `, ${counted(lost.laid, 'drill')} laid on them` : '';
      return {
        costs,
        fault: `${many(lost.drills)} of the squares that would go want a drill${laid}. Make the canvas no smaller than its picture, or clear those squares first.`,
      };
    }
    costs.push(
      `The canvas becomes ${many(after.width)} × ${many(after.height)} squares, ${sizeInWords(after)}. New squares are bare; what is laid stays where it is.`,
      'Sections are cut again, so their numbers change.',
    );
    costs.push(...ownPanels(state.panelsFit?.(before), state.panelsFit?.(after)));
  } else if (before.pitchMm !== after.pitchMm) {
    costs.push(
      `Lengths change: it is ${sizeInWords(after)} instead of ${sizeInWords(before)}. Squares, sections and marks stay.`,
    );
  }
  if (before.shape !== after.shape) {
    costs.push(`The stash offers ${after.shape} drills from now on, and pictures show them ${after.shape}.`);
    if (state.hasPots) costs.push('Drills fill their pots differently: plan the pots again.');
  }
  if (before.packetDrills !== after.packetDrills) {
    const kept =
      state.nominalBags > 0
        ? ` The ${counted(state.nominalBags, 'bag')} counted so far ${state.nominalBags === 1 ? 'keeps its number' : 'keep their numbers'}; change them in the list of bags.`
        : '';
    costs.push(`Bags are counted with ${many(after.packetDrills)} drills from now on.${kept}`);
  }
  if (before.panels !== after.panels) {
    costs.push('The panels’ borders move, so sections, edge marks and stickers change.');
  }
  return { costs, fault: null };
}

/** What becomes of panels that the user cut: whether they fitted, and whether they fit; undefined without any. */
function ownPanels(fitted: boolean | undefined, fit: boolean | undefined): string[] {
  if (fitted && fit)
    return ['Your own panels stay cut where they are; the last ones end where the canvas ends.'];
  if (fitted)
    return [
      'Your own panels do not fit the new size: the canvas has those of its kit, until it has a size again that they fit.',
    ];
  return fit ? ['Your own panels, which did not fit, are back.'] : [];
}

/** Squares that want a drill or have one, and that a new size has no room for. */
function lostBySize(
  { width, height }: CanvasFacts,
  after: CanvasFacts,
  { chart, laid }: CanvasState,
): { drills: number; laid: number } {
  const lost = { drills: 0, laid: 0 };
  for (let y = 0; y < height; y++) {
    for (let x = y < after.height ? after.width : 0; x < width; x++) {
      const cell = y * width + x;
      const here = isLaid(laid, cell);
      if (here) lost.laid++;
      if (here || (chart !== null && chart.cells[cell] !== 0)) lost.drills++;
    }
  }
  return lost;
}

/** A chart on a canvas of another size: squares keep their column and row, new ones are bare. */
export function resizedChart(chart: Chart, size: { width: number; height: number }): Chart {
  const cells = new Uint16Array(size.width * size.height);
  const columns = Math.min(chart.width, size.width);
  for (let y = 0; y < Math.min(chart.height, size.height); y++) {
    cells.set(chart.cells.subarray(y * chart.width, y * chart.width + columns), y * size.width);
  }
  return makeChart(size.width, size.height, cells);
}

/**
 * The same squares on a canvas of another size; those that it has no room for are left out.
 * @example resizedRuns([3, 4], 5, { width: 8, height: 9 }) // [3, 2, 8, 2]: the run turned a corner
 */
export function resizedRuns(
  runs: CellRuns,
  width: number,
  size: { width: number; height: number },
): number[] {
  const out: number[] = [];
  for (let i = 0; i < runs.length; i += 2) {
    let cell = runs[i]!;
    const end = cell + runs[i + 1]!;
    while (cell < end) {
      const [x, y] = [cell % width, Math.floor(cell / width)];
      const length = Math.min(end - cell, width - x);
      const kept = y < size.height ? Math.min(length, size.width - x) : 0;
      const start = y * size.width + x;
      // Whole rows of the same width stay one run.
      if (kept > 0 && out.length > 0 && out.at(-2)! + out.at(-1)! === start) out[out.length - 1]! += kept;
      else if (kept > 0) out.push(start, kept);
      cell += length;
    }
  }
  return out;
}

/** What a correction of a canvas's facts changed, a few words each. */
export function factsInWords(before: CanvasFacts, after: CanvasFacts): string[] {
  const words: string[] = [];
  if (before.title !== after.title) words.push(`title: ${before.title} → ${after.title}`);
  if (before.width !== after.width || before.height !== after.height)
    words.push(`size: ${before.width} × ${before.height} → ${after.width} × ${after.height} squares`);
  if (before.pitchMm !== after.pitchMm) words.push(`pitch: ${before.pitchMm} → ${after.pitchMm} mm`);
  if (before.shape !== after.shape) words.push(`shape: ${before.shape} → ${after.shape}`);
  if (before.panels !== after.panels) words.push(`panels: ${before.panels} → ${after.panels}`);
  if (before.packetDrills !== after.packetDrills)
    words.push(`drills in an ordinary bag: ${many(before.packetDrills)} → ${many(after.packetDrills)}`);
  if (before.symbolsPrinted !== after.symbolsPrinted)
    words.push(after.symbolsPrinted ? 'symbols are printed' : 'no symbols are printed');
  if (before.bagsCarry !== after.bagsCarry)
    words.push(after.bagsCarry === null ? 'bags may carry either number' : `bags carry ${after.bagsCarry}`);
  return words;
}

/**
 * Squares that were marked when the canvas had so many columns, on the canvas as it is by now: a screen may have been away
 * while its size was corrected.
 * @param columns undefined where the squares are counted by the canvas as it is
 * @throws Refusal where they lie on no canvas of so many columns
 */
export function runsOfColumns(
  runs: CellRuns,
  columns: number | undefined,
  size: { width: number; height: number },
): CellRuns {
  if (columns === undefined || columns === size.width) return runs;
  const fault = faultInRuns(runs, columns * MAX_SIDE_CELLS);
  if (fault !== null) throw new Refusal(fault);
  return resizedRuns(runs, columns, size);
}
