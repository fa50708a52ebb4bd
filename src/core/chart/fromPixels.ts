import type { LegendLine } from '../canvas/legend';
import { colourDifference } from '../colour/difference';
import { hexToRgb, type Rgb, rgbToHex } from '../colour/rgb';
import { type Chart, makeChart } from './chart';

/** A colour of the picture and how it was taken. */
export interface ColourMatch {
  hex: string;
  cells: number;
  line: number;
  /** ΔE00 to the legend's colour; 0 for the same colour. */
  difference: number;
}

/** A chart read from a picture or a grid, with what did not fit. */
export interface ChartReading {
  chart: Chart;
  /** Colours taken for a legend line although they are not quite the same. */
  nearly: ColourMatch[];
  /** Colours or words that belong to no line, most frequent first; their cells are left without a drill. */
  unmatched: { value: string; cells: number }[];
}

/** Colours closer than this are taken as the same: below what an eye tells apart. */
const SAME_COLOUR_DELTA_E = 1;

/**
 * Reads a picture with one pixel a cell. Transparent pixels want no drill.
 * @param rgba 4 × width × height bytes, sRGB, row-major
 */
export function chartFromPixels(
  width: number,
  height: number,
  rgba: Uint8Array | Uint8ClampedArray,
  legend: readonly LegendLine[],
): ChartReading {
  const coloured = legend.flatMap((line) =>
    line.hex === null ? [] : [{ line: line.line, rgb: hexToRgb(line.hex) }],
  );
  const cells = new Uint16Array(width * height);
  const seen = new Map<number, { cells: number; match: { line: number; difference: number } | null }>();
  for (let i = 0; i < cells.length; i++) {
    if (rgba[i * 4 + 3]! < 128) continue;
    const key = (rgba[i * 4]! << 16) | (rgba[i * 4 + 1]! << 8) | rgba[i * 4 + 2]!;
    let entry = seen.get(key);
    if (!entry) {
      entry = { cells: 0, match: nearestLine([key >> 16, (key >> 8) & 255, key & 255], coloured) };
      seen.set(key, entry);
    }
    entry.cells++;
    cells[i] = entry.match?.line ?? 0;
  }
  const nearly: ColourMatch[] = [];
  const unmatched: ChartReading['unmatched'] = [];
  for (const [key, { cells: count, match }] of seen) {
    const hex = rgbToHex([key >> 16, (key >> 8) & 255, key & 255]);
    if (match === null) unmatched.push({ value: hex, cells: count });
    else if (match.difference > 0) nearly.push({ hex, cells: count, ...match });
  }
  return {
    chart: makeChart(width, height, cells),
    nearly: nearly.sort((a, b) => b.cells - a.cells),
    unmatched: unmatched.sort((a, b) => b.cells - a.cells),
  };
}

function nearestLine(
  rgb: Rgb,
  legend: readonly { line: number; rgb: Rgb }[],
): { line: number; difference: number } | null {
  const exact = legend.find((entry) => entry.rgb.every((part, i) => part === rgb[i]));
  if (exact) return { line: exact.line, difference: 0 };
  let best: { line: number; difference: number } | null = null;
  for (const entry of legend) {
    const difference = colourDifference(rgb, entry.rgb);
    if (difference <= SAME_COLOUR_DELTA_E && (best === null || difference < best.difference)) {
      best = { line: entry.line, difference };
    }
  }
  return best;
}
