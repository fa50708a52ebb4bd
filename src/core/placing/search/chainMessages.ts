import type { BarCosts } from './barCosts';

/** Cost of a state that cannot be: a chain begins with the first drill of a bar. */
export const NEVER_REACHED = 1e9;

/** What the first drill of a bar costs, and what each one more does, by the drills before it. */
export function moreByDrills(bars: BarCosts) {
  return Float32Array.from(bars.subarray(1), (cost, drills) => (drills === 0 ? cost : cost - bars[drills]!));
}

/**
 * Messages along the chains of one direction, rows or columns. A cell has a state: it is left to the chain across, or it is
 * the p-th drill of a bar. A message holds, by p from 1, what the chain costs up to the cell (or from it on), its price with
 * it, less what it costs with the cell left. They stand one after the other in one array, in which a way there and a way
 * back take turns: at a cell stands what came last, and a way replaces it once it has been compared. After the last cell
 * stands the message of a neighbour that is none.
 *
 * All is rounded to 32 bits as it is reckoned, so that a machine that does this by vectors comes to the same.
 */
export class ChainMessages {
  messages = new Float32Array(0);
  private widest = 1;
  /** See {@link moreByDrills}. */
  private more = new Float32Array();
  /** What the cell costs at which a way stands, when it is left to the chain across. */
  private left = 0;

  /** @param cells of the region */
  begin(cells: number, bars: BarCosts): void {
    const widest = bars.length - 1;
    this.widest = widest;
    this.more = moreByDrills(bars);
    const all = (cells + 1) * widest;
    if (this.messages.length < all) this.messages = new Float32Array(all);
    this.messages.fill(NEVER_REACHED, cells * widest, all);
  }

  /**
   * On the way there: how much dearer a bar over a cell is than none, by what came from before and the message that stands.
   * @param was where the message of the cell before begins
   * @param at where that of the cell begins
   */
  preferenceOn(was: number, at: number): number {
    const { messages, widest, more } = this;
    let left = 0;
    for (let p = 0; p < widest; p++) if (messages[was + p]! < left) left = messages[was + p]!;
    this.left = left;
    let on = Math.fround(Math.fround(left + more[0]!) + messages[at]!);
    for (let p = 1; p < widest; p++) {
      const next = Math.fround(Math.fround(messages[was + p - 1]! + more[p]!) + messages[at + p]!);
      if (next < on) on = next;
    }
    return Math.fround(on - left);
  }

  /** After {@link preferenceOn}: leaves the message of the cell for the next one. @param price that a bar over it pays */
  sendOn(was: number, at: number, price: number): void {
    const { messages, widest, more, left } = this;
    const than = Math.fround(price - left);
    messages[at] = Math.fround(Math.fround(left + more[0]!) + than);
    for (let p = 1; p < widest; p++) {
      messages[at + p] = Math.fround(Math.fround(messages[was + p - 1]! + more[p]!) + than);
    }
  }

  /** As {@link preferenceOn} on the way back. @param was where the message of the cell behind begins */
  preferenceBack(was: number, at: number): number {
    const { messages, widest, more } = this;
    // Whatever the state, the next cell may be left out or begin a bar.
    const left = Math.min(0, Math.fround(messages[was]! + more[0]!));
    this.left = left;
    let on = Math.fround(left + messages[at + widest - 1]!);
    for (let p = 1; p < widest; p++) {
      const next = Math.min(left, Math.fround(messages[was + p]! + more[p]!));
      const cost = Math.fround(next + messages[at + p - 1]!);
      if (cost < on) on = cost;
    }
    return Math.fround(on - left);
  }

  /** After {@link preferenceBack}: leaves the message of the cell for the one before. @param price that a bar over it pays */
  sendBack(was: number, at: number, price: number): void {
    const { messages, widest, more, left } = this;
    for (let p = 1; p < widest; p++) {
      const next = Math.min(left, Math.fround(messages[was + p]! + more[p]!));
      messages[at + p - 1] = Math.fround(Math.fround(next - left) + price);
    }
    messages[at + widest - 1] = price;
  }

  /** How the cell is laid by a bar at the least: a new one, or one that has some drills already. @returns drills up to the cell, and what is ahead */
  bestAt(at: number, drills: number): { drills: number; cost: number } {
    const { messages, widest, more } = this;
    const begun = Math.fround(more[0]! + messages[at]!);
    if (drills > 0 && drills < widest) {
      const on = Math.fround(more[drills]! + messages[at + drills]!);
      if (on <= begun) return { drills: drills + 1, cost: on };
    }
    return { drills: 1, cost: begun };
  }
}
