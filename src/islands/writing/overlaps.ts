import { type CellRuns, countCells } from '../../core/cells/cellRuns';
import type { Outbox } from './outbox';
import { whenMade } from './waitingStore';

/** What was answered sooner was not made while the server was away. */
const AWAY_MS = 10_000;

/** Drills that were marked here and that others had marked the same way, as marks come back from waiting. */
export class Overlaps {
  private drills = 0;
  private readonly listeners = new Set<() => void>();

  constructor(outbox: Pick<Outbox, 'onAnswer'>, now: () => number = () => Date.now()) {
    outbox.onAnswer((_, answer, __, write) => {
      const asked = (write.body as { runs?: CellRuns } | undefined)?.runs;
      const did = (answer as { runs?: CellRuns } | null)?.runs;
      if (!/\/marks$/.test(write.url) || !asked || !did || now() - whenMade(write) < AWAY_MS) return;
      const same = countCells(asked) - countCells(did);
      if (same <= 0) return;
      this.drills += same;
      this.tell();
    });
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly current = (): number => this.drills;

  /** It was read. */
  forget(): void {
    this.drills = 0;
    this.tell();
  }

  private tell(): void {
    for (const listener of this.listeners) listener();
  }
}
