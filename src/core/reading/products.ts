/**
 * Products of each of some vectors with each known one: some × known.
 * @param some `dims` numbers a vector, one vector after the other @param known the same
 */
export function products(
  some: Float32Array | Float64Array,
  known: Float32Array | Float64Array,
  dims: number,
): Float32Array {
  const out = new Float32Array((some.length / dims) * (known.length / dims));
  // As they are reckoned with: else each number would be converted again for each of the others.
  const all = new Float64Array(known);
  const one = new Float64Array(dims);
  for (let at = 0, to = 0; at < some.length; at += dims) {
    for (let i = 0; i < dims; i++) one[i] = some[at + i]!;
    let from = 0;
    // Four at once, for which each number of the vector is fetched once.
    for (; from + 4 * dims <= all.length; from += 4 * dims, to += 4) {
      const second = from + dims;
      const third = second + dims;
      const fourth = third + dims;
      let a = 0;
      let b = 0;
      let c = 0;
      let d = 0;
      for (let i = 0; i < dims; i++) {
        const value = one[i]!;
        a += value * all[from + i]!;
        b += value * all[second + i]!;
        c += value * all[third + i]!;
        d += value * all[fourth + i]!;
      }
      out[to] = a;
      out[to + 1] = b;
      out[to + 2] = c;
      out[to + 3] = d;
    }
    for (; from < all.length; from += dims, to++) {
      let sum = 0;
      for (let i = 0; i < dims; i++) sum += one[i]! * all[from + i]!;
      out[to] = sum;
    }
  }
  return out;
}
