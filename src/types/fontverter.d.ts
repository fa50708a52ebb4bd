declare module 'fontverter' {
  /** The same font in another container: plain, or compressed as WOFF or WOFF2. */
  export function convert(font: Buffer, format: 'sfnt' | 'woff' | 'woff2'): Promise<Buffer>;
}
