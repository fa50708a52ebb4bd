import { type LegendLine, symbolOrKey } from '../../core/canvas/legend';
import { hexToRgb, type Rgb, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { type ClothColours, clothColours } from '../../core/view/paint';

/** All that the renderer knows of a legend: colours under the present light, and symbols. */
export interface ClothPalette {
  colours: ClothColours;
  /** One entry a legend line; index 0 is empty. */
  symbols: string[];
  /** Symbols that the user drew, in a box of 100 × 100; null for the others. */
  drawings: (Path2D | null)[];
  /** Whether a line's drills have a special finish. */
  special: boolean[];
  ground: Rgb;
  ink: string;
}

/** Reads the cloth's ground from the theme in force. A canvas without a chart has one nameless colour. */
export function readPalette(legend: readonly LegendLine[], hasChart: boolean): ClothPalette {
  const style = getComputedStyle(document.documentElement);
  const ground = hexToRgb(style.getPropertyValue('--c-cloth').trim());
  const lines = hasChart ? legend : [];
  const drills = hasChart
    ? lines.map((line) => hexToRgb(line.hex ?? UNKNOWN_COLOUR))
    : [hexToRgb(UNKNOWN_COLOUR)];
  return {
    colours: clothColours(drills, ground),
    symbols: ['', ...lines.map((line) => symbolOrKey(line))],
    drawings: [null, ...lines.map(({ drawing }) => (drawing === undefined ? null : new Path2D(drawing)))],
    special: [false, ...lines.map(({ finish }) => finish !== 'plain')],
    ground,
    ink: style.getPropertyValue('--c-ink').trim(),
  };
}
