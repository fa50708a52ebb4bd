import type { LegendLine } from '../../canvas/legend';
import { type Chart, makeChart } from '../../cells/chart';
import type { WordKind } from '../../codes/legendWords';
import { labDifference, labOf } from '../../colour/difference';
import { hexToRgb, type Rgb, rgbToHex } from '../../colour/rgb';
import type { ReadPicture } from './picture/readPicture';

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
  /** What else is worth knowing before it is saved, a sentence each. */
  notices: string[];
  /** How the words of a grid were read, and what else they could be. */
  words?: { kind: WordKind; others: WordKind[] };
  /** Where a picture shows it, and how sure the reading is. */
  picture?: ReadPicture;
}

/** How a cell's colour was matched. */
export interface CellMatch {
  hex: string;
  /** 0 where it belongs to no line. */
  line: number;
  /** ΔE00 to the nearest line. */
  difference: number;
  /** The line that comes next. */
  next: { line: number; difference: number } | null;
}

/** Words with the number of their cells, the most frequent first. */
export function mostFrequent(cells: ReadonlyMap<string, number>): ChartReading['unmatched'] {
  return [...cells].map(([value, count]) => ({ value, cells: count })).sort((a, b) => b.cells - a.cells);
}

/** How far a colour may be from the legend's and still be taken for it. */
export interface MatchRule {
  /** ΔE00 up to which a colour is taken for the nearest line; infinite takes the nearest, however far. */
  within: number;
}

/** Below what an eye tells apart: for pictures that keep every pixel as it was. */
export const SAME_COLOUR: MatchRule = { within: 1 };
/** What compression does to a colour, and less than one shade: for JPEG and lossy WebP. */
export const COMPRESSED_COLOUR: MatchRule = { within: 5 };
export const NEAREST_COLOUR: MatchRule = { within: Number.POSITIVE_INFINITY };

/** A chart has hundreds of colours at most; with more, shades are gathered before they are compared. */
const MANY_COLOURS = 4096;

/**
 * Reads a picture with one pixel a cell. Transparent pixels want no drill.
 * @param rgba 4 × width × height bytes, sRGB, row-major
 * @returns with `matchOf`, how each cell was matched; null where it is transparent
 */
export function chartFromPixels(
  width: number,
  height: number,
  rgba: Uint8Array | Uint8ClampedArray,
  legend: readonly LegendLine[],
  rule: MatchRule = SAME_COLOUR,
): ChartReading & { matchOf: (cell: number) => CellMatch | null } {
  const nearest = nearestLine(legend);
  const cells = new Uint16Array(width * height);
  const keys = keysOf(rgba, cells.length);
  const seen = new Map<number, { cells: number; match: Nearest | null; near: Nearest | null }>();
  for (let i = 0; i < cells.length; i++) {
    const key = keys[i]!;
    if (key < 0) continue;
    let entry = seen.get(key);
    if (!entry) {
      const near = nearest([key >> 16, (key >> 8) & 255, key & 255]);
      entry = { cells: 0, near, match: near && near.difference <= rule.within ? near : null };
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
    else if (match.difference > 0) {
      nearly.push({ hex, cells: count, line: match.line, difference: match.difference });
    }
  }
  return {
    chart: makeChart(width, height, cells),
    nearly: nearly.sort((a, b) => b.cells - a.cells),
    unmatched: unmatched.sort((a, b) => b.cells - a.cells),
    notices: [],
    matchOf: (cell) => {
      const key = keys[cell]!;
      if (key < 0) return null;
      const { match, near } = seen.get(key)!;
      return {
        hex: rgbToHex([key >> 16, (key >> 8) & 255, key & 255]),
        line: match?.line ?? 0,
        difference: near?.difference ?? Number.POSITIVE_INFINITY,
        next: (match ? near?.next : near) ?? null,
      };
    },
  };
}

/** Colour of each cell as one number, -1 where it is transparent; gathered in steps of 8 where there are thousands. */
function keysOf(rgba: Uint8Array | Uint8ClampedArray, cells: number): Int32Array {
  const keys = new Int32Array(cells);
  const distinct = new Set<number>();
  for (let i = 0; i < cells; i++) {
    const opaque = rgba[i * 4 + 3]! >= 128;
    keys[i] = opaque ? (rgba[i * 4]! << 16) | (rgba[i * 4 + 1]! << 8) | rgba[i * 4 + 2]! : -1;
    if (opaque && distinct.size <= MANY_COLOURS) distinct.add(keys[i]!);
  }
  if (distinct.size > MANY_COLOURS) {
    for (let i = 0; i < cells; i++) if (keys[i]! >= 0) keys[i] = (keys[i]! & 0xf8f8f8) | 0x040404;
  }
  return keys;
}

interface Nearest {
  line: number;
  difference: number;
  /** The nearest of the other colours; of twins, only one counts. */
  next: { line: number; difference: number } | null;
}

/** A search for the legend's nearest colour by ΔE00, null where the legend has no colours. */
function nearestLine(legend: readonly LegendLine[]): (rgb: Rgb) => Nearest | null {
  const coloured = legend.flatMap((line) =>
    line.hex === null ? [] : [{ line: line.line, hex: line.hex, lab: labOf(hexToRgb(line.hex)) }],
  );
  const seen = new Set<string>();
  // Of lines with one colour the first stands for all.
  const told = coloured.filter(({ hex }) => !seen.has(hex) && seen.add(hex));
  return (rgb) => {
    const lab = labOf(rgb);
    const hex = rgbToHex(rgb);
    let best: Omit<Nearest, 'next'> | null = null;
    let next: Nearest['next'] = null;
    for (const entry of told) {
      const difference = entry.hex === hex ? 0 : labDifference(lab, entry.lab);
      const here = { line: entry.line, difference };
      if (best === null || difference < best.difference) {
        next = best;
        best = here;
      } else if (next === null || difference < next.difference) next = here;
    }
    return best && { ...best, next };
  };
}
