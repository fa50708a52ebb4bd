declare module 'subset-font' {
  /** Keeps the glyphs of a text only. */
  export default function subsetFont(
    font: Buffer,
    text: string,
    options: { targetFormat: 'sfnt' | 'woff' | 'woff2'; variationAxes?: Record<string, number> },
  ): Promise<Buffer>;
}
