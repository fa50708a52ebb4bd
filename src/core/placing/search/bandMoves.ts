import type { BarTable } from './barTable';
import type { ChainWay } from './chains';

/**
 * Moves of several chains at once: where each of `height` neighbouring chains has the same label at a place, all of them
 * may change it together, which piles up whole bars across that no chain by itself would begin. The best labels of such a
 * stretch follow by dynamic programming, all else as it is; one chain at a time is the move of {@link LabelMoves}.
 */
export class BandMoves {
  private stretch = new Int32Array(64);
  /** All costs in parts, see {@link BarTable}. */
  private price = new Int32Array(64);
  private best = new Int32Array(64);
  private first = new Int32Array(64);
  private last = new Int32Array(64);
  private chosen = new Uint8Array(64);

  /** Lengths of runs across, by place: those that end there, and that begin. */
  private readonly ending: Int32Array;
  private readonly beginning: Int32Array;

  /** @param places of all regions */
  constructor(places: number) {
    this.ending = new Int32Array(places);
    this.beginning = new Int32Array(places);
  }

  /**
   * @param labels changed in place
   * @param from first cell of the region, by {@link ChainWay.at}
   * @param to after its last
   * @param height chains that change together
   * @param noise added to what each stretch across costs, in parts; 0 for none
   */
  move(
    labels: Uint8Array,
    way: ChainWay,
    [from, to]: readonly [number, number],
    height: number,
    table: BarTable,
    noise: () => number,
  ): void {
    const { runParts, barParts, drillBits } = table;
    const piled = barParts.map((cost) => (cost >> drillBits) * height);
    const { ending, beginning } = this;
    const { above, below, on, label } = way;
    for (let n = to - 1; n >= from; n--) {
      const place = way.at(n);
      const next = below[place]!;
      beginning[place] = labels[place] === label ? 0 : next === -1 ? 1 : beginning[next]! + 1;
    }
    for (let start = from; start < to; ) {
      // A stretch of places that are free: as many chains below, with one label.
      let end = start;
      let length = 0;
      let place = way.at(end);
      for (;;) {
        const lowest = this.lowest(labels, place, height, below);
        const free = lowest !== -1;
        if (free) {
          this.grow(length + 1);
          this.stretch[length] = place;
          const a = above[place] === -1 ? 0 : ending[above[place]!]!;
          const b = below[lowest] === -1 ? 0 : beginning[below[lowest]!]!;
          this.price[length] = runParts[a + b + height]! - runParts[a]! - runParts[b]! + noise();
          length++;
        }
        end++;
        const next = on[place]!;
        if (next === -1 || !free) break;
        place = next;
      }
      if (length > 0) this.relabel(labels, way, length, height, piled, runParts);
      for (let n = start; n < end; n++) {
        const place = way.at(n);
        const over = above[place]!;
        ending[place] = labels[place] === label ? 0 : over === -1 ? 1 : ending[over]! + 1;
      }
      start = end;
    }
  }

  /** The lowest of so many cells from a place downwards that have one label; −1 where they are fewer. */
  private lowest(labels: Uint8Array, place: number, height: number, below: Int32Array): number {
    const label = labels[place];
    let at = place;
    for (let n = 1; n < height; n++) {
      at = below[at]!;
      if (at === -1 || labels[at] !== label) return -1;
    }
    return at;
  }

  /** Makes room for a stretch; only what was gathered of it is kept. */
  private grow(length: number): void {
    if (length < this.price.length) return;
    const size = 2 * this.price.length;
    const [stretch, price] = [new Int32Array(size), new Int32Array(size)];
    stretch.set(this.stretch);
    price.set(this.price);
    [this.stretch, this.price] = [stretch, price];
    this.best = new Int32Array(size);
    this.first = new Int32Array(size);
    this.last = new Int32Array(size);
    this.chosen = new Uint8Array(size);
  }

  /** Length of the run along the chain that ends before a cell, or begins behind it. */
  private runBeside(labels: Uint8Array, place: number, side: Int32Array, label: number): number {
    let run = 0;
    for (let at = side[place]!; at !== -1 && labels[at] === label; at = side[at]!) run++;
    return run;
  }

  /** The best labels of the stretch, given what runs into it from both ends. @param piled cost of as many bars as the band is high, by drills */
  private relabel(
    labels: Uint8Array,
    { label, back, on, below }: ChainWay,
    length: number,
    height: number,
    piled: Int32Array,
    runParts: Int32Array,
  ): void {
    const { stretch, price, best, first, last, chosen } = this;
    const widest = piled.length - 1;
    // What a run of each length costs more that joins the runs beside the stretch: from its start, to its end, over all of it.
    let whole = 0;
    first.fill(0, 0, length + 1);
    last.fill(0, 0, length + 1);
    let [head, tail] = [stretch[0]!, stretch[length - 1]!];
    for (let n = 0; n < height; n++) {
      const a = this.runBeside(labels, head, back, label);
      const b = this.runBeside(labels, tail, on, label);
      for (let i = 1; i <= length; i++) {
        first[i]! += runParts[a + i]! - runParts[a]!;
        last[i]! += runParts[b + i]! - runParts[b]!;
      }
      whole += runParts[a + length + b]! - runParts[a]! - runParts[b]!;
      head = below[head]!;
      tail = below[tail]!;
    }
    best[0] = 0;
    for (let i = 1; i <= length; i++) {
      let least = Math.min(best[i - 1]! + price[i - 1]!, first[i]!);
      const most = Math.min(i, widest);
      for (let drills = 1; drills <= most; drills++)
        least = Math.min(least, best[i - drills]! + piled[drills]!);
      best[i] = least;
    }
    // The run that joins the one behind the stretch begins at `end`; from 0 it joins both.
    let [least, end] = [best[length]!, length];
    for (let i = 0; i < length; i++) {
      const cost = best[i]! + last[length - i]!;
      if (cost < least) [least, end] = [cost, i];
    }
    if (whole < least) end = 0;
    chosen.fill(1, end, length);
    for (let i = end; i > 0; ) {
      if (best[i - 1]! + price[i - 1]! === best[i]) {
        chosen[--i] = 0;
        continue;
      }
      let drills = 1;
      const most = Math.min(i, widest);
      while (drills <= most && best[i - drills]! + piled[drills]! !== best[i]) drills++;
      const low = drills <= most ? i - drills : 0;
      chosen.fill(1, low, i);
      i = low;
    }
    for (let i = 0; i < length; i++) {
      const now = chosen[i] === 1 ? label : 1 - label;
      let at = stretch[i]!;
      if (labels[at] === now) continue;
      for (let n = 0; n < height; n++) {
        labels[at] = now;
        at = below[at]!;
      }
    }
  }
}
