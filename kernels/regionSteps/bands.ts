import {
  AFTER,
  ALONG,
  BARS,
  BEFORE,
  BY_COLUMN,
  BY_COLUMN_OF,
  BY_ROW,
  CELLS,
  COSTS,
  DOWN,
  DRILL_BITS,
  DRILLS,
  FIRST,
  joined,
  LAST,
  LEFT,
  LOGISTIC,
  leastOfFour,
  NEVER,
  noise,
  PILED,
  PRICES,
  RIGHT,
  RUN_FROM,
  RUN_PARTS,
  RUN_TO,
  SAME,
  STRETCH,
  TRIAL,
  UP,
  WIDEST,
} from './layout';

/**
 * Counts runs along a chain anew, where labels of it have changed.
 * @param from where to begin @param last of the cells that have changed
 */
function countRuns(
  runs: usize,
  from: usize,
  last: usize,
  back: usize,
  on: usize,
  label: u8,
  nobody: usize,
): void {
  const trial = load<usize>(TRIAL);
  let run = load<i32>(runs + load<u32>(back + from));
  let isBehind = false;
  for (let at = from; at !== nobody; at = <usize>load<u32>(on + at)) {
    const isOn = load<u8>(trial + (at >> 2)) === label;
    if (isBehind && !isOn) break;
    run = isOn ? run + 1 : 0;
    store<i32>(runs + at, run);
    isBehind = isBehind || at === last;
  }
}

/** Adds what a run costs more that goes on over a stretch. @param sums by cells of it */
function addRuns(sums: usize, run: i32, length: i32): void {
  const from = load<usize>(RUN_PARTS) + ((<usize>run) << 2);
  const none = v128.load32_splat(from);
  const end = (<usize>(length + 1)) << 2;
  for (let at: usize = 0; at < end; at += 16) {
    v128.store(sums + at, i32x4.add(v128.load(sums + at), i32x4.sub(v128.load(from + at), none)));
  }
}

/** The least cost up to each place of the stretch whose prices are written. */
function solveBand(length: i32): void {
  const prices = load<usize>(PRICES);
  const first = load<usize>(FIRST);
  const piled = load<usize>(PILED);
  const best = load<usize>(COSTS);
  const widest = load<i32>(WIDEST);
  const end = (<usize>length) << 2;
  store<i32>(best, 0);
  if (widest > 16) {
    for (let at: usize = 0; at < end; at += 4) {
      let least = min(load<i32>(best + at) + load<i32>(prices + at), load<i32>(first + at, 4));
      for (let size: usize = 0; size < (<usize>widest) << 2; size += 4) {
        least = min(least, load<i32>(best + at - size) + load<i32>(piled + size));
      }
      store<i32>(best + at, least, 4);
    }
    return;
  }
  const narrowest = v128.load(piled);
  const narrow = v128.load(piled, 16);
  const wide = v128.load(piled, 32);
  const widestOf = v128.load(piled, 48);
  let last = i32x4.splat(0);
  let one = i32x4.replace_lane(i32x4.splat(NEVER), 0, 0);
  let two = i32x4.splat(NEVER);
  let three = two;
  let four = two;
  for (let at: usize = 0; at < end; at += 4) {
    const left = i32x4.add(last, v128.load32_splat(prices + at));
    const low = i32x4.min_s(i32x4.add(one, narrowest), i32x4.add(two, narrow));
    const high = i32x4.min_s(i32x4.add(three, wide), i32x4.add(four, widestOf));
    const laid = leastOfFour(i32x4.min_s(low, high));
    last = i32x4.min_s(i32x4.min_s(left, v128.load32_splat(first + at, 4)), laid);
    four = v128.shuffle<i32>(three, four, 3, 4, 5, 6);
    three = v128.shuffle<i32>(two, three, 3, 4, 5, 6);
    two = v128.shuffle<i32>(one, two, 3, 4, 5, 6);
    one = v128.shuffle<i32>(last, one, 0, 4, 5, 6);
    v128.store_lane<i32>(best + at, last, 0, 4);
  }
}

/** Sets the label of cells across, and how many from each on have it. */
function relabelAcross(cell: usize, below: usize, height: i32, label: u8): void {
  const trial = load<usize>(TRIAL);
  const same = load<usize>(SAME);
  let at = cell;
  for (let n = 0; n < height; n++) {
    store<u8>(trial + (at >> 2), label);
    at = <usize>load<u32>(below + at);
  }
  let run = load<u8>(trial + (at >> 2)) === label ? load<i32>(same + at) : 0;
  run += height;
  at = cell;
  for (let n = 0; n < height; n++) {
    store<i32>(same + at, run - n);
    at = <usize>load<u32>(below + at);
  }
}

/** The best labels of a stretch, given what runs into it from both ends, see `BandMoves`. */
function relabel(length: i32, height: i32, back: usize, on: usize, below: usize, label: u8): void {
  const nobody = (<usize>load<i32>(CELLS)) << 2;
  const trial = load<usize>(TRIAL);
  const stretch = load<usize>(STRETCH);
  const prices = load<usize>(PRICES);
  const first = load<usize>(FIRST);
  const last = load<usize>(LAST);
  const piled = load<usize>(PILED);
  const best = load<usize>(COSTS);
  const runParts = load<usize>(RUN_PARTS);
  const widest = load<i32>(WIDEST);
  const runTo = load<usize>(RUN_TO);
  const runFrom = load<usize>(RUN_FROM);
  const none = i32x4.splat(0);
  for (let at: usize = 0; at <= (<usize>length) << 2; at += 16) {
    v128.store(first + at, none);
    v128.store(last + at, none);
  }
  let whole = 0;
  let head = <usize>load<u32>(stretch);
  let tail = <usize>load<u32>(stretch + ((<usize>(length - 1)) << 2));
  for (let n = 0; n < height; n++) {
    const a = load<i32>(runTo + load<u32>(back + head));
    const b = load<i32>(runFrom + load<u32>(on + tail));
    addRuns(first, a, length);
    addRuns(last, b, length);
    whole += joined(runParts, a, length, b);
    head = <usize>load<u32>(below + head);
    tail = <usize>load<u32>(below + tail);
  }
  solveBand(length);
  // The run that joins the one behind the stretch begins at `end`; from 0 it joins both.
  let least = load<i32>(best + ((<usize>length) << 2));
  let end = length;
  for (let i = 0; i < length; i++) {
    const cost = load<i32>(best + ((<usize>i) << 2)) + load<i32>(last + ((<usize>(length - i)) << 2));
    end = cost < least ? i : end;
    least = min(least, cost);
  }
  if (whole < least) end = 0;
  const chosen = load<usize>(DRILLS);
  for (let i = end; i < length; i++) store<i32>(chosen + ((<usize>i) << 2), 1);
  for (let i = end; i > 0; ) {
    const at = (<usize>i) << 2;
    const cost = load<i32>(best + at);
    if (load<i32>(best + at - 4) + load<i32>(prices + at - 4) === cost) {
      store<i32>(chosen + at - 4, 0);
      i--;
      continue;
    }
    const most = min(i, widest);
    let drills = 1;
    while (drills <= most) {
      const before = load<i32>(best + at - ((<usize>drills) << 2));
      if (before + load<i32>(piled + ((<usize>(drills - 1)) << 2)) === cost) break;
      drills++;
    }
    const low = drills <= most ? i - drills : 0;
    for (; i > low; i--) store<i32>(chosen + ((<usize>(i - 1)) << 2), 1);
  }
  let isChanged = false;
  for (let i = 0; i < length; i++) {
    const at = (<usize>i) << 2;
    const now = load<i32>(chosen + at) === 1 ? label : 1 - label;
    const cell = <usize>load<u32>(stretch + at);
    if (load<u8>(trial + (cell >> 2)) === now) continue;
    isChanged = true;
    relabelAcross(cell, below, height, now);
  }
  if (!isChanged) return;
  head = <usize>load<u32>(stretch);
  tail = <usize>load<u32>(stretch + ((<usize>(length - 1)) << 2));
  for (let n = 0; n < height; n++) {
    countRuns(runTo, head, tail, back, on, label, nobody);
    countRuns(runFrom, tail, head, on, back, label, nobody);
    head = <usize>load<u32>(below + head);
    tail = <usize>load<u32>(below + tail);
  }
}

/** Chains of one direction that change together. @param across cells chain across by chain across @param acrossOf where each lies there */
function moveTogether(
  order: usize,
  on: usize,
  back: usize,
  above: usize,
  below: usize,
  across: usize,
  acrossOf: usize,
  label: u8,
  height: i32,
  hot: f64,
): void {
  const cells = load<i32>(CELLS);
  const nobody = cells << 2;
  const trial = load<usize>(TRIAL);
  const before = load<usize>(BEFORE);
  const after = load<usize>(AFTER);
  const same = load<usize>(SAME);
  const runTo = load<usize>(RUN_TO);
  const runFrom = load<usize>(RUN_FROM);
  const stretch = load<usize>(STRETCH);
  const runParts = load<usize>(RUN_PARTS);
  const prices = load<usize>(PRICES);
  const logistic = load<usize>(LOGISTIC);
  const lowestAt = (<usize>(height - 1)) << 2;
  for (let n = cells - 1; n >= 0; n--) {
    const at = <usize>load<u32>(order + ((<usize>n) << 2));
    const next = <usize>load<u32>(below + at);
    const own = load<u8>(trial + (at >> 2));
    const run = load<i32>(after + next) + 1;
    store<i32>(after + at, own === label ? 0 : run);
    const alike = load<i32>(same + next);
    store<i32>(same + at, load<u8>(trial + (next >> 2)) === own ? alike + 1 : 1);
    const along = load<i32>(runFrom + load<u32>(on + at)) + 1;
    store<i32>(runFrom + at, own === label ? along : 0);
  }
  for (let n = 0; n < cells; n++) {
    const at = <usize>load<u32>(order + ((<usize>n) << 2));
    const along = load<i32>(runTo + load<u32>(back + at)) + 1;
    store<i32>(runTo + at, load<u8>(trial + (at >> 2)) === label ? along : 0);
  }
  for (let start = 0; start < cells; ) {
    // A stretch of places that are free: as many chains below, with one label.
    let end = start;
    let length = 0;
    let at = <usize>load<u32>(order + ((<usize>end) << 2));
    for (;;) {
      const free = load<i32>(same + at) >= height;
      if (free) {
        const lowest = <usize>load<u32>(across + load<u32>(acrossOf + at) + lowestAt);
        const a = load<i32>(before + load<u32>(above + at));
        const b = load<i32>(after + load<u32>(below + lowest));
        let price = joined(runParts, a, height, b);
        if (hot > 0) price = <i32>(<f64>price + noise(logistic) * hot);
        store<i32>(prices + ((<usize>length) << 2), price);
        store<u32>(stretch + ((<usize>length) << 2), <u32>at);
        length++;
      }
      end++;
      const next = load<i32>(on + at);
      if (next === nobody || !free) break;
      at = <usize>next;
    }
    if (length > 0) relabel(length, height, back, on, below, label);
    for (let n = start; n < end; n++) {
      const at = <usize>load<u32>(order + ((<usize>n) << 2));
      const run = load<i32>(before + load<u32>(above + at)) + 1;
      store<i32>(before + at, load<u8>(trial + (at >> 2)) === label ? 0 : run);
    }
    start = end;
  }
}

/** Rows of a number that change together, and then columns. */
export function moveBands(height: i32, hot: f64): void {
  const bars = load<usize>(BARS);
  const piled = load<usize>(PILED);
  const bits = load<i32>(DRILL_BITS);
  const widest = load<i32>(WIDEST);
  for (let n = 0; n < max(widest, 16); n++) {
    const at = (<usize>n) << 2;
    store<i32>(piled + at, n < widest ? (load<i32>(bars + at) >> bits) * height : NEVER);
  }
  const rows = load<usize>(BY_ROW);
  const columns = load<usize>(BY_COLUMN);
  const columnOf = load<usize>(BY_COLUMN_OF);
  const up = load<usize>(UP);
  const down = load<usize>(DOWN);
  const left = load<usize>(LEFT);
  const right = load<usize>(RIGHT);
  moveTogether(rows, right, left, up, down, columns, columnOf, ALONG, height, hot);
  moveTogether(columns, down, up, left, right, rows, rows, 1 - ALONG, height, hot);
}
