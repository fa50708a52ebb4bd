/** Share of a cell's side that a drawn symbol fills, and a single letter's font size. */
export const SYMBOL_SHARE = 0.74;

/** A symbol of several letters, or a long key number, is never wider than this share of its cell. */
export const WIDEST_SHARE = 0.92;

/** Space between the edge of a cell and a drawn symbol, as a share of the cell's side. */
export const SYMBOL_INSET = (1 - SYMBOL_SHARE) / 2;

/**
 * Font size of a symbol in its cell, as a share of the cell's side: on the screen, on paper, on labels, and where
 * symbols are compared, so that what is compared is what is seen. Two letters stand smaller, so that both fit.
 * @example fontShare('A') // 0.74
 */
export function fontShare(symbol: string): number {
  const letters = [...symbol].length;
  return letters > 2 ? 0.4 : letters > 1 ? 0.56 : SYMBOL_SHARE;
}
