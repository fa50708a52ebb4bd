import {
  AFTER,
  ALONG,
  BARS,
  BEFORE,
  BY_COLUMN,
  BY_ROW,
  CELLS,
  COSTS,
  DOWN,
  DRILL_BITS,
  DRILLS,
  joined,
  LAMBDA,
  LEFT,
  LOGISTIC,
  leastOfFour,
  NEVER,
  noise,
  PRICES,
  RIGHT,
  RUN_COSTS,
  RUN_PARTS,
  TRIAL,
  UP,
  WIDEST,
} from './layout';

/** As {@link solve} for bars of more than sixteen drills, which are rare. */
function solveWidest(length: i32): i32 {
  const bars = load<usize>(BARS);
  const bits = load<i32>(DRILL_BITS);
  const widest = (<usize>load<i32>(WIDEST)) << 2;
  const prices = load<usize>(PRICES);
  const drills = load<usize>(DRILLS);
  let cost = load<usize>(COSTS);
  let last = 0;
  store<i32>(cost, last);
  for (let i: usize = 0; i < (<usize>length) << 2; i += 4) {
    let least = last + (load<i32>(prices + i) << bits);
    for (let size: usize = 0; size < widest; size += 4)
      least = min(least, load<i32>(cost - size) + load<i32>(bars + size));
    last = least & (-1 << bits);
    cost += 4;
    store<i32>(cost, last);
    store<i32>(drills + i, least & ~(-1 << bits));
  }
  return last >> bits;
}

/** The cheapest split of the chain whose prices are written, see `ChainSplit`. @returns its cost, in parts */
function solve(length: i32): i32 {
  const bars = load<usize>(BARS);
  const bits = load<i32>(DRILL_BITS);
  const widest = load<i32>(WIDEST);
  const whole = i32x4.splat(-1 << bits);
  let price = load<usize>(PRICES);
  let drills = load<usize>(DRILLS);
  const end = price + ((<usize>length) << 2);
  const first = v128.load(bars);
  let last = i32x4.splat(0);
  // What the places before cost, the last one first.
  let one = i32x4.replace_lane(i32x4.splat(NEVER), 0, 0);
  if (widest <= 4) {
    for (; price < end; price += 4, drills += 4) {
      const left = i32x4.add(last, i32x4.shl(v128.load32_splat(price), bits));
      const least = i32x4.min_s(leastOfFour(i32x4.add(one, first)), left);
      last = v128.and(least, whole);
      one = v128.shuffle<i32>(last, one, 0, 4, 5, 6);
      v128.store_lane<i32>(drills, v128.andnot(least, whole), 0);
    }
    return i32x4.extract_lane(last, 0) >> bits;
  }
  const second = v128.load(bars, 16);
  let two = i32x4.splat(NEVER);
  if (widest <= 8) {
    for (; price < end; price += 4, drills += 4) {
      const left = i32x4.add(last, i32x4.shl(v128.load32_splat(price), bits));
      const laid = i32x4.min_s(i32x4.add(one, first), i32x4.add(two, second));
      const least = i32x4.min_s(leastOfFour(laid), left);
      last = v128.and(least, whole);
      two = v128.shuffle<i32>(one, two, 3, 4, 5, 6);
      one = v128.shuffle<i32>(last, one, 0, 4, 5, 6);
      v128.store_lane<i32>(drills, v128.andnot(least, whole), 0);
    }
    return i32x4.extract_lane(last, 0) >> bits;
  }
  if (widest > 16) return solveWidest(length);
  const third = v128.load(bars, 32);
  const fourth = v128.load(bars, 48);
  let three = two;
  let four = two;
  for (; price < end; price += 4, drills += 4) {
    const left = i32x4.add(last, i32x4.shl(v128.load32_splat(price), bits));
    const narrow = i32x4.min_s(i32x4.add(one, first), i32x4.add(two, second));
    const wide = i32x4.min_s(i32x4.add(three, third), i32x4.add(four, fourth));
    const least = i32x4.min_s(leastOfFour(i32x4.min_s(narrow, wide)), left);
    last = v128.and(least, whole);
    four = v128.shuffle<i32>(three, four, 3, 4, 5, 6);
    three = v128.shuffle<i32>(two, three, 3, 4, 5, 6);
    two = v128.shuffle<i32>(one, two, 3, 4, 5, 6);
    one = v128.shuffle<i32>(last, one, 0, 4, 5, 6);
    v128.store_lane<i32>(drills, v128.andnot(least, whole), 0);
  }
  return i32x4.extract_lane(last, 0) >> bits;
}

/** The best labels of each chain of one direction in turn. @param label of its bars @param hot heat of the noise, in parts; 0 for none */
function move(order: usize, on: usize, above: usize, below: usize, label: u8, hot: f64): void {
  const cells = load<i32>(CELLS);
  const nobody = cells << 2;
  const trial = load<usize>(TRIAL);
  const before = load<usize>(BEFORE);
  const after = load<usize>(AFTER);
  const runParts = load<usize>(RUN_PARTS);
  const prices = load<usize>(PRICES);
  const drills = load<usize>(DRILLS);
  const logistic = load<usize>(LOGISTIC);
  for (let n = cells - 1; n >= 0; n--) {
    const at = <usize>load<u32>(order + ((<usize>n) << 2));
    const run = load<i32>(after + load<u32>(below + at)) + 1;
    store<i32>(after + at, load<u8>(trial + (at >> 2)) === label ? 0 : run);
  }
  for (let start = 0; start < cells; ) {
    let end = start;
    let next: i32;
    do {
      const at = <usize>load<u32>(order + ((<usize>end) << 2));
      const a = load<i32>(before + load<u32>(above + at));
      const b = load<i32>(after + load<u32>(below + at));
      let price = joined(runParts, a, 1, b);
      if (hot > 0) {
        price = <i32>(<f64>price + noise(logistic) * hot);
      }
      store<i32>(prices + ((<usize>(end - start)) << 2), price);
      end++;
      next = load<i32>(on + at);
    } while (next !== nobody);
    solve(end - start);
    let left = 0;
    for (let n = end - 1; n >= start; n--) {
      const at = <usize>load<u32>(order + ((<usize>n) << 2));
      // Drills left of the bar that the cell is in, or those of the one that ends with it.
      left |= load<i32>(drills + ((<usize>(n - start)) << 2)) & ((left - 1) >> 31);
      const isIn = left > 0;
      left -= i32(isIn);
      store<u8>(trial + (at >> 2), isIn ? label : 1 - label);
      const run = load<i32>(before + load<u32>(above + at)) + 1;
      store<i32>(before + at, isIn ? 0 : run);
    }
    start = end;
  }
}

export function moveRows(hot: f64): void {
  move(load<usize>(BY_ROW), load<usize>(RIGHT), load<usize>(UP), load<usize>(DOWN), ALONG, hot);
}

export function moveColumns(hot: f64): void {
  move(load<usize>(BY_COLUMN), load<usize>(DOWN), load<usize>(LEFT), load<usize>(RIGHT), 1 - ALONG, hot);
}

/** What the labels that are tried cost. */
export function cost(): f64 {
  const cells = load<i32>(CELLS);
  const trial = load<usize>(TRIAL);
  const before = load<usize>(BEFORE);
  const runCosts = load<usize>(RUN_COSTS);
  const up = load<usize>(UP);
  const down = load<usize>(DOWN);
  const leftOf = load<usize>(LEFT);
  const nobody = cells << 2;
  let sum: f64 = 0;
  let run = 0;
  for (let cell = 0; cell < cells; cell++) {
    const at = (<usize>cell) << 2;
    if (load<u8>(trial + cell) === ALONG) {
      if (load<i32>(leftOf + at) !== nobody && run > 0) run++;
      else {
        sum += load<f64>(runCosts + ((<usize>run) << 3));
        run = 1;
      }
    } else {
      sum += load<f64>(runCosts + ((<usize>run) << 3));
      run = 0;
      const above = <usize>load<u32>(up + at);
      const length = (load<u8>(trial + (above >> 2)) === 1 - ALONG ? load<i32>(before + above) : 0) + 1;
      store<i32>(before + at, length);
      if (load<u8>(trial + (<usize>load<u32>(down + at) >> 2)) !== 1 - ALONG) {
        sum += load<f64>(runCosts + ((<usize>length) << 3));
      }
    }
  }
  return sum + load<f64>(runCosts + ((<usize>run) << 3));
}

function chainsCost(order: usize, on: usize, scale: f32): f64 {
  const cells = load<i32>(CELLS);
  const nobody = cells << 2;
  const lambda = load<usize>(LAMBDA);
  const prices = load<usize>(PRICES);
  let sum: f64 = 0;
  for (let start = 0; start < cells; ) {
    let end = start;
    let next: i32;
    do {
      const at = <usize>load<u32>(order + ((<usize>end) << 2));
      const price = -(<i32>(load<f32>(lambda + at) * scale));
      store<i32>(prices + ((<usize>(end - start)) << 2), price);
      end++;
      next = load<i32>(on + at);
    } while (next !== nobody);
    sum += <f64>solve(end - start);
    start = end;
  }
  return sum;
}

/** What the prices prove, in parts. */
export function bound(scale: f32): f64 {
  const cells = <usize>load<i32>(CELLS);
  const lambda = load<usize>(LAMBDA);
  let sum: f64 = 0;
  for (let at: usize = 0; at < cells << 2; at += 4) {
    sum += <f64>(<i32>(load<f32>(lambda + at) * scale));
  }
  sum += chainsCost(load<usize>(BY_ROW), load<usize>(RIGHT), scale);
  return sum + chainsCost(load<usize>(BY_COLUMN), load<usize>(DOWN), scale);
}
