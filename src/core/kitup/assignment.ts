/**
 * The linear assignment problem with costs that are compared goal by goal: every row gets a column of its own, so that
 * the sum of the first component is least, among those the sum of the second, and so on. Exact.
 *
 * Shortest augmenting paths (Kuhn 1955, Munkres 1957; the form of Jonker & Volgenant 1987). They use nothing but sums,
 * differences and comparisons, so they hold in any ordered abelian group, such as vectors under lexicographic order.
 * O(rows² × columns × goals).
 * @param rows at most `columns`
 * @param cost `cost[(row * columns + column) * goals + goal]`, whole numbers of at most 2⁵³ ÷ rows
 * @returns column of each row
 * @throws Error when there are more rows than columns
 */
export function assign(rows: number, columns: number, goals: number, cost: Float64Array): Int32Array {
  if (rows > columns) throw new Error('There are more rows than columns to assign.');
  const G = goals;
  const rowPotential = new Float64Array((rows + 1) * G);
  const columnPotential = new Float64Array((columns + 1) * G);
  /** Row that holds a column, rows and columns from 1; 0 is nobody. */
  const holder = new Int32Array(columns + 1);
  const cameFrom = new Int32Array(columns + 1);
  const shortest = new Float64Array((columns + 1) * G);
  const reached = new Uint8Array(columns + 1);
  const seen = new Uint8Array(columns + 1);
  const candidate = new Float64Array(G);
  const step = new Float64Array(G);

  for (let row = 1; row <= rows; row++) {
    holder[0] = row;
    reached.fill(0);
    seen.fill(0);
    let at = 0;
    do {
      reached[at] = 1;
      const from = holder[at]!;
      let nearest = -1;
      for (let column = 1; column <= columns; column++) {
        if (reached[column]) continue;
        const c = ((from - 1) * columns + column - 1) * G;
        let order = seen[column] ? 0 : -1;
        for (let g = 0; g < G; g++) {
          candidate[g] = cost[c + g]! - rowPotential[from * G + g]! - columnPotential[column * G + g]!;
          if (order === 0) order = Math.sign(candidate[g]! - shortest[column * G + g]!);
        }
        if (order < 0) {
          for (let g = 0; g < G; g++) shortest[column * G + g] = candidate[g]!;
          cameFrom[column] = at;
          seen[column] = 1;
        }
        if (nearest < 0 || compareAt(shortest, column, nearest, G) < 0) nearest = column;
      }
      for (let g = 0; g < G; g++) step[g] = shortest[nearest * G + g]!;
      for (let column = 0; column <= columns; column++) {
        for (let g = 0; g < G; g++) {
          if (reached[column]) {
            rowPotential[holder[column]! * G + g]! += step[g]!;
            columnPotential[column * G + g]! -= step[g]!;
          } else shortest[column * G + g]! -= step[g]!;
        }
      }
      at = nearest;
    } while (holder[at] !== 0);
    while (at !== 0) {
      const before = cameFrom[at]!;
      holder[at] = holder[before]!;
      at = before;
    }
  }
  const columnOf = new Int32Array(rows);
  for (let column = 1; column <= columns; column++) {
    if (holder[column]! > 0) columnOf[holder[column]! - 1] = column - 1;
  }
  return columnOf;
}

function compareAt(values: Float64Array, a: number, b: number, goals: number): number {
  for (let g = 0; g < goals; g++) {
    const order = values[a * goals + g]! - values[b * goals + g]!;
    if (order !== 0) return order;
  }
  return 0;
}
