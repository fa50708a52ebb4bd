/** Compares two vectors of goals by the first in which they differ: below 0 where `a` is the less. */
export function compareVectors(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return 0;
}
