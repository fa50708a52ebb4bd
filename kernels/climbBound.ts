/*
 * AssemblyScript, not TypeScript: the steps of `core/placing/search/boundClimb.ts` for four chains at a time, by the vector
 * instructions of WebAssembly. `bin/kernels.ts` makes of it what the core loads; the same steps stand there in TypeScript,
 * for machines that lack those instructions, and both come to the same numbers.
 *
 * All that is worked on lies in one memory, whose first words say where. Chains lie in groups of four, one beside the
 * other: a vector holds the n-th cells of all four, and where a chain is shorter than the first one of its group, nothing.
 */

// Where each word of the head lies.
const ROW_GROUPS: usize = 0; // each group of rows: its first vector, and how many
const ROW_GROUP_COUNT: usize = 4;
const COLUMN_GROUPS: usize = 8;
const COLUMN_GROUP_COUNT: usize = 12;
const ROW_PRICES: usize = 16;
const COLUMN_PRICES: usize = 20;
const ROW_TAKEN: usize = 24;
const COLUMN_TAKEN: usize = 28;
const LAMBDA: usize = 32;
const BEST_LAMBDA: usize = 36;
const DIRECTION: usize = 40;
const COLUMN_OF: usize = 44; // by cell in the order of rows, where it lies in the order of columns, in bytes
const ROW_VECTORS: usize = 48;
const COSTS: usize = 52; // by place in a chain; vectors ahead of it hold what never is chosen
const DRILLS: usize = 56;
const BARS: usize = 60; // by drills, the cost of a bar above its drills, four times
const WIDEST: usize = 64;
const DRILL_BITS: usize = 68;
const STRIDES: usize = 72; // by step

/** More than any chain costs, and little enough to be added to. */
const NEVER = 1 << 28;

/** Whether each cell belongs to a bar, from the drills of those that end there. @param drills of the last cells */
function choose(taken: usize, drills: usize, length: i32): void {
  const zero = i32x4.splat(0);
  const one = i32x4.splat(1);
  let left = zero;
  for (let i = length - 1; i >= 0; i--) {
    const at = (<usize>i) << 4;
    left = v128.or(left, v128.andnot(v128.load(drills + at), i32x4.gt_s(left, zero)));
    const isIn = v128.and(i32x4.gt_s(left, zero), one);
    v128.store(taken + at, isIn);
    left = i32x4.sub(left, isIn);
  }
}

/** The cheapest split of four chains. @returns their costs, in parts */
function split(prices: usize, taken: usize, length: i32): v128 {
  const costs = load<usize>(COSTS);
  const drills = load<usize>(DRILLS);
  const bars = load<usize>(BARS);
  const widest = (<usize>load<i32>(WIDEST)) << 4;
  const bits = load<i32>(DRILL_BITS);
  const whole = i32x4.splat(-1 << bits);
  const single = v128.load(bars, 16);
  let last = i32x4.splat(0);
  let place = costs;
  v128.store(place, last);
  for (let i = 0; i < length; i++) {
    const at = (<usize>i) << 4;
    // What waits for the place before comes last.
    let wide = i32x4.splat(NEVER);
    for (let size: usize = 16; size < widest; size += 16) {
      wide = i32x4.min_s(wide, i32x4.add(v128.load(place - size), v128.load(bars + size, 16)));
    }
    const next = i32x4.min_s(single, i32x4.shl(v128.load(prices + at), bits));
    const least = i32x4.min_s(i32x4.add(last, next), wide);
    last = v128.and(least, whole);
    place += 16;
    v128.store(place, last);
    v128.store(drills + at, v128.andnot(least, whole));
  }
  choose(taken, drills, length);
  return i32x4.shr_s(last, bits);
}

/** As {@link split} for bars of up to four drills: what the last four places cost is at hand. */
function splitNarrow(prices: usize, taken: usize, length: i32): v128 {
  const drills = load<usize>(DRILLS);
  const bars = load<usize>(BARS);
  const widest = load<i32>(WIDEST);
  const bits = load<i32>(DRILL_BITS);
  const whole = i32x4.splat(-1 << bits);
  const never = i32x4.splat(NEVER);
  const single = v128.load(bars, 16);
  const double = widest > 1 ? v128.load(bars, 32) : never;
  const triple = widest > 2 ? v128.load(bars, 48) : never;
  const quadruple = widest > 3 ? v128.load(bars, 64) : never;
  let last = i32x4.splat(0);
  let second = never;
  let third = never;
  let fourth = never;
  for (let i = 0; i < length; i++) {
    const at = (<usize>i) << 4;
    const long = i32x4.min_s(i32x4.add(third, triple), i32x4.add(fourth, quadruple));
    const most = i32x4.min_s(i32x4.add(second, double), long);
    const next = i32x4.min_s(single, i32x4.shl(v128.load(prices + at), bits));
    const least = i32x4.min_s(i32x4.add(last, next), most);
    fourth = third;
    third = second;
    second = last;
    last = v128.and(least, whole);
    v128.store(drills + at, v128.andnot(least, whole));
  }
  choose(taken, drills, length);
  return i32x4.shr_s(last, bits);
}

function sumOf(four: v128): i64 {
  return (
    <i64>i32x4.extract_lane(four, 0) +
    <i64>i32x4.extract_lane(four, 1) +
    <i64>i32x4.extract_lane(four, 2) +
    <i64>i32x4.extract_lane(four, 3)
  );
}

function splitAll(groups: usize, count: i32, prices: usize, taken: usize): i64 {
  const isNarrow = load<i32>(WIDEST) <= 4;
  let cost: i64 = 0;
  for (let group = 0; group < count; group++) {
    const from = (<usize>load<i32>(groups + ((<usize>group) << 3))) << 4;
    const length = load<i32>(groups + ((<usize>group) << 3) + 4);
    cost += sumOf(
      isNarrow
        ? splitNarrow(prices + from, taken + from, length)
        : split(prices + from, taken + from, length),
    );
  }
  return cost;
}

/**
 * @param top the best bound so far, in parts
 * @param enough a bound from which on no more is asked for
 * @returns the best bound
 */
export function climb(from: i32, to: i32, top: f64, enough: f64, scale: f32): f64 {
  const rowPrices = load<usize>(ROW_PRICES);
  const columnPrices = load<usize>(COLUMN_PRICES);
  const rowTaken = load<usize>(ROW_TAKEN);
  const columnTaken = load<usize>(COLUMN_TAKEN);
  const lambda = load<usize>(LAMBDA);
  const direction = load<usize>(DIRECTION);
  const columnOf = load<usize>(COLUMN_OF);
  const bytes = (<usize>load<i32>(ROW_VECTORS)) << 4;
  const kept = f32x4.splat(0.9);
  const added = f32x4.splat(0.1);
  const scales = f32x4.splat(scale);
  const one = i32x4.splat(1);
  for (let step = from; step < to; step++) {
    let bound = splitAll(load<usize>(ROW_GROUPS), load<i32>(ROW_GROUP_COUNT), rowPrices, rowTaken);
    bound += splitAll(load<usize>(COLUMN_GROUPS), load<i32>(COLUMN_GROUP_COUNT), columnPrices, columnTaken);
    for (let at: usize = 0; at < bytes; at += 16) bound -= sumOf(v128.load(rowPrices + at));
    if (<f64>bound > top) {
      top = <f64>bound;
      memory.copy(load<usize>(BEST_LAMBDA), lambda, bytes);
      if (top >= enough) return top;
    }
    const stride = f32x4.splat(load<f32>(load<usize>(STRIDES) + ((<usize>step) << 2)));
    for (let at: usize = 0; at < bytes; at += 16) {
      const first = columnTaken + load<usize>(columnOf + at);
      const second = columnTaken + load<usize>(columnOf + at + 4);
      const third = columnTaken + load<usize>(columnOf + at + 8);
      const fourth = columnTaken + load<usize>(columnOf + at + 12);
      let taken = v128.load32_zero(first);
      taken = v128.load_lane<i32>(second, taken, 1);
      taken = v128.load_lane<i32>(third, taken, 2);
      taken = v128.load_lane<i32>(fourth, taken, 3);
      const slope = f32x4.convert_i32x4_s(i32x4.sub(i32x4.add(taken, v128.load(rowTaken + at)), one));
      const way = f32x4.add(f32x4.mul(v128.load(direction + at), kept), f32x4.mul(slope, added));
      v128.store(direction + at, way);
      const now = f32x4.add(v128.load(lambda + at), f32x4.mul(stride, way));
      v128.store(lambda + at, now);
      const price = i32x4.neg(i32x4.trunc_sat_f32x4_s(f32x4.mul(now, scales)));
      v128.store(rowPrices + at, price);
      const across = columnPrices - columnTaken;
      v128.store_lane<i32>(first + across, price, 0);
      v128.store_lane<i32>(second + across, price, 1);
      v128.store_lane<i32>(third + across, price, 2);
      v128.store_lane<i32>(fourth + across, price, 3);
    }
  }
  return top;
}
