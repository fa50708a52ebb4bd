/** What a text is: the writers know which fonts set words, and which codes and symbols. */
export type DrawingFont = 'words' | 'codes';

/** What a page is made of. Lengths in millimetres, y downwards; colours as `#rrggbb`. */
export type Mark =
  | { kind: 'rect'; x: number; y: number; width: number; height: number; fill?: string; stroke?: string }
  | { kind: 'circle'; x: number; y: number; radius: number; fill?: string; stroke?: string }
  | { kind: 'line'; x1: number; y1: number; x2: number; y2: number; stroke: string; width: number }
  /** An SVG path whose unit is `scale` millimetres. */
  | { kind: 'path'; x: number; y: number; scale: number; d: string; fill: string }
  /** `x` is the start or the middle of the text, `y` its baseline; `size` is the font size. */
  | {
      kind: 'text';
      x: number;
      y: number;
      text: string;
      font: DrawingFont;
      size: number;
      fill: string;
      anchor: 'start' | 'middle';
    };

/** A page to print, true to size. */
export interface Drawing {
  widthMm: number;
  heightMm: number;
  marks: Mark[];
}

/** What the layout needs to know of the fonts. */
export interface FontMeasure {
  /** Width in millimetres of a text at a font size in millimetres. */
  widthOf(text: string, font: DrawingFont, size: number): number;
  /** Whether every letter of a text is in some font here. */
  canPrint(text: string): boolean;
}

/** Outlines are drawn as thin as a sharp pen draws. */
export const OUTLINE_MM = 0.15;

/** Half the height of capitals as a share of the font size: from the middle of a line down to its baseline. */
export const TEXT_MIDDLE = 0.34;

/** Moves marks. */
export function movedMarks(marks: readonly Mark[], dx: number, dy: number): Mark[] {
  return marks.map((mark) =>
    mark.kind === 'line'
      ? { ...mark, x1: mark.x1 + dx, x2: mark.x2 + dx, y1: mark.y1 + dy, y2: mark.y2 + dy }
      : { ...mark, x: mark.x + dx, y: mark.y + dy },
  );
}
