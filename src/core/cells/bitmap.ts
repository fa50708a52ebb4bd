/** Progress: one bit a cell in the chart's order, lowest bit first; 1 means "laid". */
export type Bitmap = Uint8Array;

export function emptyBitmap(cells: number): Bitmap {
  return new Uint8Array(Math.ceil(cells / 8));
}

export function isLaid(bitmap: Bitmap, cell: number): boolean {
  return (bitmap[cell >> 3]! & (1 << (cell & 7))) !== 0;
}

export function setLaid(bitmap: Bitmap, cell: number, laid: boolean): void {
  if (laid) bitmap[cell >> 3]! |= 1 << (cell & 7);
  else bitmap[cell >> 3]! &= ~(1 << (cell & 7));
}

/** Number of laid cells. */
export function countLaid(bitmap: Bitmap): number {
  let laid = 0;
  for (let byte of bitmap) for (; byte; byte &= byte - 1) laid++;
  return laid;
}
