import { typesetFor } from './typeset';
import { inVisualOrder } from './visualOrder';

/** Outline of a short text in thousandths of the font size, upwards; `middle` is the height of its optical middle. */
export interface Outline {
  path: string;
  width: number;
  middle: number;
}

/** Outlines of symbols, by symbol; one that no font here has is missing. */
export async function glyphOutlines(texts: Iterable<string>): Promise<ReadonlyMap<string, Outline>> {
  const all = new Set(texts);
  const typeset = await typesetFor(all);
  const outlines = new Map<string, Outline>();
  for (const text of all) {
    if (!typeset.canPrint(text)) continue;
    let x = 0;
    const parts = inVisualOrder(typeset.runsOf(text, 'codes')).flatMap(({ text: part, font: name }) => {
      const { font } = typeset.fonts.get(name)!;
      const scale = 1000 / font.unitsPerEm;
      const run = font.layout(part);
      return run.glyphs.map((glyph, i) => {
        const { xAdvance, xOffset, yOffset } = run.positions[i]!;
        const placed = glyph.path
          .scale(scale)
          .translate(x + xOffset * scale, yOffset * scale)
          .toSVG();
        x += xAdvance * scale;
        return placed;
      });
    });
    outlines.set(text, { path: parts.join(''), width: x, middle: 340 });
  }
  return outlines;
}

/** Those of some texts that cannot be printed whole. */
export async function unprintable(texts: readonly string[]): Promise<string[]> {
  const typeset = await typesetFor(texts);
  return texts.filter((text) => !typeset.canPrint(text));
}
