import type { Regions } from '../regions';

/** A cell is laid by a bar along its row, or by one down its column. */
export const ALONG = 0;
export const DOWN = 1;

/** Cells as chains of one direction see them: rows for bars along, columns for bars down. Places; −1 for no neighbour. */
export interface ChainWay {
  /** The label of a cell that is laid along its chain. */
  label: number;
  /** The place of the n-th cell, chain by chain. */
  at(n: number): number;
  /** Neighbours in the chain, towards its start and its end. */
  back: Int32Array;
  on: Int32Array;
  /** Neighbours in the chains beside. */
  above: Int32Array;
  below: Int32Array;
}

/** Rows, for which columns lie across, and columns, for which rows do. */
export function chainWays({ cells, up, down, left, byColumn }: Regions): [rows: ChainWay, columns: ChainWay] {
  const leftOf = new Int32Array(cells.length).fill(-1);
  const rightOf = new Int32Array(cells.length).fill(-1);
  for (let place = 1; place < cells.length; place++) {
    if (left[place] !== 1) continue;
    leftOf[place] = place - 1;
    rightOf[place - 1] = place;
  }
  return [
    { label: ALONG, at: (n) => n, back: leftOf, on: rightOf, above: up, below: down },
    { label: DOWN, at: (n) => byColumn[n]!, back: up, on: down, above: leftOf, below: rightOf },
  ];
}
