import { type LegendLine, symbolOrKey } from '../canvas/legend';
import { type FontMeasure, type Mark, TEXT_MIDDLE } from '../print/drawing';
import { fontShare, SYMBOL_INSET, WIDEST_SHARE } from './symbolInCell';

/**
 * The symbol of a colour in a square box, as labels and printed charts show it: as the user drew it, else from the
 * first font that has it. A symbol that no font has gives way to the key number, which is printed anyway; what is wide is
 * made smaller, so that it never runs over its neighbour.
 * @param x left edge of the box in millimetres, as `y` its upper edge and `side` its size
 */
export function symbolMark(
  line: LegendLine,
  x: number,
  y: number,
  side: number,
  fill: string,
  fonts: FontMeasure,
): Mark {
  if (line.drawing !== undefined) {
    const inset = side * SYMBOL_INSET;
    return {
      kind: 'path',
      x: x + inset,
      y: y + inset,
      scale: (side - 2 * inset) / 100,
      d: line.drawing,
      fill,
    };
  }
  const wanted = symbolOrKey(line);
  const text = fonts.canPrint(wanted) ? wanted : line.keyNumber;
  const usual = side * fontShare(text);
  const size = Math.min(usual, (usual * side * WIDEST_SHARE) / fonts.widthOf(text, 'codes', usual));
  return {
    kind: 'text',
    x: x + side / 2,
    y: y + side / 2 + TEXT_MIDDLE * size,
    text,
    font: 'codes',
    size,
    fill,
    anchor: 'middle',
  };
}
