import {
  ALONG,
  BEFORE,
  CELLS,
  COLUMN_MESSAGES,
  DOWN,
  LAMBDA,
  LEFT,
  MORE_BACK,
  MORE_ON,
  RIGHT,
  ROW_MESSAGES,
  TRIAL,
  UP,
  VECTORS,
  WIDEST,
} from './layout';

function leastLane(four: v128): f32 {
  const two = f32x4.pmin(four, v128.shuffle<f32>(four, four, 2, 3, 0, 1));
  return f32x4.extract_lane(f32x4.pmin(two, v128.shuffle<f32>(two, two, 1, 0, 3, 2)), 0);
}

/** On the way there: what the cell costs when it is left to the chain across. */
function leftOn(was: usize, bytes: usize): f32 {
  let least = f32x4.splat(0);
  for (let at: usize = 0; at < bytes; at += 16) least = f32x4.pmin(least, v128.load(was + at));
  return leastLane(least);
}

/** How much dearer a bar over the cell is than none. */
function preferOn(was: usize, at: usize, bytes: usize, more: usize, left: f32): f32 {
  let shifted = f32x4.splat(left);
  let least = f32x4.splat(Infinity);
  for (let n: usize = 0; n < bytes; n += 16) {
    const four = v128.load(was + n);
    const moved = v128.shuffle<f32>(shifted, four, 3, 4, 5, 6);
    least = f32x4.pmin(least, f32x4.add(f32x4.add(moved, v128.load(more + n)), v128.load(at + n)));
    shifted = four;
  }
  return leastLane(least) - left;
}

/** Leaves the message of the cell for the next one. */
function sendOn(was: usize, at: usize, bytes: usize, more: usize, left: f32, price: f32): void {
  let shifted = f32x4.splat(left);
  const than = f32x4.splat(price - left);
  for (let n: usize = 0; n < bytes; n += 16) {
    const four = v128.load(was + n);
    const moved = v128.shuffle<f32>(shifted, four, 3, 4, 5, 6);
    v128.store(at + n, f32x4.add(f32x4.add(moved, v128.load(more + n)), than));
    shifted = four;
  }
}

/** There: sets λ by what comes from before and from behind, and labels greedily. */
export function passOn(): void {
  const cells = load<i32>(CELLS);
  const bytes = (<usize>load<i32>(VECTORS)) << 4;
  const times = bytes >> 2;
  const rows = load<usize>(ROW_MESSAGES);
  const columns = load<usize>(COLUMN_MESSAGES);
  const lambda = load<usize>(LAMBDA);
  const trial = load<usize>(TRIAL);
  const before = load<usize>(BEFORE);
  const up = load<usize>(UP);
  const leftOf = load<usize>(LEFT);
  const more = load<usize>(MORE_ON);
  const first = load<f32>(more);
  const widest = load<i32>(WIDEST);
  for (let cell = 0; cell < cells; cell++) {
    const at = (<usize>cell) << 2;
    const beside = <usize>load<u32>(leftOf + at);
    const above = <usize>load<u32>(up + at);
    const row = rows + at * times;
    const column = columns + at * times;

    const rowWas = load<u8>(trial + (beside >> 2)) === ALONG ? load<i32>(before + beside) : 0;
    const columnWas = load<u8>(trial + (above >> 2)) === 1 - ALONG ? load<i32>(before + above) : 0;
    let along = first + load<f32>(row);
    let alongAt = 1;
    if (rowWas > 0 && rowWas < widest) {
      const n = (<usize>rowWas) << 2;
      const on = load<f32>(more + n) + load<f32>(row + n);
      alongAt = on <= along ? rowWas + 1 : 1;
      along = min(on, along);
    }
    let downwards = first + load<f32>(column);
    let downAt = 1;
    if (columnWas > 0 && columnWas < widest) {
      const n = (<usize>columnWas) << 2;
      const on = load<f32>(more + n) + load<f32>(column + n);
      downAt = on <= downwards ? columnWas + 1 : 1;
      downwards = min(on, downwards);
    }
    const isAlong = along <= downwards;
    store<u8>(trial + cell, isAlong ? ALONG : 1 - ALONG);
    store<i32>(before + at, isAlong ? alongAt : downAt);

    const rowBefore = rows + beside * times;
    const columnBefore = columns + above * times;
    const rowLeft = leftOn(rowBefore, bytes);
    const columnLeft = leftOn(columnBefore, bytes);
    const preferred =
      preferOn(rowBefore, row, bytes, more, rowLeft) +
      preferOn(columnBefore, column, bytes, more, columnLeft);
    const price = load<f32>(lambda + at) - preferred * 0.5;
    store<f32>(lambda + at, price);
    sendOn(rowBefore, row, bytes, more, rowLeft, price);
    sendOn(columnBefore, column, bytes, more, columnLeft, price);
  }
}

/** As {@link preferOn} on the way back. */
function preferBack(was: usize, at: usize, bytes: usize, more: usize, left: f32): f32 {
  const most = f32x4.splat(left);
  let least = f32x4.splat(Infinity);
  let four = v128.load(was);
  for (let n: usize = 0; n < bytes; n += 16) {
    // What lies behind the last vector is not taken: a drill more than the widest bar has costs too much.
    const next = v128.load(was + n, 16);
    const moved = v128.shuffle<f32>(four, next, 1, 2, 3, 4);
    const on = f32x4.pmin(most, f32x4.add(moved, v128.load(more + n)));
    least = f32x4.pmin(least, f32x4.add(on, v128.load(at + n)));
    four = next;
  }
  return leastLane(least) - left;
}

/** Leaves the message of the cell for the one before. */
function sendBack(was: usize, at: usize, bytes: usize, more: usize, left: f32, price: f32): void {
  const most = f32x4.splat(left);
  const added = f32x4.splat(price);
  let four = v128.load(was);
  for (let n: usize = 0; n < bytes; n += 16) {
    const next = v128.load(was + n, 16);
    const moved = v128.shuffle<f32>(four, next, 1, 2, 3, 4);
    const on = f32x4.pmin(most, f32x4.add(moved, v128.load(more + n)));
    v128.store(at + n, f32x4.add(f32x4.sub(on, most), added));
    four = next;
  }
}

/** Back: the same from the other side, without labels. @param update whether λ is set; else the messages alone are */
export function passBack(update: bool): void {
  const cells = load<i32>(CELLS);
  const bytes = (<usize>load<i32>(VECTORS)) << 4;
  const times = bytes >> 2;
  const rows = load<usize>(ROW_MESSAGES);
  const columns = load<usize>(COLUMN_MESSAGES);
  const lambda = load<usize>(LAMBDA);
  const down = load<usize>(DOWN);
  const right = load<usize>(RIGHT);
  const more = load<usize>(MORE_BACK);
  const first = load<f32>(load<usize>(MORE_ON));
  for (let cell = cells - 1; cell >= 0; cell--) {
    const at = (<usize>cell) << 2;
    const row = rows + at * times;
    const column = columns + at * times;
    const rowBehind = rows + <usize>load<u32>(right + at) * times;
    const columnBehind = columns + <usize>load<u32>(down + at) * times;
    // Whatever the state, the next cell may be left out or begin a bar.
    const rowBegun = load<f32>(rowBehind) + first;
    const columnBegun = load<f32>(columnBehind) + first;
    const rowLeft = min<f32>(rowBegun, 0);
    const columnLeft = min<f32>(columnBegun, 0);
    let price = load<f32>(lambda + at);
    if (update) {
      const preferred =
        preferBack(rowBehind, row, bytes, more, rowLeft) +
        preferBack(columnBehind, column, bytes, more, columnLeft);
      price -= preferred * 0.5;
      store<f32>(lambda + at, price);
    }
    sendBack(rowBehind, row, bytes, more, rowLeft, price);
    sendBack(columnBehind, column, bytes, more, columnLeft, price);
  }
}
