/** Where edge marks stand: every so many cells, counted from 1, both ends included where they fall on one. */
export function edgeMarks(length: number, every: number): number[] {
  return Array.from({ length: Math.floor(length / every) }, (_, i) => (i + 1) * every);
}
