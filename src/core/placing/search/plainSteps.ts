import type { Regions } from '../regions';
import { BandMoves } from './bandMoves';
import type { BarTable } from './barTable';
import { boundOf } from './boundClimb';
import { ChainMessages } from './chainMessages';
import { ChainSplit } from './chainSplit';
import { ALONG, type ChainWay, chainWays, DOWN } from './chains';
import { LogisticNoise } from './noise';
import type { RegionSteps } from './regionSteps';

/** The steps in TypeScript, for machines that have no vector instructions. */
export class PlainSteps implements RegionSteps {
  private region = -1;
  private table!: BarTable;
  private from = 0;
  private to = 0;
  /** All by place. */
  private readonly trial: Uint8Array;
  private readonly lambda: Float32Array;
  /** Lengths of the runs beside a cell, towards the lower and towards the higher places. */
  private readonly before: Int32Array;
  private readonly after: Int32Array;
  private readonly chain: ChainSplit;
  private readonly noise = new LogisticNoise();
  private readonly rows = new ChainMessages();
  private readonly columns = new ChainMessages();
  /** Only large regions need them. */
  private banding: { bands: BandMoves; ways: readonly ChainWay[] } | null = null;

  constructor(private readonly regions: Regions) {
    const { length } = regions.cells;
    this.trial = new Uint8Array(length);
    this.lambda = new Float32Array(length);
    this.before = new Int32Array(length);
    this.after = new Int32Array(length);
    this.chain = ChainSplit.within(regions);
  }

  begin(region: number, table: BarTable): void {
    if (region === this.region && table === this.table) return;
    const { starts } = this.regions;
    this.region = region;
    this.table = table;
    this.from = starts[region]!;
    this.to = starts[region + 1]!;
    this.rows.begin(this.to - this.from, table.bars);
    this.columns.begin(this.to - this.from, table.bars);
    this.noise.restart();
  }

  tryOut(labels: Uint8Array): void {
    this.trial.set(labels, this.from);
  }

  tried(): Uint8Array {
    return this.trial.subarray(this.from, this.to);
  }

  restartNoise(): void {
    this.noise.restart();
  }

  price(lambda: Float32Array): void {
    this.lambda.set(lambda, this.from);
  }

  priced(): Float32Array {
    return this.lambda.subarray(this.from, this.to);
  }

  bound(): number {
    const { regions, region, table, lambda } = this;
    return boundOf({ regions, region, table, lambda }, this.chain, null);
  }

  cost(): number {
    const { from, to, trial, before } = this;
    const { up, down, left } = this.regions;
    const { runCost } = this.table;
    let cost = 0;
    let run = 0;
    for (let place = from; place < to; place++) {
      if (trial[place] === ALONG) {
        if (left[place] === 1 && run > 0) run++;
        else {
          cost += runCost[run]!;
          run = 1;
        }
      } else {
        cost += runCost[run]!;
        run = 0;
        const above = up[place]!;
        const length = above !== -1 && trial[above] === DOWN ? before[above]! + 1 : 1;
        before[place] = length;
        const below = down[place]!;
        if (below === -1 || trial[below] === ALONG) cost += runCost[length]!;
      }
    }
    return cost + runCost[run]!;
  }

  moveRows(heat: number): void {
    const { from, to, trial, before, after, chain } = this;
    const { price, taken } = chain;
    const { runParts, scale } = this.table;
    const hot = heat * scale;
    const { up, down, left } = this.regions;
    for (let place = to - 1; place >= from; place--) {
      if (trial[place] === ALONG) after[place] = 0;
      else {
        const below = down[place]!;
        after[place] = below === -1 ? 1 : after[below]! + 1;
      }
    }
    for (let start = from; start < to; ) {
      let end = start;
      do {
        const above = up[end]!;
        const below = down[end]!;
        const a = above === -1 ? 0 : before[above]!;
        const b = below === -1 ? 0 : after[below]!;
        let cost = runParts[a + b + 1]! - runParts[a]! - runParts[b]!;
        if (hot > 0) cost += this.noise.next() * hot;
        price[end - start] = cost;
        end++;
      } while (end < to && left[end] === 1);
      const length = end - start;
      chain.solve(length, this.table);
      chain.choose(length);
      for (let i = 0; i < length; i++) {
        const place = start + i;
        const above = up[place]!;
        trial[place] = taken[i] === 1 ? ALONG : DOWN;
        before[place] = taken[i] === 1 ? 0 : above === -1 ? 1 : before[above]! + 1;
      }
      start = end;
    }
  }

  moveColumns(heat: number): void {
    const { from, to, trial, before, after, chain } = this;
    const { price, taken } = chain;
    const { runParts, scale } = this.table;
    const hot = heat * scale;
    const { down, left, byColumn } = this.regions;
    for (let place = to - 1; place >= from; place--) {
      if (trial[place] === DOWN) after[place] = 0;
      else after[place] = place + 1 < to && left[place + 1] === 1 ? after[place + 1]! + 1 : 1;
    }
    for (let start = from; start < to; ) {
      let end = start;
      do {
        const place = byColumn[end]!;
        const a = left[place] === 1 ? before[place - 1]! : 0;
        const b = place + 1 < to && left[place + 1] === 1 ? after[place + 1]! : 0;
        let cost = runParts[a + b + 1]! - runParts[a]! - runParts[b]!;
        if (hot > 0) cost += this.noise.next() * hot;
        price[end - start] = cost;
        end++;
        if (down[place] === -1) break;
      } while (end < to);
      const length = end - start;
      chain.solve(length, this.table);
      chain.choose(length);
      for (let i = 0; i < length; i++) {
        const place = byColumn[start + i]!;
        trial[place] = taken[i] === 1 ? DOWN : ALONG;
        before[place] = taken[i] === 1 ? 0 : left[place] === 1 ? before[place - 1]! + 1 : 1;
      }
      start = end;
    }
  }

  moveBands(height: number, heat: number): void {
    const { regions, trial, from, to, table } = this;
    const hot = heat * table.scale;
    const noise = hot > 0 ? () => this.noise.next() * hot : () => 0;
    this.banding ??= { bands: new BandMoves(regions.cells.length), ways: chainWays(regions) };
    const { bands, ways } = this.banding;
    for (const way of ways) bands.move(trial, way, [from, to], height, table, noise);
  }

  passOn(): void {
    const { from, to, trial, lambda, before, rows, columns } = this;
    const { up, left } = this.regions;
    const widest = this.table.bars.length - 1;
    const nobody = (to - from) * widest;
    for (let place = from; place < to; place++) {
      const at = (place - from) * widest;
      const above = up[place]!;
      const beforeInRow = left[place] === 1 ? at - widest : nobody;
      const beforeInColumn = above === -1 ? nobody : (above - from) * widest;

      // Labels: what follows from those before, with what the messages foretell.
      const rowWas = left[place] === 1 && trial[place - 1] === ALONG ? before[place - 1]! : 0;
      const columnWas = above !== -1 && trial[above] === DOWN ? before[above]! : 0;
      const along = rows.bestAt(at, rowWas);
      const down = columns.bestAt(at, columnWas);
      trial[place] = along.cost <= down.cost ? ALONG : DOWN;
      before[place] = along.cost <= down.cost ? along.drills : down.drills;

      // The price at which row and column agree; both hold the old one already.
      const preferred = rows.preferenceOn(beforeInRow, at) + columns.preferenceOn(beforeInColumn, at);
      lambda[place]! -= Math.fround(preferred) / 2;
      rows.sendOn(beforeInRow, at, lambda[place]!);
      columns.sendOn(beforeInColumn, at, lambda[place]!);
    }
  }

  passBack(update: boolean): void {
    const { from, to, lambda, rows, columns } = this;
    const { down, left } = this.regions;
    const widest = this.table.bars.length - 1;
    const nobody = (to - from) * widest;
    for (let place = to - 1; place >= from; place--) {
      const at = (place - from) * widest;
      const below = down[place]!;
      const behindInRow = place + 1 < to && left[place + 1] === 1 ? at + widest : nobody;
      const behindInColumn = below === -1 ? nobody : (below - from) * widest;
      const preferred = rows.preferenceBack(behindInRow, at) + columns.preferenceBack(behindInColumn, at);
      if (update) lambda[place]! -= Math.fround(preferred) / 2;
      rows.sendBack(behindInRow, at, lambda[place]!);
      columns.sendBack(behindInColumn, at, lambda[place]!);
    }
  }
}
