import type { BarCosts } from './barCosts';

/*
 * Messages along a chain of cells, a row or a column. A cell has a state: 0 when it is left to the chain across, p when it
 * is the p-th drill of a bar. A message holds, by state, what the chain costs up to the cell (or from it on), its price with
 * it, less what state 0 costs. All messages of a direction stand one after the other in one array.
 */

/** Costs of states that cannot be: a chain begins with the first drill of a bar. */
const NEVER = 1e9;

/** What each state costs by the cells before. @param was where the message of the cell before begins; −1 where none is before */
export function fromBefore(messages: Float32Array, was: number, bars: BarCosts, into: Float64Array): void {
  const widest = bars.length - 1;
  let least = 0;
  if (was === -1) {
    for (let p = 2; p <= widest; p++) into[p] = NEVER;
  } else {
    least = messages[was]!;
    for (let p = 1; p < widest; p++) {
      const cost = messages[was + p]!;
      if (cost < least) least = cost;
      into[p + 1] = cost + bars[p + 1]! - bars[p]!;
    }
    if (messages[was + widest]! < least) least = messages[was + widest]!;
  }
  into[0] = least;
  into[1] = least + bars[1]!;
}

/** What each state costs by the cells behind. @param was where the message of the cell behind begins; −1 where none is behind */
export function fromBehind(messages: Float32Array, was: number, bars: BarCosts, into: Float64Array): void {
  if (was === -1) {
    into.fill(0);
    return;
  }
  const widest = bars.length - 1;
  // Whatever the state, the next cell may be left out or begin a bar.
  const next = Math.min(messages[was]!, messages[was + 1]! + bars[1]!);
  for (let p = 1; p < widest; p++) {
    const on = messages[was + p + 1]! + bars[p + 1]! - bars[p]!;
    into[p] = Math.min(on, next);
  }
  into[0] = next;
  into[widest] = next;
}

/** How much dearer a bar over the cell is than none, with what came from one side and the message that stands from the other. */
export function preference(here: Float64Array, messages: Float32Array, at: number): number {
  let on = Infinity;
  for (let p = 1; p < here.length; p++) {
    const cost = here[p]! + messages[at + p]!;
    if (cost < on) on = cost;
  }
  return on - here[0]! - messages[at]!;
}

/** Leaves the message of a cell for the next one. @param price of the cell, which a bar over it pays */
export function send(here: Float64Array, messages: Float32Array, at: number, price: number): void {
  const base = here[0]!;
  messages[at] = 0;
  for (let p = 1; p < here.length; p++) messages[at + p] = here[p]! - base + price;
}
