import type { BarCosts } from './barCosts';

/** Costs of states that cannot be: a chain begins with the first drill of a bar. */
const NEVER = 1e9;

/**
 * Messages along the chains of one direction, rows or columns. A cell has a state: 0 when it is left to the chain across, p
 * when it is the p-th drill of a bar. A message holds, by state, what the chain costs up to the cell (or from it on), its
 * price with it, less what state 0 costs. They stand one after the other in one array, in which a way there and a way back
 * take turns: at a cell stands what came last, and a way replaces it once it has been compared.
 */
export class ChainMessages {
  /** By cell, then by state. */
  messages = new Float32Array(0);
  private widest = 1;
  private first = 0;
  /** What a bar costs more with one drill more, by its drills. */
  private more = new Float64Array(0);
  /** What the cell costs at which a way stands, when it is left to the chain across. */
  private left = 0;

  /** @param cells of the region */
  begin(cells: number, bars: BarCosts): void {
    this.widest = bars.length - 1;
    this.first = bars[1]!;
    this.more = Float64Array.from(bars, (cost, drills) => (bars[drills + 1] ?? cost) - cost);
    if (this.messages.length < cells * bars.length) this.messages = new Float32Array(cells * bars.length);
  }

  /**
   * On the way there: how much dearer a bar over a cell is than none, by what came from before and the message that stands.
   * @param was where the message of the cell before begins; −1 where none is before
   * @param at where that of the cell begins
   */
  preferenceOn(was: number, at: number): number {
    const { messages, widest, more } = this;
    let left = 0;
    let on = Infinity;
    if (was !== -1) {
      left = messages[was]!;
      for (let p = 1; p < widest; p++) {
        const cost = messages[was + p]!;
        if (cost < left) left = cost;
        const next = cost + more[p]! + messages[at + p + 1]!;
        if (next < on) on = next;
      }
      const last = messages[was + widest]!;
      if (last < left) left = last;
    }
    this.left = left;
    const begun = left + this.first + messages[at + 1]!;
    if (begun < on) on = begun;
    return on - left - messages[at]!;
  }

  /** After {@link preferenceOn}: leaves the message of the cell for the next one. @param price that a bar over it pays */
  sendOn(was: number, at: number, price: number): void {
    const { messages, widest, more } = this;
    if (was === -1) messages.fill(NEVER, at + 2, at + widest + 1);
    else {
      const than = price - this.left;
      for (let p = 1; p < widest; p++) messages[at + p + 1] = messages[was + p]! + more[p]! + than;
    }
    messages[at] = 0;
    messages[at + 1] = this.first + price;
  }

  /** As {@link preferenceOn} on the way back. @param was where the message of the cell behind begins; −1 where none is behind */
  preferenceBack(was: number, at: number): number {
    const { messages, widest, more } = this;
    let left = 0;
    let on = messages[at + widest]!;
    if (was === -1) {
      for (let p = 1; p < widest; p++) if (messages[at + p]! < on) on = messages[at + p]!;
    } else {
      // Whatever the state, the next cell may be left out or begin a bar.
      left = messages[was]!;
      const begun = messages[was + 1]! + this.first;
      if (begun < left) left = begun;
      on += left;
      for (let p = 1; p < widest; p++) {
        let cost = messages[was + p + 1]! + more[p]!;
        if (cost > left) cost = left;
        cost += messages[at + p]!;
        if (cost < on) on = cost;
      }
    }
    this.left = left;
    return on - left - messages[at]!;
  }

  /** After {@link preferenceBack}: leaves the message of the cell for the one before. @param price that a bar over it pays */
  sendBack(was: number, at: number, price: number): void {
    const { messages, widest, more, left } = this;
    messages[at] = 0;
    if (was === -1) messages.fill(price, at + 1, at + widest + 1);
    else {
      for (let p = 1; p < widest; p++) {
        const next = messages[was + p + 1]! + more[p]!;
        messages[at + p] = (next < left ? next - left : 0) + price;
      }
      messages[at + widest] = price;
    }
  }
}
