/**
 * The middle one of some values by size, the upper one of two (Hoare's selection, 1961): sought, not sorted, for it is asked
 * for some ten thousand times a photograph.
 * @param values at least one; left in another order
 * @example medianOf(Float32Array.of(3, 1, 2)) // 2
 */
export function medianOf(values: Float32Array): number {
  const wanted = values.length >> 1;
  let [low, high] = [0, values.length - 1];
  while (low < high) {
    const pivot = values[(low + high) >> 1]!;
    let [i, j] = [low, high];
    while (i <= j) {
      while (values[i]! < pivot) i++;
      while (values[j]! > pivot) j--;
      if (i <= j) {
        const swapped = values[i]!;
        values[i++] = values[j]!;
        values[j--] = swapped;
      }
    }
    if (wanted <= j) high = j;
    else if (wanted >= i) low = i;
    else break;
  }
  return values[wanted]!;
}
