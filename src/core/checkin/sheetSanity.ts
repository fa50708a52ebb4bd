import type { Canvas } from '../canvas/canvas';
import type { LegendLine } from '../canvas/legend';
import { counted, largest, many } from '../words/numbers';
import { packetsFor } from './supply';

/** Something about the sheet that does not add up. */
export interface SheetFinding {
  kind: 'sum' | 'chart' | 'packets' | 'code' | 'symbol' | 'key' | 'nothing';
  /** What is so. */
  sentence: string;
  /** What it means for the one who reads it. */
  meaning: string;
  /** Legend lines concerned; empty where it is the whole sheet. */
  lines: number[];
}

/** Names at most so many codes in one sentence. */
const CODES_NAMED = 6;

/**
 * Does the sheet add up? Checked before the first bag, because a wrong sheet makes every later check wrong.
 * @param onChart drills per line on the chart (index 0: cells without a drill); null without a chart
 */
export function sheetFindings(
  canvas: Pick<Canvas, 'width' | 'height' | 'packetDrills'>,
  legend: readonly LegendLine[],
  onChart: Uint32Array | null,
): SheetFinding[] {
  if (legend.length === 0) return [];
  return [
    ...sumFinding(canvas, legend, onChart),
    ...chartFindings(legend, onChart),
    ...packetFindings(canvas.packetDrills, legend),
    ...repeatedCodes(legend),
    ...repeatedSymbols(legend),
    ...keyGaps(legend),
    ...emptyLines(legend),
  ];
}

function sumFinding(
  canvas: Pick<Canvas, 'width' | 'height'>,
  legend: readonly LegendLine[],
  onChart: Uint32Array | null,
): SheetFinding[] {
  const sum = legend.reduce((drills, line) => drills + line.neededDrills, 0);
  const cells = canvas.width * canvas.height;
  const wanted = onChart ? cells - onChart[0]! : cells;
  if (sum === wanted || sum === 0) return [];
  const area = onChart
    ? `the chart wants ${many(wanted)}${onChart[0]! > 0 ? `, ${counted(onChart[0]!, 'square')} being bare` : ''}`
    : `the canvas has ${counted(cells, 'square')}`;
  const meaning =
    sum > wanted
      ? `${counted(sum - wanted, 'drill')} more than there is room for: one of the counts, or the size of the canvas, is wrong.`
      : onChart
        ? `${counted(wanted - sum, 'drill')} too few: at least one number in the list is too low, so a colour may run out.`
        : `If the picture leaves ${counted(wanted - sum, 'square')} bare (a frame, a partial drill), all is well; if not, a colour may run out.`;
  return [
    {
      kind: 'sum',
      sentence: `The colour list adds up to ${counted(sum, 'drill')}, but ${area}.`,
      meaning,
      lines: [],
    },
  ];
}

function chartFindings(legend: readonly LegendLine[], onChart: Uint32Array | null): SheetFinding[] {
  if (!onChart) return [];
  return legend
    .filter((line) => onChart[line.line] !== line.neededDrills)
    .map((line) => {
      const chart = onChart[line.line]!;
      return {
        kind: 'chart' as const,
        sentence: `${line.code}: the list says ${many(line.neededDrills)}, the chart has ${many(chart)}.`,
        meaning:
          chart > line.neededDrills
            ? `Check its bags against ${many(chart)}; the list asks for ${many(chart - line.neededDrills)} too few.`
            : 'There are more drills than the picture takes, which does no harm.',
        lines: [line.line],
      };
    });
}

function packetFindings(packetDrills: number, legend: readonly LegendLine[]): SheetFinding[] {
  return legend
    .filter((line) => line.packets > 0 && line.packets * packetDrills < line.neededDrills)
    .map((line) => ({
      kind: 'packets' as const,
      sentence: `${line.code} needs ${many(line.neededDrills)}, but ${counted(line.packets, 'bag')} of ${many(packetDrills)} hold ${many(line.packets * packetDrills)}.`,
      meaning: `It takes ${counted(packetsFor(line.neededDrills, packetDrills), 'bag')} of this size, unless its bags are larger ones.`,
      lines: [line.line],
    }));
}

function repeatedCodes(legend: readonly LegendLine[]): SheetFinding[] {
  return repeated(legend, (line) => line.code.toLowerCase()).map((lines) => ({
    kind: 'code',
    sentence: `Code ${lines[0]!.code} is in the list ${many(lines.length)} times (${lines.map((line) => line.finish).join(', ')}).`,
    meaning: 'At the heap you will be asked which of them a bag is.',
    lines: lines.map((line) => line.line),
  }));
}

function repeatedSymbols(legend: readonly LegendLine[]): SheetFinding[] {
  const marked = legend.filter((line) => line.symbol !== null);
  return repeated(marked, (line) => line.symbol!).map((lines) => ({
    kind: 'symbol',
    sentence: `Symbol ${lines[0]!.symbol} stands for ${lines.map((line) => line.code).join(' and ')}.`,
    meaning: 'On the canvas only their tints differ. Mark one of them with a pen before you start.',
    lines: lines.map((line) => line.line),
  }));
}

/** Key numbers usually run 1…n; a gap means that a line of the sheet was not read, or not printed. */
function keyGaps(legend: readonly LegendLine[]): SheetFinding[] {
  if (!legend.every((line) => /^\d{1,4}$/.test(line.keyNumber))) return [];
  const keys = new Set(legend.map((line) => Number(line.keyNumber)));
  const last = largest(keys);
  const missing = Array.from({ length: last }, (_, i) => i + 1).filter((key) => !keys.has(key));
  if (missing.length === 0 || missing.length > legend.length) return [];
  return [
    {
      kind: 'key',
      sentence: `Key ${missing.length === 1 ? 'number' : 'numbers'} ${list(missing.map(String))} ${missing.length === 1 ? 'is' : 'are'} missing between 1 and ${last}.`,
      meaning: 'Check whether a row of the sheet was cut off or left out when it was copied.',
      lines: [],
    },
  ];
}

function emptyLines(legend: readonly LegendLine[]): SheetFinding[] {
  const nothing = legend.filter((line) => line.neededDrills === 0 && line.packets === 0);
  if (nothing.length === 0) return [];
  return [
    {
      kind: 'nothing',
      sentence: `${list(nothing.map((line) => line.code))}: neither drills nor bags are given.`,
      meaning: 'Their bags can be counted, but not checked. Fill in the drills or the bags.',
      lines: nothing.map((line) => line.line),
    },
  ];
}

function repeated(legend: readonly LegendLine[], keyOf: (line: LegendLine) => string): LegendLine[][] {
  const groups = new Map<string, LegendLine[]>();
  for (const line of legend) groups.set(keyOf(line), [...(groups.get(keyOf(line)) ?? []), line]);
  return [...groups.values()].filter((group) => group.length > 1);
}

function list(words: string[]): string {
  const named = words.slice(0, CODES_NAMED).join(', ');
  return words.length > CODES_NAMED ? `${named} and ${words.length - CODES_NAMED} more` : named;
}
