import { byLine, type LegendLine, symbolOrKey } from '../../core/canvas/legend';
import { hexToRgb, type Rgb, UNKNOWN_COLOUR } from '../../core/colour/rgb';
import { type ClothColours, clothColours } from '../../core/view/paint';

/** All that the renderer knows of a legend: colours under the present light, and symbols. */
export interface ClothPalette {
  colours: ClothColours;
  /** By line number; index 0 is empty. */
  symbols: string[];
  /** Symbols that the user drew, in a box of 100 × 100; null for the others. */
  drawings: (Path2D | null)[];
  /** Whether a line's drills have a special finish. */
  special: boolean[];
  ground: Rgb;
  ink: string;
  eyes: ClothEyes;
}

/** What helps a pair of eyes: larger symbols, thicker lines between the squares, more contrast. */
export interface ClothEyes {
  symbols: 'usual' | 'large';
  lines: 'usual' | 'thick';
  contrast: 'usual' | 'high';
}

export const USUAL_EYES: ClothEyes = { symbols: 'usual', lines: 'usual', contrast: 'usual' };

/** Reads the cloth's ground from the theme in force. A canvas without a chart has one nameless colour. */
export function readPalette(
  legend: readonly LegendLine[],
  hasChart: boolean,
  eyes: ClothEyes = USUAL_EYES,
): ClothPalette {
  const style = getComputedStyle(document.documentElement);
  const ground = hexToRgb(style.getPropertyValue('--c-cloth').trim());
  const lines = hasChart ? legend : [];
  const unknown = hexToRgb(UNKNOWN_COLOUR);
  const drills = hasChart
    ? byLine(lines, (line) => hexToRgb(line.hex ?? UNKNOWN_COLOUR), unknown).slice(1)
    : [hexToRgb(style.getPropertyValue('--c-edge').trim())];
  const colours = clothColours(drills, ground, eyes.contrast);
  // Without a chart nothing but this tells laid from bare: as far apart as ink and paper of a sign.
  if (!hasChart) colours.printed[1] = ground;
  return {
    colours,
    symbols: byLine(lines, symbolOrKey, ''),
    drawings: byLine<LegendLine, Path2D | null>(
      lines,
      ({ drawing }) => (drawing === undefined ? null : new Path2D(drawing)),
      null,
    ),
    special: byLine(lines, ({ finish }) => finish !== 'plain', false),
    ground,
    ink: style.getPropertyValue('--c-ink').trim(),
    eyes,
  };
}
