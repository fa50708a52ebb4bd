/*
 * All that the steps work on lies in one memory, whose first words say where. Cells of the region are counted from 0 by rows.
 * The one after the last stands for a neighbour that is none: it belongs to no run, and no bar reaches it.
 */

// Where each word of the head lies.
export const CELLS: usize = 0;
export const BY_ROW: usize = 4; // cells in the order of rows and in that of columns; these and the neighbours are four times a cell's number
export const BY_COLUMN: usize = 8;
export const UP: usize = 12;
export const DOWN: usize = 16;
export const LEFT: usize = 20;
export const RIGHT: usize = 24;
export const TRIAL: usize = 28; // by cell, a byte: the label that is tried
export const BEFORE: usize = 32; // by cell: length of the run across that ends there, and of the one that begins there
export const AFTER: usize = 36;
export const RUN_PARTS: usize = 40; // by length
export const RUN_COSTS: usize = 44;
export const BARS: usize = 48; // by drills from 1, at least sixteen of them: the cost above the drills
export const DRILL_BITS: usize = 52;
export const WIDEST: usize = 56;
export const PRICES: usize = 60; // by place in a chain
export const DRILLS: usize = 64;
export const LOGISTIC: usize = 68; // the logistic distribution at 4,096 evenly spaced chances
export const DRAWN: usize = 72; // state of the noise
export const LAMBDA: usize = 76; // by cell
export const ROW_MESSAGES: usize = 80; // by cell, then by drills from 1, in whole vectors
export const COLUMN_MESSAGES: usize = 84;
export const VECTORS: usize = 88; // of a message
export const MORE_ON: usize = 92; // what a drill more costs, by the drills that there are with it, and by those without it
export const MORE_BACK: usize = 96;
export const COSTS: usize = 100; // by place in a chain; as many ahead of it as the widest bar has drills hold what never is chosen
export const BY_COLUMN_OF: usize = 104; // by cell, four times its place in the order of columns
export const SAME: usize = 108; // by cell: how many from there on across have one label
export const STRETCH: usize = 112; // by place in a stretch: four times the cell
export const FIRST: usize = 116; // by cells from the start of a stretch: what a run over them costs more
export const LAST: usize = 120; // and by cells from its end
export const PILED: usize = 124; // by drills from 1, at least sixteen of them: cost of as many bars as a band is high
export const RUN_TO: usize = 128; // by cell: length of the run along the chain that ends there, and of the one that begins there
export const RUN_FROM: usize = 132;

export const ALONG: u8 = 0;
/** More than any chain costs, and little enough to be added to. */
export const NEVER = 1 << 28;

/** Standard logistic, drawn from the table, see `LogisticNoise`. */
export function noise(logistic: usize): f64 {
  let drawn = load<i32>(DRAWN);
  drawn ^= drawn << 13;
  drawn ^= drawn >>> 17;
  drawn ^= drawn << 5;
  store<i32>(DRAWN, drawn);
  return load<f64>(logistic + ((<usize>(drawn & 4095)) << 3));
}

export function leastOfFour(four: v128): v128 {
  const two = i32x4.min_s(four, v128.shuffle<i32>(four, four, 2, 3, 0, 1));
  return i32x4.min_s(two, v128.shuffle<i32>(two, two, 1, 0, 3, 2));
}

/** What a run costs more that goes over so many cells and joins the runs beside them, in parts. @param runParts by length */
export function joined(runParts: usize, a: i32, cells: i32, b: i32): i32 {
  return (
    load<i32>(runParts + ((<usize>(a + cells + b)) << 2)) -
    load<i32>(runParts + ((<usize>a) << 2)) -
    load<i32>(runParts + ((<usize>b) << 2))
  );
}
